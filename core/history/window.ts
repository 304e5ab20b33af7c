/** The next visit's window of a client, from their last service and what followed. */
import type { Figures, Schools } from '../house/index.ts'
import { type SkinAndHair, skinOver } from '../client.ts'
import type { Coarseness } from '../skin/index.ts'
import { zoneName, type ZoneId } from '../zones/index.ts'
import {
  type Growth,
  growthAfter,
  nextVisitWindow,
  type SkinAfter,
  type SkinOf,
  type ClearOdds,
  clearOddsOfAll,
  skinReadyMs,
  type VisitWindow,
  workedZones,
} from '../regrowth/index.ts'
import type { Job } from '../services/index.ts'
import { afterHome, type HairSince, homeLoad, homeSince, type HomeWork } from './homeWork.ts'
import { type SkinAnswer, SPEAKS_FROM_HOURS } from '../looks/index.ts'
import { type ClosedDays, HOUR_MS, type Offset } from '../time/index.ts'

export interface LastService extends Pick<Job, 'service' | 'method' | 'everyDays'> {
  readonly endedAtMs: number
  readonly leftMm: Readonly<Record<string, number>> | null
  readonly answers: readonly Pick<SkinAnswer, 'moment' | 'atMs' | 'zones'>[]
  /** Worst redness that was noted at the chair, by zone. */
  readonly redAtChair?: Readonly<Record<string, number>> | undefined
  /** Only a trial strip was worked. */
  readonly trial?: true | undefined
}

/**
 * When skin was red and when it was clear, for settling. Slight redness right after is normal: only what made somebody note
 * it at the chair, or is seen a day later or more, speaks of unsettled skin.
 */
export function rednessSeen(
  last: Pick<LastService, 'endedAtMs' | 'answers' | 'redAtChair'>,
  counts: (zoneId: string) => boolean = () => true,
): { atMs: number; grade: number }[] {
  const worst = (grades: readonly number[]) => Math.max(0, ...grades)
  const atChair = worst(
    Object.entries(last.redAtChair ?? {})
      .filter(([zone]) => counts(zone))
      .map(([, grade]) => grade),
  )
  return [
    ...(atChair > 0 ? [{ atMs: last.endedAtMs, grade: atChair }] : []),
    ...last.answers
      .filter((a) => a.atMs >= last.endedAtMs + SPEAKS_FROM_HOURS * HOUR_MS)
      .map((a) => ({
        atMs: a.atMs,
        grade: worst(a.zones.filter((z) => counts(z.zoneId)).map((z) => z.redness)),
      })),
  ]
}

/** Who comes again, and where. */
export interface ComesAgain {
  readonly skin: SkinAndHair
  readonly schools: Schools
  readonly closed: ClosedDays
  /** Minutes east of UTC. */
  readonly offset: Offset
}

/** Hair since a job: what comes out by the root rests, and what was cut at home since begins from there. */
export const hairSince = (
  figures: Figures,
  last: Pick<LastService, 'endedAtMs' | 'leftMm' | 'method'>,
  growth: Readonly<Record<string, Growth>>,
  home: readonly HomeWork[] = [],
): HairSince =>
  afterHome(
    figures,
    last,
    Object.fromEntries(
      Object.entries(growth).map(([zone, g]) => [zone, growthAfter(figures, g, last.method)]),
    ),
    home,
  )

/**
 * The window after a service.
 * @param readyMs from when the skin is clear enough, of `readyAfter`
 * @param home what the client took off at home
 */
export function windowAfter(
  figures: Figures,
  last: LastService | undefined,
  { skin, schools, closed, offset }: ComesAgain,
  growth: Readonly<Record<string, Growth>>,
  readyMs: number,
  home: readonly HomeWork[] = [],
): VisitWindow | null {
  if (!last?.leftMm) return null
  const { leftMm, growth: grows, latest } = hairSince(figures, last, growth, home)
  const zones = Object.entries(leftMm ?? {})
    .filter(([zone]) => grows[zone] !== undefined)
    .map(([zone, leftMm]) => ({
      zoneId: zone as ZoneId,
      name: zoneName(zone as ZoneId),
      leftMm,
    }))
  return (
    nextVisitWindow(figures, {
      ...{ service: last.service, method: last.method, everyDays: last.everyDays },
      ...(last.trial && { trial: true }),
      client: skinOver(
        skin,
        zones.map((z) => z.zoneId),
      ),
      schools,
      lastAtMs: last.endedAtMs,
      zones,
      growth: (zone) => grows[zone]!,
      ...(latest && { atHomeMs: latest.atMs }),
      redness: rednessSeen(last),
      readyMs,
      closed,
      offset,
    }) ?? null
  )
}

/** A last service with the load that its zones got. */
export type LoadedService = LastService & {
  readonly loads: Readonly<Record<string, number>> | null
}

/** What of a last service the odds of clear skin depend on. */
export const skinAfter = (last: LoadedService): SkinAfter => ({
  endedAtMs: last.endedAtMs,
  zones: workedZones(last.leftMm ?? {}, last.loads),
  answers: last.answers,
  redAtChair: last.redAtChair,
})

/**
 * What was done to that skin at home since: each time on the zones that nothing touched later, with a load that is only
 * expected. Looks from then on tell of it.
 */
export function skinSince(
  figures: Figures,
  last: Pick<LastService, 'endedAtMs' | 'leftMm' | 'answers'>,
  home: readonly HomeWork[] = [],
  coarse: Coarseness = 'medium',
): SkinAfter[] {
  const left = new Set(Object.keys(last.leftMm ?? {}))
  return homeSince(home, last.endedAtMs).flatMap((work): SkinAfter[] => {
    const zones = work.zones.filter((z) => left.delete(z))
    if (zones.length === 0) return []
    const { load } = homeLoad(figures, work.tool, coarse)
    const answers = last.answers.filter((a) => a.atMs > work.atMs)
    return [{ endedAtMs: work.atMs, zones: zones.map((zoneId) => ({ zoneId, load })), answers }]
  })
}

/** How likely all skin is clear after a service, at any moment; work at home since counts as a service of its own. */
export const clearAfter = (
  figures: Figures,
  last: LoadedService,
  model: SkinOf,
  home: readonly HomeWork[] = [],
  coarse: Coarseness = 'medium',
): ClearOdds =>
  clearOddsOfAll(figures, [skinAfter(last), ...skinSince(figures, last, home, coarse)], model)

/**
 * From when the skin after a service is clear enough, as it is believed to be; work at home since counts as a service on its
 * zones that nobody looked at.
 */
export const readyAfter = (
  figures: Figures,
  last: LoadedService | undefined,
  model: SkinOf,
  home: readonly HomeWork[] = [],
  coarse: Coarseness = 'medium',
): number =>
  last ? skinReadyMs(figures, skinAfter(last), model, skinSince(figures, last, home, coarse)) : 0
