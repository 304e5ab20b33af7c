/**
 * From where a picture was taken: rotation, place and focal length out of named landmarks, by Levenberg–Marquardt (Marquardt 1963; from
 * memory) with analytic derivatives. Each landmark is weighed by how well it was tapped and by how far a face may differ from the
 * head's. A landmark that does not belong is found by leaving each out.
 */
import type { Vec3 } from '../head/index.ts'
import { cholesky, solveCholesky } from '../stats/index.ts'
import {
  inCamera,
  lookingFrom,
  onPicture,
  type Pose,
  product,
  rotated,
  rotationOf,
} from './camera.ts'

/** A landmark that was tapped on the picture. */
export interface Tapped {
  readonly name: string
  /** On the head, mm. */
  readonly point: Vec3
  /** On the picture, px. */
  readonly at: readonly [number, number]
}

export interface PoseWish {
  readonly width: number
  readonly height: number
  /** Of the camera, px; a usual one when nothing tells. */
  readonly focal?: number | undefined
  /** How far taps lie off, px. */
  readonly tapPx?: number
  /** How far the places of a face lie off the head's, mm. */
  readonly faceMm?: number
}

export interface PoseFit {
  readonly pose: Pose
  /** χ² of the landmarks, and how many pieces of knowledge are left over. */
  readonly cost: number
  readonly free: number
}

/** Of the width of a picture: a usual telephone's. */
const USUAL_FOCAL = 0.72
/** How well log f is known: by nothing, and by what the camera has written down. */
const FOCAL_SD = { usual: 0.25, told: 0.03 } as const
const STARTS_DEG = [0, 50, -50] as const
const UNKNOWNS = 7
const MOST_ROUNDS = 60

/** @throws RangeError for fewer than four landmarks */
export function fitPose(tapped: readonly Tapped[], wish: PoseWish): PoseFit {
  if (tapped.length < 4) throw new RangeError('A pose needs four landmarks.')
  const fits = STARTS_DEG.map((yaw) => refine(startFrom(tapped, wish, yaw), tapped, wish))
  return fits.reduce((best, fit) => (fit.cost < best.cost ? fit : best))
}

const focalOf = ({ focal, width, height }: PoseWish) =>
  focal ?? USUAL_FOCAL * Math.max(width, height)

/** Seen from a side: roll, size and place by the likeness that fits best (Umeyama 1991; from memory). */
function startFrom(tapped: readonly Tapped[], wish: PoseWish, yawDeg: number): Pose {
  const view = lookingFrom(yawDeg)
  const flat = tapped.map((t) => rotated(view, t.point))
  const n = tapped.length
  const mean = (of: (i: number) => number) => {
    let s = 0
    for (let i = 0; i < n; i++) s += of(i)
    return s / n
  }
  const [mx, my] = [mean((i) => flat[i]![0]), mean((i) => flat[i]![1])]
  const [mu, mv] = [mean((i) => tapped[i]!.at[0]), mean((i) => tapped[i]!.at[1])]
  let [along, across, size] = [0, 0, 0]
  for (let i = 0; i < n; i++) {
    const [x, y] = [flat[i]![0] - mx, flat[i]![1] - my]
    const [u, v] = [tapped[i]!.at[0] - mu, tapped[i]!.at[1] - mv]
    along += x * u + y * v
    across += x * v - y * u
    size += x * x + y * y
  }
  const scale = Math.max(1e-3, Math.hypot(along, across) / size)
  const roll = Math.atan2(across, along)
  const rotation = product(rotationOf([0, 0, roll]), view)
  const focal = focalOf(wish)
  const centre = [wish.width / 2, wish.height / 2] as const
  const depth = focal / scale
  const middle = rotated(rotation, [
    mean((i) => tapped[i]!.point[0]),
    mean((i) => tapped[i]!.point[1]),
    mean((i) => tapped[i]!.point[2]),
  ])
  return {
    ...{ rotation, focal, centre },
    shift: [
      ((mu - centre[0]) * depth) / focal - middle[0],
      ((mv - centre[1]) * depth) / focal - middle[1],
      depth - middle[2],
    ],
  }
}

/** What a landmark may be off on the picture, px: by the tap, and by the face. */
function sdOf(pose: Pose, t: Tapped, { tapPx = 2, faceMm = 0 }: PoseWish): number {
  const z = Math.max(1, inCamera(pose, t.point)[2])
  return Math.hypot(tapPx, (faceMm * pose.focal) / z)
}

/** Residuals in units of their spread, the prior of the focal length last; Infinity where something lies behind the camera. */
function costOf(pose: Pose, tapped: readonly Tapped[], wish: PoseWish): number {
  let cost = 0
  for (const t of tapped) {
    const at = onPicture(pose, t.point)
    if (!at) return Infinity
    const sd = sdOf(pose, t, wish)
    cost += ((t.at[0] - at[0]) / sd) ** 2 + ((t.at[1] - at[1]) / sd) ** 2
  }
  return cost + focalPull(pose, wish) ** 2
}

const focalPull = (pose: Pose, wish: PoseWish): number =>
  Math.log(pose.focal / focalOf(wish)) / (wish.focal === undefined ? FOCAL_SD.usual : FOCAL_SD.told)

function refine(start: Pose, tapped: readonly Tapped[], wish: PoseWish): PoseFit {
  let pose = start
  let cost = costOf(pose, tapped, wish)
  let damping = 1e-3
  for (let round = 0; round < MOST_ROUNDS && damping < 1e9; round++) {
    const { normal, gradient } = linearised(pose, tapped, wish)
    const step = solved(normal, gradient, damping)
    const next = step && moved(pose, step)
    const then = next ? costOf(next, tapped, wish) : Infinity
    if (!next || !(then < cost)) {
      damping *= 8
      continue
    }
    const gain = cost - then
    pose = next
    cost = then
    damping = Math.max(1e-9, damping / 6)
    if (gain < 1e-9 * (1 + cost)) break
  }
  return { pose, cost, free: 2 * tapped.length + 1 - UNKNOWNS }
}

/** Turned, shifted and zoomed by a small step: the rotation from the left, log f. */
function moved(pose: Pose, d: Float64Array): Pose {
  const { shift } = pose
  return {
    ...pose,
    rotation: product(rotationOf([d[0]!, d[1]!, d[2]!]), pose.rotation),
    shift: [shift[0] + d[3]!, shift[1] + d[4]!, shift[2] + d[5]!],
    focal: pose.focal * Math.exp(Math.max(-1, Math.min(1, d[6]!))),
  }
}

/** The normal equations of a step. */
function linearised(pose: Pose, tapped: readonly Tapped[], wish: PoseWish) {
  const normal = new Float64Array(UNKNOWNS * UNKNOWNS)
  const gradient = new Float64Array(UNKNOWNS)
  const row = new Float64Array(UNKNOWNS)
  const add = (residual: number) => {
    for (let i = 0; i < UNKNOWNS; i++) {
      gradient[i]! += row[i]! * residual
      for (let k = 0; k < UNKNOWNS; k++) normal[i * UNKNOWNS + k]! += row[i]! * row[k]!
    }
  }
  const { focal, centre } = pose
  for (const t of tapped) {
    const q = rotated(pose.rotation, t.point)
    const [x, y, z] = [q[0] + pose.shift[0], q[1] + pose.shift[1], q[2] + pose.shift[2]]
    const sd = sdOf(pose, t, wish)
    const k = focal / z / sd
    // Of a place that is turned about the axes of the camera: ω × q.
    row.set([
      ...[(-k * x * q[1]) / z, k * (q[2] + (x * q[0]) / z), -k * q[1]],
      ...[k, 0, (-k * x) / z, k * x],
    ])
    add((t.at[0] - centre[0]) / sd - k * x)
    row.set([
      ...[-k * (q[2] + (y * q[1]) / z), (k * y * q[0]) / z, k * q[0]],
      ...[0, k, (-k * y) / z, k * y],
    ])
    add((t.at[1] - centre[1]) / sd - k * y)
  }
  row.fill(0)
  row[6] = 1 / (wish.focal === undefined ? FOCAL_SD.usual : FOCAL_SD.told)
  add(-focalPull(pose, wish))
  return { normal, gradient }
}

/** A step of the damped normal equations; undefined where they are not positive. */
function solved(normal: Float64Array, gradient: Float64Array, damping: number) {
  const damped = Float64Array.from(normal)
  for (let i = 0; i < UNKNOWNS; i++) damped[i * UNKNOWNS + i]! *= 1 + damping
  const lower = cholesky(damped, UNKNOWNS)
  return lower && solveCholesky(lower, gradient, UNKNOWNS)
}

/** By how much χ² must fall without a landmark, and how large it must have been, for that one to be named. */
const FALLS = 20
const wasLarge = (cost: number, landmarks: number) => cost > 14 + 1.5 * (2 * landmarks - 6)

/** The landmark that does not belong to the others; undefined where all do, or too few are left to tell. */
export function wrongLandmark(
  fit: PoseFit,
  tapped: readonly Tapped[],
  wish: PoseWish,
): { readonly index: number; readonly without: PoseFit } | undefined {
  if (tapped.length < 6 || !wasLarge(fit.cost, tapped.length)) return undefined
  let best: { index: number; without: PoseFit } | undefined
  for (let index = 0; index < tapped.length; index++) {
    const others = tapped.filter((_, i) => i !== index)
    const without = refine(fit.pose, others, wish)
    if (!best || without.cost < best.without.cost) best = { index, without }
  }
  return best && fit.cost - best.without.cost > FALLS ? best : undefined
}
