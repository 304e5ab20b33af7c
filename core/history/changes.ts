/**
 * Did the change help (M11)? Changes of routine, noted by hand or found in what was done; bumps and redness before and after
 * each, as a rate ratio with its exact interval; corrected for looking more than once; what changed together is named.
 */
import { constant } from '../house/constants.ts'
import { garwood, holm, rateRatio, type Interval } from '../stats/rates.ts'
import jstat from 'jstat'
import { DAY_MS } from '../time/dates.ts'
import { ewma, type EwmaPoint } from '../stats/ewma.ts'
import { middle, mostHave, sum, type VisitFacts } from './facts.ts'

export const CHANGE_CONSTANTS = {
  runVisits: constant(
    3,
    'visits',
    'A way of doing counts as changed when it held so long before and after',
    'H',
  ),
  lookVisits: constant(
    24,
    'visits',
    'At most so many visits before and after a change are compared',
    'H',
  ),
  leastVisits: constant(3, 'visits', 'Answered visits on each side before anything is said', 'H'),
  unlikely: constant(
    0.05,
    'probability',
    'A difference less likely than this is called unlikely to be chance',
    'C',
  ),
  intervalRatio: constant(
    1.3,
    '',
    'Visits this much farther apart, or closer, are a changed interval',
    'H',
  ),
  trendLambda: constant(
    0.3,
    '',
    'Trend watch: weight of the newest visit',
    'P',
    'NIST/SEMATECH e-Handbook 6.3.2.4',
  ),
  trendWidths: constant(
    3,
    '',
    'Trend watch: limits stand off by so many standard deviations',
    'P',
    'NIST/SEMATECH e-Handbook 6.3.2.4',
  ),
  baselineVisits: constant(
    6,
    'visits',
    'Trend watch: the first so many counted visits are the baseline',
    'H',
  ),
  scatterDoubt: constant(
    0.01,
    'probability',
    'Counts that scatter more than chance this surely widen the range',
    'H',
  ),
} as const

const C = CHANGE_CONSTANTS

/** What may differ from visit to visit. */
export const FACTORS = [
  'blade',
  'direction',
  'passes',
  'interval',
  'products',
  'exfoliation',
] as const
export type Factor = (typeof FACTORS)[number]

export const FACTOR_WORDS: Readonly<Record<Factor, string>> = {
  blade: 'blade',
  direction: 'direction against the grain',
  passes: 'number of passes',
  interval: 'time between visits',
  products: 'products',
  exfoliation: 'exfoliation',
}

/** How each factor stood at a visit, as a label; undefined where it is not known. */
function labels(visits: readonly VisitFacts[]): Record<Factor, string | undefined>[] {
  return visits.map((v) => {
    const zones = Object.values(v.choices?.zones ?? {})
    const known = v.choices !== null && zones.length > 0
    return {
      blade: known ? v.choices.blade : undefined,
      direction: known ? manyHave(zones.map((z) => z.relation)) : undefined,
      passes: known ? manyHave(zones.map((z) => String(z.passes))) : undefined,
      exfoliation: known ? v.choices.exfoliate : undefined,
      products: [...v.products].sort().join(', '),
      interval: undefined,
    }
  })
}

/** What at least a quarter of the zones have, in a fixed order: "across and with". */
function manyHave(list: readonly string[]): string {
  const least = list.length / 4
  const many = [...new Set(list)].filter((v) => list.filter((x) => x === v).length >= least)
  return many.sort().join(' and ')
}

const gaps = (visits: readonly VisitFacts[]): number[] =>
  visits.slice(1).map((v, i) => (v.endedAtMs - visits[i]!.endedAtMs) / DAY_MS)

/** What differs between two runs of visits. */
export function differing(before: readonly VisitFacts[], after: readonly VisitFacts[]): Factor[] {
  const usual = (visits: readonly VisitFacts[], factor: Factor) =>
    mostHave(labels(visits).map((l) => l[factor]))
  return FACTORS.filter((factor) => {
    if (factor === 'interval') {
      const [a, b] = [middle(gaps(before)), middle(gaps(after))]
      if (a === undefined || b === undefined || a <= 0 || b <= 0) return false
      return Math.max(a / b, b / a) >= C.intervalRatio.value
    }
    const [a, b] = [usual(before, factor), usual(after, factor)]
    return a !== undefined && b !== undefined && a !== b
  })
}

/** A change of routine with the visits before and after it. */
export interface DatedChange {
  /** Index of the first visit of the new way. */
  readonly index: number
  readonly atMs: number
  /** As noted, or as found in what was done. */
  readonly words: string
  readonly noted: boolean
  readonly before: readonly VisitFacts[]
  readonly after: readonly VisitFacts[]
  /** What really differs between them. */
  readonly factors: readonly Factor[]
}

/** Finds changes of routine. Visits oldest first, of one service. */
export function findChanges(visits: readonly VisitFacts[]): DatedChange[] {
  const run = C.runVisits.value
  const at = new Map<number, { words: string; noted: boolean }>()
  visits.forEach((v, i) => {
    if (v.routine && i > 0) at.set(i, { words: v.routine, noted: true })
  })
  const named = labels(visits)
  for (const factor of FACTORS) {
    for (let i = run; i + run <= visits.length; i++) {
      const old = named[i - 1]![factor]
      const now = named[i]![factor]
      if (old === undefined || now === undefined || old === now) continue
      const held = (from: number, label: string) =>
        named.slice(from, from + run).every((l) => l[factor] === label)
      if (!held(i - run, old) || !held(i, now)) continue
      // Found within a visit of one noted: it is that one.
      if ([i - 1, i, i + 1].some((k) => at.get(k)?.noted)) continue
      const words = `${FACTOR_WORDS[factor]}: ${old || 'none'} → ${now || 'none'}`
      const same = at.get(i)
      at.set(i, { words: same ? `${same.words}; ${words}` : words, noted: false })
    }
  }
  const indices = [...at.keys()].sort((a, b) => a - b)
  return indices.map((index, k) => {
    const most = C.lookVisits.value
    const from = Math.max(indices[k - 1] ?? 0, index - most)
    const to = Math.min(indices[k + 1] ?? visits.length, index + most)
    const before = visits.slice(from, index)
    const after = visits.slice(index, to)
    return {
      index,
      atMs: visits[index]!.endedAtMs,
      ...at.get(index)!,
      before,
      after,
      factors: differing(before, after),
    }
  })
}

export type Outcome = 'bumps' | 'redness'

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
  readonly outcome: Outcome
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

/** Counts of an outcome over the visits on which somebody looked. */
export const countsOf = (visits: readonly VisitFacts[], outcome: Outcome): number[] =>
  visits.flatMap((v) => {
    const zones = outcome === 'bumps' ? v.bumps : v.worst
    return zones ? [sum(Object.values(zones))] : []
  })

/**
 * How much more counts scatter than Poisson: Pearson's chi-square over its degrees of freedom about each side's mean, taken
 * only where chance alone would hardly give it; else 1.
 */
function scatterOf(sides: readonly (readonly number[])[]): number {
  let square = 0
  let free = 0
  for (const side of sides) {
    const mean = sum(side) / side.length
    if (!(mean > 0)) continue
    square += side.reduce((s, y) => s + (y - mean) ** 2 / mean, 0)
    free += side.length - 1
  }
  if (free < 1 || 1 - jstat.chisquare.cdf(square, free) > C.scatterDoubt.value) return 1
  return Math.max(1, square / free)
}

/** Compares counts of visits before and after something. */
export function compareCounts(
  before: readonly number[],
  after: readonly number[],
): Interval & { ratio: number; p: number; scatter: number } {
  const scatter = scatterOf([before, after])
  // Counts that come in clusters are worth fewer than they are.
  const side = (list: readonly number[]) => ({
    count: sum(list) / scatter,
    exposure: list.length,
  })
  return { ...rateRatio(side(before), side(after)), scatter }
}

/** Every change against bumps and redness, corrected together. */
export function changeEffects(
  changes: readonly DatedChange[],
  outcomes: readonly Outcome[] = ['bumps', 'redness'],
): ChangeEffect[] {
  const raw = changes.flatMap((change) =>
    outcomes.map((outcome) => {
      const a = countsOf(change.before, outcome)
      const b = countsOf(change.after, outcome)
      const least = C.leastVisits.value
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
      : corrected < C.unlikely.value
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
    return { ...effect, words: effectWords(effect, ps.length) }
  })
}

const sideOf = (list: readonly number[]): Side => ({
  count: sum(list),
  visits: list.length,
  range: list.length > 0 ? garwood(sum(list), list.length) : { low: 0, high: Infinity },
})

const NAMES: Readonly<Record<Outcome, string>> = { bumps: 'Bumps', redness: 'Grades of redness' }
const visitsWords = (n: number) => `${n} ${n === 1 ? 'visit' : 'visits'}`
const figure = (x: number) => (x >= 10 ? x.toFixed(0) : x >= 1 ? x.toFixed(1) : x.toFixed(2))

/** As a person would say it. */
function effectWords(e: Omit<ChangeEffect, 'words'>, looks: number): string {
  const { before, after } = e
  const counts = `from ${before.count} in ${visitsWords(before.visits)} to ${after.count} in ${visitsWords(after.visits)}`
  if (e.verdict === 'too-few') {
    const least = C.leastVisits.value
    const short = [
      before.visits < least ? `${least - before.visits} more before` : '',
      after.visits < least ? `${least - after.visits} more after` : '',
    ].filter(Boolean)
    return short.length > 0
      ? `${NAMES[e.outcome]}: too few answered visits to tell (${short.join(', ')}).`
      : `${NAMES[e.outcome]}: none on either side, so there is nothing to compare.`
  }
  const corrected = looks > 1 ? `, corrected for ${looks} comparisons` : ''
  const range = `rate × ${figure(e.ratio)}, 95 % from ${figure(e.low)} to ${e.high === Infinity ? 'no upper end' : figure(e.high)}`
  const scatter =
    e.scatter > 1 ? ' Counts scatter more than chance alone, so the range is widened.' : ''
  if (e.verdict === 'no-difference') {
    const moved = e.ratio === 1 ? 'stayed' : e.ratio < 1 ? 'went down' : 'went up'
    return `${NAMES[e.outcome]} ${moved} ${counts}; that may well be chance (${range}${corrected}).${scatter}`
  }
  return `${NAMES[e.outcome]} ${e.verdict} ${counts}; that is unlikely to be chance (${range}${corrected}).${scatter}`
}

/** What may be said of the cause. */
export function separabilityWords(change: DatedChange): string {
  const names = change.factors.map((f) => FACTOR_WORDS[f])
  if (names.length === 0)
    return 'Nothing that is kept here differs besides; the note is taken as it stands.'
  if (names.length === 1) return `Of what is kept here only this differs: ${names[0]}.`
  return `Changed together and not separable: ${names.slice(0, -1).join(', ')} and ${names.at(-1)}.`
}

/** The trend watch of a client's bumps (or redness). */
export interface Trend {
  /** Per counted visit, in order. */
  readonly points: readonly (EwmaPoint & { readonly atMs: number; readonly count: number })[]
  /** Mean per visit of the baseline. */
  readonly baseline: number
  readonly words: string
}

/**
 * EWMA of counts against the client's own first visits, in standard deviations of a count; undefined while there are too few.
 */
export function trendWatch(visits: readonly VisitFacts[], outcome: Outcome): Trend | undefined {
  const counted = visits.flatMap((v) => {
    const [count] = countsOf([v], outcome)
    return count === undefined ? [] : [{ atMs: v.endedAtMs, count }]
  })
  const n = C.baselineVisits.value
  if (counted.length <= n) return undefined
  const first = counted.slice(0, n).map((c) => c.count)
  // Half a count keeps a baseline of none from making one bump infinite.
  const baseline = Math.max(0.5, sum(first)) / n
  const sigma = Math.sqrt(baseline * scatterOf([first]))
  const points = ewma(
    counted.map((c) => (c.count - baseline) / sigma),
    0,
    1,
    C.trendLambda.value,
    C.trendWidths.value,
  ).map((p, i) => ({ ...p, ...counted[i]! }))
  const last = points.at(-1)!
  const name = NAMES[outcome]
  const words = !last.out
    ? `${name}: as in the first ${n} counted visits, about ${figure(baseline)} a visit.`
    : `${name} ${last.value > 0 ? 'have risen above' : 'have fallen below'} what was usual in the first ${n} counted visits (about ${figure(baseline)} a visit).`
  return { points, baseline, words }
}
