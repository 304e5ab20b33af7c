/**
 * What each way of taking hair off has done to a client's skin, place by place (M7 by method). A method's tries alone teach its
 * own level; before the first of them it is expected where the client's other methods put it, as unsurely as methods and people
 * differ. Zones of one method lean on each other as they do in any service.
 */
import { constant, type Figures } from '../house/index.ts'
import type { SkinAndHair } from '../client.ts'
import { bumpsByZone, worstByZone, type PastService } from '../looks/index.ts'
import {
  believe,
  bumpPooling,
  expectedMean,
  rednessOdds,
  rednessRange,
  skinPooling,
  sumVisits,
  zoneSensitivity,
  type Pooling,
  type SkinBelief,
  type SkinOutcome,
} from '../skin/index.ts'
import { sum } from '../stats/index.ts'
import { HAND_METHODS, isPlanned, type Method } from '../services/index.ts'
import { hiddenByHome, type HomeWork } from './homeWork.ts'
import type { PastJob } from './jobsDone.ts'

export const TRY_CONSTANTS = {
  methodsAlike: constant(
    6,
    '',
    'Shape of the spread of a client’s redness and bumps, per load, between methods (higher: more alike)',
    'H',
  ),
  bladeLoad: constant(2, '', 'Load of a blade on a zone where the client never had one', 'H'),
  guardedLoad: constant(0.9, '', 'Load of a guarded blade on a zone that never had one', 'H'),
} as const

const C = TRY_CONSTANTS

/** Odds with the range that holds the truth with 80 %. */
export interface RangedOdds {
  readonly odds: number
  readonly low: number
  readonly high: number
}

/** What a method comes to in a zone. */
export interface MethodOdds {
  readonly method: Method
  /** Load of a try there. */
  readonly load: number
  /** Redness of 2 or more within 48 h; a bump or ingrown hair of days 2 to 14. */
  readonly redness: RangedOdds
  readonly bumps: RangedOdds
  /** Tries of the method whose redness was told, and those in this zone. */
  readonly tries: number
  readonly here: number
}

/** The tries of one method. */
interface MethodTries {
  /** Load of each zone and visit that it alone went over. */
  readonly loads: readonly (readonly [zone: string, load: number])[]
  readonly redness: readonly SkinOutcome[][]
  readonly bumps: readonly SkinOutcome[][]
}

/**
 * Tries by method. A zone that two methods went over in one sitting, or something at home since, is nobody's: who reddened it
 * cannot be told.
 * @param past in any order
 */
export function triesByMethod(
  figures: Figures,
  past: readonly PastJob[],
  home: readonly HomeWork[] = [],
): Map<Method, MethodTries> {
  const visits = new Map<string, PastJob[]>()
  for (const job of [...past].sort((a, b) => a.endedAtMs - b.endedAtMs))
    visits.set(job.visitId, [...(visits.get(job.visitId) ?? []), job])
  const tries = new Map<
    Method,
    { loads: [string, number][]; redness: SkinOutcome[][]; bumps: SkinOutcome[][] }
  >()
  for (const jobs of visits.values()) {
    const { endedAtMs, answers, redAtChair } = jobs[0]!
    const hidden = hiddenByHome(figures, endedAtMs, home)
    const byZone = new Map<string, Map<Method, number>>()
    for (const job of jobs)
      for (const [zone, load] of Object.entries(job.loads ?? {})) {
        const at = byZone.get(zone) ?? new Map<Method, number>()
        byZone.set(zone, at.set(job.method, (at.get(job.method) ?? 0) + load))
      }
    const clean = [...byZone].flatMap(([zone, of]) => {
      const [[method, load]] = [...of] as [[Method, number]]
      return of.size === 1 && load > 0 && !hidden.has(zone) ? [{ zone, method, load }] : []
    })
    for (const method of new Set(clean.map((t) => t.method))) {
      const own = clean.filter((t) => t.method === method)
      const told: PastService = {
        ...{ endedAtMs, answers, redAtChair },
        loads: Object.fromEntries(own.map((t) => [t.zone, t.load])),
      }
      const of = tries.get(method) ?? { loads: [], redness: [], bumps: [] }
      tries.set(method, of)
      of.loads.push(...own.map((t): [string, number] => [t.zone, t.load]))
      const outcomes = (seen: ReadonlyMap<string, number> | undefined): SkinOutcome[][] =>
        seen
          ? [own.map((t) => ({ zoneId: t.zone, load: t.load, grade: seen.get(t.zone) ?? 0 }))]
          : []
      of.redness.push(...outcomes(worstByZone(figures, told)))
      of.bumps.push(...outcomes(bumpsByZone(figures, told)))
    }
  }
  return tries
}

/** A client's level, grade or bumps per load: where it is believed, and its spread over its mean, squared. */
function levelOf({ rates, weights }: SkinBelief): { mean: number; spread: number } {
  const mean = sum(rates.map((r, i) => r * weights[i]!))
  const square = sum(rates.map((r, i) => (r - mean) ** 2 * weights[i]!))
  return { mean, spread: square / (mean * mean) }
}

/** What is believed of one method from its own tries, expected where the others put it. */
function believeMethod(
  figures: Figures,
  own: readonly (readonly SkinOutcome[])[],
  others: readonly (readonly SkinOutcome[])[],
  pooling: Pooling,
): SkinBelief {
  const level = levelOf(believe(sumVisits(figures, others, pooling.mean), pooling))
  const between = 1 / figures(C.methodsAlike)
  // The person's level times the method's own: their spreads over the mean add up.
  const spread = level.spread + between + level.spread * between
  return believe(sumVisits(figures, own, level.mean), {
    ...pooling,
    mean: level.mean,
    betweenClients: 1 / spread,
    // That a client may lie far from all others is in the spread of their level; that a method may, is not.
    unlike: pooling.unlike * UNLIKE_LEFT,
  })
}

/** Odds that a method is unlike the client’s others, over those that a client is unlike everybody. */
const UNLIKE_LEFT = 0.2

/** Load of a method on a zone: of the client's own tries there, else of theirs anywhere, else what the house expects. */
function loadOf(
  figures: Figures,
  method: Method,
  zone: string,
  loads: MethodTries['loads'],
): number {
  const here = loads.filter(([z]) => z === zone)
  const known = (here.length > 0 ? here : loads).map(([, load]) => load)
  if (known.length > 0) return sum(known) / known.length
  if (method === 'blade') return figures(C.bladeLoad)
  return isPlanned(method) ? figures(C.guardedLoad) : figures(HAND_METHODS[method].load)
}

/** Tries of a client, ready to be asked of any method and zone. */
export type AskMethod = (method: Method, zone: string) => MethodOdds

/**
 * Odds of redness and of bumps by method and zone, from a client's past tries.
 * @param past jobs of finished visits, in any order
 * @param mean grade per unit load that is expected of such skin
 */
export function methodOdds(
  figures: Figures,
  skin: SkinAndHair,
  past: readonly PastJob[],
  home: readonly HomeWork[] = [],
  mean = expectedMean(figures, skin.reactivity),
): AskMethod {
  const tries = triesByMethod(figures, past, home)
  const beliefs = new Map<Method, { redness: SkinBelief; bumps: SkinBelief }>()
  const beliefsOf = (method: Method) => {
    const known = beliefs.get(method)
    if (known) return known
    const of = (what: 'redness' | 'bumps', pooling: Pooling) =>
      believeMethod(
        figures,
        tries.get(method)?.[what] ?? [],
        [...tries].flatMap(([m, t]) => (m === method ? [] : t[what])),
        pooling,
      )
    const made = {
      redness: of('redness', skinPooling(figures, mean)),
      bumps: of('bumps', bumpPooling(figures, skin)),
    }
    beliefs.set(method, made)
    return made
  }
  return (method, zone) => {
    const own = tries.get(method)
    const load = loadOf(figures, method, zone, own?.loads ?? [])
    const ranged = (belief: SkinBelief, grade: number): RangedOdds => {
      const s = zoneSensitivity(belief, zone)
      return { odds: rednessOdds(s, load, grade), ...rednessRange(s, load, 0.8, grade) }
    }
    const { redness, bumps } = beliefsOf(method)
    return {
      ...{ method, load },
      redness: ranged(redness, 2),
      bumps: ranged(bumps, 1),
      tries: own?.redness.length ?? 0,
      here: own?.redness.filter((v) => v.some((o) => o.zoneId === zone)).length ?? 0,
    }
  }
}
