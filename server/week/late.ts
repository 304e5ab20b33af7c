/** A day that runs late: those who are still to come are told, once for each new hour. */
import { MIN_MS, runningLate } from '../../core/week/index.ts'
import { timeWords } from '../../core/time/index.ts'
import type { BookedRow } from '../../contract/week.ts'
import type { Database } from '../db/connection.ts'
import type { Reads } from '../db/reader.ts'
import { readHouse } from '../house/service.ts'
import { readAppointments } from './book.ts'
import { newHourLink, putMessage } from './hourMessages.ts'

/** Somebody who was told is told again when it gets later by so much. */
const TOLD_MIN = 10

export interface LateRow {
  readonly a: BookedRow
  readonly startMs: number
  readonly lateMin: number
}

/** Those still to come who will begin late and were not told so; who is here already sees it. */
export async function lateToTell(
  db: Reads,
  booked: readonly BookedRow[],
  nowMs: number,
): Promise<LateRow[]> {
  const of = new Map(booked.map((a) => [a.id, a]))
  const late = runningLate(booked, nowMs).flatMap((l) => {
    const a = of.get(l.id)
    return a && a.state !== 'arrived' ? [{ a, startMs: l.startMs, lateMin: l.lateMin }] : []
  })
  if (late.length === 0) return []
  const told = await db.select<{ appointmentId: string; aboutMs: number }>(
    `SELECT appointmentId, MAX(aboutMs) AS aboutMs FROM messages WHERE kind = 'late' AND state = 'waiting'
       AND appointmentId IN (SELECT value FROM json_each(?)) GROUP BY appointmentId`,
    [late.map((l) => l.a.id)],
  )
  const toldOf = new Map(told.map((t) => [t.appointmentId, t.aboutMs]))
  return late.filter(({ a, startMs }) => startMs >= (toldOf.get(a.id) ?? 0) + TOLD_MIN * MIN_MS)
}

/** @returns how many were told */
export async function tellLate(db: Database, base: string, nowMs = Date.now()): Promise<number> {
  const begins = new Date(nowMs).setHours(0, 0, 0, 0)
  const ends = new Date(nowMs).setHours(24, 0, 0, 0)
  return db.write(async () => {
    const [house, booked] = await Promise.all([
      readHouse(db),
      readAppointments(db, begins, ends, nowMs),
    ])
    const late = await lateToTell(db, booked, nowMs)
    for (const { a, startMs } of late) {
      const { id: appointmentId, clientId, workerId } = a
      const link = await newHourLink(db, base, { clientId, appointmentId, untilMs: ends })
      await putMessage(db, house, 'late', {
        ...{ clientId, workerId, appointmentId, aboutMs: startMs },
        told: { when: timeWords(startMs), was: timeWords(a.startMs), link },
      })
    }
    return late.length
  })
}
