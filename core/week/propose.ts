/**
 * Proposing a week (M19): whoever is due is laid into what is free where it is worth most. Worth of an hour is what the next-visit
 * belief says of its day (hair is seen, skin is clear), less what it costs to be late, to have another worker or hour than usual,
 * and to leave gaps that nobody fits into. What is already promised stays where it is.
 */
import { constant, type Figures } from '../house/index.ts'
import type { Job } from '../services/index.ts'
import { dateAt, DAY_MS, type IsoDate, type Offset } from '../time/index.ts'
import {
  type Book,
  capacityOf,
  endMs,
  GRID_MIN,
  MIN_MS,
  standsInBook,
  startsOn,
  usesOf,
} from './book.ts'
import { freeOn, hourAt, momentAt, type Stretch } from './hours.ts'
import { type PackArrays, Packing, type PackUse } from './packing.ts'
import { suits, type Wishes } from './wishes.ts'

export const PROPOSE_CONSTANTS = {
  latePerDay: constant(0.03, 'share', 'Each day beyond the good days costs, of a visit', 'H'),
  mostLate: constant(0.5, 'share', 'and at most so much', 'H'),
  otherWorker: constant(0.05, 'share', 'Another worker than the last costs', 'H'),
  hourOff: constant(0.01, 'share', 'Each hour off the usual time of day costs', 'H'),
  deadGap: constant(0.04, 'share', 'A gap that nobody fits into costs', 'H'),
  fitsMin: constant(25, 'min', 'A gap that is longer still takes somebody', 'H'),
  houseFirst: constant(0.3, 'share', 'Somebody whom the house serves first gains by', 'H'),
  forEvent: constant(0.3, 'share', 'A day that serves an event of theirs gains by', 'H'),
  moved: constant(0.25, 'share', 'To move what is promised costs', 'H'),
  mostMovedMin: constant(60, 'min', 'What is promised is moved by so much at most', 'H'),
  leastWorth: constant(0.3, 'share', 'An hour that is worth less is not proposed', 'H'),
} as const

const C = PROPOSE_CONSTANTS
const GRID_MS = GRID_MIN * MIN_MS
/** Slots of a day. */
const DAY_SLOTS = (24 * 60) / GRID_MIN

/** Somebody who is due. */
export interface Wish {
  readonly clientId: string
  readonly jobs: readonly Job[]
  /** On the book, by worker. */
  readonly minutes: (workerId: string) => number
  /** The good days. */
  readonly fromMs: number
  readonly toMs: number
  /** Odds that a visit at that moment is one of use: hair is seen and skin is clear. */
  readonly odds: (atMs: number) => number
  /** It must be over before then. */
  readonly beforeMs?: number | undefined
  /** Days that serve an event best. */
  readonly event?: Stretch | undefined
  /** Days and hours at which they can come. */
  readonly wishes?: Wishes | undefined
  /** The house serves them first where hours are short. */
  readonly first?: boolean | undefined
  /** The hour that they were promised: it may be moved a little, and is never lost. */
  readonly stands?: { readonly id: string; readonly workerId: string; readonly startMs: number }
  readonly lastWorkerId?: string | undefined
  /** Hour of the day at which they usually come. */
  readonly usualHour?: number | undefined
}

export interface Place {
  readonly wish: number
  readonly workerId: string
  readonly startMs: number
  readonly minutes: number
  /** Odds of that day. */
  readonly odds: number
  readonly worth: number
}

/** What keeping to a promise is worth, beyond everything else. */
export const PROMISED_WORTH = 8

/** What a visit at a moment is worth, whoever serves: its odds, less what it is late. */
export function dayWorth(
  figures: Figures,
  wish: Pick<Wish, 'odds' | 'toMs' | 'event' | 'first'>,
  atMs: number,
): number {
  const odds = wish.odds(atMs)
  const late = Math.max(0, atMs - wish.toMs) / DAY_MS
  const serves = wish.event && atMs >= wish.event.fromMs - DAY_MS / 2 && atMs <= wish.event.toMs
  return (
    odds -
    Math.min(figures(C.mostLate), figures(C.latePerDay) * late) +
    // What is of no use then is not made so by who it is for.
    (odds > 0 ? (wish.first ? figures(C.houseFirst) : 0) + (serves ? figures(C.forEvent) : 0) : 0)
  )
}

/** What an hour costs beside its day: another worker than the last, another time of day than usual. */
export const hourCost = (
  figures: Figures,
  { lastWorkerId, usualHour }: Pick<Wish, 'lastWorkerId' | 'usualHour'>,
  hour: { readonly workerId: string; readonly startMs: number },
  offset: Offset,
): number =>
  (lastWorkerId !== undefined && lastWorkerId !== hour.workerId ? figures(C.otherWorker) : 0) +
  (usualHour === undefined
    ? 0
    : figures(C.hourOff) * Math.abs(hourAt(hour.startMs, offset) - usualHour))

/** What can be chosen, and which place each choice is. */
export interface WeekProblem {
  readonly arrays: PackArrays
  readonly places: readonly Place[]
}

/** @param dates the days that are proposed for */
export function weekProblem(
  figures: Figures,
  book: Book,
  wishes: readonly Wish[],
  dates: readonly IsoDate[],
): WeekProblem {
  const { offset } = book
  const slots = dates.length * DAY_SLOTS
  const begins = dates.map((d) => momentAt(d, 0, offset))
  const slotOf = (day: number, ms: number) =>
    day * DAY_SLOTS + Math.round((ms - begins[day]!) / GRID_MS)
  const workers = book.workers
  const shared = ['chair', 'bed', 'towels'] as const
  const capacity = [
    ...workers.map(() => new Int32Array(slots)),
    ...shared.map((of) => new Int32Array(slots).fill(capacityOf(book.studio, of))),
  ]
  const resourceOf = (of: string) => workers.length + shared.indexOf(of as 'chair')
  // What may be moved is laid in anew, with all the others.
  const movable = new Set(wishes.flatMap((w) => w.stands?.id ?? []))
  const standing = book.appointments.filter((a) => standsInBook(a) && !movable.has(a.id))
  const edges = workers.map(() => new Map<number, { start: Set<number>; end: Set<number> }>())
  dates.forEach((date, day) => {
    workers.forEach((w, k) => {
      const start = new Set<number>()
      const end = new Set<number>()
      const fill = (fromMs: number, toMs: number, many: number) => {
        const [from, to] = [slotOf(day, fromMs), slotOf(day, toMs)]
        for (let s = Math.max(from, day * DAY_SLOTS); s < Math.min(to, (day + 1) * DAY_SLOTS); s++)
          capacity[k]![s] = many
      }
      for (const f of freeOn(book.closed, w, book.away, date, offset)) {
        fill(f.fromMs, f.toMs, 1)
        start.add(f.fromMs)
        end.add(f.toMs)
      }
      for (const a of standing) {
        if (a.workerId !== w.id) continue
        fill(a.startMs, endMs(a), 0)
        start.add(endMs(a))
        end.add(a.startMs)
      }
      edges[k]!.set(day, { start, end })
    })
    for (const a of standing)
      for (const u of usesOf(figures, a)) {
        const own = capacity[resourceOf(u.of)]!
        const [from, to] = [slotOf(day, u.fromMs), slotOf(day, u.toMs)]
        for (let s = Math.max(from, day * DAY_SLOTS); s < Math.min(to, (day + 1) * DAY_SLOTS); s++)
          own[s] = Math.max(0, own[s]! - u.many)
      }
  })
  // A day's hours hang on what stands on that day alone.
  const books = begins.map((fromMs) => {
    const near = (a: Book['appointments'][number]) =>
      a.startMs < fromMs + 2 * DAY_MS && endMs(a) > fromMs - DAY_MS
    return { ...book, appointments: standing.filter(near) }
  })
  const packing = new Packing(wishes.length, capacity)
  const places: Place[] = []
  wishes.forEach((wish, n) => {
    dates.forEach((date, day) => {
      const noon = momentAt(date, 12, offset)
      const { stands } = wish
      if (stands ? dateAt(stands.startMs, offset) !== date : noon + DAY_MS < wish.fromMs) return
      const odds = wish.odds(noon)
      const base = (stands ? PROMISED_WORTH : 0) + dayWorth(figures, wish, noon)
      if (base < figures(C.leastWorth)) return
      workers.forEach((w, k) => {
        const minutes = wish.minutes(w.id)
        const needs = usesOf(figures, { startMs: 0, minutes, jobs: wish.jobs }).map((u) => ({
          ...{ resource: resourceOf(u.of), many: u.many, slots: Math.round(u.toMs / GRID_MS) },
        }))
        const wanted = { id: '', clientId: wish.clientId, minutes, jobs: wish.jobs }
        if (stands && stands.workerId !== w.id) return
        const starts = startsOn(figures, books[day]!, wanted, w, date)
        // Where it stands it stays, even where it could not be booked anew.
        if (stands && !starts.includes(stands.startMs)) starts.push(stands.startMs)
        for (const startMs of starts) {
          const end = startMs + minutes * MIN_MS
          const hour = { workerId: w.id, startMs, minutes }
          const moved = stands === undefined ? 0 : Math.abs(startMs - stands.startMs)
          if (moved > figures(C.mostMovedMin) * MIN_MS) continue
          if (!stands && startMs < wish.fromMs) continue
          if (wish.beforeMs !== undefined && end > wish.beforeMs && (!stands || moved > 0)) continue
          if (wish.wishes && (!stands || moved > 0) && !suits(wish.wishes, hour, offset)) continue
          const worth =
            base -
            hourCost(figures, wish, hour, offset) -
            (moved > 0 ? figures(C.moved) : 0) -
            gapCost(figures, edges[k]!.get(day)!, startMs, end)
          if (worth < figures(C.leastWorth)) continue
          const from = slotOf(day, startMs)
          const uses: PackUse[] = [{ resource: k, from, to: slotOf(day, end), many: 1 }]
          for (const { resource, many, slots: long } of needs)
            uses.push({ resource, many, from, to: Math.min((day + 1) * DAY_SLOTS, from + long) })
          packing.add(n, worth, uses)
          places.push({ wish: n, workerId: w.id, startMs, minutes, odds, worth })
        }
      })
    })
  })
  return { arrays: packing.close(), places }
}

/** Gaps before and after that are too short for anybody cost. */
function gapCost(
  figures: Figures,
  { start, end }: { start: ReadonlySet<number>; end: ReadonlySet<number> },
  fromMs: number,
  toMs: number,
): number {
  const short = figures(C.fitsMin) * MIN_MS
  let before = Infinity
  for (const s of start) if (s <= fromMs) before = Math.min(before, fromMs - s)
  let after = Infinity
  for (const e of end) if (e >= toMs) after = Math.min(after, e - toMs)
  const dead = (gap: number) => (gap > 0 && gap < short ? 1 : 0)
  return figures(C.deadGap) * (dead(before) + dead(after))
}
