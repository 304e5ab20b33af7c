/** What a client may do with an hour of theirs from a page of their own: say that they come, take another that suits, cancel. */
import { figuresOf } from '../../core/register/index.ts'
import { dateAt, HOUR_MS, offsetHere } from '../../core/time/index.ts'
import {
  BOOK_CONSTANTS,
  dayWorth,
  hourAt,
  hourCost,
  isSettled,
  PROPOSE_CONSTANTS,
  standsInBook,
  startsOn,
  suits,
} from '../../core/week/index.ts'
import { addDays } from '../../core/time/index.ts'
import type { BookedRow } from '../../contract/week.ts'
import type { Database } from '../db/connection.ts'
import type { Reads } from '../db/reader.ts'
import { readHouse } from '../house/service.ts'
import { HttpProblem } from '../http/problem.ts'
import { freshen } from '../standing/standing.ts'
import { changeAppointment } from './appointments.ts'
import { readAppointment, readBook } from './book.ts'
import { BY_CLIENT } from './offers.ts'
import { seekersOf, wishesOf } from './wish.ts'

/** Days before and after the hour that they have, on which others are looked for. */
const DAYS_BEFORE = 7
const DAYS_AFTER = 21
/** Days that are told, and hours of each. */
const MOST_DAYS = 8
const HOURS_OF_A_DAY = 3
/** Nobody is asked to come sooner than this. */
const NOT_BEFORE_MS = 2 * HOUR_MS

export interface OtherHour {
  readonly workerId: string
  readonly startMs: number
}

/** An hour that a client may still answer for. */
export const answerable = (a: BookedRow | undefined, nowMs = Date.now()): a is BookedRow =>
  a !== undefined && a.startMs > nowMs && standsInBook(a) && !isSettled(a)

/** The client's next hour in the book; undefined where there is none. */
export async function nextHourOf(db: Reads, clientId: string): Promise<BookedRow | undefined> {
  const [row] = await db.select<{ id: string }>(
    `SELECT a.id FROM appointments a LEFT JOIN visits v ON v.id = a.visitId WHERE a.clientId = ? AND a.startMs > ?
       AND a.state IN ('booked', 'confirmed') AND COALESCE(v.state, 'open') = 'open' ORDER BY a.startMs LIMIT 1`,
    [clientId, Date.now()],
  )
  return row && readAppointment(db, row.id)
}

/** Hours that the client may take instead: free by the book, and such as suit skin, hair and when they can come. */
export async function otherHours(db: Database, a: BookedRow): Promise<OtherHour[]> {
  await freshen(db)
  const house = await readHouse(db)
  const figures = figuresOf(house.figures)
  const nowMs = Date.now()
  const today = dateAt(nowMs, offsetHere)
  const first = addDays(dateAt(a.startMs, offsetHere), -DAYS_BEFORE)
  const from = first < today ? today : first
  const last = addDays(dateAt(a.startMs, offsetHere), DAYS_AFTER)
  const begins = Date.parse(`${from}T00:00`)
  const book = await readBook(db, house, begins, Date.parse(`${last}T00:00`))
  const [seeker] = await seekersOf(db, house, [a])
  if (!seeker) return []
  const [wished] = await wishesOf(db, house, [seeker])
  const { wish } = wished!
  const days: { readonly worth: number; readonly hours: OtherHour[] }[] = []
  for (let date = from; date <= last; date = addDays(date, 1)) {
    const hours = book.workers.flatMap((w) => {
      const wanted = { id: a.id, clientId: a.clientId, minutes: a.minutes, jobs: a.jobs }
      return startsOn(figures, book, wanted, w, date)
        .map((startMs) => ({ workerId: w.id, startMs, minutes: a.minutes }))
        .filter((h) => h.startMs >= nowMs + NOT_BEFORE_MS && h.startMs !== a.startMs)
        .filter((h) => !wish.wishes || suits(wish.wishes, h, offsetHere))
    })
    const [any] = hours
    if (!any) continue
    const worth = dayWorth(figures, wish, any.startMs)
    if (worth < figures(PROPOSE_CONSTANTS.leastWorth)) continue
    days.push({ worth, hours: spread(hours, (h) => hourCost(figures, wish, h, offsetHere)) })
  }
  return days
    .sort((x, y) => y.worth - x.worth)
    .slice(0, MOST_DAYS)
    .flatMap((d) => d.hours)
    .sort((x, y) => x.startMs - y.startMs)
}

/** Of a day the hour that costs least of the morning, of the middle and of the end. */
function spread(hours: readonly OtherHour[], cost: (h: OtherHour) => number): OtherHour[] {
  const parts = new Map<number, OtherHour>()
  // An odd five minutes is harder to keep in mind than a half hour.
  const told = (h: OtherHour) => cost(h) + (h.startMs % (HOUR_MS / 2) === 0 ? 0 : ODD)
  for (const h of hours) {
    const hour = hourAt(h.startMs, offsetHere)
    const part = hour < 12 ? 0 : hour < 15 ? 1 : 2
    const best = parts.get(part)
    if (!best || told(h) < told(best)) parts.set(part, h)
  }
  return [...parts.values()].slice(0, HOURS_OF_A_DAY)
}

const ODD = 0.01

type Act = 'confirm' | 'cancel' | OtherHour

/**
 * @param base the address of the pages on which clients answer
 * @returns the hour as it stands now; why it could not be, in a sentence for the client
 */
export async function actOnHour(
  db: Database,
  a: BookedRow,
  act: Act,
  base: string,
): Promise<{ readonly now: BookedRow; readonly why?: string }> {
  const change =
    act === 'confirm'
      ? { state: 'confirmed' as const }
      : act === 'cancel'
        ? { state: 'cancelled' as const }
        : { workerId: act.workerId, startMs: act.startMs, state: 'confirmed' as const }
  if (typeof act !== 'string') {
    const others = await otherHours(db, a)
    if (!others.some((h) => h.startMs === act.startMs && h.workerId === act.workerId))
      return { now: a, why: 'That hour is gone meanwhile. Choose another.' }
  }
  try {
    const now = await changeAppointment(
      db,
      a.id,
      { mark: a.mark, ...change },
      { by: BY_CLIENT, base },
    )
    return { now }
  } catch (error) {
    if (!(error instanceof HttpProblem)) throw error
    const why =
      error.code === 'book'
        ? 'That hour is gone meanwhile. Choose another.'
        : 'The studio has changed this hour meanwhile. This is how it stands now.'
    return { now: (await readAppointment(db, a.id)) ?? a, why }
  }
}

/** Whether cancelling now is late by the house's own word, h before. */
export async function lateCancel(
  db: Reads,
  a: Pick<BookedRow, 'startMs'>,
): Promise<number | undefined> {
  const hours = figuresOf((await readHouse(db)).figures)(BOOK_CONSTANTS.lateCancelHours)
  return a.startMs - Date.now() < hours * HOUR_MS ? hours : undefined
}
