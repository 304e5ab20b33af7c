/** Everything kept of a client, to take away: one JSON document by a published schema, and tables. */
import { readFigures } from '../house/service.ts'
import { answersCsv } from '../../core/formats/index.ts'
import type { VisitSummary } from '../../contract/types.ts'
import { NO_WISHES } from '../../core/week/index.ts'
import type { Database } from '../db/connection.ts'
import { json, type Json, type Reads } from '../db/reader.ts'
import { readHours } from '../week/wish.ts'
import { readHair, readVisits, type VisitRecord } from '../visits/record.ts'
import { readClient } from './read.ts'
import { readOwn } from '../week/book.ts'
import { readHome } from './readHome.ts'

function toSummary(visit: VisitRecord): VisitSummary {
  const { id, service, jobs, state, slotAtMs, startedAtMs, endedAtMs } = visit
  const { worstRedness, bumps, routine } = visit
  return {
    id,
    service,
    jobs,
    state,
    slotAtMs,
    startedAtMs,
    endedAtMs,
    worstRedness,
    bumps,
    routine,
  }
}

/** The document of docs/formats/client.schema.json. */
export async function takeOut(db: Database, id: string): Promise<object> {
  const [client, visits, hair, atHome, booked, hours, told] = await Promise.all([
    readClient(db, id),
    readVisits(db, id),
    readHair(db, id),
    readHome(db, id),
    readOwn(db, id),
    readHours(db, [id]),
    readTold(db, id),
  ])
  return {
    format: 'slow-tide-client',
    version: 2,
    takenAt: new Date().toISOString(),
    client,
    readings: visits[visits.length - 1]?.readings ?? [],
    atHome,
    appointments: booked.map(({ id, startMs, minutes, state, note, visitId, cancelledAtMs }) => ({
      ...{ id, startMs, minutes, state, note, visitId, cancelledAtMs },
    })),
    canCome: hours.get(id)?.wishes ?? NO_WISHES,
    ...told,
    visits: visits.map((v) => ({
      ...toSummary(v),
      loads: v.loads,
      leftMm: v.leftMm,
      asked: v.asked,
      notes: v.notes,
      plan: v.plan,
      events: v.events,
      products: v.products,
      photos: v.photos,
      atChair: v.atChair,
      skin: v.answers,
      hair: hair.filter((h) => h.visitId === v.id),
    })),
  }
}

/** What a client waits for, and what they were told of hours in the book. */
export async function readTold(
  db: Reads,
  id: string,
): Promise<{ waiting: object[]; messages: ToldMessage[] }> {
  const [waiting, messages] = await Promise.all([
    db.select<{ id: string; jobs: Json<object[]>; wishes: Json<object> }>(
      'SELECT id, jobs, wishes, note, sinceMs, doneAtMs FROM waiting WHERE clientId = ? ORDER BY sinceMs',
      [id],
    ),
    db.select<ToldMessage & object>(
      `SELECT id, kind, subject, text, dueAtMs, state FROM messages
       WHERE clientId = ? AND visitId IS NULL ORDER BY dueAtMs`,
      [id],
    ),
  ])
  return {
    waiting: waiting.map((w) => ({ ...w, jobs: json(w.jobs), wishes: json(w.wishes) })),
    messages,
  }
}

interface ToldMessage {
  readonly id: string
  readonly kind: string
  readonly subject: string
  readonly text: string
  readonly dueAtMs: number
  readonly state: string
}

export async function takeOutCsv(db: Database, id: string): Promise<string> {
  const [, visits, hair, figures] = await Promise.all([
    readClient(db, id),
    readVisits(db, id),
    readHair(db, id),
    readFigures(db),
  ])
  return answersCsv(
    figures,
    visits.map((v) => ({ ...v, hair: hair.filter((h) => h.visitId === v.id) })),
  )
}
