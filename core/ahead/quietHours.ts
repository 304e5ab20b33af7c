/**
 * Quiet hours: what a client does every week (make-up, sport, work outdoors, a mask at work) against what fresh skin keeps off. The
 * hour of the next visit that meets fewest of them.
 */
import type { Habit, HabitKind, SkinAndHair } from '../client.ts'
import { carePlan } from '../care/index.ts'
import { constant, type Figures, type Schools } from '../house/index.ts'
import type { ServiceId } from '../services/index.ts'
import {
  type ClosedDays,
  dateAt,
  DAY_MS,
  HOUR_MS,
  isClosed,
  openHours,
  type Offset,
} from '../time/index.ts'

export const QUIET_CONSTANTS = {
  lookDays: constant(10, 'days', 'A quiet hour is looked for in so many days of the window', 'H'),
} as const

export const HABIT_WORDS: Readonly<Record<HabitKind, string>> = {
  'make-up': 'make-up',
  sport: 'sport',
  outdoors: 'work outdoors',
  mask: 'a mask or strap at work',
  swim: 'swimming',
}

/** Which of the things to keep off a habit meets. */
const MEETS: Readonly<Record<HabitKind, string>> = {
  'make-up': 'make-up',
  sport: 'exercise',
  outdoors: 'sun',
  mask: 'mask',
  swim: 'swimming',
}

/** An hour for a visit, with what would fall into the time that it is kept off. */
export interface QuietHour {
  readonly atMs: number
  /** Hours that each habit would meet. */
  readonly meets: readonly { readonly kind: HabitKind; readonly hours: number }[]
  readonly hours: number
}

export interface QuietAsk {
  readonly service: ServiceId
  readonly skin: SkinAndHair
  readonly schools: Schools
  readonly habits: readonly Habit[]
  readonly fromMs: number
  readonly toMs: number
  /** Minutes that the visit takes. */
  readonly minutes: number
  readonly nowMs: number
  readonly closed: ClosedDays
  readonly offset: Offset
}

const MINUTE_MS = 60_000

/** Local midnight of the day that a moment lies on. */
const midnight = (ms: number, offset: Offset) => Date.parse(`${dateAt(ms, offset)}T00:00:00Z`)

/** Hours of a habit within a stretch of local time. */
function overlap(habit: Habit, fromLocal: number, toLocal: number): number {
  let hours = 0
  for (let day = Math.floor(fromLocal / DAY_MS) * DAY_MS; day < toLocal; day += DAY_MS) {
    if (!habit.days.includes(new Date(day).getUTCDay())) continue
    const from = Math.max(fromLocal, day + habit.fromHour * HOUR_MS)
    const to = Math.min(toLocal, day + habit.toHour * HOUR_MS)
    hours += Math.max(0, to - from) / HOUR_MS
  }
  return hours
}

/**
 * The hours of the window in order of how little they meet, the earliest of those alike first; one of each day. Nothing where the
 * client has told of no habit.
 */
export function quietHours(figures: Figures, ask: QuietAsk): QuietHour[] {
  const { habits, closed, offset } = ask
  if (habits.length === 0) return []
  const care = carePlan(figures, ask.service, ask.skin, ask.schools, false, 0)
  const kept = new Map(
    care.clearances.filter((c) => c.kind === 'avoid').map((c) => [c.id, c.untilMs]),
  )
  const first = Math.max(ask.fromMs, ask.nowMs)
  const last = Math.min(
    Math.max(ask.toMs, first + DAY_MS),
    first + figures(QUIET_CONSTANTS.lookDays) * DAY_MS,
  )
  const days: QuietHour[] = []
  for (let day = midnight(first, offset); day <= midnight(last, offset); day += DAY_MS) {
    if (isClosed(closed, dateAt(day, 0))) continue
    let best: QuietHour | undefined
    const [opens, closes] = openHours(closed, dateAt(day, 0))
    for (let hour = Math.ceil(opens); hour + ask.minutes / 60 <= closes; hour++) {
      const local = day + hour * HOUR_MS
      const atMs = local - offsetOf(offset, local)
      if (atMs < first) continue
      const end = local + ask.minutes * MINUTE_MS
      const meets = habits.flatMap((habit) => {
        // Nobody comes while they are at it.
        const busy = overlap(habit, local, end) > 0 && habit.kind !== 'make-up' ? 24 : 0
        const hours = busy + overlap(habit, end, end + (kept.get(MEETS[habit.kind]) ?? 0))
        return hours > 0 ? [{ kind: habit.kind, hours }] : []
      })
      const hours = meets.reduce((s, m) => s + m.hours, 0)
      if (!best || hours < best.hours - 1e-9) best = { atMs, meets, hours }
    }
    if (best) days.push(best)
  }
  return days.sort((a, b) => a.hours - b.hours || a.atMs - b.atMs)
}

/** What the clock shows more than UTC at a local time, ms. */
function offsetOf(offset: Offset, local: number): number {
  const minutes = typeof offset === 'number' ? offset : offset(local)
  return minutes * MINUTE_MS
}
