/**
 * A slot came free (M19): who of those that are due or wait gains most from it. What somebody gains is what a visit then is worth to
 * them, less what the hour is worth that they have already. How often they did not come is not asked.
 */
import { constant, type Figures } from '../house/index.ts'
import { dateAt, DAY_MS } from '../time/index.ts'
import { type Appointment, type Book, endMs, MIN_MS, standsInBook, startsOn } from './book.ts'
import type { Stretch } from './hours.ts'
import { dayWorth, hourCost, type Wish } from './propose.ts'
import { isAny, suits } from './wishes.ts'

export const FREED_CONSTANTS = {
  waiting: constant(0.1, 'share', 'Somebody on the waiting list gains more by', 'H'),
} as const

/** Time of a worker that is free. */
export interface FreeSlot extends Stretch {
  readonly workerId: string
}

/** Somebody who might like it. */
export interface Candidate extends Wish {
  readonly waits: boolean
  /** The hour that they have, and would give back for this one. */
  readonly has?: { readonly id: string; readonly startMs: number; readonly workerId: string }
}

export interface Gain {
  readonly candidate: number
  readonly startMs: number
  readonly minutes: number
  /** Odds that a visit then is one of use. */
  readonly odds: number
  readonly gain: number
  /** Days from the slot to the good days: below 0 they are over, above 0 they are still to come, 0 within them. */
  readonly toWindowDays: number
  /** Served last by this worker. */
  readonly usualWorker: boolean
}

/** The free time of a worker round an hour; undefined where that hour is not free. */
export function freeAround(
  free: readonly Stretch[],
  book: Pick<Book, 'appointments'>,
  workerId: string,
  atMs: number,
): FreeSlot | undefined {
  const around = free.find((f) => f.fromMs <= atMs && f.toMs > atMs)
  if (!around) return undefined
  let { fromMs, toMs } = around
  for (const a of book.appointments) {
    if (a.workerId !== workerId || !standsInBook(a)) continue
    if (endMs(a) <= atMs) fromMs = Math.max(fromMs, endMs(a))
    else if (a.startMs > atMs) toMs = Math.min(toMs, a.startMs)
    else return undefined
  }
  return { workerId, fromMs, toMs }
}

/** Appointments that were cancelled, whose hour is still to come and free still, and that nobody was offered. */
export function cameFree<A extends Pick<Appointment, 'workerId' | 'startMs' | 'minutes' | 'state'>>(
  appointments: readonly A[],
  offered: readonly FreeSlot[],
  nowMs: number,
): A[] {
  const meets = (a: A, { fromMs, toMs }: Stretch) => a.startMs < toMs && endMs(a) > fromMs
  return appointments.filter(
    (a) =>
      a.state === 'cancelled' &&
      a.startMs > nowMs &&
      !appointments.some(
        (b) =>
          b.workerId === a.workerId &&
          standsInBook(b) &&
          meets(a, { fromMs: b.startMs, toMs: endMs(b) }),
      ) &&
      !offered.some((o) => o.workerId === a.workerId && meets(a, o)),
  )
}

/** Those who gain, the most first. */
export function rankFreed(
  figures: Figures,
  book: Book,
  slot: FreeSlot,
  candidates: readonly Candidate[],
): Gain[] {
  const worker = book.workers.find((w) => w.id === slot.workerId)
  if (!worker) return []
  const date = dateAt(slot.fromMs, book.offset)
  const near = {
    ...book,
    appointments: book.appointments.filter(
      (a) => a.startMs < slot.toMs + DAY_MS && endMs(a) > slot.fromMs - DAY_MS,
    ),
  }
  const gains = candidates.flatMap((c, candidate): Gain[] => {
    const minutes = c.minutes(worker.id)
    const id = c.has?.id ?? ''
    const worth = (hour: { readonly startMs: number; readonly workerId: string }) =>
      dayWorth(figures, c, hour.startMs) - hourCost(figures, c, hour, book.offset)
    let best: Gain | undefined
    const wanted = { id, clientId: c.clientId, minutes, jobs: c.jobs }
    for (const startMs of startsOn(figures, near, wanted, worker, date)) {
      const hour = { workerId: worker.id, startMs, minutes }
      const end = startMs + minutes * MIN_MS
      if (startMs < slot.fromMs || end > slot.toMs) continue
      if (c.beforeMs !== undefined && end > c.beforeMs) continue
      if (c.wishes && !suits(c.wishes, hour, book.offset)) continue
      // Whoever has an hour and waits without saying for what waits for a sooner one.
      if (c.has && (!c.wishes || isAny(c.wishes)) && startMs >= c.has.startMs) continue
      const odds = c.odds(startMs)
      // What is held back, or of no use, is nobody's gain.
      if (odds <= 0) continue
      const without = c.has ? Math.max(0, worth(c.has)) : 0
      const gain = worth(hour) - without + (c.waits ? figures(FREED_CONSTANTS.waiting) : 0)
      if (gain <= 0 || (best && gain <= best.gain + 1e-9)) continue
      best = {
        ...{ candidate, startMs, minutes, odds, gain },
        toWindowDays: daysTo(c, startMs),
        usualWorker: c.lastWorkerId === worker.id,
      }
    }
    return best ? [best] : []
  })
  return gains.sort((a, b) => b.gain - a.gain)
}

function daysTo({ fromMs, toMs }: Pick<Wish, 'fromMs' | 'toMs'>, atMs: number): number {
  if (atMs < fromMs) return (fromMs - atMs) / DAY_MS
  return atMs > toMs ? (toMs - atMs) / DAY_MS : 0
}
