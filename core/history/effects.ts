/**
 * Choices against outcomes: what differed between quiet and red visits, each as a rate ratio with its range, from one
 * regression of counts with pooling. Zones (and clients) have their own level, drawn together, and so has every visit: a bad
 * day reddens all zones alike and is no choice's doing. Every choice is drawn toward "no effect" until visits say otherwise.
 * Effects are of choices as they happened, not of an experiment.
 */
import { constant, type Figures } from '../house/index.ts'
import { type CountFit, CountVisits, fitCounts, median, sum } from '../stats/index.ts'
import { DAY_MS } from '../time/index.ts'
import type { VisitFacts } from './facts.ts'
import { CHOICE_IDS, CHOICES, patternKey, patternOf, type ChoiceId } from './patterns.ts'
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
  /** How much days differ: spread of the level that a visit's zones share. */
  readonly spread: number
}

/** A client's visits, oldest first. */
export interface ClientVisits {
  readonly clientId: string
  readonly visits: readonly VisitFacts[]
}

const OUTCOMES: readonly Counted[] = ['redness', 'bumps']

/** What a client's visits say of choices: the ways in which zones were done, and what was counted on each visit. Flat lists. */
export interface ChoiceSums {
  /** Visits that were looked at, by outcome. */
  readonly visits: readonly number[]
  /** By outcome, how many of them made each choice, in the order of CHOICE_IDS. */
  readonly made: readonly (readonly number[])[]
  /** Zones that were done. */
  readonly zones: readonly string[]
  /** Ways, WAY numbers each: the pattern, the zone's place in `zones`, and what was counted there for each outcome. */
  readonly ways: readonly number[]
  /** Ways that were done together, as places in `ways`; visits often repeat one another. */
  readonly sets: readonly (readonly number[])[]
  /** Visits, SEEN numbers each: the set, and for each outcome what was counted; −1 where nobody looked. */
  readonly seen: readonly number[]
}

/** Numbers of a way, and of a visit. */
const WAY = 4
const SEEN = 3
/** More than any body has. */
const MOST_ZONES = 1000

/** @param all a client's visits, oldest first */
export function choiceSums(all: readonly VisitFacts[]): ChoiceSums {
  const zones = new Map<string, number>()
  const places = new Map<number, number>()
  const ways: number[] = []
  const sets = new Map<string, number>()
  const seen: number[] = []
  const made = OUTCOMES.map(() => CHOICE_IDS.map(() => 0))
  const visits = OUTCOMES.map(() => 0)
  for (const { visit, sooner } of spaced(all)) {
    const found = [visit.worst, visit.bumps]
    if (!visit.choices || found.every((f) => f === null)) continue
    const { slip } = visit.choices
    let bits = 0
    const set: number[] = []
    const counts = found.map((counted) => (counted ? 0 : -1))
    for (const [zoneId, zone] of Object.entries(visit.choices.zones)) {
      const pattern = patternKey(zone, zone.slip ?? slip, sooner)
      bits |= patternOf(pattern).made
      let place = zones.get(zoneId)
      if (place === undefined) zones.set(zoneId, (place = zones.size))
      const key = pattern * MOST_ZONES + place
      let way = places.get(key)
      if (way === undefined) {
        places.set(key, (way = ways.length / WAY))
        ways.push(pattern, place, 0, 0)
      }
      set.push(way)
      found.forEach((counted, o) => {
        if (!counted) return
        const n = Math.round(counted[zoneId] ?? 0)
        ways[way * WAY + 2 + o]! += n
        counts[o]! += n
      })
    }
    if (set.length === 0) continue
    found.forEach((counted, o) => {
      if (!counted) return
      visits[o]!++
      CHOICE_IDS.forEach((_, place) => {
        if (bits & (1 << place)) made[o]![place]!++
      })
    })
    const key = set.join(' ')
    if (!sets.has(key)) sets.set(key, sets.size)
    seen.push(sets.get(key)!, ...counts)
  }
  return {
    visits,
    made,
    zones: [...zones.keys()],
    ways,
    sets: [...sets.keys()].map((key) => key.split(' ').map(Number)),
    seen,
  }
}

/**
 * The choices against redness and against bumps.
 * @param clients one client, or all of the studio
 * @returns none for an outcome while no visit that was looked at for it has its choices kept
 */
export const choiceEffects = (figures: Figures, clients: readonly ClientVisits[]): Effects[] =>
  effectsOf(
    figures,
    clients.map((c) => choiceSums(c.visits)),
  )

/** The same of what was summed, one entry a client. */
export function effectsOf(figures: Figures, clients: readonly ChoiceSums[]): Effects[] {
  const level = 1 / figures(E.levelSpread) ** 2
  // The level of all, the choices, the zones; then the clients.
  const zones = new Map<string, number>()
  const ranges = CHOICE_IDS.map(() => new Set<number>())
  const patterns = new Set<number>()
  for (const client of clients) {
    for (const zoneId of client.zones) if (!zones.has(zoneId)) zones.set(zoneId, zones.size)
    for (let w = 0; w < client.ways.length; w += WAY) patterns.add(client.ways[w]!)
  }
  for (const pattern of patterns) {
    patternOf(pattern).all.forEach((v, place) => ranges[place]!.add(v))
  }
  const first = 1 + CHOICE_IDS.length + zones.size
  const levels = clients.length > 1 ? clients.length : 0
  const precision = [
    1 / LEVEL_DOUBT ** 2,
    ...CHOICE_IDS.map(() => 1 / figures(E.effectSpread) ** 2),
    ...new Array<number>(zones.size + levels).fill(level),
  ]
  return OUTCOMES.flatMap((outcome, o): Effects[] => {
    const visits = sum(clients.map((c) => c.visits[o]!))
    if (visits === 0) return []
    const fit = fitOver(clients, zones, o, first, precision, levels)
    const effects = CHOICE_IDS.map((id, place) => {
      const withIt = sum(clients.map((c) => c.made[o]![place]!))
      return effectOf(figures, id, outcome, {
        beta: fit.beta[1 + place]!,
        half: Z_95 * fit.se[1 + place]!,
        varied: ranges[place]!.size > 1,
        withIt,
        without: visits - withIt,
      })
    })
    return [{ outcome, visits, effects, spread: fit.spread }]
  })
}

/** So many visits tell well enough how much days differ; with more, the rest is fitted there alone. */
const ENOUGH_VISITS = 800

/** The fit over clients: how much days differ is found on some of them where there are many. */
function fitOver(
  clients: readonly ChoiceSums[],
  zones: ReadonlyMap<string, number>,
  o: number,
  first: number,
  precision: readonly number[],
  levels: number,
): CountFit {
  const visits = sum(clients.map((c) => c.visits[o]!))
  const fit = (some: readonly ChoiceSums[], options = {}) => {
    const own = levels > 0 ? some.length : 0
    return fitCounts(
      laid(some, zones, o, own > 0),
      first,
      precision.slice(0, first + own),
      own,
      options,
    )
  }
  const each = Math.ceil(visits / ENOUGH_VISITS)
  if (each < 2) return fit(clients)
  const some = fit(clients.filter((_, i) => i % each === 0))
  return fit(clients, { spreads: some.likely, from: some.beta })
}

/** Visits of clients as the regression takes them. */
function laid(
  clients: readonly ChoiceSums[],
  zones: ReadonlyMap<string, number>,
  o: number,
  grouped: boolean,
): CountVisits {
  const all = new CountVisits()
  const designs = new Map<number, number>()
  const designOf = (key: number) => {
    const had = designs.get(key)
    if (had !== undefined) return had
    const zone = key % zones.size
    const { values } = patternOf((key - zone) / zones.size)
    const made = all.explainedBy({
      columns: [0, ...values.map(([place]) => 1 + place), 1 + CHOICE_IDS.length + zone],
      values: [1, ...values.map(([, v]) => v), 1],
    })
    designs.set(key, made)
    return made
  }
  clients.forEach(({ zones: own, ways, sets, seen }, c) => {
    const places = own.map((zoneId) => zones.get(zoneId)!)
    const designAt: number[] = []
    for (let w = 0; w < ways.length; w += WAY) {
      const design = designOf(ways[w]! * zones.size + places[ways[w + 1]!]!)
      designAt.push(design)
      all.counted(design, ways[w + 2 + o]!)
    }
    for (let v = 0; v < seen.length; v += SEEN) {
      const counted = seen[v + 1 + o]!
      if (counted < 0) continue
      const members = sets[seen[v]!]!.map((way) => designAt[way]!)
      all.add(members, counted, grouped ? c : -1)
    }
  })
  return all
}

/** Spread of the logarithm of the level of all before anything is known: hardly anything is said of it. */
const LEVEL_DOUBT = 4

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
