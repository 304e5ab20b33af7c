/** What the days ahead take and bring, beside what the weeks before brought. */
import type { WeekLoad } from '../../contract/week.ts'
import { figuresOf } from '../../core/register/index.ts'
import { bookCsv } from '../../core/formats/index.ts'
import { addDays, DAY_MS, offsetHere } from '../../core/time/index.ts'
import { sum } from '../../core/stats/index.ts'
import { bladesShort, dayLoad, type Loaded, momentAt, priceOf } from '../../core/week/index.ts'
import { json, type Json, type Reads } from '../db/reader.ts'
import { readHouse } from '../house/service.ts'
import { readAppointments, readBook } from './book.ts'

/** The month that a week is held against. */
const MONTH_DAYS = 28

export async function readLoad(db: Reads, from: string, days: number): Promise<WeekLoad> {
  const house = await readHouse(db)
  const figures = figuresOf(house.figures)
  const fromMs = momentAt(from, 0, offsetHere)
  const toMs = momentAt(addDays(from, days), 0, offsetHere)
  const [book, blades, before] = await Promise.all([
    readBook(db, house, fromMs, toMs),
    db.select<{ id: string; blades: Json<Record<string, number>> }>(
      `SELECT a.id, v.planBlades AS blades FROM appointments a JOIN visits v ON v.id = a.visitId
       WHERE a.startMs >= ? AND a.startMs < ? AND v.planBlades IS NOT NULL`,
      [fromMs, toMs],
    ),
    readAppointments(db, fromMs - MONTH_DAYS * DAY_MS, fromMs),
  ])
  const laidOut = new Map(blades.map((b) => [b.id, json(b.blades)]))
  const appointments = book.appointments.map((a): Loaded => ({
    ...a,
    blades: laidOut.get(a.id) ?? null,
  }))
  const own = Array.from({ length: days }, (_, i) =>
    dayLoad(figures, { ...book, appointments }, addDays(from, i)),
  )
  // What was done, or is still to be done by then; a month of which nothing is known has no mean.
  const brought = before.filter((a) => a.visitState === 'finished')
  return {
    days: own.map((d) => ({ ...d, blades: { ...d.blades } })),
    short: bladesShort(book.studio, own),
    meanIncome:
      brought.length > 0
        ? (sum(brought.map((a) => priceOf(figures, a.jobs))) * 7) / MONTH_DAYS
        : null,
  }
}

/** The book of some days as a table. */
export async function bookTable(db: Reads, from: string, days: number): Promise<string> {
  const house = await readHouse(db)
  const names = new Map(house.workers.map((w) => [w.id, w.name]))
  const fromMs = momentAt(from, 0, offsetHere)
  const rows = await readAppointments(db, fromMs, momentAt(addDays(from, days), 0, offsetHere))
  return bookCsv(
    figuresOf(house.figures),
    rows.map((a) => ({ ...a, worker: names.get(a.workerId) ?? '' })),
    offsetHere,
  )
}
