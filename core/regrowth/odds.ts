/**
 * The odds of a next visit (M7, M10): how likely hair is seen by a day, and how likely the skin is clear by it, zone by zone and
 * as a whole; when each zone's window opens and closes.
 */
import type { SkinAnswer } from '../looks/index.ts'
import { zoneName, type ZoneId } from '../zones/index.ts'
import { constant, type Figures } from '../house/index.ts'
import {
  clearAfterLook,
  clearAfterService,
  type FadeBelief,
  type Sensitivity,
} from '../skin/index.ts'
import { DAY_MS } from '../time/index.ts'
import type { Growth } from './growth.ts'
import { shownOdds } from './outlook.ts'

export const ODDS_CONSTANTS = {
  clearEnough: constant(
    0.9,
    'probability',
    'A zone is ready when its skin is clear with this much',
    'H',
  ),
  seenEnough: constant(0.8, 'probability', 'A zone is late when hair is seen with this much', 'H'),
  lookAheadDays: constant(90, 'days', 'Odds are looked for so far ahead', 'H'),
} as const

const O = ODDS_CONSTANTS

/** What the odds depend on. */
export interface OddsInput {
  readonly endedAtMs: number
  /** Worked zones with the load they got and the hair left on them. */
  readonly zones: readonly {
    readonly zoneId: ZoneId
    readonly load: number
    readonly leftMm: number
  }[]
  readonly sensitivity: Readonly<Record<string, Sensitivity>>
  readonly growth: Readonly<Record<string, Growth>>
  readonly fading: FadeBelief
  readonly answers: readonly Pick<SkinAnswer, 'atMs' | 'zones'>[]
}

/** A zone's own window. */
export interface ZoneWindow {
  readonly zoneId: ZoneId
  readonly name: string
  /** Skin is clear enough from here. */
  readonly fromMs: number
  /** Hair is seen with enough odds by here; undefined when not within the look-ahead. */
  readonly toMs: number | undefined
}

/** A look right after the service says nothing of how redness will go on. */
const FIRST_LOOK_MS = 6 * 3_600_000

/** P(a zone's skin is clear) at a moment: from the last look at it, or from what is believed while nobody looked. */
export function zoneClearOdds(
  input: OddsInput,
  zone: OddsInput['zones'][number],
  atMs: number,
): number {
  const look = input.answers
    .filter((a) => a.atMs >= input.endedAtMs + FIRST_LOOK_MS && a.atMs <= atMs)
    .reduce<OddsInput['answers'][number] | undefined>(
      (latest, a) => (!latest || a.atMs > latest.atMs ? a : latest),
      undefined,
    )
  if (look) {
    const grade = look.zones.find((z) => z.zoneId === zone.zoneId)?.redness ?? 0
    return clearAfterLook(input.fading, grade, (atMs - look.atMs) / DAY_MS)
  }
  const skin = input.sensitivity[zone.zoneId]
  if (!skin) return 1
  return clearAfterService(input.fading, skin, zone.load, (atMs - input.endedAtMs) / DAY_MS)
}

/** What seeing hair depends on. */
type HairInput = Pick<OddsInput, 'endedAtMs' | 'growth'> & {
  readonly zones: readonly Pick<OddsInput['zones'][number], 'zoneId' | 'leftMm'>[]
}

/** Zones of a finished service as the odds take them. */
export const workedZones = (
  leftMm: Readonly<Record<string, number>>,
  loads: Readonly<Record<string, number>> | null = {},
): OddsInput['zones'] =>
  Object.entries(leftMm).map(([zoneId, left]) => ({
    zoneId: zoneId as ZoneId,
    leftMm: left,
    load: loads?.[zoneId] ?? 0,
  }))

const zoneSeenOdds = (
  figures: Figures,
  input: HairInput,
  zone: HairInput['zones'][number],
  atMs: number,
) => {
  const growth = input.growth[zone.zoneId]
  return growth
    ? shownOdds(figures, growth, 'seen', zone.leftMm, (atMs - input.endedAtMs) / DAY_MS)
    : 0
}

/**
 * P(hair is seen somewhere) at a moment. Zones of one person grow fast or slow together, so the likeliest zone speaks for all:
 * the odds are never overstated.
 */
export const seenOdds = (figures: Figures, input: HairInput, atMs: number): number =>
  input.zones.reduce((most, z) => Math.max(most, zoneSeenOdds(figures, input, z, atMs)), 0)

/** P(all zones are clear) at a moment, zones taken as independent: the careful side. */
export const clearOdds = (input: OddsInput, atMs: number): number =>
  input.zones.reduce((all, z) => all * zoneClearOdds(input, z, atMs), 1)

/** The first moment, to the hour, from which `so` holds; undefined when it does not within the look-ahead. `so` must stay so. */
export function firstMoment(
  figures: Figures,
  fromMs: number,
  so: (atMs: number) => boolean,
): number | undefined {
  const hour = 3_600_000
  let [no, yes] = [0, Math.round((figures(O.lookAheadDays) * DAY_MS) / hour)]
  if (so(fromMs)) return fromMs
  if (!so(fromMs + yes * hour)) return undefined
  while (yes - no > 1) {
    const half = Math.floor((no + yes) / 2)
    if (so(fromMs + half * hour)) yes = half
    else no = half
  }
  return fromMs + yes * hour
}

/** Each zone's window, those whose hair is seen soonest first. */
export function zoneWindows(figures: Figures, input: OddsInput): ZoneWindow[] {
  // From the last look on: before it nothing is forecast any more.
  const start = Math.max(input.endedAtMs, ...input.answers.map((a) => a.atMs))
  return input.zones
    .map((zone) => ({
      zoneId: zone.zoneId,
      name: zoneName(zone.zoneId),
      fromMs:
        firstMoment(
          figures,
          start,
          (t) => zoneClearOdds(input, zone, t) >= figures(O.clearEnough),
        ) ?? start + figures(O.lookAheadDays) * DAY_MS,
      toMs: firstMoment(
        figures,
        input.endedAtMs,
        (t) => zoneSeenOdds(figures, input, zone, t) >= figures(O.seenEnough),
      ),
    }))
    .sort((a, b) => (a.toMs ?? Infinity) - (b.toMs ?? Infinity))
}
