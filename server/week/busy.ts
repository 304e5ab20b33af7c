/** Busy times of a worker out of their own calendar: what was brought in before is replaced as a whole, or nothing is. */
import { randomUUID } from 'node:crypto'
import { type BusyIn, busyIn } from '../../core/formats/index.ts'
import { DomainError } from '../../core/errors.ts'
import { DAY_MS, offsetHere } from '../../core/time/index.ts'
import type { Database } from '../db/connection.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { readHouse } from '../house/service.ts'
import { needWorker } from './feed.ts'
import type { Work } from '../work/work.ts'

/** So far ahead a calendar is read. */
const AHEAD_MS = 365 * DAY_MS
/** Reading a calendar takes a blink; what takes longer is none that can be read. */
const READ_MS = 8000

/** Reads a calendar; on a thread that is ended when it takes too long. */
export function readBusy(text: string, nowMs: number): BusyIn {
  try {
    return busyIn(text, { fromMs: nowMs - DAY_MS, toMs: nowMs + AHEAD_MS }, offsetHere)
  } catch (error) {
    if (error instanceof DomainError) throw new HttpProblem(422, error.code, error.message)
    throw error
  }
}

/** @throws HttpProblem 404; 422 `calendar` in words for whoever chose the file */
export async function bringInBusy(
  db: Database,
  work: Work,
  { workerId, text }: { readonly workerId: string; readonly text: string },
): Promise<{ times: number; events: number; free: number; replaced: number }> {
  const house = await readHouse(db)
  if (!house.workers.some((w) => w.id === workerId)) throw notFound('That worker')
  let read: BusyIn
  try {
    read = await work.run('busy', { text, nowMs: Date.now() }, AbortSignal.timeout(READ_MS))
  } catch (error) {
    if (error instanceof HttpProblem) throw error
    throw new HttpProblem(
      422,
      'calendar',
      'That calendar takes too long to read. Nothing was taken from it; what was there before stays.',
    )
  }
  const replaced = await db.write(async () => {
    const gone = await db.models.Away.destroy({ where: { workerId, source: 'calendar' } })
    // What they do then is their own: the book keeps the hours alone.
    await db.models.Away.bulkCreate(
      read.busy.map((b) => ({
        ...{ id: randomUUID(), workerId, fromMs: b.fromMs, toMs: b.toMs },
        ...{ why: 'busy', source: 'calendar' },
      })),
    )
    return gone
  })
  return { times: read.busy.length, events: read.events, free: read.free, replaced }
}

/** Takes all busy times of a worker's calendar out again. */
export const removeBusy = (db: Database, workerId: string): Promise<number> =>
  db.write(async () => {
    await needWorker(db, workerId)
    return db.models.Away.destroy({ where: { workerId, source: 'calendar' } })
  })
