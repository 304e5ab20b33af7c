/** The stroke of a press: a field that turns evenly over its mean plane, θ = θ₀ + ax + by, fitted to the growth under it. */
import { angleBetween, toRadians, wrapHalf } from '../grain/index.ts'
import { clockFrame, cross, dot, tangentPart, unit, type Vec3 } from '../head/index.ts'
import { PlaneFit } from './planeFit.ts'
import { vec, type Blocks } from './pressBlocks.ts'
import { carryDirection, type ZoneSkin } from './skin.ts'

/** Residuals beyond this count less and less in the fit of a stroke field, radians (Huber). */
const HUBER = toRadians(30)
const ROUNDS = 4
/** The slope of a field is drawn to nothing as if by its whole area at this distance, mm. */
const RIDGE_MM = 2

/** A press: where it lies and how its stroke with the grain runs. */
export interface Press {
  /** `a`, `b`, … in the order of zones. */
  readonly id: string
  readonly areaCm2: number
  /** Share of it whose growth lies outside the tolerance. */
  readonly stray: number
  /** How far the stroke turns from one end to the other, degrees. */
  readonly turnDeg: number
  readonly origin: Vec3
  /** Unit normal and axes of its mean plane. */
  readonly normal: Vec3
  readonly right: Vec3
  readonly up: Vec3
  /** Radians clockwise from `up` at the origin, and the turn per mm along `right` and `up`. */
  readonly field: readonly [number, number, number]
}
/** What a press may be. */
export interface Limits {
  readonly tolerance: number
  readonly mostCm2: number
  readonly mayStray: number
  readonly mostTurn: number
  readonly mostBend: number
}
/** A field with how well it is kept. */
export interface Fit {
  readonly area: number
  readonly stray: number
  readonly turn: number
  readonly origin: Vec3
  readonly normal: Vec3
  readonly right: Vec3
  readonly up: Vec3
  readonly field: readonly [number, number, number]
}
/** Axes of a plane: up along the head, or forward where the plane lies level. */
function planeAxes(n: Vec3): { up: Vec3; right: Vec3 } {
  let up = tangentPart([0, 1, 0], n)
  if (Math.hypot(...up) < 0.3) up = tangentPart([0, 0, 1], n)
  const u = unit(up)
  return { up: u, right: cross(u, n) }
}

/** Room for the way and the place on the plane of every block of a press; it grows as it must. */
let place = new Float64Array(3 * 4096)

/** Fits the stroke field of some blocks. */
export function fitOf(b: Blocks, list: readonly number[], limits: Limits): Fit {
  const n = list.length
  if (3 * n > place.length) place = new Float64Array(6 * n)
  let area = 0
  const o = [0, 0, 0]
  const s = [0, 0, 0]
  for (const i of list) {
    const a = b.area[i]!
    area += a
    for (let k = 0; k < 3; k++) {
      o[k]! += a * b.middle[3 * i + k]!
      s[k]! += a * b.normal[3 * i + k]!
    }
  }
  const origin: Vec3 = [o[0]! / area, o[1]! / area, o[2]! / area]
  const normal = unit(s as unknown as Vec3)
  const { up, right } = planeAxes(normal)
  let mx = 0
  let my = 0
  // Place on the plane and way laid flat onto it, of each block.
  for (let j = 0; j < n; j++) {
    const i = list[j]!
    const angle = flatAngle(b, i, normal, right, up)
    place[3 * j] = angle
    const dx = b.middle[3 * i]! - origin[0]
    const dy = b.middle[3 * i + 1]! - origin[1]
    const dz = b.middle[3 * i + 2]! - origin[2]
    place[3 * j + 1] = dx * right[0] + dy * right[1] + dz * right[2]
    place[3 * j + 2] = dx * up[0] + dy * up[1] + dz * up[2]
    mx += b.area[i]! * Math.cos(angle)
    my += b.area[i]! * Math.sin(angle)
  }
  const mean = Math.atan2(my, mx)
  // From here on the way of each block is told from their mean.
  for (let k = 0; k < n; k++) place[3 * k] = brief(place[3 * k]! - mean)
  let [c0, cx, cy] = [0, 0, 0]
  for (let round = 0; round < ROUNDS; round++) {
    // Where nothing lies beyond it another round would find the same.
    if (round > 0 && !beyondHuber(n, c0, cx, cy)) break
    const plane = new PlaneFit()
    for (let k = 0; k < n; k++) {
      const [x, y] = [place[3 * k + 1]!, place[3 * k + 2]!]
      const d = place[3 * k]!
      const off = Math.abs(brief(d - c0 - cx * x - cy * y))
      plane.add(b.area[list[k]!]! * (round === 0 || off <= HUBER ? 1 : HUBER / off), x, y, d)
    }
    const found = plane.solve(RIDGE_MM)
    if (found) ({ at: c0, slopeX: cx, slopeY: cy } = found)
  }
  let least = Infinity
  let most = -Infinity
  for (let j = 0; j < n; j++) {
    const t = cx * place[3 * j + 1]! + cy * place[3 * j + 2]!
    least = Math.min(least, t)
    most = Math.max(most, t)
  }
  const turn = most - least
  if (turn > limits.mostTurn) {
    const share = limits.mostTurn / turn
    c0 += (1 - share) * (least + most) * 0.5
    cx *= share
    cy *= share
  }
  let stray = 0
  for (let j = 0; j < n; j++) {
    const turned = c0 + cx * place[3 * j + 1]! + cy * place[3 * j + 2]!
    if (Math.abs(brief(place[3 * j]! - turned)) > limits.tolerance) stray += b.area[list[j]!]!
  }
  return {
    area,
    stray,
    turn: Math.min(turn, limits.mostTurn),
    origin,
    normal,
    right,
    up,
    field: [mean + c0, cx, cy],
  }
}

/** True when the way of a block lies farther off the field than where residuals count less. */
function beyondHuber(n: number, c0: number, cx: number, cy: number): boolean {
  for (let k = 0; k < n; k++) {
    const turned = c0 + cx * place[3 * k + 1]! + cy * place[3 * k + 2]!
    if (Math.abs(brief(place[3 * k]! - turned)) > HUBER) return true
  }
  return false
}

/** An angle brought into [−π, π]: nearly all are no more than a turn off, and a remainder takes its time. */
function brief(angle: number): number {
  if (angle > 3 * Math.PI || angle < -3 * Math.PI) return wrapHalf(angle)
  if (angle > Math.PI) return angle - 2 * Math.PI
  return angle < -Math.PI ? angle + 2 * Math.PI : angle
}

/** The way of a block laid flat onto a plane by the smallest turn of the normal, radians clockwise from `up`. */
function flatAngle(b: Blocks, i: number, n: Vec3, right: Vec3, up: Vec3): number {
  const { way, normal: m } = b
  const at = 3 * i
  const k = along(way, at, n) / Math.max(1 + along(m, at, n), 1e-6)
  // The normal of the plane has no part in its axes.
  return Math.atan2(
    along(way, at, right) - k * along(m, at, right),
    along(way, at, up) - k * along(m, at, up),
  )
}

/** A vector of a list along another one. */
const along = (a: Float64Array, at: number, d: Vec3) =>
  a[at]! * d[0] + a[at + 1]! * d[1] + a[at + 2]! * d[2]

/** How far the growth of a block lies off a press’s stroke, radians. */
export function offField(b: Blocks, i: number, f: Fit): number {
  const d: Vec3 = [
    b.middle[3 * i]! - f.origin[0],
    b.middle[3 * i + 1]! - f.origin[1],
    b.middle[3 * i + 2]! - f.origin[2],
  ]
  const stroke = f.field[0] + f.field[1] * dot(d, f.right) + f.field[2] * dot(d, f.up)
  return angleBetween(flatAngle(b, i, f.normal, f.right, f.up), stroke)
}
/** A direction on a plane, by its angle clockwise from `up`. */
export const planeWay = (angle: number, right: Vec3, up: Vec3): Vec3 => {
  const c = Math.cos(angle)
  const s = Math.sin(angle)
  return [c * up[0] + s * right[0], c * up[1] + s * right[1], c * up[2] + s * right[2]]
}
/** The stroke with the grain of a press at a place, as a unit tangent there. */
export function pressStroke(press: Press, point: Vec3, normal: Vec3): Vec3 {
  const d: Vec3 = [
    point[0] - press.origin[0],
    point[1] - press.origin[1],
    point[2] - press.origin[2],
  ]
  const angle =
    press.field[0] + press.field[1] * dot(d, press.right) + press.field[2] * dot(d, press.up)
  return carryDirection(planeWay(angle, press.right, press.up), press.normal, normal)
}

/** The same at the cells of a zone, as a bearing on its chart, where its growth is laid flat too. */
export function pressBearings(press: Press, skin: ZoneSkin): (cell: number) => number {
  const n = unit(skin.zone.centre.normal)
  const { noon, three } = clockFrame(skin.zone.id, skin.zone.centre.point, n)
  return (c) => {
    const normal = vec(skin.normal, c)
    const d = carryDirection(pressStroke(press, vec(skin.middle, c), normal), normal, n)
    return Math.atan2(dot(d, three), dot(d, noon))
  }
}
