/**
 * Readings of the grain: each stroke with its surface point and tangent, summed up zone by zone on the circle (M1).
 */
import { DomainError } from '../errors.ts'
import { distance, bearingOf, directionOf, unit, tangentPart, type Vec3 } from '../head/index.ts'
import { ALL_ZONE_IDS, isSkin, mirrorZone, type ZoneId } from '../zones/index.ts'
import { constant, type Constant, type Figures } from '../house/index.ts'
import { DAY_MS } from '../time/index.ts'
import { summariseDirections, type CircularSummary } from './circular.ts'
import { turnWithNormal } from './connection.ts'
import type { FieldReading } from './field.ts'
import { startingGuess } from './startingGuess.ts'

/**
 * How a direction was found: by eye in side light, by fingertip, with a cotton pad, with the edge of a card, or by a guided
 * test of several strokes.
 */
export type ReadingMethod = 'looked' | 'felt' | 'pad' | 'card' | 'test'

/** Ways to find a direction with one stroke; the guided test has its own way. */
export const READING_METHODS: readonly ReadingMethod[] = ['felt', 'looked', 'pad', 'card']
export const ALL_METHODS: readonly ReadingMethod[] = [...READING_METHODS, 'test']

export const READING_CONSTANTS = {
  weightFelt: constant(1, '', 'Weight of a direction felt with a fingertip', 'H'),
  weightPad: constant(0.8, '', 'Weight of a direction found with a cotton pad', 'H'),
  weightCard: constant(0.8, '', 'Weight of a direction found with a card', 'H'),
  weightLooked: constant(0.6, '', 'Weight of a direction that was only looked at', 'H'),
  halfWeightDays: constant(180, 'days', 'A reading counts half after this long', 'H'),
  weightTest: constant(1, '', 'Weight of a direction found by a guided test', 'H'),
  combSpacingMm: constant(14, 'mm', 'A combing stroke leaves a reading every so far', 'H'),
  readInPartsBelow: constant(
    0.85,
    '',
    'Agreement R under which a zone should be read in parts',
    'H',
  ),
} as const

/** One stroke of reading: from root to tip. */
export interface Reading {
  readonly id: string
  readonly zoneId: ZoneId
  /** Where on the head, mm. */
  readonly point: Vec3
  /** Unit outward normal there. */
  readonly normal: Vec3
  /** Unit tangent along the growth, root to tip. */
  readonly tangent: Vec3
  readonly method: ReadingMethod
  readonly atMs: number
  /** The answers of a guided test: strokes toward a bearing of the zone's clock, in degrees, and whether they caught. */
  readonly answers?: readonly TestAnswer[]
}

/** One kept answer of a guided test. */
export interface TestAnswer {
  readonly strokeDeg: number
  readonly catches: boolean
}

/** What is known of a zone's grain. */
export interface ZoneGrain {
  readonly zoneId: ZoneId
  /** Growth direction, radians clockwise from 12. */
  readonly growthDirection: number
  readonly source: 'read' | 'guess'
  readonly count: number
  /** Present when the zone was read. */
  readonly summary?: CircularSummary
  /** Readings that cancel out: the zone has no one direction. */
  readonly contradictory: boolean
  /** True when the readings agree too little for one arrow. */
  readonly readInParts: boolean
}

/** The grain of every skin zone. */
export type GrainMap = Readonly<Record<string, ZoneGrain>>

const METHOD_WEIGHT: Readonly<Record<ReadingMethod, Constant>> = {
  felt: READING_CONSTANTS.weightFelt,
  pad: READING_CONSTANTS.weightPad,
  card: READING_CONSTANTS.weightCard,
  looked: READING_CONSTANTS.weightLooked,
  test: READING_CONSTANTS.weightTest,
}

/** Weight of a reading by method and age. */
export function readingWeight(figures: Figures, reading: Reading, nowMs: number): number {
  const ageDays = Math.max(0, nowMs - reading.atMs) / DAY_MS
  return (
    figures(METHOD_WEIGHT[reading.method]) *
    0.5 ** (ageDays / figures(READING_CONSTANTS.halfWeightDays))
  )
}

/** Bearing of a reading in its zone's clock, radians. */
export function readingBearing(reading: Reading): number {
  return bearingOf(reading.zoneId, reading.point, reading.normal, reading.tangent)
}

/** Sums up one zone; falls back on the starting guess where nothing was read. */
export function zoneGrain(
  figures: Figures,
  zoneId: ZoneId,
  readings: readonly Reading[],
  nowMs: number,
): ZoneGrain {
  const guess = startingGuess(zoneId) ?? 0
  const own = readings.filter((r) => r.zoneId === zoneId)
  if (own.length === 0) {
    return {
      zoneId,
      growthDirection: guess,
      source: 'guess',
      count: 0,
      contradictory: false,
      readInParts: false,
    }
  }
  try {
    const summary = summariseDirections(
      own.map(readingBearing),
      own.map((r) => readingWeight(figures, r, nowMs)),
    )
    return {
      zoneId,
      growthDirection: summary.mean,
      source: 'read',
      count: own.length,
      summary,
      contradictory: false,
      readInParts: summary.meanResultantLength < figures(READING_CONSTANTS.readInPartsBelow),
    }
  } catch (error) {
    if (!(error instanceof DomainError)) throw error
    return {
      zoneId,
      growthDirection: guess,
      source: 'guess',
      count: own.length,
      contradictory: true,
      readInParts: true,
    }
  }
}

/** The grain of the whole head from its readings. */
export function grainMap(figures: Figures, readings: readonly Reading[], nowMs: number): GrainMap {
  const byZone = new Map<ZoneId, Reading[]>()
  for (const r of readings) {
    const list = byZone.get(r.zoneId)
    if (list) list.push(r)
    else byZone.set(r.zoneId, [r])
  }
  const map: Record<string, ZoneGrain> = {}
  for (const id of ALL_ZONE_IDS)
    if (isSkin(id)) map[id] = zoneGrain(figures, id, byZone.get(id) ?? [], nowMs)
  return map
}

/** A point a stroke passed over. */
export interface StrokePoint {
  readonly zoneId: ZoneId
  readonly point: Vec3
  readonly normal: Vec3
}

/** Shortest stroke that still shows a direction, mm. */
const LEAST_STROKE_MM = 3

/**
 * Turns a drag over the head, root to tip, into a reading of the zone it covered most.
 * @throws DomainError `stroke-too-short`, `no-skin`
 */
export function readingFromStroke(
  stroke: readonly StrokePoint[],
  rest: { id: string; method: ReadingMethod; atMs: number },
): Reading {
  const onSkin = stroke.filter((p) => isSkin(p.zoneId))
  if (onSkin.length === 0) {
    throw new DomainError(
      'no-skin',
      'That stroke did not cross skin. Draw from the root of the hair to its tip.',
    )
  }
  const hits = new Map<ZoneId, number>()
  for (const p of onSkin) hits.set(p.zoneId, (hits.get(p.zoneId) ?? 0) + 1)
  const zoneId = [...hits.entries()].reduce((a, b) => (b[1] > a[1] ? b : a))[0]
  const inZone = onSkin.filter((p) => p.zoneId === zoneId)
  const first = inZone[0]!.point
  const last = inZone[inZone.length - 1]!.point
  const middle = inZone[inZone.length >> 1]!
  // A quick flick may leave only one point in the zone: then the whole stroke gives the direction.
  const from = inZone.length > 1 ? first : onSkin[0]!.point
  const to = inZone.length > 1 ? last : onSkin[onSkin.length - 1]!.point
  const along: Vec3 = [to[0] - from[0], to[1] - from[1], to[2] - from[2]]
  const tangent = tangentPart(along, unit(middle.normal))
  if (Math.hypot(...tangent) < LEAST_STROKE_MM) {
    throw new DomainError(
      'stroke-too-short',
      'That stroke was too short to show a direction. Draw a little farther, from root to tip.',
    )
  }
  return {
    ...rest,
    zoneId,
    point: middle.point,
    normal: unit(middle.normal),
    tangent: unit(tangent),
  }
}

/**
 * Turns one long stroke over several zones into a series of readings, each from the part of the stroke round it.
 * @param newId makes an id for each reading
 * @throws DomainError `stroke-too-short`, `no-skin`
 */
export function readingsFromComb(
  figures: Figures,
  stroke: readonly StrokePoint[],
  rest: { method: ReadingMethod; atMs: number },
  newId: () => string,
): Reading[] {
  const spacing = figures(READING_CONSTANTS.combSpacingMm)
  const gone: number[] = [0]
  for (let i = 1; i < stroke.length; i++) {
    gone.push(gone[i - 1]! + distance(stroke[i - 1]!.point, stroke[i]!.point))
  }
  const length = gone[gone.length - 1] ?? 0
  const pieces = Math.max(1, Math.round(length / spacing))
  const out: Reading[] = []
  for (let k = 0; k < pieces; k++) {
    const from = (k * length) / pieces
    const to = ((k + 1) * length) / pieces
    const piece = stroke.filter((_, i) => gone[i]! >= from - 1e-9 && gone[i]! <= to + 1e-9)
    if (piece.length < 2 || !piece.some((p) => isSkin(p.zoneId))) continue
    try {
      out.push(readingFromStroke(piece, { ...rest, id: newId() }))
    } catch (error) {
      // A piece over an ear or too short to tell is left out; the rest of the stroke counts.
      if (!(error instanceof DomainError)) throw error
    }
  }
  // A short or quick stroke is a reading like any other, with the same errors.
  return out.length > 0 ? out : [readingFromStroke(stroke, { ...rest, id: newId() })]
}

/**
 * The same direction moved to another place, which may lie in another zone.
 * @throws DomainError `no-skin`
 */
export function moveReading(reading: Reading, to: StrokePoint): Reading {
  if (!isSkin(to.zoneId)) {
    throw new DomainError('no-skin', 'A reading can only stand on skin. It stays where it was.')
  }
  const normal = unit(to.normal)
  const tangent = unit(tangentPart(turnWithNormal(reading.tangent, reading.normal, normal), normal))
  return { ...reading, zoneId: to.zoneId, point: to.point, normal, tangent }
}

/** A reading as the field takes it, weighted by method and age. */
export function toFieldReading(
  figures: Figures,
  reading: Reading,
  nowMs: number,
): FieldReading & { readonly zoneId: ZoneId } {
  const { id, zoneId, point, normal, tangent } = reading
  return { id, zoneId, point, normal, tangent, weight: readingWeight(figures, reading, nowMs) }
}

/** A reading that gives a zone's middle a bearing: for keys and lists. */
export function readingFromBearing(
  zoneId: ZoneId,
  at: { point: Vec3; normal: Vec3 },
  bearing: number,
  rest: { id: string; method: ReadingMethod; atMs: number },
): Reading {
  return {
    ...rest,
    zoneId,
    point: at.point,
    normal: at.normal,
    tangent: directionOf(zoneId, at.point, at.normal, bearing),
  }
}

/** The same reading on the other side of the head. */
export function mirrorReading(reading: Reading, id: string, atMs: number): Reading {
  const flip = (v: Vec3): Vec3 => [-v[0], v[1], v[2]]
  return {
    ...reading,
    id,
    atMs,
    zoneId: mirrorZone(reading.zoneId),
    point: flip(reading.point),
    normal: flip(reading.normal),
    tangent: flip(reading.tangent),
  }
}

/** A reading turned by an angle (radians, clockwise as seen by the worker). */
export function turnReading(reading: Reading, by: number): Reading {
  const bearing = readingBearing(reading) + by
  return {
    ...reading,
    tangent: directionOf(reading.zoneId, reading.point, reading.normal, bearing),
  }
}
