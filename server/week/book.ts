/** The book as it stands around some hours. */
import type { BookedRow } from '../../contract/week.ts'
import type { Job } from '../../core/services/index.ts'
import type { Away, Book } from '../../core/week/index.ts'
import type { House } from '../../contract/types.ts'
import { DAY_MS, offsetHere } from '../../core/time/index.ts'
import { json, type Json, type Reads } from '../db/reader.ts'

type RowColumns = Omit<BookedRow, 'jobs' | 'missed'> & { jobs: Json<Job[]> }

/** What is to be done stands with the visit once there is one; what it left is not told here. */
const JOBS = `(SELECT json_group_array(json_object('id', j.value ->> '$.id', 'service', j.value ->> '$.service',
    'zones', json(j.value -> '$.zones'), 'method', j.value ->> '$.method'))
  FROM json_each(CASE WHEN a.visitId IS NULL THEN a.jobs ELSE v.jobs END) j)`

const ROWS = `SELECT a.id, a.clientId, c.name AS client, c.phone, a.visitId, a.workerId, a.startMs, a.minutes, ${JOBS} AS jobs,
    a.note, a.state, a.cancelledAtMs, v.state AS visitState, v.startedAtMs, v.endedAtMs, a.mark, a.changedBy
  FROM appointments a JOIN clients c ON c.id = a.clientId LEFT JOIN visits v ON v.id = a.visitId`

/** Appointments that begin within a stretch, by their hour; with what each client has missed so far. */
export async function readAppointments(
  db: Reads,
  fromMs: number,
  toMs: number,
  nowMs = Date.now(),
): Promise<BookedRow[]> {
  const rows = await db.select<RowColumns>(
    `${ROWS} WHERE a.startMs >= ? AND a.startMs < ? ORDER BY a.startMs, a.id`,
    [fromMs, toMs],
  )
  return withMissed(db, rows, nowMs)
}

/** All of a client's, the latest first. */
export async function readOwn(db: Reads, clientId: string): Promise<BookedRow[]> {
  const rows = await db.select<RowColumns>(`${ROWS} WHERE a.clientId = ? ORDER BY a.startMs DESC`, [
    clientId,
  ])
  return withMissed(db, rows, Date.now())
}

export async function readAppointment(db: Reads, id: string): Promise<BookedRow | undefined> {
  const rows = await db.select<RowColumns>(`${ROWS} WHERE a.id = ?`, [id])
  return (await withMissed(db, rows, Date.now()))[0]
}

async function withMissed(
  db: Reads,
  rows: readonly RowColumns[],
  nowMs: number,
): Promise<BookedRow[]> {
  const counts = await db.select<{ clientId: string; of: number; missed: number }>(
    `SELECT clientId, COUNT(*) AS "of", SUM(state = 'missed') AS missed FROM appointments
     WHERE clientId IN (SELECT value FROM json_each(?)) AND startMs < ? AND state <> 'cancelled' GROUP BY clientId`,
    [[...new Set(rows.map((r) => r.clientId))], nowMs],
  )
  const of = new Map(counts.map(({ clientId, ...c }) => [clientId, c]))
  return rows.map((r) => ({
    ...r,
    jobs: json(r.jobs),
    missed: of.get(r.clientId) ?? { of: 0, missed: 0 },
  }))
}

export type AwayRow = Away & { readonly source: 'hand' | 'calendar' }
export const readAway = (db: Reads, fromMs: number, toMs: number): Promise<AwayRow[]> =>
  db.select<AwayRow>(
    'SELECT id, workerId, fromMs, toMs, why, source FROM away WHERE toMs > ? AND fromMs < ? ORDER BY fromMs',
    [fromMs, toMs],
  )

/** Appointments a day long at the most begin so long before what they reach into. */
const REACH_MS = DAY_MS

/** Everything that speaks for and against hours of a stretch. */
export async function readBook(
  db: Reads,
  house: House,
  fromMs: number,
  toMs: number,
): Promise<Omit<Book, 'appointments'> & { readonly appointments: readonly BookedRow[] }> {
  const [appointments, away] = await Promise.all([
    readAppointments(db, fromMs - REACH_MS, toMs + REACH_MS),
    readAway(db, fromMs - REACH_MS, toMs + REACH_MS),
  ])
  return {
    ...{ nowMs: Date.now(), offset: offsetHere, closed: house.closed, studio: house.studio },
    ...{ workers: house.workers, away, appointments },
  }
}
