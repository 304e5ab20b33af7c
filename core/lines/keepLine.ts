/** Keep-lines: borders drawn over the skin, on one side of which hair is kept. */
import {
  cross,
  dot,
  type Vec3,
  shortestPath,
  type PathPoint,
  type Surface,
  type SurfacePoint,
} from '../head/index.ts'
import { mirrorZone, type ZoneId } from '../zones/index.ts'
import { constant } from '../house/index.ts'
import type { Candidate, LineMove } from './moveLine.ts'

export const LINE_CONSTANTS = {
  reachMm: constant(60, 'mm', 'A keep-line parts a zone no farther than this from itself', 'H'),
} as const

export const LINE_KINDS = [
  'hairline',
  'brow',
  'brow-under',
  'sideburn',
  'cheek',
  'neck',
  'moustache',
  'nape',
] as const
export type LineKind = (typeof LINE_KINDS)[number]

export const LINE_WORDS: Readonly<Record<LineKind, string>> = {
  hairline: 'hairline',
  brow: 'brow’s upper edge',
  'brow-under': 'brow’s lower edge',
  sideburn: 'sideburn',
  cheek: 'cheek line',
  neck: 'neck line',
  moustache: 'moustache line',
  nape: 'nape line',
}

/** Which half of the head a line lies on; a line may cross the middle. */
export type LineSide = 'left' | 'right' | 'middle'

/** A place the line is drawn through. */
export interface LineTap extends SurfacePoint {
  readonly zoneId: ZoneId
}

/** A line over the skin. It runs the shortest way between its taps. */
export interface KeepLine {
  readonly id: string
  readonly kind: LineKind
  readonly taps: readonly LineTap[]
  /** Side on which hair is kept, along the line as seen from outside. */
  readonly keep: 'left' | 'right'
  readonly drawnAtMs: number
  /** Only thought of: one of two that the client chooses between. */
  readonly candidate?: Candidate | undefined
  /** On its way to where it is wanted, a step at each visit. */
  readonly move?: LineMove | undefined
}

/** The side of the client's head that a line lies on. */
export function lineSide(line: Pick<KeepLine, 'taps'>): LineSide {
  const left = line.taps.some((t) => t.point[0] > 4)
  const right = line.taps.some((t) => t.point[0] < -4)
  return left === right ? 'middle' : left ? 'left' : 'right'
}

/** "cheek line, client's left". */
export function lineName(line: Pick<KeepLine, 'kind' | 'taps'>): string {
  const side = lineSide(line)
  return side === 'middle' ? LINE_WORDS[line.kind] : `${LINE_WORDS[line.kind]}, client’s ${side}`
}

/** The whole line over the surface. */
export function linePath(surface: Surface, line: Pick<KeepLine, 'taps'>): PathPoint[] {
  const path: PathPoint[] = []
  for (let i = 1; i < line.taps.length; i++) {
    const piece = shortestPath(surface, line.taps[i - 1]!.point, line.taps[i]!.point)
    path.push(...(i === 1 ? piece : piece.slice(1)))
  }
  return path
}

/** The line on the other side of the head; what was left of it is then right. */
export function mirrorLine(line: KeepLine, id: string, atMs: number): KeepLine {
  // 0 − x, so that the middle stays 0 and does not become −0.
  const flip = (v: Vec3): Vec3 => [0 - v[0], v[1], v[2]]
  const mirrored = (taps: readonly LineTap[]) =>
    taps.map((t) => ({
      zoneId: mirrorZone(t.zoneId),
      point: flip(t.point),
      normal: flip(t.normal),
    }))
  const { move } = line
  return {
    ...line,
    id,
    drawnAtMs: atMs,
    keep: line.keep === 'left' ? 'right' : 'left',
    taps: mirrored(line.taps),
    ...(move && { move: { ...move, from: mirrored(move.from), to: mirrored(move.to) } }),
  }
}

/** The nearest place of a path to a point: how far, on which side of the path the point lies, how far to its left, and whether past an end. */
export function besidePath(
  path: readonly SurfacePoint[],
  point: Vec3,
): { distanceMm: number; side: 'left' | 'right'; leftMm: number; at: Vec3; beyond: boolean } {
  let best = Infinity
  let beyond = false
  let leftMm = 0
  let where: Vec3 = path[0]!.point
  for (let i = 1; i < path.length; i++) {
    const a = path[i - 1]!.point
    const b = path[i]!.point
    const d: Vec3 = [b[0] - a[0], b[1] - a[1], b[2] - a[2]]
    const length2 = dot(d, d)
    if (length2 === 0) continue
    const q: Vec3 = [point[0] - a[0], point[1] - a[1], point[2] - a[2]]
    const t = Math.max(0, Math.min(1, dot(q, d) / length2))
    const off: Vec3 = [q[0] - t * d[0], q[1] - t * d[1], q[2] - t * d[2]]
    const distance = Math.hypot(...off)
    if (distance >= best) continue
    best = distance
    // Past an end of the path, not beside it.
    beyond = (i === 1 && t === 0) || (i === path.length - 1 && t === 1)
    where = [a[0] + t * d[0], a[1] + t * d[1], a[2] + t * d[2]]
    leftMm = dot(cross(path[i]!.normal, d), off) / Math.sqrt(length2)
  }
  return { distanceMm: best, side: leftMm >= 0 ? 'left' : 'right', leftMm, at: where, beyond }
}
