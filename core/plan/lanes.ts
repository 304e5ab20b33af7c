/** What a lane is made of and what it measures: growth, size along and across the stroke, roundness along the edge. */
import { BIN, BINS } from './turns.ts'
import { angleBetween, toDegrees, wrapTurn } from '../grain/index.ts'
import { bearingOf, clockFrame, cross, directionOf, dot, unit, type Vec3 } from '../head/index.ts'
import { normalCdf } from '../stats/index.ts'
import { isBody, type ZoneId } from '../zones/index.ts'
import { laneLetter, type Cover } from './cover.ts'
import type { Beside } from './edges.ts'
import { PlaneFit } from './planeFit.ts'
import { vec } from './pressBlocks.ts'
import { pressBearings, type Press } from './pressField.ts'
import { carryDirection, type ZoneSkin } from './skin.ts'

/** A lane before it is known which way it is stroked. */
export interface LaneShape {
  readonly zoneId: ZoneId
  readonly letter: string
  readonly cells: readonly number[]
  readonly areaCm2: number
  /** The stroke with the grain at the lane's middle, on the zone's chart: radians clockwise from 12 at the zone's middle. */
  readonly growth: number
  /** The press that it is part of. */
  readonly press?: Press
  /** The edge that it runs beside. */
  readonly beside?: Beside
  /** Area by growth on the chart, cm², in BINS bins; as far off `growth` as growth lies off the stroke there. */
  readonly turns: Float64Array
  readonly trust: number
  /** Within how many degrees two of three of its directions are right. */
  readonly errorDeg: number
  /** Middle of the lane on the skin. */
  readonly point: Vec3
  readonly normal: Vec3
}

/**
 * The lanes of a zone.
 * @param pressOf the press that a lane is part of, whose stroke may turn on its way; a lane without one is stroked straight,
 * along its mean growth
 * @param mirrored parted for a left hand
 */
export function laneShapes(
  skin: ZoneSkin,
  cover: Cover,
  pressOf: (lane: number) => Press | undefined = () => undefined,
  mirrored = false,
  besideOf: (lane: number) => Beside | undefined = () => undefined,
): LaneShape[] {
  const cells: number[][] = Array.from({ length: cover.count }, () => [])
  cover.lane.forEach((l, c) => l >= 0 && cells[l]!.push(c))
  // A part beside an edge may have been taken whole.
  return cells.flatMap((own, index) => {
    if (own.length === 0) return []
    const press = pressOf(index)
    const beside = besideOf(index)
    const turns = new Float64Array(BINS)
    let areaCm2 = 0
    let trust = 0
    let error = 0
    let x = 0
    let y = 0
    const middle = [0, 0, 0]
    for (const c of own) {
      const a = skin.areaCm2[c]!
      areaCm2 += a
      trust += a * skin.trust[c]!
      error += a * skin.errorDeg[c]!
      x += a * Math.cos(skin.growth[c]!)
      y += a * Math.sin(skin.growth[c]!)
      for (let k = 0; k < 3; k++) middle[k]! += a * skin.middle[3 * c + k]!
    }
    const at = middle.map((s) => s / areaCm2)
    let nearest = own[0]!
    let least = Infinity
    for (const c of own) {
      const d = Math.hypot(
        skin.middle[3 * c]! - at[0]!,
        skin.middle[3 * c + 1]! - at[1]!,
        skin.middle[3 * c + 2]! - at[2]!,
      )
      // Of a cell and its twin across the midline a right hand takes the client's right, a left hand the left.
      const twin = Math.abs(d - least) < 1e-6
      const nearer = mirrored ? skin.middle[3 * c]! > 0 : skin.middle[3 * c]! < 0
      if (twin ? nearer : d < least) {
        least = Math.min(d, least)
        nearest = c
      }
    }
    const strokeAt = press && pressBearings(press, skin)
    const growth = strokeAt ? strokeAt(nearest) : Math.atan2(y, x)
    for (const c of own) {
      // Growth beside the stroke as it runs there, as if the stroke were straight.
      const off = skin.growth[c]! - (strokeAt ? strokeAt(c) : growth)
      turns[Math.floor(wrapTurn(growth + off) / BIN) % BINS]! += skin.areaCm2[c]!
    }
    return {
      zoneId: skin.zone.id,
      letter: laneLetter(index),
      cells: own,
      areaCm2,
      growth: wrapTurn(growth),
      ...(press && { press }),
      ...(beside && { beside }),
      turns,
      trust: trust / areaCm2,
      errorDeg: error / areaCm2,
      point: vec(skin.middle, nearest),
      normal: vec(skin.normal, nearest),
    }
  })
}

/** A direction on the zone's chart as a unit tangent at the lane's middle. */
export function laneDirection(skin: ZoneSkin, lane: LaneShape, chartBearing: number): Vec3 {
  const { point, normal } = skin.zone.centre
  const n = unit(normal)
  return carryDirection(directionOf(skin.zone.id, point, n, chartBearing), n, lane.normal)
}

/** The chart bearing of a direction at the lane's middle. */
export function chartBearing(skin: ZoneSkin, lane: LaneShape, direction: Vec3): number {
  const { point, normal } = skin.zone.centre
  const n = unit(normal)
  const d = carryDirection(direction, lane.normal, n)
  const { noon, three } = clockFrame(skin.zone.id, point, n)
  const angle = Math.atan2(dot(d, three), dot(d, noon))
  return angle < 0 ? angle + 2 * Math.PI : angle
}

/** Bearing of a tangent at the lane's middle on the clock there. */
export function laneBearing(lane: LaneShape, direction: Vec3): number {
  return bearingOf(lane.zoneId, lane.point, lane.normal, direction)
}

/** Mean over a lane of something that depends on the angle between stroke and growth. */
export function overLane(lane: LaneShape, stroke: number, of: (angle: number) => number): number {
  let sum = 0
  let all = 0
  for (let b = 0; b < BINS; b++) {
    const w = lane.turns[b]!
    if (w === 0) continue
    sum += w * of(angleBetween((b + 0.5) * BIN, stroke))
    all += w
  }
  return sum / all
}

/**
 * Errors of the skin that is planned over those of any skin of the same trust: lanes lie where readings lie, and what is told
 * of a place is told on the safe side. Measured on hidden heads (see docs/models.md).
 */
const OVER_A_LANE = 0.65

/** A range is told to this, degrees. */
const TOLD_TO = 1

/**
 * Angle within which the growth of nine tenths of a lane lies off its stroke with the grain, degrees: where the field says so,
 * and as far as whoever read it errs. The error is normal about the field, two thirds of it within `errorDeg`.
 */
export function ninetyPercentWithinDeg(lane: LaneShape): number {
  const parts: [angle: number, area: number][] = []
  for (let b = 0; b < BINS; b++) {
    if (lane.turns[b]! > 0) {
      parts.push([toDegrees(angleBetween((b + 0.5) * BIN, lane.growth)), lane.turns[b]!])
    }
  }
  const all = parts.reduce((s, [, area]) => s + area, 0)
  const sd = Math.max(0.1, OVER_A_LANE * lane.errorDeg)
  const within = (deg: number) =>
    parts.reduce(
      (s, [angle, area]) =>
        s + area * (normalCdf((deg - angle) / sd) - normalCdf((-deg - angle) / sd)),
      0,
    ) / all
  let [no, yes] = [0, 180]
  while (yes - no > TOLD_TO / 2) {
    const half = (no + yes) / 2
    if (within(half) >= 0.9) yes = half
    else no = half
  }
  return Math.round(yes)
}

/** Length along a stroke and width across it, mm. */
export function laneExtent(
  skin: ZoneSkin,
  lane: LaneShape,
  stroke: Vec3,
): { lengthMm: number; widthMm: number } {
  const edge = cross(lane.normal, stroke)
  let [l0, l1, w0, w1] = [Infinity, -Infinity, Infinity, -Infinity]
  for (const c of lane.cells) {
    const p = vec(skin.middle, c)
    const l = dot(p, stroke)
    const w = dot(p, edge)
    l0 = Math.min(l0, l)
    l1 = Math.max(l1, l)
    w0 = Math.min(w0, w)
    w1 = Math.max(w1, w)
  }
  // Middles of cells stop half a cell short of the rim.
  return { lengthMm: Math.max(3, l1 - l0 + 2), widthMm: Math.max(3, w1 - w0 + 2) }
}

/** Fewest cells that a roundness is measured from; fewer take the zone's own. */
const LEAST_CELLS = 12

/**
 * Radius of curvature along the edge, mm (negative is hollow, 10 000 flat): the normals of the lane are laid over its
 * places by least squares, and the slope along the edge is the curvature.
 */
export function edgeRadiusMm(skin: ZoneSkin, lane: LaneShape, stroke: Vec3): number {
  const edge = cross(lane.normal, stroke)
  if (isBody(lane.zoneId)) {
    // A flat outline has lost its roundness: it lies round the limb, across the sheet.
    return radiusOf(edge[0] ** 2 / skin.zone.curvature.tightMm)
  }
  if (lane.cells.length < LEAST_CELLS) return skin.zone.curvature.tightMm
  const plane = new PlaneFit()
  for (const c of lane.cells) {
    const p = vec(skin.middle, c)
    const d: Vec3 = [p[0] - lane.point[0], p[1] - lane.point[1], p[2] - lane.point[2]]
    plane.add(skin.areaCm2[c]!, dot(d, edge), dot(d, stroke), dot(vec(skin.normal, c), edge))
  }
  const bend = plane.solve()
  return bend ? radiusOf(bend.slopeX) : skin.zone.curvature.tightMm
}

const radiusOf = (k: number) => (Math.abs(k) < 1e-4 ? 10_000 : 1 / k)
