/**
 * Choices against outcomes: what differed between quiet and red visits, each as a rate ratio with its range, from one Poisson
 * regression with pooling. Zones (and clients) have their own level, drawn together; every choice is drawn toward "no effect"
 * until visits say otherwise. Effects are of choices as they happened, not of an experiment.
 */
import { constant } from '../house/constants.ts'
import { fitPoisson, type PoissonRow } from '../stats/poissonRegression.ts'
import { DAY_MS } from '../time/dates.ts'
import { middle, type VisitFacts } from './facts.ts'
import type { Outcome } from './changes.ts'
import type { ZoneChoice } from './choices.ts'

export const EFFECT_CONSTANTS = {
  effectSpread: constant(
    0.7,
    '',
    'Spread of the logarithm of an effect before anything is known',
    'H',
  ),
  levelSpread: constant(
    0.8,
    '',
    'Spread of the logarithm of levels between zones and between clients',
    'H',
  ),
  tellRatio: constant(1.5, '', 'An effect of this size should be told apart from none', 'H'),
  leastWithout: constant(
    4,
    'visits',
    'Visits with a choice, and without it, before it is weighed',
    'H',
  ),
} as const

const E = EFFECT_CONSTANTS

export const CHOICES = {
  across: 'Across the grain, not with it',
  against: 'Against the grain, not with it',
  'second-pass': 'Each further pass',
  guarded: 'A guarded razor, not a single edge',
  cartridge: 'A cartridge, not a single edge',
  trimmer: 'A trimmer, not a single edge',
  damp: 'Damp skin, not full slip',
  dry: 'Dry skin, not full slip',
  sooner: 'Half the usual time between visits',
  'worn-blade': 'A blade at the end of its life, not a fresh one',
} as const
export type ChoiceId = keyof typeof CHOICES
const CHOICE_IDS = Object.keys(CHOICES) as ChoiceId[]

/** A choice's effect on a rate. */
export interface ChoiceEffect {
  readonly id: ChoiceId
  readonly name: string
  /** Rate with the choice over the rate without, and its 95 % range. */
  readonly ratio: number
  readonly low: number
  readonly high: number
  /** Visits with it and without it. */
  readonly withIt: number
  readonly without: number
  readonly verdict: 'more' | 'less' | 'open' | 'never-varied'
  readonly words: string
}

export interface Effects {
  readonly outcome: Outcome
  readonly visits: number
  readonly effects: readonly ChoiceEffect[]
  /** Above 1 when counts scatter more than chance; ranges are widened by it. */
  readonly scatter: number
}

/** A client's visits, oldest first. */
export interface ClientVisits {
  readonly clientId: string
  readonly visits: readonly VisitFacts[]
}

/** The choices of a zone as figures. */
function figures(zone: ZoneChoice, slip: string, sooner: number): Record<ChoiceId, number> {
  return {
    across: zone.relation === 'across' ? 1 : 0,
    against: zone.relation === 'against' ? 1 : 0,
    'second-pass': zone.passes - 1,
    guarded: zone.tool === 'guarded' ? 1 : 0,
    cartridge: zone.tool === 'cartridge' ? 1 : 0,
    trimmer: zone.tool === 'trimmer' ? 1 : 0,
    damp: slip === 'damp' ? 1 : 0,
    dry: slip === 'dry' ? 1 : 0,
    sooner,
    'worn-blade': zone.wear,
  }
}

/**
 * @param clients one client, or all of the studio
 * @returns undefined while no answered visit has its choices kept
 */
export function choiceEffects(
  clients: readonly ClientVisits[],
  outcome: Outcome,
): Effects | undefined {
  const columns = new Map<string, number>()
  const precision: number[] = []
  const column = (name: string, spread: number | undefined) => {
    const had = columns.get(name)
    if (had !== undefined) return had
    precision.push(spread === undefined ? 0 : 1 / spread ** 2)
    columns.set(name, precision.length - 1)
    return precision.length - 1
  }
  const level = E.levelSpread.value
  column('all', undefined)
  for (const id of CHOICE_IDS) column(id, E.effectSpread.value)
  const together = new Map<string, { x: [number, number][]; y: number; n: number }>()
  const ranges = new Map<ChoiceId, Set<number>>()
  const [withIt, without] = [new Map<ChoiceId, number>(), new Map<ChoiceId, number>()]
  let visits = 0
  for (const client of clients) {
    const usual = middle(
      client.visits.slice(1).map((v, i) => v.endedAtMs - client.visits[i]!.endedAtMs),
    )
    client.visits.forEach((v, i) => {
      const found = outcome === 'bumps' ? v.bumps : v.worst
      if (!found || !v.choices) return
      visits++
      const since = i === 0 ? usual : v.endedAtMs - client.visits[i - 1]!.endedAtMs
      // In halvings of the usual interval, to a quarter, so that visits alike stand together.
      const sooner =
        usual && since ? Math.round(4 * Math.log2(usual / Math.max(since, DAY_MS / 2))) / 4 : 0
      const seen = new Set<ChoiceId>()
      for (const [zoneId, zone] of Object.entries(v.choices.zones)) {
        const own = figures(
          { ...zone, wear: Math.round(4 * zone.wear) / 4 },
          v.choices.slip,
          Math.max(-1, Math.min(2, sooner)),
        )
        const x: [number, number][] = [[0, 1]]
        for (const id of CHOICE_IDS) {
          const value = own[id]
          const range = ranges.get(id) ?? new Set<number>()
          ranges.set(id, range.add(value))
          if (value === 0) continue
          x.push([columns.get(id)!, value])
          if (Math.abs(value) >= 0.5) seen.add(id)
        }
        x.push([column(`zone ${zoneId}`, level), 1])
        if (clients.length > 1) x.push([column(`client ${client.clientId}`, level), 1])
        const key = x.join(';')
        const row = together.get(key) ?? { x, y: 0, n: 0 }
        row.y += found[zoneId] ?? 0
        row.n += 1
        together.set(key, row)
      }
      for (const id of CHOICE_IDS) {
        const into = seen.has(id) ? withIt : without
        into.set(id, (into.get(id) ?? 0) + 1)
      }
    })
  }
  if (visits === 0) return undefined
  const rows = [...together.values()].map((r): PoissonRow => ({ x: r.x, y: r.y, exposure: r.n }))
  const total = rows.reduce((s, r) => s + r.y, 0)
  // With nothing counted the level has no bottom: half a count holds it.
  if (total === 0)
    rows.push({ x: [[0, 1]], y: 0.5, exposure: rows.reduce((s, r) => s + r.exposure, 0) })
  const fit = fitPoisson(rows, precision.length, precision)
  const scatter = Math.max(1, fit.dispersion)
  const effects = CHOICE_IDS.map((id): ChoiceEffect => {
    const c = columns.get(id)!
    const half = 1.959964 * fit.se[c]! * Math.sqrt(scatter)
    const [n, m] = [withIt.get(id) ?? 0, without.get(id) ?? 0]
    const varied = (ranges.get(id)?.size ?? 0) > 1
    const effect = {
      id,
      name: CHOICES[id],
      ratio: Math.exp(fit.beta[c]!),
      low: Math.exp(fit.beta[c]! - half),
      high: Math.exp(fit.beta[c]! + half),
      withIt: n,
      without: m,
    }
    const verdict = !varied
      ? 'never-varied'
      : effect.low > 1
        ? 'more'
        : effect.high < 1
          ? 'less'
          : 'open'
    return { ...effect, verdict, words: words(effect, verdict, outcome, half, n + m) }
  })
  return { outcome, visits, effects, scatter }
}

function words(
  e: Omit<ChoiceEffect, 'verdict' | 'words'>,
  verdict: ChoiceEffect['verdict'],
  outcome: Outcome,
  half: number,
  visits: number,
): string {
  const what = outcome === 'bumps' ? 'bumps' : 'redness'
  if (verdict === 'never-varied') return `It was always done the same way, so nothing can be said.`
  const range = `× ${e.ratio.toFixed(2)}, 95 % from ${e.low.toFixed(2)} to ${e.high.toFixed(2)}`
  if (verdict === 'more') return `Went with more ${what} (${range}).`
  if (verdict === 'less') return `Went with less ${what} (${range}).`
  const wanted = Math.log(E.tellRatio.value)
  // Ranges shrink with the root of the visits.
  const needed = Math.ceil(visits * ((half / wanted) ** 2 - 1))
  if (Math.min(e.withIt, e.without) < E.leastWithout.value || needed > 0) {
    return `Cannot be told yet (${range}): about ${Math.max(needed, E.leastWithout.value - Math.min(e.withIt, e.without), 1)} more answered visits to see half as much again.`
  }
  return `No difference of half as much again (${range}).`
}
