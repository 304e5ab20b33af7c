/**
 * The trend watch of a client (M11): are bumps, or redness, still as they were? An EWMA (Roberts 1959) against the client's own
 * first visits. Its limits ask nothing of how counts scatter: at each look they are what the same visits in any other order
 * would hardly give, and hold for as many looks as the watch reaches back.
 */
import type { Figures } from '../house/index.ts'
import { ewma, mulberry32, sum } from '../stats/index.ts'
import { CHANGE_CONSTANTS as C } from './changeConstants.ts'
import { countsOf, figure, COUNTED_NAMES, type Counted } from './counts.ts'
import type { VisitFacts } from './facts.ts'

/** A look of the watch, per visit. */
export interface TrendPoint {
  readonly atMs: number
  readonly count: number
  /** Moving average, and between what limits it lies while nothing changes. */
  readonly value: number
  readonly low: number
  readonly high: number
  readonly out: boolean
}

/** The trend watch of a client's bumps (or redness). */
export interface Trend {
  /** Per counted visit, in order; the baseline's first, which have no limits of their own. */
  readonly points: readonly TrendPoint[]
  /** Mean per visit of the baseline. */
  readonly baseline: number
  readonly words: string
}

/**
 * The watch reaches so many counted visits beyond its baseline, and at each look rings with so little chance while nothing changes:
 * over all looks 3 to 5 of 100 clients, by simulation. Not the house's to set: what is told of the watch hangs on both.
 */
const LOOKS = 24
const SHARE = 0.0035
/** Orders that are tried at each look. */
const ORDERS = 4000

/** What lies between the limits at a look. */
interface Limits {
  readonly low: number
  readonly high: number
}

/**
 * Limits of the moving average less the baseline at each look after the baseline, from the same counts in other orders. Each
 * order of one look is that of the look before with the new count put in at a place drawn by chance (Fisher & Yates 1938,
 * the inside-out way; from memory).
 */
function limitsOf(
  counts: readonly number[],
  baseline: number,
  lambda: number,
  share: number,
): Limits[] {
  const random = mulberry32(counts.length)
  const n = counts.length
  const orders = new Float64Array(ORDERS * n)
  const drifts = new Float64Array(ORDERS)
  const rank = Math.floor((share / 2) * ORDERS)
  const limits: Limits[] = []
  for (let i = 0; i < n; i++) {
    for (let o = 0; o < ORDERS; o++) {
      const row = o * n
      const place = row + Math.floor(random() * (i + 1))
      orders[row + i] = orders[place]!
      orders[place] = counts[i]!
      if (i < baseline) continue
      let first = 0
      for (let k = 0; k < baseline; k++) first += orders[row + k]!
      first /= baseline
      let at = first
      for (let k = baseline; k <= i; k++) at += lambda * (orders[row + k]! - at)
      drifts[o] = at - first
    }
    if (i < baseline) continue
    drifts.sort()
    limits.push({ low: drifts[rank]!, high: drifts[ORDERS - 1 - rank]! })
  }
  return limits
}

/**
 * EWMA of counts against the client's own first visits of those it reaches back to; undefined while there are too few.
 */
export function trendWatch(
  figures: Figures,
  visits: readonly VisitFacts[],
  outcome: Counted,
): Trend | undefined {
  const n = figures(C.baselineVisits)
  const counted = visits
    .flatMap((v) => {
      const [count] = countsOf([v], outcome)
      return count === undefined ? [] : [{ atMs: v.endedAtMs, count }]
    })
    .slice(-(n + LOOKS))
  if (counted.length <= n) return undefined
  const counts = counted.map((c) => c.count)
  const lambda = figures(C.trendLambda)
  const baseline = sum(counts.slice(0, n)) / n
  const limits = limitsOf(counts, n, lambda, SHARE)
  const averages = ewma(counts.slice(n), baseline, lambda)
  const points = counted.map((c, i): TrendPoint => {
    const value = averages[i - n] ?? baseline
    if (i < n) return { ...c, value, low: baseline, high: baseline, out: false }
    const { low, high } = limits[i - n]!
    const off = value - baseline
    return {
      ...c,
      value,
      low: baseline + low,
      high: baseline + high,
      out: off < low - 1e-9 || off > high + 1e-9,
    }
  })
  return { points, baseline, words: trendWords(figures, outcome, points, baseline) }
}

function trendWords(
  figures: Figures,
  outcome: Counted,
  points: readonly TrendPoint[],
  baseline: number,
): string {
  const n = figures(C.baselineVisits)
  const last = points.at(-1)!
  const name = COUNTED_NAMES[outcome]
  const usual = `in the ${n} counted visits at the start of the watch`
  if (last.out) {
    return `${name} ${last.value > baseline ? 'have risen above' : 'have fallen below'} what was usual ${usual} (about ${figure(baseline)} a visit).`
  }
  return `${name}: as ${usual}, about ${figure(baseline)} a visit. ${priceWords(baseline)}`
}

/** From so many a visit on more than half of doublings are noticed. */
const MANY = 4

/**
 * What such a watch would notice, by simulation (`core/testing/honest/changes.ts`): a doubling within 18 visits for 6 of 10 clients
 * with five a visit and plain chance, for 2 to 4 of 10 with fewer, or with days that differ.
 */
const priceWords = (baseline: number): string =>
  baseline >= MANY
    ? 'Such a watch notices a doubling within 18 counted visits for about 6 clients in 10, for 2 to 4 where days differ much (H).'
    : 'So few a visit: such a watch notices a doubling within 18 counted visits for only about 3 clients in 10 (H).'
