/**
 * Did the change help (M11)? Bumps and redness before and after each change of routine, as a rate ratio with its exact interval,
 * corrected for looking more than once.
 */
import type { Figures } from '../house/index.ts'
import { garwood, holm, rateRatio, type Interval, sum } from '../stats/index.ts'
import { CHANGE_CONSTANTS as C } from './changeConstants.ts'
import { countsOf, figure, scatterOf, COUNTED_NAMES, type Counted } from './counts.ts'
import type { DatedChange } from './findChanges.ts'

/** One side of a comparison. */
export interface Side {
  readonly count: number
  /** Visits on which it was counted. */
  readonly visits: number
  /** Per visit, 95 %. */
  readonly range: Interval
}

/** A change against an outcome. */
export interface ChangeEffect extends Interval {
  readonly change: DatedChange
  readonly outcome: Counted
  readonly before: Side
  readonly after: Side
  /** Rate after over rate before. */
  readonly ratio: number
  /** Exact, and corrected for all that were looked at (Holm). */
  readonly p: number
  readonly corrected: number
  /** Above 1 when counts scattered more than chance and the range was widened by it. */
  readonly scatter: number
  readonly verdict: 'fell' | 'rose' | 'no-difference' | 'too-few'
  readonly words: string
}

/** Compares counts of visits before and after something. */
export function compareCounts(
  figures: Figures,
  before: readonly number[],
  after: readonly number[],
): Interval & { ratio: number; p: number; scatter: number } {
  const scatter = scatterOf(figures, [before, after])
  // Counts that come in clusters are worth fewer than they are.
  const side = (list: readonly number[]) => ({
    count: sum(list) / scatter,
    exposure: list.length,
  })
  return { ...rateRatio(side(before), side(after)), scatter }
}

/** Every change against bumps and redness, corrected together. */
export function changeEffects(
  figures: Figures,
  changes: readonly DatedChange[],
  outcomes: readonly Counted[] = ['bumps', 'redness'],
): ChangeEffect[] {
  const raw = changes.flatMap((change) =>
    outcomes.map((outcome) => {
      const a = countsOf(change.before, outcome)
      const b = countsOf(change.after, outcome)
      const least = figures(C.leastVisits)
      const enough = a.length >= least && b.length >= least && sum(a) + sum(b) > 0
      return { change, outcome, a, b, found: enough ? compareCounts(figures, a, b) : undefined }
    }),
  )
  const ps = holm(raw.flatMap((r) => (r.found ? [r.found.p] : [])))
  let k = 0
  return raw.map(({ change, outcome, a, b, found }) => {
    const corrected = found ? ps[k++]! : 1
    const verdict = !found
      ? 'too-few'
      : corrected < figures(C.unlikely)
        ? found.ratio < 1
          ? 'fell'
          : 'rose'
        : 'no-difference'
    const effect = {
      change,
      outcome,
      before: sideOf(a),
      after: sideOf(b),
      ratio: found?.ratio ?? Number.NaN,
      low: found?.low ?? 0,
      high: found?.high ?? Infinity,
      p: found?.p ?? 1,
      corrected,
      scatter: found?.scatter ?? 1,
      verdict,
    } as const
    return { ...effect, words: effectWords(figures, effect, ps.length) }
  })
}

const sideOf = (list: readonly number[]): Side => ({
  count: sum(list),
  visits: list.length,
  range: list.length > 0 ? garwood(sum(list), list.length) : { low: 0, high: Infinity },
})

const visitsWords = (n: number) => `${n} ${n === 1 ? 'visit' : 'visits'}`
/** As a person would say it. */
function effectWords(figures: Figures, e: Omit<ChangeEffect, 'words'>, looks: number): string {
  const { before, after } = e
  const each = (side: Side) => figure(side.count / Math.max(1, side.visits))
  const counts = [
    `from ${before.count} in ${visitsWords(before.visits)} to ${after.count} in ${visitsWords(after.visits)}`,
    // Sums of unlike many visits mislead the eye.
    ...(before.visits === after.visits ? [] : [`${each(before)} against ${each(after)} a visit`]),
  ].join(', ')
  if (e.verdict === 'too-few') {
    const least = figures(C.leastVisits)
    const short = [
      before.visits < least ? `${least - before.visits} more before` : '',
      after.visits < least ? `${least - after.visits} more after` : '',
    ].filter(Boolean)
    return short.length > 0
      ? `${COUNTED_NAMES[e.outcome]}: too few answered visits to tell (${short.join(', ')}).`
      : `${COUNTED_NAMES[e.outcome]}: none on either side, so there is nothing to compare.`
  }
  const corrected = looks > 1 ? `, corrected for ${looks} comparisons` : ''
  const range = `rate × ${figure(e.ratio)}, 95 % from ${figure(e.low)} to ${e.high === Infinity ? 'no upper end' : figure(e.high)}`
  const scatter =
    e.scatter > 1 ? ' Counts scatter more than chance alone, so the range is widened.' : ''
  if (e.verdict === 'no-difference') {
    const moved = e.ratio === 1 ? 'stayed' : e.ratio < 1 ? 'went down' : 'went up'
    return `${COUNTED_NAMES[e.outcome]} ${moved} ${counts}; that may well be chance (${range}${corrected}).${scatter}`
  }
  return `${COUNTED_NAMES[e.outcome]} ${e.verdict} ${counts}; that is unlikely to be chance (${range}${corrected}).${scatter}`
}
