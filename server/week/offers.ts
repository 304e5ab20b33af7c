/**
 * A slot came free: who gains most from it, messages to those who are chosen, and the first who takes it has it. What each of them
 * sees is looked up within the write, so that of two at once one is told that it is gone.
 */
import { QueryTypes } from 'sequelize'
import { randomUUID } from 'node:crypto'
import type { BodyOf } from '../../contract/routes.ts'
import type { FreeSlotAnswer, OfferRow } from '../../contract/week.ts'
import { figuresOf } from '../../core/register/index.ts'
import type { Job } from '../../core/services/index.ts'
import { dateAt, DAY_MS, offsetHere, whenWords } from '../../core/time/index.ts'
import { freeAround, freeOn, rankFreed, type Candidate } from '../../core/week/index.ts'
import type { House } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { json, type Json, type Reads } from '../db/reader.ts'
import { readHouse } from '../house/service.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { freshen } from '../standing/standing.ts'
import { bookIn, changeIn } from './appointments.ts'
import { readAppointment, readBook } from './book.ts'
import { dayOf, dueClients } from './due.ts'
import { newHourLink, putMessage } from './hourMessages.ts'
import { readWaiting } from './waiting.ts'
import { seekersOf, wishesOf } from './wish.ts'

/** So many are ranked of those that are due; all who wait. */
const MOST_DUE = 40

/** Who gains from the free time round an hour, the most first. */
export async function freeSlot(db: Reads, workerId: string, atMs: number): Promise<FreeSlotAnswer> {
  const nowMs = Date.now()
  const house = await readHouse(db)
  const figures = figuresOf(house.figures)
  const worker = house.workers.find((w) => w.id === workerId)
  if (!worker) throw notFound('That worker')
  const book = await readBook(db, house, atMs - DAY_MS, atMs + DAY_MS)
  const date = dateAt(atMs, offsetHere)
  const free = freeOn(house.closed, worker, book.away, date, offsetHere)
  const slot = freeAround(free, book, workerId, atMs)
  if (!slot || slot.toMs <= nowMs) return { slot: null, rows: [] }
  const [{ due }, waiting] = await Promise.all([
    dueClients(db, house, { fromMs: slot.fromMs, toMs: slot.toMs + DAY_MS, nowMs, most: MOST_DUE }),
    readWaiting(db, nowMs),
  ])
  // Somebody who waits is told once, with what they wait for.
  const waits = new Map(waiting.map((w) => [w.clientId, w]))
  const others = due.filter((d) => !waits.has(d.clientId))
  const seekers = [...(await seekersOf(db, house, [...waits.values()])), ...others]
  const all = await wishesOf(
    db,
    house,
    seekers.map((s) => ({ ...s, wishes: waits.get(s.clientId)?.wishes })),
  )
  const candidates = all.map(({ wish }): Candidate => {
    const w = waits.get(wish.clientId)
    return { ...wish, waits: w !== undefined, ...(w?.has && { has: w.has }) }
  })
  const gains = rankFreed(figures, book, slot, candidates)
  return {
    slot,
    rows: gains.map(({ candidate, startMs, minutes, odds, toWindowDays, usualWorker }) => {
      const { clientId, jobs, overview } = seekers[candidate]!
      const { waits: onList, has } = candidates[candidate]!
      return {
        ...{ clientId, name: overview.client.name, phone: overview.client.phone, jobs },
        ...{ startMs, minutes, odds, toWindowDays, usualWorker, waits: onList },
        hasMs: has?.startMs ?? null,
      }
    }),
  }
}

/** Offers that stand, and those of the last day that are over. */
export async function readOffers(db: Reads, nowMs: number): Promise<OfferRow[]> {
  return db.select<OfferRow>(
    `SELECT o.id, o.workerId, o.fromMs, o.toMs, o.closedAtMs, c.name AS takenBy,
       (SELECT COUNT(*) FROM offered WHERE offerId = o.id) AS asked
     FROM offers o LEFT JOIN clients c ON c.id = o.takenBy
     WHERE o.toMs > ? AND (o.closedAtMs IS NULL OR o.closedAtMs > ?) ORDER BY o.fromMs`,
    [nowMs, nowMs - DAY_MS],
  )
}

/** Offers free time to some: a message with a page of its own for each. */
export async function addOffer(
  db: Database,
  { id, workerId, fromMs, toMs, clients }: BodyOf<'addOffer'>,
  base: string,
): Promise<void> {
  const nowMs = Date.now()
  if (toMs <= nowMs) throw new HttpProblem(422, 'book', 'That hour is over. Nothing was offered.')
  await db.write(async () => {
    const house = await readHouse(db)
    if (!house.workers.some((w) => w.id === workerId)) throw notFound('That worker')
    const [there] = await rows<{ n: number }>(db, 'SELECT 1 AS n FROM offers WHERE id = ?', [id])
    if (there) return
    const known = await rows<{ id: string }>(
      db,
      'SELECT id FROM clients WHERE id IN (SELECT value FROM json_each(?))',
      [JSON.stringify(clients.map((c) => c.clientId))],
    )
    const ids = new Set(known.map((k) => k.id))
    if (clients.some((c) => !ids.has(c.clientId))) throw notFound('One of those clients')
    const waiting = new Map((await readWaiting(db, nowMs)).map((w) => [w.clientId, w]))
    await put(db, 'offers', {
      ...{ id, workerId, fromMs, toMs, madeAtMs: nowMs },
    })
    for (const { clientId, startMs, minutes, jobs } of clients) {
      const link = await newHourLink(db, base, { clientId, offerId: id, untilMs: startMs })
      const messageId = await putMessage(db, house, 'offer', {
        ...{ clientId, workerId, told: { when: whenWords(startMs), link } },
      })
      await put(db, 'offered', {
        ...{ offerId: id, clientId, startMs, minutes, jobs: JSON.stringify(jobs), messageId },
        hasId: waiting.get(clientId)?.has?.id ?? null,
      })
    }
  })
}

/** Takes an offer back: its pages open no more. @throws HttpProblem 404 */
export async function removeOffer(db: Database, id: string): Promise<void> {
  await db.write(async () => {
    const [open] = await rows<{ id: string }>(
      db,
      'UPDATE offers SET closedAtMs = ? WHERE id = ? AND closedAtMs IS NULL RETURNING id',
      [Date.now(), id],
    )
    if (!open) throw notFound('That offer, open still,')
    await takeBackMessages(db, id)
  })
}

/** What waits in the outbox and was not sent is taken back. */
const takeBackMessages = (db: Database, offerId: string) =>
  rows(
    db,
    `UPDATE messages SET state = 'taken-back' WHERE dueAtMs > ? AND id IN
       (SELECT messageId FROM offered WHERE offerId = ?) RETURNING id`,
    [Date.now(), offerId],
  )

export interface OfferSeen {
  readonly id: string
  readonly workerId: string
  readonly startMs: number
  readonly minutes: number
  /** Open still, taken by this client, or gone. */
  readonly state: 'open' | 'yours' | 'gone'
  /** The hour that is given back for it. */
  readonly hasMs: number | null
}

type OfferedColumns = {
  workerId: string
  startMs: number
  minutes: number
  jobs: Json<Job[]>
  hasId: string | null
  hasMs: number | null
  closedAtMs: number | null
  takenBy: string | null
}

const OFFERED = `SELECT o.workerId, d.startMs, d.minutes, d.jobs, d.hasId, o.closedAtMs, o.takenBy, a.startMs AS hasMs
  FROM offers o JOIN offered d ON d.offerId = o.id LEFT JOIN appointments a ON a.id = d.hasId
    AND a.state IN ('booked', 'confirmed')
  WHERE o.id = ? AND d.clientId = ?`

/** An offer as a client sees it. */
export async function offerSeen(
  db: Reads,
  offerId: string,
  clientId: string,
): Promise<OfferSeen | undefined> {
  const [o] = await db.select<OfferedColumns>(OFFERED, [offerId, clientId])
  return (
    o && {
      ...{ id: offerId, workerId: o.workerId, startMs: o.startMs, minutes: o.minutes },
      hasMs: o.hasMs,
      state: o.closedAtMs === null ? 'open' : o.takenBy === clientId ? 'yours' : 'gone',
    }
  )
}

/**
 * Takes an offered hour: first come, the rest are told. What the book refuses by now is gone as well.
 * @returns whether the client has it
 */
export async function takeOffer(
  db: Database,
  offerId: string,
  clientId: string,
): Promise<{ readonly taken: boolean; readonly why?: string }> {
  const nowMs = Date.now()
  await freshen(db)
  const seen = await offerSeen(db, offerId, clientId)
  if (!seen) return { taken: false }
  // What is known of skin or answers stops it here as it would at the chair; a page that anybody may see does not say what.
  if (seen.state === 'open' && (await dayOf(db, clientId, seen.startMs)).held !== null)
    return { taken: false, why: ASK_FIRST }
  try {
    return await db.write(async () => {
      const [o] = await rows<OfferedColumns>(db, OFFERED, [offerId, clientId])
      if (!o) return { taken: false }
      if (o.closedAtMs !== null) return { taken: o.takenBy === clientId }
      const { workerId, startMs, minutes } = o
      const has = o.hasId === null ? undefined : await readAppointment(db, o.hasId)
      const gives = has && (has.state === 'booked' || has.state === 'confirmed')
      if (gives) {
        const change = { mark: has.mark, workerId, startMs, minutes, state: 'confirmed' as const }
        await changeIn(db, has.id, change, BY_CLIENT)
        await rows(
          db,
          'UPDATE waiting SET doneAtMs = ? WHERE clientId = ? AND doneAtMs IS NULL RETURNING id',
          [nowMs, clientId],
        )
      } else {
        const body = { id: randomUUID(), clientId, workerId, startMs, minutes, note: '' }
        const jobs = json(o.jobs) as BodyOf<'addAppointment'>['jobs']
        await bookIn(db, { ...body, jobs }, BY_CLIENT)
      }
      await rows(db, 'UPDATE offers SET closedAtMs = ?, takenBy = ? WHERE id = ? RETURNING id', [
        nowMs,
        clientId,
        offerId,
      ])
      await takeBackMessages(db, offerId)
      await tellGone(db, await readHouse(db), offerId, clientId)
      return { taken: true }
    })
  } catch (error) {
    if (error instanceof HttpProblem && (error.code === 'book' || error.code === 'moved'))
      return { taken: false, why: 'That hour is gone meanwhile.' }
    throw error
  }
}

export const BY_CLIENT = 'The client'
export const ASK_FIRST = 'The studio has to ask you something first: please ring.'

/** Those who had been asked and did not take it are told that it is gone. */
async function tellGone(db: Database, house: House, offerId: string, but: string): Promise<void> {
  const others = await rows<{ clientId: string; startMs: number; workerId: string }>(
    db,
    `SELECT d.clientId, d.startMs, o.workerId FROM offered d JOIN offers o ON o.id = d.offerId
       JOIN messages m ON m.id = d.messageId AND m.state = 'waiting'
     WHERE d.offerId = ? AND d.clientId <> ?`,
    [offerId, but],
  )
  for (const { clientId, startMs, workerId } of others)
    await putMessage(db, house, 'gone', {
      ...{ clientId, workerId, told: { when: whenWords(startMs) } },
    })
}

const rows = <T extends object>(db: Database, sql: string, replacements: unknown[]) =>
  db.sequelize.query<T>(sql, { replacements, type: QueryTypes.SELECT })

const put = (db: Database, table: 'offers' | 'offered', row: Record<string, unknown>) => {
  const names = Object.keys(row)
  return db.sequelize.query(
    `INSERT INTO ${table} (${names.join(', ')}) VALUES (${names.map(() => '?').join(', ')})`,
    { replacements: Object.values(row), type: QueryTypes.INSERT },
  )
}
