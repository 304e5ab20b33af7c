/** Changes of routine: noted by hand, or found in what was done; with the visits before and after, and what else differs. */
import type { Figures } from '../house/index.ts'
import { DAY_MS } from '../time/index.ts'
import { listWords } from '../words.ts'
import { CHANGE_CONSTANTS as C } from './changeConstants.ts'
import type { VisitFacts } from './facts.ts'
import { median, mostHave } from '../stats/index.ts'

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
export function differing(
  figures: Figures,
  before: readonly VisitFacts[],
  after: readonly VisitFacts[],
): Factor[] {
  const usual = (visits: readonly VisitFacts[], factor: Factor) =>
    mostHave(labels(visits).map((l) => l[factor]))
  return FACTORS.filter((factor) => {
    if (factor === 'interval') {
      const [a, b] = [median(gaps(before)), median(gaps(after))]
      if (a === undefined || b === undefined || a <= 0 || b <= 0) return false
      return Math.max(a / b, b / a) >= figures(C.intervalRatio)
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
export function findChanges(figures: Figures, visits: readonly VisitFacts[]): DatedChange[] {
  const run = figures(C.runVisits)
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
    const most = figures(C.lookVisits)
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
      factors: differing(figures, before, after),
    }
  })
}

/** What may be said of the cause. */
export function separabilityWords(change: DatedChange): string {
  const names = change.factors.map((f) => FACTOR_WORDS[f])
  if (names.length === 0)
    return 'Nothing that is kept here differs besides; the note is taken as it stands.'
  if (names.length === 1) return `Of what is kept here only this differs: ${names[0]}.`
  return `Changed together and not separable: ${listWords(names)}.`
}
