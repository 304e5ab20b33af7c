/**
 * Rates and shares with exact intervals (M11): Garwood for one rate, Clopper–Pearson for a share and, conditionally, for
 * the ratio of two rates. Beta and gamma quantiles are jstat's.
 */
import jstat from 'jstat'

/** An interval; `high` may be Infinity. */
export interface Interval {
  readonly low: number
  readonly high: number
}

/**
 * Exact interval of a Poisson rate (Garwood 1936).
 * @param count events seen, ≥ 0; need not be whole when a scatter was taken out
 * @param exposure what they were seen over, > 0
 * @param level coverage, 0 to 1
 * @throws RangeError when the count is negative or the exposure is not positive
 */
export function garwood(count: number, exposure = 1, level = 0.95): Interval {
  if (!(count >= 0) || !(exposure > 0)) {
    throw new RangeError('A rate needs a count of at least 0 over an exposure above 0.')
  }
  const tail = (1 - level) / 2
  return {
    low: count === 0 ? 0 : jstat.gamma.inv(tail, count, 1) / exposure,
    high: jstat.gamma.inv(1 - tail, count + 1, 1) / exposure,
  }
}

/**
 * Exact interval of a share (Clopper & Pearson 1934).
 * @throws RangeError unless 0 ≤ hits ≤ of
 */
export function clopperPearson(hits: number, of: number, level = 0.95): Interval {
  if (!(hits >= 0) || !(of >= hits)) throw new RangeError('A share needs 0 ≤ hits ≤ tries.')
  const tail = (1 - level) / 2
  return {
    low: hits === 0 ? 0 : jstat.beta.inv(tail, hits, of - hits + 1),
    high: hits === of ? 1 : jstat.beta.inv(1 - tail, hits + 1, of - hits),
  }
}

/** How two rates compare: the second against the first. */
export interface RateRatio extends Interval {
  /** Second rate over the first; Infinity when the first saw none, NaN when neither saw any. */
  readonly ratio: number
  /** Exact two-sided p: twice the smaller tail, at most 1. */
  readonly p: number
}

/**
 * Ratio of two Poisson rates with its exact conditional interval: given the sum, the second count is binomial.
 * @param before count and exposure before a change
 * @param after count and exposure after it
 * @throws RangeError when an exposure is not positive or a count is negative
 */
export function rateRatio(
  before: { readonly count: number; readonly exposure: number },
  after: { readonly count: number; readonly exposure: number },
  level = 0.95,
): RateRatio {
  const { count: n1, exposure: e1 } = before
  const { count: n2, exposure: e2 } = after
  if (!(e1 > 0) || !(e2 > 0) || !(n1 >= 0) || !(n2 >= 0)) {
    throw new RangeError('Two rates need exposures above 0 and counts of at least 0.')
  }
  const share = clopperPearson(n2, n1 + n2, level)
  const odds = (p: number) => (p >= 1 ? Infinity : (p / (1 - p)) * (e1 / e2))
  const even = e2 / (e1 + e2)
  // P(X ≤ n2) and P(X ≥ n2) of the binomial, as beta integrals, so that counts need not be whole.
  const atMost = n1 === 0 ? 1 : 1 - jstat.beta.cdf(even, n2 + 1, n1)
  const atLeast = n2 === 0 ? 1 : jstat.beta.cdf(even, n2, n1 + 1)
  return {
    ratio: n2 / e2 / (n1 / e1),
    low: odds(share.low),
    high: odds(share.high),
    p: n1 + n2 === 0 ? 1 : Math.min(1, 2 * Math.min(atMost, atLeast)),
  }
}

/**
 * Holm's step-down correction for looking more than once (Holm 1979).
 * @returns the corrected p of each, in the order given; never below the one given, at most 1
 */
export function holm(ps: readonly number[]): number[] {
  const order = ps.map((_, i) => i).sort((a, b) => ps[a]! - ps[b]!)
  const out = new Array<number>(ps.length)
  let floor = 0
  order.forEach((i, rank) => {
    floor = Math.max(floor, Math.min(1, (ps.length - rank) * ps[i]!))
    out[i] = floor
  })
  return out
}

/**
 * The level at which a normal range is as wide as Student's t range of this level: for ranges whose scatter was estimated.
 * @param free degrees of freedom, > 0
 */
export const zOfT = (level: number, free: number): number =>
  2 * jstat.normal.cdf(jstat.studentt.inv((1 + level) / 2, free), 0, 1) - 1
