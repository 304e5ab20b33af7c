/**
 * Hidden fields to try the direction field on: smooth, tangent, with whorls of their own; and the two simple answers it
 * must beat. For checks and for the bench.
 */
import {
  tangentPart,
  unit,
  type Vec3,
  surfacePoint,
  triangleArea,
  type SurfacePoint,
  type ZonedMesh,
  turnedIn,
} from '../head/index.ts'
import { isSkin, ZONE_IDS } from '../zones/index.ts'
import { drawNormal } from '../stats/index.ts'
import { turnWithNormal } from './connection.ts'
import type { FieldReading } from './field.ts'

/** A tangent field over space: the direction at a point with a normal. */
export type HiddenField = (at: SurfacePoint) => Vec3

const WAVES = 4
/** Shortest and longest wave of a hidden field's own turns, mm: hair turns over a hand's breadth, not over a finger's. */
const WAVELENGTH_MM = [400, 800] as const
/** How much of a hidden field is its own turns, beside the run of hair away from the crown. */
const OWN_TURNS = 0.5

/** How far hair turns aside on its way out of the whorl, radians. */
const WHORL_TURN = 0.7
/** So far round the whorl a field has no turns of its own, mm. */
const WHORL_CALM_MM = 35
/** Where the whorl of a hidden field lies before its own turns move it, within this of the middle of the crown, mm. */
const WHORL_SPREAD_MM = 18

/**
 * A hidden field as heads have them: hair turns out of a whorl at the crown, to either side, runs away from it over the whole head, and is bent by smooth turns of its own.
 */
export function hiddenField(random: () => number): HiddenField {
  return hiddenWhorl(random, 0).field
}

/** A hidden field with the place from which its hair runs. Its own turns fade out round that place, so that the whorl stays there. */
export function hiddenWhorl(
  random: () => number,
  calmMm = WHORL_CALM_MM,
): { field: HiddenField; whorl: Vec3 } {
  const direction = () => unit([drawNormal(random), drawNormal(random), drawNormal(random)])
  const waves = Array.from({ length: WAVES }, () => {
    const length = WAVELENGTH_MM[0] + (WAVELENGTH_MM[1] - WAVELENGTH_MM[0]) * random()
    const k = direction().map((c) => (c * 2 * Math.PI) / length) as unknown as Vec3
    return { k, phase: random() * 2 * Math.PI, amplitude: direction() }
  })
  const whorl: Vec3 = [
    WHORL_SPREAD_MM * (2 * random() - 1),
    100,
    -55 + WHORL_SPREAD_MM * (2 * random() - 1),
  ]
  const side = random() < 0.5 ? 1 : -1
  const field: HiddenField = ({ point, normal }) => {
    const smooth = smoothNormal(point)
    const away: Vec3 = [point[0] - whorl[0], point[1] - whorl[1], point[2] - whorl[2]]
    let v = turned(unit(tangentPart(away, smooth)), smooth, side * WHORL_TURN)
    const calm = calmMm === 0 ? 1 : 1 - Math.exp(-((Math.hypot(...away) / calmMm) ** 2))
    for (const { k, phase, amplitude } of waves) {
      const s =
        calm * OWN_TURNS * Math.sin(k[0] * point[0] + k[1] * point[1] + k[2] * point[2] + phase)
      v = [v[0] + s * amplitude[0], v[1] + s * amplitude[1], v[2] + s * amplitude[2]]
    }
    return turnWithNormal(unit(tangentPart(v, smooth)), smooth, normal)
  }
  return { field, whorl }
}

/** Outward on a head without its relief: hair runs on over lips and lids as if they were not there. */
function smoothNormal(p: Vec3): Vec3 {
  return unit([p[0], Math.max(0, p[1] - 40), p[2] + 5])
}

/** Points spread over the skin of a mesh, by area. */
export function skinPoints(mesh: ZonedMesh, count: number, random: () => number): SurfacePoint[] {
  const triangles: number[] = []
  const sums: number[] = []
  let total = 0
  for (let t = 0; t < mesh.zones.length; t++) {
    if (!isSkin(ZONE_IDS[mesh.zones[t]!]!)) continue
    total += triangleArea(mesh, t)
    triangles.push(t)
    sums.push(total)
  }
  return Array.from({ length: count }, () => {
    const target = random() * total
    let lo = 0
    let hi = sums.length - 1
    while (lo < hi) {
      const mid = (lo + hi) >> 1
      if (sums[mid]! < target) lo = mid + 1
      else hi = mid
    }
    const root = Math.sqrt(random())
    return surfacePoint(mesh, triangles[lo]!, 1 - root, root * random())
  })
}

/** A direction turned in the skin by an angle, anticlockwise from outside. */
export const turned = (direction: Vec3, normal: Vec3, angle: number): Vec3 =>
  unit(turnedIn(direction, normal, -angle))

/** Readings of a hidden field, each off by normal noise (sd in radians). */
export function noisyReadings(
  field: HiddenField,
  points: readonly SurfacePoint[],
  noise: number,
  random: () => number,
): FieldReading[] {
  return points.map((at, i) => ({
    id: `r${i}`,
    ...at,
    tangent: turned(field(at), at.normal, noise * drawNormal(random)),
    weight: 1,
  }))
}

/** The simple answers: the nearest reading, and a mean weighted by a bell of 30 mm; both carried over by the smallest turn. */
export function simpleAnswers(
  readings: readonly FieldReading[],
  at: SurfacePoint,
): { nearest: Vec3; kernel: Vec3 } {
  let best = Infinity
  let nearest: Vec3 = [1, 0, 0]
  let sum: Vec3 = [0, 0, 0]
  for (const r of readings) {
    const d = Math.hypot(
      r.point[0] - at.point[0],
      r.point[1] - at.point[1],
      r.point[2] - at.point[2],
    )
    const t = turnWithNormal(r.tangent, r.normal, at.normal)
    if (d < best) {
      best = d
      nearest = t
    }
    const w = Math.exp(-0.5 * (d / 30) ** 2) + 1e-300
    sum = [sum[0] + w * t[0], sum[1] + w * t[1], sum[2] + w * t[2]]
  }
  return { nearest, kernel: unit(tangentPart(sum, at.normal)) }
}
