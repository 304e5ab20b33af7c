/** The trend watch of a client (M11): are bumps, or redness, still as they were? */
import type { Figures } from '../house/index.ts'
import { ewma, type EwmaPoint, sum } from '../stats/index.ts'
import { CHANGE_CONSTANTS as C } from './changeConstants.ts'
import { countsOf, figure, scatterOf, COUNTED_NAMES, type Counted } from './counts.ts'
import type { VisitFacts } from './facts.ts'

/** The trend watch of a client's bumps (or redness). */
export interface Trend {
  /** Per counted visit, in order. */
  readonly points: readonly (EwmaPoint & { readonly atMs: number; readonly count: number })[]
  /** Mean per visit of the baseline. */
  readonly baseline: number
  /** Standard deviation of one count, bumps: what the points are told in. */
  readonly sigma: number
  readonly words: string
}

/**
 * EWMA of counts against the client's own first visits, in standard deviations of a count; undefined while there are too few.
 */
export function trendWatch(
  figures: Figures,
  visits: readonly VisitFacts[],
  outcome: Counted,
): Trend | undefined {
  const counted = visits.flatMap((v) => {
    const [count] = countsOf([v], outcome)
    return count === undefined ? [] : [{ atMs: v.endedAtMs, count }]
  })
  const n = figures(C.baselineVisits)
  if (counted.length <= n) return undefined
  const first = counted.slice(0, n).map((c) => c.count)
  // Half a count keeps a baseline of none from making one bump infinite.
  const baseline = Math.max(0.5, sum(first)) / n
  const sigma = Math.sqrt(baseline * scatterOf(figures, [first]))
  const points = ewma(
    counted.map((c) => (c.count - baseline) / sigma),
    0,
    1,
    figures(C.trendLambda),
    figures(C.trendWidths),
  ).map((p, i) => ({ ...p, ...counted[i]! }))
  const last = points.at(-1)!
  const name = COUNTED_NAMES[outcome]
  const words = !last.out
    ? `${name}: as in the first ${n} counted visits, about ${figure(baseline)} a visit.`
    : `${name} ${last.value > 0 ? 'have risen above' : 'have fallen below'} what was usual in the first ${n} counted visits (about ${figure(baseline)} a visit).`
  return { points, baseline, sigma, words }
}
