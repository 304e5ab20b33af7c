/** What the WebGL head and the flat head have in common. */
import { HEAD_BY_DAY, HEAD_BY_LAMP } from '../../core/palette.ts'
import {
  plus,
  type ViewAxes,
  projectPoint,
  type Vec3,
  type SurfacePoint,
} from '../../core/head/index.ts'
import type { FieldReading, Relation } from '../../core/grain/index.ts'
import type { SpotKind } from '../../core/looks/index.ts'
import type { ZoneId } from '../../core/zones/index.ts'

export type HeadColours = Record<keyof typeof HEAD_BY_DAY, string>
export const HEAD_LIGHT: HeadColours = HEAD_BY_DAY
export const HEAD_LAMP: HeadColours = HEAD_BY_LAMP

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
  /** The way that it takes over the skin, where that is not straight. */
  readonly path?: readonly Vec3[] | undefined
}

/** The ends of an arrow, or every point of its way. */
export const arrowPoints = ({ point, direction, lengthMm, path }: HeadArrow): readonly Vec3[] => {
  if (path && path.length > 1) return path
  return [plus(point, direction, -lengthMm / 2), plus(point, direction, lengthMm / 2)]
}

/** A figure written on a zone. */
export interface HeadLabel {
  readonly id: string
  readonly point: Vec3
  readonly text: string
}

/** A mark on the skin: a disc, or a patch painted with one. */
export interface HeadSpot {
  readonly id: string
  readonly point: Vec3
  readonly normal: Vec3
  readonly radiusMm: number
  readonly name: string
  /** Places the brush passed over, the first being the point itself. */
  readonly trail?: readonly SurfacePoint[] | undefined
  /** Left out round it, mm. */
  readonly marginMm?: number | undefined
  /** Drawn as an outline: asked about, not yet answered, or only to be tweezed. */
  readonly light?: boolean
}

/** A bump, an ingrown hair, a pustule or a dark mark on the skin; an earlier one is drawn open. */
export interface HeadMark {
  readonly id: string
  readonly point: Vec3
  readonly normal: Vec3
  readonly kind: SpotKind
  readonly earlier?: boolean
}

/** The doubt of a guided test, drawn as a ring on the skin. */
export interface HeadRing {
  readonly zoneId: ZoneId
  readonly point: Vec3
  readonly normal: Vec3
  /** Probability of each bearing, evenly spaced from 12 clockwise. */
  readonly odds: readonly number[]
  /** Bearing in which to draw now. */
  readonly stroke?: number
  /** Bearing found so far. */
  readonly found?: number
}

/** A line over the surface. */
export interface HeadLine {
  readonly id: string
  readonly path: readonly SurfacePoint[]
  readonly look: 'keep' | 'chosen' | 'before' | 'outline' | 'candidate'
  /** Written beyond one of its ends. */
  readonly name?: { readonly text: string; readonly at: 'start' | 'end' } | undefined
  /** Side on which hair is kept, seen along the line. */
  readonly keep?: 'left' | 'right' | undefined
}

/** Something that can be taken hold of and dragged. */
export interface HeadHandle {
  readonly id: string
  readonly point: Vec3
  readonly normal: Vec3
  readonly chosen?: boolean
  /** Can be dragged; else it can only be tapped, and a stroke may begin on it. */
  readonly grips?: boolean
  /** With a direction it is drawn as a hair, else as a dot. */
  readonly direction?: Vec3
}

/** A field to draw as hair. */
export interface HeadFlow {
  readonly readings: readonly FieldReading[]
  readonly reversed?: boolean
  readonly guesses?: boolean
  readonly faint?: ReadonlySet<string>
  /** Drawn in the colour of a stroke instead of that of hair. */
  readonly tone?: 'hair' | 'stroke' | 'rub'
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
