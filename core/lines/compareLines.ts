/** Two lines beside each other: how far they part, and where most. For left against right, and for now against then. */
import { type Vec3, pathLength, type SurfacePoint } from '../head/index.ts'
import { besidePath } from './keepLine.ts'

/** How two lines differ. */
export interface LineDifference {
  /** Mean distance of the first line's points from the second, mm. */
  readonly meanMm: number
  readonly greatestMm: number
  /** Where on the first line that is. */
  readonly where: Vec3
  /** Mean height of the first above the second, mm; negative when it lies lower. */
  readonly heightMm: number
  /** Slope of the first less slope of the second, degrees; positive when it rises more from front to back. */
  readonly angleDeg: number
}

/** Points every so far along a path. */
const EVERY_MM = 1

/** Evenly spaced points along a path, its ends among them. */
export function along(path: readonly SurfacePoint[], everyMm = EVERY_MM): Vec3[] {
  const length = pathLength(path)
  const count = Math.max(1, Math.round(length / everyMm))
  const out: Vec3[] = [path[0]!.point]
  let gone = 0
  let next = length / count
  for (let i = 1; i < path.length; i++) {
    const a = path[i - 1]!.point
    const b = path[i]!.point
    const d = Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2])
    while (out.length < count && gone + d >= next - 1e-9) {
      const t = d === 0 ? 0 : (next - gone) / d
      out.push([a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1]), a[2] + t * (b[2] - a[2])])
      next += length / count
    }
    gone += d
  }
  out.push(path[path.length - 1]!.point)
  return out
}

/** Slope of a line from its front end to its back end, radians. */
function slope(path: readonly SurfacePoint[]): number {
  const ends = [path[0]!.point, path[path.length - 1]!.point]
  const [front, back] = ends[0]![2] >= ends[1]![2] ? ends : [ends[1]!, ends[0]!]
  const run = Math.hypot(front![0] - back![0], front![2] - back![2])
  return Math.atan2(back![1] - front![1], run)
}

/** Compares a line with another on the same side of the head; the other side's line is mirrored first. */
export function compareLines(
  first: readonly SurfacePoint[],
  second: readonly SurfacePoint[],
): LineDifference {
  let sum = 0
  let greatestMm = -1
  let where: Vec3 = first[0]!.point
  let height = 0
  const points = along(first)
  for (const p of points) {
    const { distanceMm, at } = besidePath(second, p)
    sum += distanceMm
    height += p[1] - at[1]
    if (distanceMm > greatestMm) {
      greatestMm = distanceMm
      where = p
    }
  }
  return {
    meanMm: sum / points.length,
    greatestMm,
    where,
    heightMm: height / points.length,
    angleDeg: ((slope(first) - slope(second)) * 180) / Math.PI,
  }
}

/** A path seen in the mirror. */
export function mirrorPath(path: readonly SurfacePoint[]): SurfacePoint[] {
  const flip = (v: Vec3): Vec3 => [-v[0], v[1], v[2]]
  return path.map((p) => ({ point: flip(p.point), normal: flip(p.normal) }))
}
