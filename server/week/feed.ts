/**
 * A worker's hours as a calendar under a secret address (iCalendar, RFC 5545): initials and a word for the work, no telephone, no
 * notes, nothing of anybody's skin. The address is told once, and taken back at will.
 */
import { Router, type RequestHandler } from 'express'
import { rateLimit } from 'express-rate-limit'
import ical, { ICalCalendarMethod, ICalEventStatus } from 'ical-generator'
import { QueryTypes } from 'sequelize'
import { SERVICES, servicesOf } from '../../core/services/index.ts'
import { DAY_MS } from '../../core/time/index.ts'
import { endMs } from '../../core/week/index.ts'
import type { BookedRow } from '../../contract/week.ts'
import { digestOf, isToken, newToken } from '../answer/tokens.ts'
import type { Database } from '../db/connection.ts'
import type { Reads } from '../db/reader.ts'
import { readHouse } from '../house/service.ts'
import { notFound } from '../http/problem.ts'
import { readAppointments, readAway } from './book.ts'

const BACK_MS = 30 * DAY_MS
const AHEAD_MS = 180 * DAY_MS
/** A calendar asks every few minutes; a guesser of 256 bits would like more. */
const TRIES_A_MINUTE = 30

/** Makes a worker's address; the one before closes. @throws HttpProblem 404 */
export async function newFeed(db: Database, workerId: string, base: string): Promise<string> {
  const token = newToken()
  await db.write(async () => {
    const house = await readHouse(db)
    if (!house.workers.some((w) => w.id === workerId)) throw notFound('That worker')
    await closeFeeds(db, workerId)
    await db.sequelize.query('INSERT INTO feeds (digest, workerId, createdAtMs) VALUES (?, ?, ?)', {
      replacements: [digestOf(token), workerId, Date.now()],
      type: QueryTypes.INSERT,
    })
  })
  return `${base}/feed/${token}.ics`
}

/** @throws HttpProblem 404 */
export const takeBackFeed = (db: Database, workerId: string): Promise<void> =>
  db.write(async () => {
    await needWorker(db, workerId)
    await closeFeeds(db, workerId)
  })

/** Somebody who works here, or has worked here. @throws HttpProblem 404 */
export async function needWorker(db: Reads, id: string): Promise<void> {
  const [row] = await db.select('SELECT 1 FROM workers WHERE id = ?', [id])
  if (!row) throw notFound('That worker')
}

async function closeFeeds(db: Database, workerId: string): Promise<void> {
  await db.sequelize.query(
    'UPDATE feeds SET takenBackAtMs = ? WHERE workerId = ? AND takenBackAtMs IS NULL',
    { replacements: [Date.now(), workerId] },
  )
}

const initials = (name: string) =>
  name
    .split(/\s+/)
    .map((w) => `${[...w][0] ?? ''}.`)
    .join('')

const STATUS: Partial<Record<BookedRow['state'], ICalEventStatus>> = {
  booked: ICalEventStatus.TENTATIVE,
  cancelled: ICalEventStatus.CANCELLED,
  missed: ICalEventStatus.CANCELLED,
}

/** @returns undefined where the worker is not of this house any more */
export async function feedOf(
  db: Reads,
  workerId: string,
  nowMs: number,
): Promise<string | undefined> {
  const house = await readHouse(db)
  const worker = house.workers.find((w) => w.id === workerId)
  if (!worker) return undefined
  const [booked, away] = await Promise.all([
    readAppointments(db, nowMs - BACK_MS, nowMs + AHEAD_MS, nowMs),
    readAway(db, nowMs - BACK_MS, nowMs + AHEAD_MS),
  ])
  const calendar = ical({
    name: `${worker.name}, ${house.name}`,
    prodId: { company: 'Slow Tide', product: 'Book', language: 'EN' },
    method: ICalCalendarMethod.PUBLISH,
    ttl: 15 * 60,
  })
  for (const a of booked.filter((b) => b.workerId === workerId)) {
    calendar.createEvent({
      id: `${a.id}@slow-tide`,
      sequence: a.mark,
      start: new Date(a.startMs),
      end: new Date(endMs(a)),
      stamp: new Date(nowMs),
      summary: `${initials(a.client)} ${servicesOf(a.jobs)
        .map((s) => SERVICES[s].short)
        .join(' + ')}`,
      status: STATUS[a.state] ?? ICalEventStatus.CONFIRMED,
    })
  }
  for (const s of away.filter((b) => b.workerId === workerId || b.workerId === null)) {
    calendar.createEvent({
      id: `${s.id}@slow-tide`,
      start: new Date(s.fromMs),
      end: new Date(s.toMs),
      stamp: new Date(nowMs),
      summary: s.workerId === null ? 'House closed' : 'Away',
    })
  }
  return calendar.toString()
}

export function feedRoutes(db: Database): Router {
  const router = Router()
  const limit: RequestHandler = rateLimit({
    windowMs: 60_000,
    limit: TRIES_A_MINUTE,
    standardHeaders: true,
    legacyHeaders: false,
    message: 'Too often. Ask again in a minute.\n',
  })
  router.get<{ file: string }>('/feed/:file', limit, async (request, response) => {
    response.setHeader('Cache-Control', 'no-store')
    const token = request.params.file.replace(/\.ics$/, '')
    const [row] = isToken(token)
      ? await db.select<{ workerId: string }>(
          'SELECT workerId FROM feeds WHERE digest = ? AND takenBackAtMs IS NULL',
          [digestOf(token)],
        )
      : []
    const text = row && (await feedOf(db, row.workerId, Date.now()))
    if (text === undefined) {
      response.status(404).type('text/plain').send('There is no calendar here.\n')
      return
    }
    response.type('text/calendar').send(text)
  })
  return router
}
