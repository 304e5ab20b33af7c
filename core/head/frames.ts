/**
 * The clock face of a place: 12 toward the crown; on the scalp toward the face, under the chin toward the chin.
 * Bearings are radians clockwise from 12, as seen by a worker who faces the zone from outside.
 */
import { isBody, zoneStem, type ZoneId } from '../zones/index.ts'

export type Vec3 = readonly [number, number, number]

const CROWN: Vec3 = [0, 112, -20]
const CHIN: Vec3 = [0, -98, 96]
/**
 * Toward the face over the scalp: a fixed direction, chosen so that no place of the front, top, crown or sides faces
 * straight along it, where there would be no 12. The back of the scalp takes "up", which is the same way over the top.
 */
const FACEWARD: Vec3 = [0, 0.3, 0.954]

/** Up out of the fold under the lip, whose shelf looks straight at the crown. */
const UP_FROM_FOLD: Vec3 = [0, 0.95, -0.3]

/** The way to 12 at a point, before it is laid into the skin. */
function noonWay(id: ZoneId, point: Vec3): Vec3 {
  // On a flat outline 12 is up the limb.
  if (isBody(id)) return [0, 1, 0]
  const stem = zoneStem(id)
  if (stem.startsWith('scalp') && stem !== 'scalp-behind-ear') return FACEWARD
  if (stem === 'under-lip') return UP_FROM_FOLD
  const target = stem.startsWith('under-chin') ? CHIN : CROWN
  return [target[0] - point[0], target[1] - point[1], target[2] - point[2]]
}

export function dot(a: Vec3, b: Vec3): number {
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
}

/** Straight distance between two points. */
export function distance(a: Vec3, b: Vec3): number {
  const x = a[0] - b[0]
  const y = a[1] - b[1]
  const z = a[2] - b[2]
  // Many times quicker than hypot, and nothing here comes near its limits.
  return Math.sqrt(x * x + y * y + z * z)
}

/** A place so far along a direction from a point. */
export const plus = (p: Vec3, d: Vec3, t: number): Vec3 => [
  p[0] + t * d[0],
  p[1] + t * d[1],
  p[2] + t * d[2],
]

export const minus = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]]

/** A tangent turned in the skin by an angle, clockwise from outside. */
export function turnedIn(d: Vec3, n: Vec3, angle: number): Vec3 {
  const side = cross(d, n)
  const [c, s] = [Math.cos(angle), Math.sin(angle)]
  return [c * d[0] + s * side[0], c * d[1] + s * side[1], c * d[2] + s * side[2]]
}

export function cross(a: Vec3, b: Vec3): Vec3 {
  return [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]]
}

export function unit(a: Vec3): Vec3 {
  const n = Math.sqrt(dot(a, a)) || 1
  return [a[0] / n, a[1] / n, a[2] / n]
}

/** The part of `v` that lies in the tangent plane of the unit normal `n`. */
export function tangentPart(v: Vec3, n: Vec3): Vec3 {
  const d = dot(v, n)
  return [v[0] - d * n[0], v[1] - d * n[1], v[2] - d * n[2]]
}

/** Unit tangents toward 12 and toward 3 o'clock at a surface point. */
export function clockFrame(id: ZoneId, point: Vec3, normal: Vec3): { noon: Vec3; three: Vec3 } {
  const n = unit(normal)
  let noon = tangentPart(noonWay(id, point), n)
  // Straight under the target there is no way toward it: forward stands in.
  if (Math.hypot(...noon) < 1e-6) noon = tangentPart([0, 0, 1], n)
  noon = unit(noon)
  return { noon, three: cross(noon, n) }
}

/** Bearing of a direction at a place, radians in [0, 2π). The direction need not be tangent. */
export function bearingOf(id: ZoneId, point: Vec3, normal: Vec3, direction: Vec3): number {
  const { noon, three } = clockFrame(id, point, normal)
  const angle = Math.atan2(dot(direction, three), dot(direction, noon))
  return angle < 0 ? angle + 2 * Math.PI : angle
}

/** Unit tangent that points along a bearing at a place. */
export function directionOf(id: ZoneId, point: Vec3, normal: Vec3, bearing: number): Vec3 {
  const { noon, three } = clockFrame(id, point, normal)
  const c = Math.cos(bearing)
  const s = Math.sin(bearing)
  return [c * noon[0] + s * three[0], c * noon[1] + s * three[1], c * noon[2] + s * three[2]]
}
