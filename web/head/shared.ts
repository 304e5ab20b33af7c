/** What the WebGL head and the flat head have in common. */
import type { ViewAxes } from '../../core/head/projection.ts'
import { projectPoint } from '../../core/head/projection.ts'
import type { Vec3 } from '../../core/head/frames.ts'
import type { Relation } from '../../core/grain/relation.ts'
import type { ZoneId } from '../../core/head/zones.ts'

export interface HeadColours {
  readonly plaster: string
  readonly shade: string
  readonly border: string
  readonly hair: string
  readonly chosen: string
}

export const HEAD_LIGHT: HeadColours = {
  plaster: '#f2e6d0',
  shade: '#b59f83',
  border: '#17323B',
  hair: '#0D4656',
  chosen: '#B0432C',
}

export const HEAD_LAMP: HeadColours = {
  plaster: '#a39b8c',
  shade: '#4c473f',
  border: '#0a1114',
  hair: '#0a2b35',
  chosen: '#a8341c',
}

/** A wash of colour over a zone. */
export interface ZoneTint {
  readonly zoneId: ZoneId
  readonly colour: string
  readonly opacity: number
}

/** An arrow on the surface. */
export interface HeadArrow {
  readonly id: string
  readonly zoneId: ZoneId
  readonly point: Vec3
  readonly normal: Vec3
  /** Unit tangent. */
  readonly direction: Vec3
  readonly kind: Relation | 'pull'
  readonly lengthMm: number
}

/** A figure written on a zone. */
export interface HeadLabel {
  readonly id: string
  readonly point: Vec3
  readonly text: string
}

/** A round mark on the skin. */
export interface HeadSpot {
  readonly id: string
  readonly point: Vec3
  readonly normal: Vec3
  readonly radiusMm: number
  readonly name: string
}

/** Height that the whole head takes, mm, with a little air. */
const WHOLE_MM = 352
const WHOLE_WIDE_MM = 250

/** Pixels per millimetre in a view. */
export function viewScale(size: { width: number; height: number }, zoom: number): number {
  return Math.min(size.height / WHOLE_MM, size.width / WHOLE_WIDE_MM) * zoom
}

/** Pixel position of a point of the head. */
export function toPixels(
  axes: ViewAxes,
  size: { width: number; height: number },
  scale: number,
  p: Vec3,
): { x: number; y: number } {
  const [right, up] = projectPoint(axes, p)
  return { x: size.width / 2 + right * scale, y: size.height / 2 - up * scale }
}

/** True where a surface faces the viewer. */
export function faces(axes: ViewAxes, normal: Vec3, least = 0.12): boolean {
  return (
    axes.toward[0] * normal[0] + axes.toward[1] * normal[1] + axes.toward[2] * normal[2] > least
  )
}
