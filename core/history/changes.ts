/**
 * Did the change help (M11)? Bumps and redness before and after each change of routine, as a rate ratio with its exact interval,
 * corrected for looking more than once.
 */
import type { Figures } from '../house/index.ts'
import { garwood, holm, permutationP, rateRatio, type Interval, sum, zOfT } from '../stats/index.ts'
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
  /** By permutation, and corrected for all that were looked at (Holm). */
  readonly p: number
  readonly corrected: number
  /** Above 1 when counts scattered more than chance and the range was widened by it. */
  readonly scatter: number
  readonly verdict: 'fell' | 'rose' | 'no-difference' | 'too-few'
  readonly words: string
}

/**
 * Compares counts of visits before and after something. p by permutation of the visits, which shared bad days do not fool; the
 * range by the conditional interval of two rates, counts that scatter more than Poisson taken for as many fewer, and as wide as
 * Student's t makes it since that scatter is itself estimated.
 */
export function compareCounts(
  before: readonly number[],
  after: readonly number[],
): Interval & { ratio: number; p: number; scatter: number } {
  const { scatter, free } = scatterOf([before, after])
  const side = (list: readonly number[]) => ({
    count: sum(list) / scatter,
    exposure: list.length,
  })
  const level = scatter > 1 ? zOfT(0.95, free) : 0.95
  const { ratio, low, high } = rateRatio(side(before), side(after), level)
  return { ratio, low, high, p: permutationP(before, after), scatter }
}

/** More visits than this are no promise. */
const MOST_VISITS = 60

/** z of a test at 5 %, and of one chance in five of missing it. */
const [Z_TEST, Z_POWER] = [1.96, 0.8416]

/**
 * After about how many more visits a halving would be noticed, four times in five; undefined where too few were counted
 * before for any reasonable number of visits to tell.
 * @param rate per visit as it was, with `had` visits behind it
 * @param have visits after the change so far
 */
export function visitsToHalving(
  rate: number,
  scatter: number,
  had: number,
  have: number,
): number | undefined {
  // The logarithm of the ratio scatters by √(φ (1/n₁ + 1/n₂)), n counts on each side.
  const wanted = (Math.log(2) / (Z_TEST + Z_POWER)) ** 2 / scatter
  const after = wanted - 1 / (rate * had)
  if (!(after > 0)) return undefined
  const needed = Math.ceil(2 / (rate * after))
  return needed > MOST_VISITS ? undefined : Math.max(0, needed - have)
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
      return { change, outcome, a, b, found: enough ? compareCounts(a, b) : undefined }
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
/** Scatter that is worth a word. */
const PLAIN_SCATTER = 1.5

/** What it would take to tell. */
function priceWords({
  before,
  after,
  scatter,
}: Pick<ChangeEffect, 'before' | 'after' | 'scatter'>): string {
  const rate = before.count / Math.max(1, before.visits)
  const more = rate > 0 ? visitsToHalving(rate, scatter, before.visits, after.visits) : undefined
  if (more === undefined) return 'So few came before that a halving could not be told from chance.'
  return more === 0
    ? 'A halving would have been noticed.'
    : `A halving would be noticed within about ${more} more counted visits.`
}

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
    e.scatter >= PLAIN_SCATTER
      ? ' Counts scatter more than chance alone, so the range is widened.'
      : ''
  if (e.verdict === 'no-difference') {
    const moved = e.ratio === 1 ? 'stayed' : e.ratio < 1 ? 'went down' : 'went up'
    return `${COUNTED_NAMES[e.outcome]} ${moved} ${counts}; that may well be chance (${range}${corrected}).${scatter} ${priceWords(e)}`
  }
  return `${COUNTED_NAMES[e.outcome]} ${e.verdict} ${counts}; that is unlikely to be chance (${range}${corrected}).${scatter}`
}
