/** The waiting list, and when clients can come. */
import { QueryTypes } from 'sequelize'
import type { BodyOf } from '../../contract/routes.ts'
import type { WaitingRow } from '../../contract/week.ts'
import { checkSitting, type Job } from '../../core/services/index.ts'
import type { Wishes } from '../../core/week/index.ts'
import type { Database } from '../db/connection.ts'
import { json, type Json, type Reads } from '../db/reader.ts'
import { HttpProblem, notFound } from '../http/problem.ts'

/** Those who wait, the longest first, with the hour that they have and would give back. */
export async function readWaiting(db: Reads, nowMs: number): Promise<WaitingRow[]> {
  const rows = await db.select<
    Omit<WaitingRow, 'jobs' | 'wishes' | 'has'> & {
      jobs: Json<Job[]>
      wishes: Json<Wishes>
      hasId: string | null
      hasMs: number | null
      hasWorker: string | null
    }
  >(
    `SELECT w.id, w.clientId, c.name AS client, w.jobs, w.wishes, w.note, w.sinceMs,
       a.id AS hasId, a.startMs AS hasMs, a.workerId AS hasWorker
     FROM waiting w JOIN clients c ON c.id = w.clientId
     LEFT JOIN appointments a ON a.id = (SELECT n.id FROM appointments n WHERE n.clientId = w.clientId AND n.startMs > ?
       AND n.state IN ('booked', 'confirmed') ORDER BY n.startMs LIMIT 1)
     WHERE w.doneAtMs IS NULL ORDER BY w.sinceMs`,
    [nowMs],
  )
  return rows.map(({ hasId, hasMs, hasWorker, ...r }) => ({
    ...r,
    jobs: json(r.jobs),
    wishes: json(r.wishes),
    has: hasId === null ? null : { id: hasId, startMs: hasMs!, workerId: hasWorker! },
  }))
}

export async function addWaiting(db: Database, body: BodyOf<'addWaiting'>): Promise<void> {
  checkSitting(body.jobs)
  const { id, clientId, jobs, wishes, note } = body
  await db.write(async () => {
    const rows = await db.sequelize.query<{ client: number | null; holder: string | null }>(
      `SELECT (SELECT 1 FROM clients WHERE id = ?) AS client, (SELECT clientId FROM waiting WHERE id = ?) AS holder`,
      { replacements: [clientId, id], type: QueryTypes.SELECT },
    )
    const { client, holder } = rows[0]!
    if (client === null) throw notFound('That client')
    if (holder !== null && holder !== clientId)
      throw new HttpProblem(409, 'id-taken', 'That id belongs to somebody else on the list.')
    if (holder !== null) return
    await db.sequelize.query(
      `INSERT INTO waiting (id, clientId, jobs, wishes, note, sinceMs) VALUES (?, ?, ?, ?, ?, ?)`,
      {
        replacements: [
          id,
          clientId,
          JSON.stringify(jobs),
          JSON.stringify(wishes),
          note,
          Date.now(),
        ],
        type: QueryTypes.INSERT,
      },
    )
  })
}

/** @throws HttpProblem 404 */
export async function removeWaiting(db: Database, id: string): Promise<void> {
  await db.write(async () => {
    const rows = await db.sequelize.query<{ id: string }>(
      'UPDATE waiting SET doneAtMs = ? WHERE id = ? AND doneAtMs IS NULL RETURNING id',
      { replacements: [Date.now(), id], type: QueryTypes.SELECT },
    )
    if (rows.length === 0) throw notFound('That place on the waiting list')
  })
}

export async function keepHours(
  db: Database,
  clientId: string,
  { wishes, first }: BodyOf<'saveHours'>,
): Promise<void> {
  await db.write(async () => {
    const found = await db.models.Client.findByPk(clientId, { attributes: ['id'] })
    if (!found) throw notFound('That client')
    await db.sequelize.query(
      `INSERT INTO client_hours (clientId, wishes, first) VALUES (?, ?, ?)
       ON CONFLICT (clientId) DO UPDATE SET wishes = excluded.wishes, first = excluded.first`,
      {
        replacements: [clientId, JSON.stringify(wishes), first ? 1 : 0],
        type: QueryTypes.INSERT,
      },
    )
  })
}
