/**
 * How surely a worker reads, learned over heads: on each map what the others say of a reading that is left out tells by how
 * much the worker's readings scatter, and that is carried to the next head they read.
 */
import type { Figures } from '../house/index.ts'
import { DAY_MS } from '../time/index.ts'
import { CONFIDENCE_CONSTANTS as K, twoOfThreeDeg } from './confidence.ts'

/** What one map told of whoever read it. */
export interface ReaderSeen {
  /** Two of three of the readings lay so near what their others said, degrees. */
  readonly deg: number
  /** Readings that had others beside them. */
  readonly readings: number
}

/** Fewer readings that have others beside them tell too little. */
const LEAST_READINGS = 5

/**
 * What a map tells of its reader.
 * @param apart by how much each reading lies off what its others say, radians; undefined where it has none beside it
 */
export function readerSeen(apart: readonly (number | undefined)[]): ReaderSeen | undefined {
  const known = apart.filter((a) => a !== undefined)
  if (known.length < LEAST_READINGS) return undefined
  return { deg: Math.max(1, twoOfThreeDeg(known)), readings: known.length }
}

/** Readings of a visit are no older when it is planned. */
const FRESH_MS = DAY_MS

/**
 * What a visit's own readings tell, of all that its map is made of.
 * @param apart in the order of the readings; none where the ground tells nothing of it
 */
export const readerHere = (
  readings: readonly { readonly atMs: number }[],
  apart: readonly (number | undefined)[] | undefined,
  nowMs: number,
): ReaderSeen | undefined =>
  readerSeen((apart ?? []).filter((_, i) => nowMs - readings[i]!.atMs < FRESH_MS))

/**
 * Within how far of what their others say two of three readings of a worker lie, degrees: drawn to the house's figure as if
 * that were a few readings more (of the logarithm, as spreads multiply). Undefined while nothing is known.
 */
export function readerOf(figures: Figures, seen: readonly ReaderSeen[]): number | undefined {
  if (seen.length === 0) return undefined
  const before = figures(K.readerReadings)
  let [sum, weight] = [before * Math.log(figures(K.readerDeg)), before]
  for (const { deg, readings } of seen) {
    sum += readings * Math.log(deg)
    weight += readings
  }
  return Math.exp(sum / weight)
}

/** Who made readings of a map, and how many. */
export interface ReadBy {
  readonly workerId: string
  readonly readings: number
}

/** What is known of those who read a map, each by as much as they read of it, degrees; null while nothing is known of any. */
export function readersOf(
  figures: Figures,
  seen: Readonly<Record<string, readonly ReaderSeen[]>>,
  by: readonly ReadBy[],
): number | null {
  const known = by.flatMap(({ workerId, readings }) => {
    const deg = readerOf(figures, seen[workerId] ?? [])
    return deg === undefined ? [] : [{ deg, readings }]
  })
  const all = known.reduce((s, k) => s + k.readings, 0)
  return all === 0 ? null : known.reduce((s, k) => s + k.deg * k.readings, 0) / all
}

/** How surely a worker reads, in words; undefined while nothing is known. */
export function readerWords(figures: Figures, seen: readonly ReaderSeen[]): string | undefined {
  const deg = readerOf(figures, seen)
  if (deg === undefined) return undefined
  const maps = seen.length === 1 ? 'the last map' : `the last ${seen.length} maps`
  return `two of three lie within ${Math.round(deg)}° of what the others say, by ${maps}`
}
