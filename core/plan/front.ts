/**
 * The plans that no other beats in odds, hours and minutes at once (M18): for every set of blades and greatest number of passes
 * the non-dominated sums over areas, exactly, by a staircase; then the true odds of what is left. Gentlest, balanced and closest
 * are points of it.
 */
import { constant, type Figures } from '../house/index.ts'
import type { ZoneId } from '../zones/index.ts'
import { anyOdds, calmCosts, skinNodes, type SkinBelief, type SkinNode } from '../skin/index.ts'
import {
  ROUTINE_CONSTANTS,
  SERVICES,
  STYLES,
  type ServiceId,
  type Style,
} from '../services/index.ts'
import type { Sequence } from './passes.ts'
import type { FrontPoint } from './types.ts'
import { rowOf, zoneRow, type Unit, type WorkedArea } from './units.ts'

export const FRONT_CONSTANTS = {
  oddsTold: constant(0.03, 'probability', 'Plans nearer than this in odds', 'H'),
  hoursTold: constant(1.5, 'h', 'and than this in smoothness', 'H'),
  minutesTold: constant(3, 'min', 'and than this in time are told as one', 'H'),
} as const

/** What a person can tell apart is coarser: these only keep the sums few. */
const SAME_HOURS = 0.02
const SAME_SECONDS = 4

/** Blades of a plan with what each area may take with them. */
export interface FrontSet {
  readonly areas: readonly WorkedArea[]
  /** Seconds that this set takes besides its strokes, over those of the others. */
  readonly extraSeconds: number
}

/** A plan in outline. */
export interface FrontPlan extends FrontPoint {
  readonly skin: NonNullable<FrontPoint['skin']>
  /** Which set of blades. */
  readonly set: number
  /** The row of every zone that is worked. */
  readonly rows: ReadonlyMap<ZoneId, Sequence>
  /** The row of each area, and the units that take another. */
  readonly byArea: readonly { readonly area: number; readonly key: string }[]
}

/** All of them, in rising odds, and where the three kinds lie. */
export interface Front {
  readonly plans: readonly FrontPlan[]
  /** The zones that `skin` of the plans speaks of. */
  readonly zones: readonly ZoneId[]
  readonly offered: Partial<Readonly<Record<Style, number>>>
  /** The plan of each kind, of those that are offered. */
  readonly kinds: Readonly<Record<Style, number>>
  readonly why?: string
}

/** One row for an area, worked out over its units. */
interface AreaRow {
  readonly key: string
  readonly cost: number
  readonly seconds: number
  /** Hours times cm². */
  readonly hours: number
  readonly costs: Float64Array
}

interface State {
  readonly cost: number
  readonly seconds: number
  readonly hours: number
  readonly row: AreaRow | undefined
  readonly before: State | undefined
}

/**
 * Finds the front.
 * @param baseSeconds time of a plan besides its strokes and their changes
 * @returns no plans when nothing is left to work
 */
export function frontOf(
  figures: Figures,
  service: ServiceId,
  belief: SkinBelief,
  sets: readonly FrontSet[],
  baseSeconds: number,
): Front {
  const nodes = skinNodes(belief)
  const cache = new Map<string, Float64Array>()
  const costsFor = (zone: ZoneId, load: number) => {
    const key = `${zone} ${load}`
    let had = cache.get(key)
    if (!had) {
      had = calmCosts(belief, nodes, zone, load)
      cache.set(key, had)
    }
    return had
  }
  const between = SERVICES[service].lather ? 60 * figures(ROUTINE_CONSTANTS.reLatherMin) : 0
  const found = sets.flatMap(({ areas, extraSeconds }, set) => {
    const weights = middleWeights(areas, nodes, costsFor)
    const passes = Math.max(...areas.flatMap((a) => a.units.map(mostPasses)), 1)
    const area = areas.reduce((s, a) => s + areaCm2(a), 0)
    return Array.from({ length: passes }, (_, i) => i + 1).flatMap((most) => {
      const rows = areas.map((a) => areaRows(a, most, weights, nodes.length, costsFor))
      const fixed = baseSeconds + extraSeconds + (most - 1) * between
      return sums(rows, area).map((state) => {
        const own: AreaRow[] = []
        for (let s: State | undefined = state; s?.row; s = s.before) own.unshift(s.row)
        const total = new Float64Array(nodes.length)
        for (const { costs } of own) costs.forEach((c, n) => (total[n]! += c))
        return {
          set,
          odds: anyOdds(nodes, total),
          hours: state.hours / area,
          minutes: (fixed + state.seconds) / 60,
          own,
        }
      })
    })
  })
  const zones = [
    ...new Set(
      sets.flatMap((s) => s.areas.flatMap((a) => a.units.flatMap((u) => u.zones.map((z) => z.id)))),
    ),
  ]
  const plans = undominated(found).map(({ own, set, ...point }): FrontPlan => {
    const rows = new Map<ZoneId, Sequence>()
    const skin: FrontPlan['skin'][number][] = zones.map(() => null)
    sets[set]!.areas.forEach(({ units }, a) => {
      for (const unit of units)
        for (const zone of unit.zones) {
          const row = zoneRow(unit, zone, own[a]!.key)
          if (!row) continue
          rows.set(zone.id, row.sequence)
          const { load, passes } = row.figures
          skin[zones.indexOf(zone.id)] = [
            rounded(load, 1000),
            rounded(passes[passes.length - 1]?.leftMm ?? 0, 1000),
          ]
        }
    })
    return { ...point, skin, set, rows, byArea: own.map(({ key }, area) => ({ area, key })) }
  })
  return { plans, zones, ...kindsOf(figures, plans) }
}

const rounded = (x: number, per: number) => Math.round(x * per) / per

const areaCm2 = ({ units }: WorkedArea) =>
  units.reduce((s, u) => s + u.zones.reduce((t, z) => t + z.work.skin.openCm2, 0), 0)

const rowLength = (key: string) => key.split('+').length
const mostPasses = (unit: Unit) => Math.max(1, ...unit.allowed.map(rowLength))

/** Weight of each node about a plan in the middle: with one weight for a node costs of zones add up to those of plans. */
function middleWeights(
  areas: readonly WorkedArea[],
  nodes: readonly SkinNode[],
  costsFor: (zone: ZoneId, load: number) => Float64Array,
): Float64Array {
  const total = new Float64Array(nodes.length)
  for (const { units } of areas)
    for (const unit of units) {
      const key = unit.allowed[Math.floor(unit.allowed.length / 2)] ?? ''
      for (const zone of unit.zones) {
        const row = zoneRow(unit, zone, key)
        if (row) costsFor(zone.id, row.figures.load).forEach((c, n) => (total[n]! += c))
      }
    }
  const raw = Float64Array.from(nodes, (n, i) => n.weight * Math.exp(-total[i]!))
  const sum = raw.reduce((s, w) => s + w, 0)
  return raw.map((w) => w / sum)
}

/** The rows that an area may take, worked out; those beaten by another in everything are left out. */
function areaRows(
  { units }: WorkedArea,
  most: number,
  weights: Float64Array,
  nodes: number,
  costsFor: (zone: ZoneId, load: number) => Float64Array,
): AreaRow[] {
  const keys = [...new Set(units.flatMap((u) => u.allowed))].filter((k) => rowLength(k) <= most)
  const seen = new Set<string>()
  const rows: AreaRow[] = []
  for (const key of keys.length > 0 ? keys : ['']) {
    const taken = units.map((u) => rowOf(u, key))
    if (seen.has(taken.join())) continue
    seen.add(taken.join())
    const costs = new Float64Array(nodes)
    let [seconds, hours, cost] = [0, 0, 0]
    for (const unit of units)
      for (const zone of unit.zones) {
        const row = zoneRow(unit, zone, key)
        if (!row) continue
        seconds += row.seconds
        hours += zone.work.skin.openCm2 * row.figures.hours
        costsFor(zone.id, row.figures.load).forEach((c, n) => (costs[n]! += c))
      }
    costs.forEach((c, n) => (cost += weights[n]! * c))
    rows.push({ key, costs, cost, seconds, hours })
  }
  return rows.filter(
    (r) =>
      !rows.some(
        (o) =>
          o !== r &&
          o.cost <= r.cost &&
          o.seconds <= r.seconds &&
          o.hours >= r.hours &&
          (o.cost < r.cost ||
            o.seconds < r.seconds ||
            o.hours > r.hours ||
            rows.indexOf(o) < rows.indexOf(r)),
      ),
  )
}

/** All sums over areas that no other beats. */
function sums(areas: readonly (readonly AreaRow[])[], areaCm2: number): State[] {
  let states: State[] = [{ cost: 0, seconds: 0, hours: 0, row: undefined, before: undefined }]
  for (const rows of areas) {
    const next = states.flatMap((before) =>
      rows.map((row): State => ({
        cost: before.cost + row.cost,
        seconds: before.seconds + row.seconds,
        hours: before.hours + row.hours,
        row,
        before,
      })),
    )
    states = staircase(next, SAME_HOURS * areaCm2)
  }
  return states
}

/** Those that nothing of lower cost beats in seconds and hours. */
function staircase(list: State[], sameHours: number): State[] {
  list.sort((a, b) => a.cost - b.cost || b.hours - a.hours || a.seconds - b.seconds)
  const kept: State[] = []
  // Steps in rising seconds and rising hours.
  const steps: { seconds: number; hours: number }[] = []
  for (const state of list) {
    // The last step that is no slower.
    let lo = 0
    let hi = steps.length
    while (lo < hi) {
      const mid = (lo + hi) >> 1
      if (steps[mid]!.seconds <= state.seconds + SAME_SECONDS) lo = mid + 1
      else hi = mid
    }
    if (lo > 0 && steps[lo - 1]!.hours >= state.hours - sameHours) continue
    kept.push(state)
    let at = 0
    while (at < steps.length && steps[at]!.seconds < state.seconds) at++
    let end = at
    while (end < steps.length && steps[end]!.hours <= state.hours) end++
    steps.splice(at, end - at, { seconds: state.seconds, hours: state.hours })
  }
  return kept
}

/** Points that no other beats in everything, in rising odds. */
export function undominated<T extends FrontPoint>(points: readonly T[]): T[] {
  const sorted = [...points].sort(
    (a, b) => a.odds - b.odds || b.hours - a.hours || a.minutes - b.minutes,
  )
  const kept: T[] = []
  for (const p of sorted)
    if (!kept.some((k) => k.hours >= p.hours - 1e-9 && k.minutes <= p.minutes + 1e-9)) kept.push(p)
  return kept
}

/** Odds within this of the least count as the least; hours within this of the most as the most. */
const LEAST_ODDS = 0.005
const MOST_HOURS = 0.3
/** Below this gain a front is straight, and its middle is taken; gains within this of the best are as good. */
const STRAIGHT = 0.1
const AS_GOOD = 0.02

/** Gentlest, balanced and closest, and which of them can be told apart. */
export function kindsOf(
  figures: Figures,
  points: readonly (FrontPoint & { readonly set?: number })[],
): Omit<Front, 'plans' | 'zones'> {
  if (points.length === 0)
    return { offered: {}, kinds: { gentlest: -1, balanced: -1, closest: -1 } }
  const at = points.map((_, i) => i)
  const least = Math.min(...points.map((p) => p.odds))
  const most = Math.max(...points.map((p) => p.hours))
  type Point = (typeof points)[number]
  const best = (list: readonly number[], better: (a: Point, b: Point) => number) =>
    list.reduce((a, b) => (better(points[b]!, points[a]!) < 0 ? b : a))
  const gentlest = best(
    at.filter((i) => points[i]!.odds <= least + LEAST_ODDS),
    (a, b) => b.hours - a.hours || a.odds - b.odds || a.minutes - b.minutes,
  )
  const closest = best(
    at.filter((i) => points[i]!.hours >= most - MOST_HOURS),
    (a, b) => a.odds - b.odds || b.hours - a.hours || a.minutes - b.minutes,
  )
  const [g, c] = [points[gentlest]!, points[closest]!]
  const share = (p: FrontPoint) => ({
    hours: (p.hours - g.hours) / Math.max(c.hours - g.hours, 1e-9),
    odds: (p.odds - g.odds) / Math.max(c.odds - g.odds, 1e-9),
  })
  const between = at.filter(
    (i) => points[i]!.odds >= g.odds - 1e-9 && points[i]!.odds <= c.odds + 1e-9,
  )
  const gain = (i: number) => {
    const s = share(points[i]!)
    return s.hours - s.odds
  }
  const greatest = Math.max(...between.map(gain))
  const middle = (p: FrontPoint) => {
    const s = share(p)
    return Math.hypot(s.hours - 0.5, s.odds - 0.5)
  }
  const balanced =
    greatest < STRAIGHT
      ? best(between, (a, b) => {
          const nearer = middle(a) - middle(b)
          // Of two that are as near the usual blades go first.
          return Math.abs(nearer) > AS_GOOD ? nearer : (a.set ?? 0) - (b.set ?? 0)
        })
      : best(
          between.filter((i) => gain(i) >= greatest - AS_GOOD),
          (a, b) => a.minutes - b.minutes || a.odds - b.odds,
        )
  return told(figures, points, { gentlest, balanced, closest })
}

/** Kinds that a person can tell from one another. */
function told(
  figures: Figures,
  points: readonly FrontPoint[],
  kinds: Record<Style, number>,
): Omit<Front, 'plans' | 'zones'> {
  const apart = (a: Style, b: Style) => {
    const [p, q] = [points[kinds[a]]!, points[kinds[b]]!]
    return (
      Math.abs(p.odds - q.odds) >= figures(FRONT_CONSTANTS.oddsTold) ||
      Math.abs(p.hours - q.hours) >= figures(FRONT_CONSTANTS.hoursTold) ||
      Math.abs(p.minutes - q.minutes) >= figures(FRONT_CONSTANTS.minutesTold)
    )
  }
  if (
    !apart('gentlest', 'closest') &&
    !apart('gentlest', 'balanced') &&
    !apart('balanced', 'closest')
  ) {
    const only = kinds.balanced
    return {
      offered: { balanced: only },
      kinds: { gentlest: only, balanced: only, closest: only },
      why: 'This skin allows one plan: with this service, school and blades nothing else differs by as much as can be told.',
    }
  }
  const own = apart('balanced', 'gentlest') && apart('balanced', 'closest')
  if (!apart('gentlest', 'closest') || own) {
    const offered = own ? STYLES : (['gentlest', 'balanced'] as const)
    return { offered: Object.fromEntries(offered.map((s) => [s, kinds[s]])), kinds }
  }
  const near: Style = apart('balanced', 'gentlest') ? 'closest' : 'gentlest'
  return {
    offered: { gentlest: kinds.gentlest, closest: kinds.closest },
    kinds: { ...kinds, balanced: kinds[near] },
    why: 'Two plans can be told apart on this skin: between them nothing differs by as much as can be told.',
  }
}
