/** Reminders: what waits in the outbox for the hours to come is what the house wants told, no more and no less. */
import { QueryTypes } from 'sequelize'
import { DAY_MS, HOUR_MS, humaneMs, offsetHere, whenWords } from '../../core/time/index.ts'
import { endMs } from '../../core/week/index.ts'
import type { House } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { readHouse } from '../house/service.ts'
import { newHourLink, putMessage } from './hourMessages.ts'

/** Hours so far ahead have their reminders laid out. */
const AHEAD_MS = 21 * DAY_MS

/** When a client is reminded of an hour: at humane hours, and not after it. */
export const reminderTimes = (house: House, startMs: number, nowMs: number): number[] => [
  ...new Set(
    house.studio.reminders
      .map((h) => humaneMs(startMs - h * HOUR_MS, offsetHere))
      .filter((due) => due > nowMs && due < startMs),
  ),
]

const SWEEP_MS = 10 * 60_000
const swept = new WeakMap<Database, number>()

/** The same now and then: hours that were booked before anybody was reminded, and what the house has changed since. */
export async function sweepReminders(
  db: Database,
  base: string,
  nowMs = Date.now(),
): Promise<void> {
  if (nowMs - (swept.get(db) ?? 0) < SWEEP_MS) return
  swept.set(db, nowMs)
  await remindDue(db, base, nowMs)
}

interface Coming {
  readonly id: string
  readonly clientId: string
  readonly workerId: string
  readonly startMs: number
  readonly minutes: number
  /** Reminders of it, whatever became of them. */
  readonly told: string
}

const COMING = `SELECT a.id, a.clientId, a.workerId, a.startMs, a.minutes,
    (SELECT json_group_array(m.dueAtMs) FROM messages m WHERE m.appointmentId = a.id AND m.kind = 'reminder') AS told
  FROM appointments a LEFT JOIN visits v ON v.id = a.visitId
  WHERE a.startMs > ? AND a.startMs < ? AND a.state IN ('booked', 'confirmed') AND COALESCE(v.state, 'open') = 'open'`

/** Reminders that wait for an hour that is not to come, or not then. */
const STALE = `kind = 'reminder' AND state = 'waiting' AND dueAtMs > ?
  AND appointmentId IN (SELECT id FROM appointments WHERE state NOT IN ('booked', 'confirmed') OR startMs <= ?)`

const missing = (house: House, rows: readonly Coming[], nowMs: number) =>
  rows.flatMap((a) => {
    const told = JSON.parse(a.told) as number[]
    const wanted = reminderTimes(house, a.startMs, nowMs)
    const gone = told.filter((t) => t > nowMs && !wanted.includes(t))
    const due = wanted.filter((t) => !told.includes(t))
    return due.length + gone.length > 0 ? [{ a, due, gone }] : []
  })

/**
 * Lays out the reminders of the hours to come. Asked again it changes nothing.
 * @param base the address of the pages on which clients answer
 */
export async function remindDue(db: Database, base: string, nowMs = Date.now()): Promise<void> {
  const house = await readHouse(db)
  const span = [nowMs, nowMs + AHEAD_MS]
  const [rows, [stale]] = await Promise.all([
    db.select<Coming & object>(COMING, span),
    db.select(`SELECT 1 FROM messages WHERE ${STALE} LIMIT 1`, [nowMs, nowMs]),
  ])
  if (!stale && missing(house, rows, nowMs).length === 0) return
  await db.write(async () => {
    await db.sequelize.query(`DELETE FROM messages WHERE ${STALE}`, {
      replacements: [nowMs, nowMs],
    })
    // Within the write: two screens that ask at once remind once.
    const now = await db.sequelize.query<Coming>(COMING, {
      replacements: span,
      type: QueryTypes.SELECT,
    })
    for (const { a, due, gone } of missing(house, now, nowMs)) {
      const { id: appointmentId, clientId, workerId, startMs } = a
      for (const dueAtMs of gone)
        await db.models.Message.destroy({
          where: { appointmentId, kind: 'reminder', dueAtMs, state: 'waiting' },
        })
      for (const dueAtMs of due) {
        const link = await newHourLink(db, base, { clientId, appointmentId, untilMs: endMs(a) })
        await putMessage(db, house, 'reminder', {
          ...{ clientId, workerId, appointmentId, dueAtMs },
          told: { when: whenWords(startMs), link },
        })
      }
    }
  })
}
