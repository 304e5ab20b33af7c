/**
 * What a line on a picture says of hair: the hair lies in the plane of the line and the camera. A hair that leaves the skin at a lift
 * does not lie along the skin, so that one picture leaves two directions that are not opposite; two pictures tell which of them it is,
 * and how steeply the hair stands. Lines are of dark stubble: which end is the root is told by the two planes alone.
 */
import { cross, dot, unit, type Vec3 } from '../head/index.ts'
import { type Pose, rotated, type Rotation } from './camera.ts'

const RAD = Math.PI / 180

/** Skin with the two directions that its bearings are told by. */
export interface SkinFrame {
  readonly a: Vec3
  readonly b: Vec3
  readonly normal: Vec3
}

/** A line seen at a place of the skin. */
export interface SeenLine {
  /** Of the plane that holds the hair: unit, head coordinates. */
  readonly plane: Vec3
  /** From the camera to the skin: unit, head coordinates. */
  readonly view: Vec3
  /** How far the line may be off, degrees. */
  readonly sd: number
}

const back = (r: Rotation, v: Vec3): Vec3 => [
  r[0][0] * v[0] + r[1][0] * v[1] + r[2][0] * v[2],
  r[0][1] * v[0] + r[1][1] * v[1] + r[2][1] * v[2],
  r[0][2] * v[0] + r[1][2] * v[1] + r[2][2] * v[2],
]

/**
 * @param at on the picture, px
 * @param degrees of the line, from right towards down
 */
export function seenLine(
  pose: Pose,
  at: readonly [number, number],
  degrees: number,
  sd: number,
): SeenLine {
  const ray: Vec3 = [
    (at[0] - pose.centre[0]) / pose.focal,
    (at[1] - pose.centre[1]) / pose.focal,
    1,
  ]
  const along: Vec3 = [Math.cos(degrees * RAD), Math.sin(degrees * RAD), 0]
  return {
    plane: back(pose.rotation, unit(cross(ray, along))),
    view: back(pose.rotation, unit(ray)),
    sd,
  }
}

/** The line that a hair makes on a picture, degrees from right towards down, 0 to 180. */
export function lineOf(pose: Pose, at: readonly [number, number], hair: Vec3): number {
  const h = rotated(pose.rotation, hair)
  const [x, y] = [(at[0] - pose.centre[0]) / pose.focal, (at[1] - pose.centre[1]) / pose.focal]
  const degrees = Math.atan2(h[1] - y * h[2], h[0] - x * h[2]) / RAD
  return ((degrees % 180) + 180) % 180
}

/** A hair by its bearing along the skin and its lift off it, degrees: root to tip. */
export function hairAlong({ a, b, normal }: SkinFrame, bearing: number, lift: number): Vec3 {
  const [c, s] = [Math.cos(lift * RAD), Math.sin(lift * RAD)]
  const [u, v] = [c * Math.cos(bearing * RAD), c * Math.sin(bearing * RAD)]
  return [
    u * a[0] + v * b[0] + s * normal[0],
    u * a[1] + v * b[1] + s * normal[1],
    u * a[2] + v * b[2] + s * normal[2],
  ]
}

/** The bearings that one picture leaves for a lift, degrees; none where no hair of that lift makes such a line. */
export function bearingsOf(line: Pick<SeenLine, 'plane'>, skin: SkinFrame, lift: number): number[] {
  const [x, y, z] = [skin.a, skin.b, skin.normal].map((v) => dot(line.plane, v)) as [
    ...[number, number, number],
  ]
  const across = Math.hypot(x, y)
  const cos = (-Math.tan(lift * RAD) * z) / across
  if (!(across > 1e-9) || Math.abs(cos) > 1) return []
  const middle = Math.atan2(y, x)
  const half = Math.acos(cos)
  return [middle + half, middle - half].map((r) => (((r / RAD) % 360) + 360) % 360)
}

export interface LiftPrior {
  readonly lift: number
  readonly sd: number
}

export interface HairFound {
  readonly bearing: number
  readonly lift: number
  /** How much worse the best that points elsewhere is: above 6 the root end is sure. */
  readonly margin: number
  /** The bearing of that other one. */
  readonly other: number
}

const STEP = 2
const LIFTS = { from: 2, to: 70 } as const
/** A bearing so far off is another end, degrees. */
const ELSEWHERE = 70
/** Beyond so many spreads a line says no more than that it is wrong. */
const CAUCHY = 3

/** How badly a hair agrees with what was seen. */
export function misfit(
  lines: readonly SeenLine[],
  hair: Vec3,
  lift: number,
  prior: LiftPrior,
): number {
  let cost = ((lift - prior.lift) / prior.sd) ** 2
  for (const { plane, view, sd } of lines) {
    const short = Math.sqrt(Math.max(1e-6, 1 - dot(hair, view) ** 2))
    const off = Math.asin(Math.max(-1, Math.min(1, dot(plane, hair) / short))) / RAD / sd
    cost += CAUCHY ** 2 * Math.log1p((off / CAUCHY) ** 2)
  }
  return cost
}

/** The hair that agrees best with all lines seen at a place, and how sure it is that it does not point elsewhere. */
export function hairOf(lines: readonly SeenLine[], skin: SkinFrame, prior: LiftPrior): HairFound {
  const at = (bearing: number) => {
    let best = { cost: Infinity, lift: prior.lift }
    for (let lift = LIFTS.from; lift <= LIFTS.to; lift += STEP) {
      const cost = misfit(lines, hairAlong(skin, bearing, lift), lift, prior)
      if (cost < best.cost) best = { cost, lift }
    }
    return best
  }
  const all = Array.from({ length: 360 / STEP }, (_, i) => ({ bearing: STEP * i, ...at(STEP * i) }))
  const best = all.reduce((m, x) => (x.cost < m.cost ? x : m))
  const apart = (x: number, y: number) => Math.abs(((x - y + 540) % 360) - 180)
  const other = all
    .filter((x) => apart(x.bearing, best.bearing) >= ELSEWHERE)
    .reduce((m, x) => (x.cost < m.cost ? x : m))
  return {
    ...refined(lines, skin, prior, best),
    margin: other.cost - best.cost,
    other: other.bearing,
  }
}

/** Between the steps of the grid: smaller and smaller steps, downhill. */
function refined(
  lines: readonly SeenLine[],
  skin: SkinFrame,
  prior: LiftPrior,
  from: { readonly bearing: number; readonly lift: number; readonly cost: number },
): { bearing: number; lift: number } {
  let { bearing, lift, cost } = from
  for (let step = STEP / 2; step > 0.02;) {
    const near = [
      [bearing + step, lift],
      [bearing - step, lift],
      [bearing, lift + step],
      [bearing, lift - step],
    ] as const
    const better = near
      .map(([b, l]) => ({ b, l, cost: misfit(lines, hairAlong(skin, b, l), l, prior) }))
      .reduce((m, x) => (x.cost < m.cost ? x : m))
    if (better.cost < cost) ({ b: bearing, l: lift, cost } = better)
    else step /= 2
  }
  return { bearing: (bearing + 360) % 360, lift }
}
