/** The hours of the page: where a moment lies in a lane, and which moment lies under a hand. */
import type { Week } from '../../contract/week.ts'
import { addDays, dateAt, type IsoDate, offsetHere } from '../../core/time/index.ts'
import { endMs, freeOn, GRID_MIN, hourAt, MIN_MS, momentAt, openOn } from '../../core/week/index.ts'

/** From which hour until which the lanes reach. */
export interface Axis {
  readonly from: number
  readonly to: number
}

export const VIEWS = ['day', 'week', 'four'] as const
export type View = (typeof VIEWS)[number]
export const DAYS: Readonly<Record<View, number>> = { day: 1, week: 7, four: 28 }

export const datesOf = (from: IsoDate, days: number): IsoDate[] =>
  Array.from({ length: days }, (_, i) => addDays(from, i))

/** The hours in which anybody works or anything is booked; nine to six where there is nothing. */
export function axisOf(week: Week): Axis {
  const spans = datesOf(week.from, week.days).flatMap((date) => {
    const open = openOn(week.closed, date, offsetHere)
    return open ? [open] : []
  })
  const booked = week.appointments.map((a) => ({ fromMs: a.startMs, toMs: endMs(a) }))
  const all = [...spans, ...booked]
  if (all.length === 0) return { from: 9, to: 18 }
  const ends = all.map((s) => hourAt(s.toMs - MIN_MS, offsetHere) + 1 / 60)
  return {
    from: Math.floor(Math.min(...all.map((s) => hourAt(s.fromMs, offsetHere)))),
    to: Math.ceil(Math.max(...ends) - 1e-6),
  }
}

/** Where a moment lies, as a share of the lane; beyond its ends it lies at them. */
export const shareOf = (axis: Axis, date: IsoDate, ms: number): number => {
  const from = momentAt(date, axis.from, offsetHere)
  const to = momentAt(date, axis.to, offsetHere)
  return Math.min(1, Math.max(0, (ms - from) / (to - from)))
}

/** The moment at a share of a lane, on the grid. */
export function momentIn(axis: Axis, date: IsoDate, share: number): number {
  const grid = GRID_MIN * MIN_MS
  const from = momentAt(date, axis.from, offsetHere)
  const to = momentAt(date, axis.to, offsetHere)
  return Math.round((from + share * (to - from)) / grid) * grid
}

/** Full hours to be written over the lanes. */
export const hoursOf = (axis: Axis): number[] =>
  Array.from({ length: axis.to - axis.from + 1 }, (_, i) => axis.from + i)

/** What of a lane is not worked: before, after, breaks, time away; in shares, with a word where there is one. */
export function shutIn(
  week: Week,
  axis: Axis,
  date: IsoDate,
  worker: Week['workers'][number],
): { readonly from: number; readonly to: number; readonly why: string }[] {
  const free = freeOn(week.closed, worker, week.away, date, offsetHere)
  const edges = [
    0,
    ...free.flatMap((f) => [shareOf(axis, date, f.fromMs), shareOf(axis, date, f.toMs)]),
    1,
  ]
  const gone = week.away.filter((a) => a.workerId === null || a.workerId === worker.id)
  const out = []
  for (let i = 0; i < edges.length; i += 2) {
    const [from, to] = [edges[i]!, edges[i + 1]!]
    if (to - from < 1e-6) continue
    const [fromMs, toMs] = [momentIn(axis, date, from), momentIn(axis, date, to)]
    const away = gone.find((a) => a.fromMs < toMs && a.toMs > fromMs)
    out.push({ from, to, why: away ? away.why || 'away' : '' })
  }
  return out
}

/** Appointments of a day. */
export const onDay = (week: Week, date: IsoDate) =>
  week.appointments.filter((a) => dateAt(a.startMs, offsetHere) === date)
