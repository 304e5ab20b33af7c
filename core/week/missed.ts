/**
 * How often a client does not come (M19): beta-binomial with a wide prior. It is shown to the house, and shuts nobody out: nothing
 * that offers, ranks or proposes hours reads it.
 */
import jstat from 'jstat'
import { constant, type Figures } from '../house/index.ts'

export const MISSED_CONSTANTS = {
  missedShare: constant(0.08, 'share', 'Of appointments, nobody comes to', 'H'),
  missedVisits: constant(
    4,
    'visits',
    'That is believed of each client as firmly as so many visits',
    'H',
  ),
} as const

export interface MissedRate {
  /** Of how many appointments whose hour is over and that were not cancelled. */
  readonly of: number
  readonly missed: number
  readonly mean: number
  /** With 80 %. */
  readonly low: number
  readonly high: number
}

/** @throws RangeError unless 0 ≤ missed ≤ of */
export function missedRate(figures: Figures, missed: number, of: number): MissedRate {
  if (!(missed >= 0) || !(of >= missed)) throw new RangeError('A share needs 0 ≤ missed ≤ of.')
  const firm = figures(MISSED_CONSTANTS.missedVisits)
  const a = figures(MISSED_CONSTANTS.missedShare) * firm + missed
  const b = firm + of - a
  return {
    ...{ of, missed, mean: a / (a + b) },
    low: jstat.beta.inv(0.1, a, b),
    high: jstat.beta.inv(0.9, a, b),
  }
}
