/** What is told of a line: which side of it is kept, and how it differs from another. */
import { cross, type SurfacePoint, type Vec3 } from '../head/index.ts'
import type { LineDifference } from './compareLines.ts'

/** Differences below these are none that a hand could cut to. */
const SAME_MM = 0.05
const SAME_DEG = 0.5

/**
 * Where a side of a line lies: "above" or "below" where the line runs level, else "in front" or "behind", "outside" or "inside".
 * @param side seen along the line from its first point
 */
export function keptSideWords(
  path: readonly SurfacePoint[] | undefined,
  side: 'left' | 'right',
): string {
  if (!path || path.length < 2) return `its ${side}`
  const a = path[0]!.point
  const b = path[path.length - 1]!.point
  const d: Vec3 = [b[0] - a[0], b[1] - a[1], b[2] - a[2]]
  const middle = path[path.length >> 1]!
  const left = cross(middle.normal, d)
  const s = side === 'left' ? 1 : -1
  const size = Math.hypot(...left) || 1
  if (Math.abs(left[1]) > 0.5 * size) return s * left[1] > 0 ? 'above' : 'below'
  if (Math.abs(left[2]) > Math.abs(left[0])) return s * left[2] > 0 ? 'in front' : 'behind'
  // Off to a side: toward the middle of the face or away from it.
  return s * left[0] * (middle.point[0] || 1) > 0 ? 'outside' : 'inside'
}

const mm = (x: number) => `${x.toFixed(1)} mm`

/**
 * How a line differs from another, in a sentence's end.
 * @param where a place in words
 * @param than what it is compared with
 */
export function differenceWords(
  d: LineDifference,
  where: (p: Vec3) => string,
  than: string,
): string {
  if (d.greatestMm < SAME_MM) return `the same as ${than}`
  const height =
    Math.abs(d.heightMm) < SAME_MM
      ? 'as high'
      : `${mm(Math.abs(d.heightMm))} ${d.heightMm > 0 ? 'higher' : 'lower'}`
  const angle =
    Math.abs(d.angleDeg) < SAME_DEG
      ? 'same slope'
      : `${Math.abs(d.angleDeg).toFixed(0)}° ${d.angleDeg > 0 ? 'steeper' : 'flatter'} toward the back`
  return `${mm(d.meanMm)} on average, ${mm(d.greatestMm)} at most (${where(d.where)}); ${height}, ${angle}`
}
