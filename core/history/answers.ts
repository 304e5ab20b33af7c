/** Answers after a service: how the skin looked at each moment, when hair was felt or seen. */
import { SKIN_CONSTANTS } from '../skin/sensitivity.ts'
import { HOUR_MS } from '../time/dates.ts'

/** Moments of looking at the skin after a service. */
export type Moment = 'now' | '1h' | '24h' | '48h' | '7d'

export interface SkinAnswer {
  moment: Moment
  atMs: number
  /** Zones that were marked; the others were clear. */
  zones: { zoneId: string; redness: number; bumps: number }[]
}

export interface HairReading {
  id: string
  visitId: string
  kind: 'felt' | 'seen' | 'measured'
  /** Days after the service. */
  days: number
  zoneId: string | null
  lengthMm: number | null
  atMs: number
}

/** A past service as far as learning needs it. */
export interface PastService {
  readonly endedAtMs: number
  readonly loads: Readonly<Record<string, number>>
  readonly answers: readonly Pick<SkinAnswer, 'atMs' | 'zones'>[]
}

/** An answer speaks for a service from so many hours on; readings before it are counted with it. */
const FIRST_HOURS = 6

/** Worst grade of each zone among the answers that count toward a service; undefined when nobody answered in time. */
export function worstByZone(past: PastService): Map<string, number> | undefined {
  const limit = past.endedAtMs + SKIN_CONSTANTS.readWithinHours.value * HOUR_MS
  // A little grace: "48 h" is answered on that day, not to the minute.
  const inTime = past.answers.filter((a) => a.atMs <= limit + 12 * HOUR_MS)
  // How the skin looks right after says nothing of the next day: burn comes late.
  const later = past.endedAtMs + FIRST_HOURS * HOUR_MS
  if (!inTime.some((a) => a.atMs >= later)) return undefined
  const worst = new Map<string, number>()
  for (const answer of inTime) {
    for (const zone of answer.zones) {
      worst.set(zone.zoneId, Math.max(worst.get(zone.zoneId) ?? 0, zone.redness))
    }
  }
  return worst
}

/** What a list shows of the answers to a visit. */
export function summariseAnswers(
  endedAtMs: number,
  answers: readonly SkinAnswer[],
): { worstRedness: number | null; bumps: number | null } {
  const worst = worstByZone({ endedAtMs, loads: {}, answers })
  const counted = answers.filter((a) => a.moment === '7d' || a.moment === '48h')
  const bumps = counted.map((a) => a.zones.reduce((s, z) => s + z.bumps, 0))
  return {
    worstRedness: worst ? Math.max(0, ...worst.values()) : null,
    bumps: bumps.length > 0 ? Math.max(...bumps) : null,
  }
}

/** When each answer is owed, hours after the service. */
const OWED: readonly { moment: Moment; fromHours: number; untilHours: number; words: string }[] = [
  { moment: '24h', fromHours: 24, untilHours: 96, words: 'Day 1 answer owed' },
  { moment: '48h', fromHours: 48, untilHours: 120, words: 'Day 2 answer owed' },
  { moment: '7d', fromHours: 168, untilHours: 336, words: 'Day 7 answer owed' },
]

/** The answer that is owed now, in words; undefined when none is. Not answered is not clear. */
export function owedAnswer(
  endedAtMs: number,
  answers: readonly Pick<SkinAnswer, 'moment'>[],
  nowMs: number,
): string | undefined {
  const hours = (nowMs - endedAtMs) / HOUR_MS
  return OWED.filter(
    (m) =>
      hours >= m.fromHours && hours <= m.untilHours && !answers.some((a) => a.moment === m.moment),
  ).at(-1)?.words
}
