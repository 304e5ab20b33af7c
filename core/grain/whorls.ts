/**
 * What turns: whorls with their way of turning, meeting points, and readings that cannot both be right, which make a field
 * turn where hair does not.
 */
import { distance, cross, dot, unit, type Vec3 } from '../head/index.ts'
import { isSkin, ZONE_IDS, type ZoneId } from '../zones/index.ts'
import { constant, type Figures } from '../house/index.ts'
import { wrapHalf } from './circular.ts'
import { CONFIDENCE_CONSTANTS } from './confidence.ts'
import { turnWithNormal } from './connection.ts'
import type { FieldAnswer, FieldGround, FieldReading } from './field.ts'
import { directionThere, fieldAt } from './sample.ts'
import { singularities, type Singularity } from './topology.ts'

export const WHORL_CONSTANTS = {
  pairMm: constant(16, 'mm', 'A whorl and a meeting point nearer than this cancel', 'H'),
  disagreeMm: constant(16, 'mm', 'Readings nearer than this to each other should agree', 'H'),
  disagreeDeg: constant(60, '°', 'More than this between two near readings is a disagreement', 'H'),
  residualDeg: constant(25, '°', 'when one of them lies this far from the field', 'H'),
  turnMm: constant(
    32,
    'mm',
    'A turn that the field follows is believed of readings this near',
    'H',
  ),
  turnReadings: constant(4, 'readings', 'and of so many at least', 'H'),
  starDeg: constant(25, '°', 'Hair within this of straight outward makes a star, not a whorl', 'H'),
} as const

const W = WHORL_CONSTANTS

/** A place round which hair turns. */
export interface Whorl {
  readonly kind: 'whorl' | 'meeting'
  /** Way of turning as seen from outside, root to tip; a star runs straight out or in. */
  readonly turn: 'clockwise' | 'anticlockwise' | 'star'
  readonly zoneId: ZoneId
  readonly point: Vec3
  readonly normal: Vec3
  readonly trust: number
}

/** A reading of the field with the zone it belongs to. */
export interface ZonedReading extends FieldReading {
  readonly zoneId: ZoneId
}

/** Two readings of one zone that cannot both be right. */
export interface Disagreement {
  readonly a: string
  readonly b: string
  readonly degrees: number
}

/** All that turns in a field. */
export interface Turning {
  /** On skin that was read. */
  readonly whorls: readonly Whorl[]
  /** Over the whole closed head, eyes, ears and neck included; always 2. */
  readonly indexSum: number
  readonly disagreements: readonly Disagreement[]
}

/**
 * Finds what turns.
 * @param zones zone number of each triangle of the solve mesh
 */
export function findTurning(
  figures: Figures,
  ground: FieldGround,
  answer: FieldAnswer,
  readings: readonly ZonedReading[],
  zones: Uint8Array,
): Turning {
  const all = singularities(ground.connection, answer.re, answer.im)
  const disagreements = findDisagreements(figures, ground, answer, readings)
  const disputed = new Set(disagreements.flatMap((d) => [d.a, d.b]))
  const disputedPoints = readings.filter((r) => disputed.has(r.id)).map((r) => r.point)
  const found = withoutPairs(figures, ground, all)
    .map((s) => describe(figures, ground, answer, s, zones))
    .filter(
      (w) =>
        isSkin(w.zoneId) &&
        w.trust >= figures(CONFIDENCE_CONSTANTS.trustFair) &&
        // Where readings disagree the field turns because it must; that is no whorl.
        !disputedPoints.some((p) => distance(p, w.point) < figures(W.disagreeMm)) &&
        (turnIsRead(figures, readings, [w.point]) ||
          !disputedPoints.some((p) => distance(p, w.point) < figures(W.turnMm))),
    )
  return {
    whorls: found,
    indexSum: all.reduce((s, x) => s + x.index, 0),
    disagreements,
  }
}

function middle(ground: FieldGround, triangle: number): { point: Vec3; normal: Vec3 } {
  const { positions, normals, indices } = ground.connection
  const mean = (a: ArrayLike<number>, x: number) =>
    (a[3 * indices[3 * triangle]! + x]! +
      a[3 * indices[3 * triangle + 1]! + x]! +
      a[3 * indices[3 * triangle + 2]! + x]!) /
    3
  return {
    point: [mean(positions, 0), mean(positions, 1), mean(positions, 2)],
    normal: unit([mean(normals, 0), mean(normals, 1), mean(normals, 2)]),
  }
}

/** Leaves out +1 and −1 that lie so near each other that they mean nothing. */
function withoutPairs(
  figures: Figures,
  ground: FieldGround,
  all: readonly Singularity[],
): Singularity[] {
  const left = [...all]
  for (;;) {
    let best: [number, number] | undefined
    let nearest = figures(W.pairMm)
    for (let i = 0; i < left.length; i++)
      for (let j = i + 1; j < left.length; j++) {
        if (left[i]!.index + left[j]!.index !== 0) continue
        const d = distance(
          middle(ground, left[i]!.triangle).point,
          middle(ground, left[j]!.triangle).point,
        )
        if (d < nearest) {
          nearest = d
          best = [i, j]
        }
      }
    if (!best) return left
    left.splice(best[1], 1)
    left.splice(best[0], 1)
  }
}

function describe(
  figures: Figures,
  ground: FieldGround,
  answer: FieldAnswer,
  s: Singularity,
  zones: Uint8Array,
): Whorl {
  const { connection } = ground
  const { point, normal } = middle(ground, s.triangle)
  // Corners and their neighbours stand round the place; how hair lies there against "straight outward" tells the turn.
  const ring = new Set<number>()
  for (let k = 0; k < 3; k++) {
    const v = connection.indices[3 * s.triangle + k]!
    ring.add(v)
    for (let e = connection.start[v]!; e < connection.start[v + 1]!; e++)
      ring.add(connection.neighbours[e]!)
  }
  let out = 0
  let round = 0
  let trust = 0
  for (const v of ring) {
    const at: Vec3 = [
      connection.positions[3 * v]!,
      connection.positions[3 * v + 1]!,
      connection.positions[3 * v + 2]!,
    ]
    const d = directionThere(connection, answer, v, normal)
    const away = unit([at[0] - point[0], at[1] - point[1], at[2] - point[2]])
    out += dot(d, away)
    round += dot(d, cross(normal, away))
    trust = Math.max(trust, answer.trust[v]!)
  }
  const lean = Math.abs(Math.atan2(round, Math.abs(out)))
  const star = lean < (figures(W.starDeg) * Math.PI) / 180
  return {
    kind: s.index > 0 ? 'whorl' : 'meeting',
    turn: star || s.index < 0 ? 'star' : round > 0 ? 'anticlockwise' : 'clockwise',
    zoneId: ZONE_IDS[zones[s.triangle]!]!,
    point,
    normal,
    trust,
  }
}

/** Pairs of near readings that differ more than skin can turn between them, worst first. */
export function findDisagreements(
  figures: Figures,
  ground: FieldGround,
  answer: FieldAnswer,
  readings: readonly ZonedReading[],
): Disagreement[] {
  const residual = new Map<string, number>()
  const angleBetween = (a: Vec3, b: Vec3) =>
    Math.abs(wrapHalf(Math.acos(Math.max(-1, Math.min(1, dot(a, b)))))) * (180 / Math.PI)
  const residualOf = (r: ZonedReading) => {
    const known =
      residual.get(r.id) ?? angleBetween(fieldAt(ground, answer, r).direction, r.tangent)
    residual.set(r.id, known)
    return known
  }
  const out: Disagreement[] = []
  readings.forEach((a, i) => {
    for (const b of readings.slice(i + 1)) {
      // Over the border of a zone hair may part, as below the nose.
      if (a.zoneId !== b.zoneId || distance(a.point, b.point) > figures(W.disagreeMm)) continue
      const degrees = angleBetween(turnWithNormal(b.tangent, b.normal, a.normal), a.tangent)
      if (degrees <= figures(W.disagreeDeg)) continue
      // Across a true whorl near readings differ too, but the field follows both; two alone make no whorl.
      const follows = Math.max(residualOf(a), residualOf(b)) < figures(W.residualDeg)
      if (follows && turnIsRead(figures, readings, [a.point, b.point])) continue
      out.push({ a: a.id, b: b.id, degrees })
    }
  })
  return out.sort((x, y) => y.degrees - x.degrees)
}

/** Whether enough was read about these places to believe that hair turns there. */
const turnIsRead = (
  figures: Figures,
  readings: readonly ZonedReading[],
  places: readonly Vec3[],
): boolean =>
  readings.filter((r) => places.some((p) => distance(r.point, p) <= figures(W.turnMm))).length >=
  figures(W.turnReadings)

/** "turns clockwise", "runs out like a star", "hair meets here". */
export function whorlWords(whorl: Pick<Whorl, 'kind' | 'turn'>): string {
  if (whorl.kind === 'meeting') return 'hair meets here'
  return whorl.turn === 'star' ? 'runs out like a star' : `turns ${whorl.turn}`
}
