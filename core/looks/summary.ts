/** Answers after a service: how the skin looked and felt at each moment, when hair was felt or seen. */
import type { Figures } from '../house/index.ts'
import type { Followed, SkinAnswer } from './answers.ts'
import { lookAtChair, severeSigns } from './aftermath.ts'
import { SPEAKS_FROM_HOURS } from './moments.ts'
import { BUMP_CONSTANTS, type FadeStep, SKIN_CONSTANTS } from '../skin/index.ts'
import { DAY_MS, HOUR_MS } from '../time/index.ts'

/** A past service as far as learning needs it. */
export interface PastService {
  readonly endedAtMs: number
  readonly loads: Readonly<Record<string, number>>
  readonly answers: readonly Pick<SkinAnswer, 'atMs' | 'zones'>[]
  /** Worst redness that was noted at the chair, by zone. */
  readonly redAtChair?: Readonly<Record<string, number>> | undefined
}

/** "48 h" is answered on that day, not to the minute. */
const GRACE_HOURS = 12

/**
 * Worst grade of each zone among the answers that count toward a service, what reddened at the chair among them; undefined
 * when nobody answered in time.
 */
export function worstByZone(figures: Figures, past: PastService): Map<string, number> | undefined {
  const limit = past.endedAtMs + (figures(SKIN_CONSTANTS.readWithinHours) + GRACE_HOURS) * HOUR_MS
  const inTime = past.answers.filter((a) => a.atMs <= limit)
  // How the skin looks right after says nothing of the next day: burn comes late.
  const later = past.endedAtMs + SPEAKS_FROM_HOURS * HOUR_MS
  if (!inTime.some((a) => a.atMs >= later)) return undefined
  const worst = new Map(Object.entries(past.redAtChair ?? {}))
  for (const answer of inTime) {
    for (const zone of answer.zones) {
      worst.set(zone.zoneId, Math.max(worst.get(zone.zoneId) ?? 0, zone.redness))
    }
  }
  return worst
}

/** Bumps, ingrown hairs and pustules of each zone in the days in which they show: the most of any answer. */
export function bumpsByZone(
  figures: Figures,
  past: Pick<PastService, 'endedAtMs' | 'answers'>,
): Map<string, number> | undefined {
  const from = past.endedAtMs + figures(BUMP_CONSTANTS.fromDays) * DAY_MS
  const until = past.endedAtMs + (figures(BUMP_CONSTANTS.untilDays) + 0.5) * DAY_MS
  const counted = past.answers.filter((a) => a.atMs >= from && a.atMs <= until)
  if (counted.length === 0) return undefined
  const most = new Map<string, number>()
  for (const answer of counted) {
    for (const zone of answer.zones) {
      const n = zone.bumps + (zone.pustules ?? 0)
      most.set(zone.zoneId, Math.max(most.get(zone.zoneId) ?? 0, n))
    }
  }
  return most
}

/**
 * Dark marks or blackheads of each zone after a service: the most of any look at which spots were tapped, from some hours on. They
 * stay for weeks, so no look is too late. Undefined while nobody tapped any spot, or looked for them.
 */
export function followedByZone(
  past: Pick<PastService, 'endedAtMs'> & { readonly answers: readonly SkinAnswer[] },
  kind: Followed,
): Map<string, number> | undefined {
  const looks = past.answers.filter(
    (a) =>
      a.spots !== undefined &&
      // Whoever answers from home taps none: that says nothing.
      (a.source ?? 'seen') === 'seen' &&
      a.atMs >= past.endedAtMs + SPEAKS_FROM_HOURS * HOUR_MS,
  )
  if (looks.length === 0) return undefined
  const most = new Map<string, number>()
  for (const { spots = [] } of looks) {
    const here = new Map<string, number>()
    for (const s of spots) if (s.kind === kind) here.set(s.zoneId, (here.get(s.zoneId) ?? 0) + 1)
    for (const [zone, n] of here) most.set(zone, Math.max(most.get(zone) ?? 0, n))
  }
  return most
}

/** Pairs of looks at a zone that was red, for learning how fast it fades. */
export function fadeSteps(past: readonly Pick<PastService, 'endedAtMs' | 'answers'>[]): FadeStep[] {
  return past.flatMap(({ endedAtMs, answers }) => {
    const looks = answers
      .filter((a) => a.atMs >= endedAtMs + SPEAKS_FROM_HOURS * HOUR_MS)
      .sort((a, b) => a.atMs - b.atMs)
    return looks.slice(1).flatMap((next, i) => {
      const before = looks[i]!
      const days = (next.atMs - before.atMs) / DAY_MS
      return before.zones
        .filter((z) => z.redness > 0)
        .map((z) => ({
          grade: z.redness,
          later: next.zones.find((n) => n.zoneId === z.zoneId)?.redness ?? 0,
          days,
        }))
    })
  })
}

/** What a list shows of the answers to a visit, and the sums that the studio learns from. */
export interface AnswerSummary {
  /** Worst redness of any look from some hours after the service on, and at the chair; null while nobody looked. */
  readonly worstRedness: number | null
  readonly bumps: number | null
  /** 1 when something severe was told or seen: the gate looks at such a visit until the skin was seen calm. */
  readonly severe: 0 | 1
  /** Sum of the worst grades over the worked zones; null while nobody answered in time. */
  readonly gradeSum: number | null
  /** Load behind it; null while nobody answered in time. */
  readonly loadSum: number | null
}

export function summariseAnswers(
  figures: Figures,
  endedAtMs: number,
  answers: readonly SkinAnswer[],
  loads: Readonly<Record<string, number>> = {},
  redAtChair: Readonly<Record<string, number>> = {},
): AnswerSummary {
  const worst = worstByZone(figures, { endedAtMs, loads, answers, redAtChair })
  const bumps = bumpsByZone(figures, { endedAtMs, answers })
  const total = (list: Iterable<number>) => [...list].reduce((s, v) => s + v, 0)
  return {
    worstRedness: worstSeen(endedAtMs, answers, redAtChair),
    bumps: bumps ? total(bumps.values()) : null,
    severe: [...answers, lookAtChair(endedAtMs, redAtChair)].some(
      (a) => severeSigns(figures, a).length > 0,
    )
      ? 1
      : 0,
    gradeSum: worst ? total(Object.keys(loads).map((z) => worst.get(z) ?? 0)) : null,
    loadSum: worst ? total(Object.values(loads)) : null,
  }
}

/** What is shown of a visit is the worst that anybody saw, however late. */
function worstSeen(
  endedAtMs: number,
  answers: readonly SkinAnswer[],
  redAtChair: Readonly<Record<string, number>>,
): number | null {
  const looks = answers.filter((a) => a.atMs >= endedAtMs + SPEAKS_FROM_HOURS * HOUR_MS)
  const grades = [
    ...looks.flatMap((a) => [0, ...a.zones.map((z) => z.redness)]),
    ...Object.values(redAtChair),
  ]
  return grades.length > 0 ? Math.max(...grades) : null
}
