/**
 * Choices against outcomes: what differed between quiet and red visits, each as a rate ratio with its range, from one Poisson
 * regression with pooling. Zones (and clients) have their own level, drawn together; every choice is drawn toward "no effect"
 * until visits say otherwise. Effects are of choices as they happened, not of an experiment.
 */
import { constant, type Figures } from '../house/index.ts'
import { fitPoisson, type PoissonRow, median } from '../stats/index.ts'
import { DAY_MS } from '../time/index.ts'
import type { VisitFacts } from './facts.ts'
import { CHOICE_IDS, CHOICES, Patterns, type ChoiceId } from './patterns.ts'
import type { Counted } from './counts.ts'

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
  readonly outcome: Counted
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

/** More columns than a regression ever has: makes one number of a pattern and a zone. */
const MOST_COLUMNS = 100_000

const OUTCOMES: readonly Counted[] = ['redness', 'bumps']

/** A way of doing a zone of a client, with how often it was done and what came of it. */
interface Group {
  readonly columns: number[]
  readonly values: number[]
  /** By outcome: visits on which it was looked at, and what was counted on them. */
  readonly seen: number[]
  readonly count: number[]
}

/** How often a choice was made, by outcome. */
interface Made {
  readonly withIt: number[]
  readonly without: number[]
}

/**
 * The choices against redness and against bumps.
 * @param clients one client, or all of the studio
 * @returns none for an outcome while no visit that was looked at for it has its choices kept
 */
export function choiceEffects(figures: Figures, clients: readonly ClientVisits[]): Effects[] {
  const columns = new Map<string, number>()
  const precision: number[] = []
  const column = (name: string, spread: number | undefined) => {
    const had = columns.get(name)
    if (had !== undefined) return had
    precision.push(spread === undefined ? 0 : 1 / spread ** 2)
    columns.set(name, precision.length - 1)
    return precision.length - 1
  }
  const level = figures(E.levelSpread)
  column('all', undefined)
  for (const id of CHOICE_IDS) column(id, figures(E.effectSpread))
  const zoneColumns = new Map<string, number>()
  const zoneColumn = (zoneId: string) => {
    const at = column(`zone ${zoneId}`, level)
    zoneColumns.set(zoneId, at)
    return at
  }
  const groups: Group[] = []
  const patterns = new Patterns()
  const made = CHOICE_IDS.map((): Made => ({ withIt: [0, 0], without: [0, 0] }))
  const visits = [0, 0]
  for (const client of clients) {
    // Visits of one client done alike stand together.
    const together = new Map<number, Group>()
    const own = clients.length > 1 ? column(`client ${client.clientId}`, level) : undefined
    for (const { visit, sooner } of spaced(client.visits)) {
      const found = [visit.worst, visit.bumps]
      if (!visit.choices || found.every((f) => f === null)) continue
      let bits = 0
      for (const zoneId in visit.choices.zones) {
        const pattern = patterns.of(visit.choices.zones[zoneId]!, visit.choices.slip, sooner)
        bits |= pattern.made
        const zone = zoneColumns.get(zoneId) ?? zoneColumn(zoneId)
        const key = pattern.index * MOST_COLUMNS + zone
        let group = together.get(key)
        if (!group) {
          group = { columns: [0], values: [1], seen: [0, 0], count: [0, 0] }
          // Choices stand right after the level of all.
          for (const [place, value] of pattern.values) {
            group.columns.push(1 + place)
            group.values.push(value)
          }
          group.columns.push(zone)
          group.values.push(1)
          if (own !== undefined) {
            group.columns.push(own)
            group.values.push(1)
          }
          together.set(key, group)
          groups.push(group)
        }
        for (let o = 0; o < OUTCOMES.length; o++) {
          const zones = found[o]
          if (!zones) continue
          group.seen[o]!++
          group.count[o]! += zones[zoneId] ?? 0
        }
      }
      for (let o = 0; o < OUTCOMES.length; o++) {
        if (!found[o]) continue
        visits[o]!++
        made.forEach(({ withIt, without }, place) => {
          ;(bits & (1 << place) ? withIt : without)[o]!++
        })
      }
    }
  }
  return OUTCOMES.flatMap((outcome, o): Effects[] => {
    if (visits[o] === 0) return []
    const rows = groups.flatMap((g): PoissonRow[] =>
      g.seen[o]! > 0
        ? [{ columns: g.columns, values: g.values, y: g.count[o]!, exposure: g.seen[o]! }]
        : [],
    )
    // With nothing counted the level has no bottom: half a count holds it.
    if (rows.every((r) => r.y === 0)) {
      const exposure = rows.reduce((s, r) => s + r.exposure, 0)
      rows.push({ columns: [0], values: [1], y: 0.5, exposure })
    }
    const fit = fitPoisson(rows, precision.length, precision)
    const scatter = Math.max(1, fit.dispersion)
    const effects = CHOICE_IDS.map((id, place) => {
      const c = 1 + place
      const { withIt, without } = made[place]!
      return effectOf(figures, id, outcome, {
        beta: fit.beta[c]!,
        half: Z_95 * fit.seOf(c) * Math.sqrt(scatter),
        varied: patterns.varied(id),
        withIt: withIt[o]!,
        without: without[o]!,
      })
    })
    return [{ outcome, visits: visits[o]!, effects, scatter }]
  })
}

/** z of a 95 % range. */
const Z_95 = 1.959964

/** Each visit with how much sooner than usual it came, in halvings of the usual interval, to a half. */
function spaced(visits: readonly VisitFacts[]): { visit: VisitFacts; sooner: number }[] {
  const gaps = visits.slice(1).map((v, i) => v.endedAtMs - visits[i]!.endedAtMs)
  const usual = median(gaps)
  return visits.map((visit, i) => {
    const since = gaps[i - 1]
    if (!usual || since === undefined) return { visit, sooner: 0 }
    const halvings = Math.round(2 * Math.log2(usual / Math.max(since, DAY_MS / 2))) / 2
    return { visit, sooner: Math.max(-1, Math.min(2, halvings)) }
  })
}

function effectOf(
  figures: Figures,
  id: ChoiceId,
  outcome: Counted,
  f: { beta: number; half: number; varied: boolean; withIt: number; without: number },
): ChoiceEffect {
  const effect = {
    id,
    name: CHOICES[id],
    ratio: Math.exp(f.beta),
    low: Math.exp(f.beta - f.half),
    high: Math.exp(f.beta + f.half),
    withIt: f.withIt,
    without: f.without,
  }
  const verdict = !f.varied
    ? 'never-varied'
    : effect.low > 1
      ? 'more'
      : effect.high < 1
        ? 'less'
        : 'open'
  return {
    ...effect,
    verdict,
    words: words(figures, effect, verdict, outcome, f.half, f.withIt + f.without),
  }
}

function words(
  figures: Figures,
  e: Omit<ChoiceEffect, 'verdict' | 'words'>,
  verdict: ChoiceEffect['verdict'],
  outcome: Counted,
  half: number,
  visits: number,
): string {
  const what = outcome === 'bumps' ? 'bumps' : 'redness'
  if (verdict === 'never-varied') return `It was always done the same way, so nothing can be said.`
  const range = `× ${e.ratio.toFixed(2)}, 95 % from ${e.low.toFixed(2)} to ${e.high.toFixed(2)}`
  if (verdict === 'more') return `Went with more ${what} (${range}).`
  if (verdict === 'less') return `Went with less ${what} (${range}).`
  const wanted = Math.log(figures(E.tellRatio))
  // Ranges shrink with the root of the visits.
  const needed = Math.ceil(visits * ((half / wanted) ** 2 - 1))
  if (Math.min(e.withIt, e.without) < figures(E.leastWithout) || needed > 0) {
    return `Cannot be told yet (${range}): about ${Math.max(needed, figures(E.leastWithout) - Math.min(e.withIt, e.without), 1)} more answered visits to see half as much again.`
  }
  return `No difference of half as much again (${range}).`
}
