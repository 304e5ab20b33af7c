/**
 * When a worker can serve: the house's hours and closed days, the worker's own hours with their breaks, time away. Hours are those
 * of the clock on the wall, so that a day on which the clocks change is an hour shorter or longer and nothing else.
 */
import type { ServiceId } from '../services/index.ts'
import {
  addDays,
  type ClosedDays,
  dateAt,
  DAY_MS,
  isClosed,
  type IsoDate,
  type Offset,
  openHours,
  timeWords,
  whenWords,
} from '../time/index.ts'

/** From when until when. */
export interface Stretch {
  readonly fromMs: number
  readonly toMs: number
}

/**
 * Hours of a worker by day of the week (0 is Sunday), each day in stretches between which there is a break. A day that is not
 * named is the house's; one without stretches is off.
 */
export type WorkerHours = Readonly<Record<string, readonly (readonly number[])[]>>

/** Time that is not to be had: of one worker, or of the whole house. */
export interface Away extends Stretch {
  readonly id: string
  readonly workerId: string | null
  readonly why: string
}

const MIN_MS = 60_000

/** A calendar file with more characters is none of one worker. */
export const MOST_CALENDAR = 2_000_000

export const weekdayOf = (date: IsoDate): number => new Date(`${date}T00:00Z`).getUTCDay()

/**
 * The moment at which the clock on the wall shows an hour of a day. An hour that is left out when the clocks go forward is the one
 * after it; of an hour that comes twice it is the first.
 * @param hour of the day, 0 to 24
 */
export function momentAt(date: IsoDate, hour: number, offset: Offset): number {
  const wall = Date.parse(`${date}T00:00Z`) + Math.round(hour * 60) * MIN_MS
  if (typeof offset === 'number') return wall - offset * MIN_MS
  // The offset of the hours before and after: they differ only where the clocks change.
  const [before, after] = [offset(wall - DAY_MS), offset(wall + DAY_MS)]
  const early = wall - Math.max(before, after) * MIN_MS
  const late = wall - Math.min(before, after) * MIN_MS
  return early + offset(early) * MIN_MS === wall ? early : late
}

/** The hour that the clock shows at a moment, 0 to 24. */
export function hourAt(ms: number, offset: Offset): number {
  const local = ms + (typeof offset === 'number' ? offset : offset(ms)) * MIN_MS
  return (((local % DAY_MS) + DAY_MS) % DAY_MS) / (60 * MIN_MS)
}

/** The first day of the week in which a day lies. @param firstDay 0 is Sunday */
export const weekOf = (date: IsoDate, firstDay: number): IsoDate =>
  addDays(date, -((weekdayOf(date) - firstDay + 7) % 7))

/** When the house is open on a day; none where it is closed. */
export function openOn(closed: ClosedDays, date: IsoDate, offset: Offset): Stretch | undefined {
  if (isClosed(closed, date)) return undefined
  const [from, to] = openHours(closed, date)
  return { fromMs: momentAt(date, from, offset), toMs: momentAt(date, to, offset) }
}

/** What of some stretches lies outside others. */
export function without(stretches: readonly Stretch[], gone: readonly Stretch[]): Stretch[] {
  return gone.reduce<Stretch[]>(
    (left, g) =>
      left.flatMap((s) =>
        g.toMs <= s.fromMs || g.fromMs >= s.toMs
          ? [s]
          : [
              ...(g.fromMs > s.fromMs ? [{ fromMs: s.fromMs, toMs: g.fromMs }] : []),
              ...(g.toMs < s.toMs ? [{ fromMs: g.toMs, toMs: s.toMs }] : []),
            ],
      ),
    [...stretches],
  )
}

/** From when until when, in words: the day once, where it is one. */
export const awayWords = ({ fromMs, toMs }: Stretch, offset: Offset): string =>
  `${whenWords(fromMs)} to ${dateAt(fromMs, offset) === dateAt(toMs, offset) ? timeWords(toMs) : whenWords(toMs)}`

/** A worker as the book knows them. */
export interface BookWorker {
  readonly id: string
  readonly name: string
  readonly hours?: WorkerHours | null | undefined
  /** Services that they may do; all of them when left out. */
  readonly services?: readonly ServiceId[] | null | undefined
}

/** When a worker is at work on a day by their hours, breaks left out; time away is not yet taken off. */
export function hoursOn(
  closed: ClosedDays,
  worker: Pick<BookWorker, 'hours'>,
  date: IsoDate,
  offset: Offset,
): Stretch[] {
  const open = openOn(closed, date, offset)
  if (!open) return []
  const own = worker.hours?.[weekdayOf(date)]
  if (!own) return [open]
  return own.flatMap(([from, to]) => {
    const s = {
      fromMs: Math.max(open.fromMs, momentAt(date, from!, offset)),
      toMs: Math.min(open.toMs, momentAt(date, to!, offset)),
    }
    return s.toMs > s.fromMs ? [s] : []
  })
}

/** When a worker can be booked on a day. */
export const freeOn = (
  closed: ClosedDays,
  worker: Pick<BookWorker, 'id' | 'hours'>,
  away: readonly Away[],
  date: IsoDate,
  offset: Offset,
): Stretch[] =>
  without(
    hoursOn(closed, worker, date, offset),
    away.filter((a) => a.workerId === null || a.workerId === worker.id),
  )

/** What is wrong with hours that were told, in a sentence; undefined where nothing is. */
export function hoursProblem(hours: WorkerHours): string | undefined {
  for (const stretches of Object.values(hours)) {
    let last = 0
    for (const [from, to] of stretches) {
      if (!(from! < to!)) return 'A stretch of work begins before it ends.'
      if (from! < last) return 'Stretches of one day follow each other and do not overlap.'
      last = to!
    }
  }
  return undefined
}

const hourFigure = (h: number): string => {
  const minutes = Math.round(h * 60)
  const rest = minutes % 60
  return `${Math.floor(minutes / 60)}${rest ? `:${String(rest).padStart(2, '0')}` : ''}`
}

/** Stretches as they are written: "9–12:30, 13–18"; "off" for none. */
export const stretchWords = (stretches: readonly (readonly number[])[]): string =>
  stretches.length === 0
    ? 'off'
    : stretches.map(([from, to]) => `${hourFigure(from!)}–${hourFigure(to!)}`).join(', ')

/**
 * Reads stretches as people write them: "9-12.30, 13-18", "off".
 * @returns undefined for what is none
 */
export function readStretches(text: string): number[][] | undefined {
  const typed = text.trim().toLowerCase()
  if (/^(off|free|none|-)$/.test(typed)) return []
  const hour = (s: string): number => {
    const [, h, m = '0'] = /^(\d{1,2})(?:[:.h](\d{2}))?$/.exec(s.trim()) ?? []
    const at = Number(h) + Number(m) / 60
    return Number(m) < 60 && at <= 24 ? at : NaN
  }
  const stretches = typed.split(/[,;]/).map((part) => part.split(/\s*(?:–|-|to)\s*/).map(hour))
  const wrong = stretches.some((s) => s.length !== 2 || s.some((h) => !Number.isFinite(h)))
  return wrong || hoursProblem({ '0': stretches }) !== undefined ? undefined : stretches
}
