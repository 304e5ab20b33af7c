/** Relation of a stroke to the grain (M2). Common practice names three; the limits are house estimates. */
import { constant, type Figures } from '../house/index.ts'
import { toDegrees, wrapHalf } from './circular.ts'

export type Relation = 'with' | 'across' | 'against'

export const RELATION_CONSTANTS = {
  withUpToDeg: constant(
    45,
    '°',
    'A stroke within this angle of the growth goes with the grain',
    'H',
  ),
  againstFromDeg: constant(135, '°', 'From this angle on a stroke goes against the grain', 'H'),
  cleanWithinDeg: constant(
    20,
    '°',
    'Cleanly with, across or against: within this of 0, 90 or 180°',
    'H',
  ),
} as const

/** Smallest angle between a stroke and the growth, radians in [0, π]. */
export function strokeAngle(strokeBearing: number, growthDirection: number): number {
  return Math.abs(wrapHalf(strokeBearing - growthDirection))
}

/** With, across or against the grain, for a stroke angle in radians. */
export function relationToGrain(figures: Figures, angle: number): Relation {
  const deg = toDegrees(angle)
  if (deg <= figures(RELATION_CONSTANTS.withUpToDeg)) return 'with'
  return deg < figures(RELATION_CONSTANTS.againstFromDeg) ? 'across' : 'against'
}

/** True when the stroke is cleanly with, across or against. */
export function isClean(figures: Figures, angle: number): boolean {
  const deg = toDegrees(angle)
  return [0, 90, 180].some((m) => Math.abs(deg - m) <= figures(RELATION_CONSTANTS.cleanWithinDeg))
}

/** The words of the trade. */
export const RELATION_WORDS: Readonly<Record<Relation, string>> = {
  with: 'with the grain',
  across: 'across the grain',
  against: 'against the grain',
}

/** The three uses of one map. */
export type MapUse = 'growth' | 'first-pass' | 'exfoliate'

/** The bearing to show for a growth direction, radians: one shaves first along it, and rubs against it. */
export const usedBearing = (growth: number, use: MapUse): number =>
  use === 'exfoliate' ? growth + Math.PI : growth
