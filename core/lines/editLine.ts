/** Keep-lines and outlines while they are edited: begun, led on, moved, mirrored, recalled. Whatever changes a line's way dates it anew. */
import type { SurfacePoint, Vec3 } from '../head/index.ts'
import { isSkin, type ZoneId } from '../zones/index.ts'
import { lineSide, mirrorLine, type KeepLine, type LineKind, type LineTap } from './keepLine.ts'

type Line = Pick<KeepLine, 'kind' | 'taps' | 'candidate'>

/** What is drawn through places: a line, an outline. Whatever changes its way dates it anew. */
interface Drawn {
  readonly taps: readonly LineTap[]
  readonly drawnAtMs: number
}

const tapOf = ({ zoneId, point, normal }: LineTap): LineTap => ({ zoneId, point, normal })

/** True where a line can be tapped. */
export const takesTaps = (at: { readonly zoneId: ZoneId }): boolean => isSkin(at.zoneId)

/** A line of one point. */
export const beginLine = (id: string, kind: LineKind, tap: LineTap, atMs: number): KeepLine => ({
  ...{ id, kind, keep: 'left' },
  drawnAtMs: atMs,
  taps: [tapOf(tap)],
})

/** A line led on to one more point. */
export const leadOn = <L extends Drawn>(line: L, tap: LineTap, atMs: number): L => ({
  ...line,
  taps: [...line.taps, tapOf(tap)],
  drawnAtMs: atMs,
})

/** A line with one of its points elsewhere; as it is where there is no such point, or no skin. */
export function movePoint<L extends Drawn>(line: L, index: number, to: LineTap, atMs: number): L {
  if (!line.taps[index] || !takesTaps(to)) return line
  return {
    ...line,
    taps: line.taps.map((t, i) => (i === index ? tapOf(to) : t)),
    drawnAtMs: atMs,
  }
}

/**
 * A line with one of its points moved a little way over the skin.
 * @param by mm in head directions
 * @param nearest the place of the skin nearest to a point
 */
export function nudgePoint<L extends Drawn>(
  line: L,
  index: number,
  by: Vec3,
  nearest: (point: Vec3) => SurfacePoint & { readonly zoneId: ZoneId },
  atMs: number,
): L {
  const tap = line.taps[index]
  if (!tap) return line
  const [x, y, z] = tap.point
  return movePoint(line, index, nearest([x + by[0], y + by[1], z + by[2]]), atMs)
}

/** A line without one of its points; undefined when none is left. */
export function dropPoint<L extends Drawn>(line: L, index: number, atMs: number): L | undefined {
  const taps = line.taps.filter((_, i) => i !== index)
  return taps.length === 0 ? undefined : { ...line, taps, drawnAtMs: atMs }
}

const sameLine = (a: Line, b: Line) =>
  a.kind === b.kind && lineSide(a) === lineSide(b) && a.candidate === b.candidate

/** The lines with the mirror of one of them, in the place of what was there; undefined for a line of the middle. */
export function withMirror(
  lines: readonly KeepLine[],
  line: KeepLine,
  id: string,
  atMs: number,
): { readonly lines: KeepLine[]; readonly made: KeepLine } | undefined {
  if (lineSide(line) === 'middle') return undefined
  const made = mirrorLine(line, id, atMs)
  return { lines: [...lines.filter((l) => !sameLine(l, made)), made], made }
}

/** Lines of the visit before that have none of their kind and side now. */
export const missingLines = (
  lines: readonly KeepLine[],
  before: readonly KeepLine[],
): readonly KeepLine[] => before.filter((b) => !lines.some((l) => sameLine(l, b)))

/** True where an earlier line is the one that is looked at, to be drawn beside it. */
export const isEarlierOf = (earlier: Line, line: Line | undefined): boolean =>
  line !== undefined && sameLine(earlier, line)
