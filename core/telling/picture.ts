/** The clock of the picture that is shown: 12 is its top, as the eye sees it, whatever the skin beneath is doing. */
import { dot, type Vec3, type ViewAxes } from '../head/index.ts'

/** Seen shorter than this share of its length, a way has no hour: it runs toward the eye or away from it. */
const LEAST_SEEN = 0.3

/**
 * Angle on the screen of an arrow from its first point to its last, radians clockwise from the picture's top; undefined where
 * it runs toward the eye.
 */
export function pictureAngle(axes: ViewAxes, points: readonly Vec3[]): number | undefined {
  const [a, b] = [points[0], points[points.length - 1]]
  if (!a || !b) return undefined
  const d: Vec3 = [b[0] - a[0], b[1] - a[1], b[2] - a[2]]
  const right = dot(d, axes.right)
  const up = dot(d, axes.up)
  if (Math.hypot(right, up) < LEAST_SEEN * Math.hypot(...d)) return undefined
  const angle = Math.atan2(right, up)
  return angle < 0 ? angle + 2 * Math.PI : angle
}

/** The hour of that angle, 1 to 12. */
export function pictureHour(axes: ViewAxes, points: readonly Vec3[]): number | undefined {
  const angle = pictureAngle(axes, points)
  if (angle === undefined) return undefined
  return Math.round((angle * 6) / Math.PI) % 12 || 12
}
