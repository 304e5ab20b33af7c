/** Ranges of what is believed of a skin: never a point alone. Apart from the rest, since quantiles bring a library along. */
import jstat from 'jstat'
import { oddsAtRate, type Sensitivity } from './sensitivity.ts'

export interface Range {
  readonly low: number
  readonly high: number
}

/** The range that holds the middle share of what is believed, grade per unit load. */
export function sensitivityRange(s: Sensitivity, share = 0.8): Range {
  const tail = (1 - share) / 2
  return {
    low: jstat.gamma.inv(tail, s.shape, 1 / s.rate),
    high: jstat.gamma.inv(1 - tail, s.shape, 1 / s.rate),
  }
}

/** The range of the odds of redness 2, or another grade, or more for a service of the given load, as the rate behind them is uncertain; the day differs in either case. */
export function rednessRange(s: Sensitivity, load: number, share = 0.8, grade = 2): Range {
  const { low, high } = sensitivityRange(s, share)
  return { low: oddsAtRate(s, low, load, grade), high: oddsAtRate(s, high, load, grade) }
}
