/** Everything kept of a client, to take away: one JSON document by a published schema, and tables. */
import { readFigures } from '../house/service.ts'
import { answersCsv } from '../../core/formats/index.ts'
import type { VisitSummary } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
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
  const [client, visits, hair, atHome, booked] = await Promise.all([
    readClient(db, id),
    readVisits(db, id),
    readHair(db, id),
    readHome(db, id),
    readOwn(db, id),
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
