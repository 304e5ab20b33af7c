/**
 * The odds of a next visit (M7, M10), beside its window and from the same beliefs: how likely the skin is clear when it opens and
 * hair is seen by when it closes; and the same zone by zone.
 */
import { zoneName, type ZoneId } from '../zones/index.ts'
import type { Figures } from '../house/index.ts'
import { DAY_MS } from '../time/index.ts'
import { daysUntil, shownOdds, type Growth } from './growth.ts'
import {
  CLEAR_CONSTANTS,
  clearOddsOfAll,
  firstMoment,
  forecastFromMs,
  seenClearMs,
  type SkinAfter,
  type SkinOf,
} from './skinClear.ts'

const C = CLEAR_CONSTANTS

/** What seeing hair depends on. */
interface HairAfter {
  readonly endedAtMs: number
  readonly zones: readonly { readonly zoneId: ZoneId; readonly leftMm: number }[]
  readonly growth: Readonly<Record<string, Growth>>
}

/** What the odds depend on. */
export interface OddsInput extends SkinAfter, HairAfter {
  /** Worked zones with the load they got and the hair left on them. */
  readonly zones: readonly {
    readonly zoneId: ZoneId
    readonly load: number
    readonly leftMm: number
  }[]
  readonly skin: SkinOf
  /** Times at which some of it was worked since, at home. */
  readonly since?: readonly SkinAfter[]
}

/** A zone's own odds: its skin is clear before the window opens, or as it does; its hair is seen first of all zones, or later. */
export interface ZoneOdds {
  readonly zoneId: ZoneId
  readonly name: string
  /** Skin is clear enough from here. */
  readonly clearMs: number
  /** Hair is seen from here: even odds, and between what it is with 80 %. */
  readonly seenMs: number
  readonly seenEarlyMs: number
  readonly seenLateMs: number
  /** Odds that hair is seen when the window opens. */
  readonly seenAtOpening: number
}

export interface VisitOdds {
  /** Odds that all skin is clear when the window opens; at least `clearEnough`. */
  readonly clearAtOpening: number
  /** All skin was seen clear then; nothing is forecast. */
  readonly seenClearMs: number | undefined
  /** Odds that hair is seen somewhere when the window opens, and when it closes. */
  readonly seenAtOpening: number
  readonly seenAtClosing: number
  /** Zones whose hair is seen soonest first. */
  readonly zones: readonly ZoneOdds[]
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
  input: HairAfter,
  zone: HairAfter['zones'][number],
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
export const seenOdds = (figures: Figures, input: HairAfter, atMs: number): number =>
  input.zones.reduce((most, z) => Math.max(most, zoneSeenOdds(figures, input, z, atMs)), 0)

/** The odds of a window that was told of the same service from the same beliefs. */
export function visitOdds(
  figures: Figures,
  input: OddsInput,
  window: { readonly fromMs: number; readonly toMs: number },
): VisitOdds {
  const { since = [] } = input
  const clear = clearOddsOfAll(figures, [input, ...since], input.skin)
  const enough = figures(C.clearEnough)
  const start = forecastFromMs(input, since)
  return {
    clearAtOpening: clear(window.fromMs),
    seenClearMs: since.length === 0 ? seenClearMs(input) : undefined,
    seenAtOpening: seenOdds(figures, input, window.fromMs),
    seenAtClosing: seenOdds(figures, input, window.toMs),
    zones: input.zones
      .flatMap((zone): ZoneOdds[] => {
        const growth = input.growth[zone.zoneId]
        if (!growth) return []
        const seen = daysUntil(figures, growth, 'seen', zone.leftMm)
        const at = (days: number) => input.endedAtMs + days * DAY_MS
        return [
          {
            zoneId: zone.zoneId,
            name: zoneName(zone.zoneId),
            clearMs: firstMoment(
              start,
              figures(C.lookAheadDays),
              (t) => clear(t, [zone.zoneId]) >= enough,
            ),
            seenMs: at(seen.even),
            seenEarlyMs: at(seen.early),
            seenLateMs: at(seen.late),
            seenAtOpening: zoneSeenOdds(figures, input, zone, window.fromMs),
          },
        ]
      })
      .sort((a, b) => a.seenMs - b.seenMs),
  }
}
