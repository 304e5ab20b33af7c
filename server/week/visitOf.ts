/**
 * A visit belongs to its appointment. The next appointment of a client has the client's open visit, which is made a day and a half
 * before; a walk-in makes an appointment.
 */
import { QueryTypes } from 'sequelize'
import { randomUUID } from 'node:crypto'
import type { BodyOf } from '../../contract/routes.ts'
import { figuresOf } from '../../core/register/index.ts'
import { type Job, type ServiceId, servicesOf } from '../../core/services/index.ts'
import { HOUR_MS } from '../../core/time/index.ts'
import { GRID_MIN, MIN_MS } from '../../core/week/index.ts'
import { readFigures, readHouse } from '../house/service.ts'
import type { Database } from '../db/connection.ts'
import { json, type Json } from '../db/reader.ts'
import { openVisit } from '../visits/open.ts'
import { lengthOf } from './length.ts'
import { bookAround, hourOrNearest, refuse } from './refusals.ts'

/** So long before its hour an appointment has its visit, and so long after it nobody waits for it any more. */
const BEFORE_MS = 36 * HOUR_MS
const AFTER_MS = 12 * HOUR_MS
const GRID_MS = GRID_MIN * MIN_MS

export const onGrid = (ms: number): number => Math.floor(ms / GRID_MS) * GRID_MS

const rowsOf = <T extends object>(db: Database, sql: string, replacements: unknown[]) =>
  db.sequelize.query<T>(sql, { replacements, type: QueryTypes.SELECT })

interface NextRow {
  id: string
  startMs: number
  workerId: string
  visitId: string | null
  jobs: Json<Job[]>
}

/** Gives the client's open visit to the next appointment, and makes one where it is near. Part of a write. */
export async function linkNext(db: Database, clientId: string, nowMs = Date.now()): Promise<void> {
  const [next] = await rowsOf<NextRow>(
    db,
    `SELECT a.id, a.startMs, a.workerId, a.visitId, a.jobs FROM appointments a LEFT JOIN visits v ON v.id = a.visitId
     WHERE a.clientId = ? AND a.startMs > ? AND a.state IN ('booked', 'confirmed', 'arrived')
       AND COALESCE(v.state, 'open') = 'open' ORDER BY a.startMs LIMIT 1`,
    [clientId, nowMs - AFTER_MS],
  )
  if (!next) return
  const [open] = await rowsOf<{
    id: string
    state: string
    jobs: Json<Job[]>
    holder: string | null
  }>(
    db,
    `SELECT v.id, v.state, v.jobs, (SELECT id FROM appointments WHERE visitId = v.id) AS holder
     FROM visits v WHERE v.clientId = ? AND v.state <> 'finished'`,
    [clientId],
  )
  if (open) {
    if (open.holder === next.id || open.state !== 'open') return
    // What was to be done stays with the appointment that gives its visit away.
    if (open.holder !== null)
      await db.sequelize.query('UPDATE appointments SET visitId = NULL, jobs = ? WHERE id = ?', {
        replacements: [JSON.stringify(json(open.jobs)), open.holder],
      })
    await db.sequelize.query('UPDATE appointments SET visitId = ? WHERE id = ?', {
      replacements: [open.id, next.id],
    })
    const wanted = json(next.jobs)
    if (wanted.length > 0 && services(wanted) !== services(json(open.jobs))) {
      await db.models.Visit.update({ jobs: wanted }, { where: { id: open.id } })
      await db.models.Plan.destroy({ where: { visitId: open.id } })
    }
    return
  }
  if (next.startMs > nowMs + BEFORE_MS) return
  const visitId = randomUUID()
  const { workerId, startMs } = next
  const jobs = json(next.jobs) as BodyOf<'addVisit'>['jobs']
  await openVisit(db, clientId, { id: visitId, jobs, workerId, slotAtMs: startMs })
  await db.sequelize.query('UPDATE appointments SET visitId = ? WHERE id = ?', {
    replacements: [visitId, next.id],
  })
}

const services = (jobs: readonly Job[]) => servicesOf(jobs).join(',')

/** Makes the visits of the appointments that are near, whose client has none. */
export async function openDue(db: Database, nowMs = Date.now()): Promise<void> {
  const due = await db.select<{ clientId: string }>(
    `SELECT DISTINCT a.clientId FROM appointments a
     WHERE a.startMs > ? AND a.startMs < ? AND a.visitId IS NULL AND a.state IN ('booked', 'confirmed', 'arrived')
       AND NOT EXISTS (SELECT 1 FROM visits v WHERE v.clientId = a.clientId AND v.state <> 'finished')`,
    [nowMs - AFTER_MS, nowMs + BEFORE_MS],
  )
  if (due.length === 0) return
  await db.write(async () => {
    for (const { clientId } of due) await linkNext(db, clientId, nowMs)
  })
}

/** Whoever is given an hour so near stands in the door: nobody is sent away by the book. */
const HERE_MS = HOUR_MS / 2

/** The hour that a visit is given: what is still to come keeps to the book. @throws HttpProblem 422 `book` */
async function hourOf(
  db: Database,
  of: {
    readonly id: string
    readonly clientId: string
    readonly workerId: string
    readonly services: readonly ServiceId[]
    readonly jobs: readonly Job[]
  },
  hour: { readonly atMs: number; readonly state: string; readonly orNearest?: boolean },
): Promise<number> {
  const startMs = onGrid(hour.atMs)
  if (hour.state !== 'booked' || startMs < Date.now() + HERE_MS) return startMs
  const house = await readHouse(db)
  const { minutes } = await lengthOf(db, figuresOf(house.figures), of)
  const book = await bookAround(db, house, startMs)
  const wanted = { ...of, startMs, minutes }
  if (hour.orNearest) return hourOrNearest(house, book, wanted)?.startMs ?? startMs
  refuse(house, book, wanted)
  return startMs
}

/**
 * The appointment of a visit that was given an hour, or that has begun: the one it has, the client's of these hours, or a new one.
 * Part of a write.
 */
export async function keepHour(
  db: Database,
  visitId: string,
  hour: {
    readonly atMs: number
    readonly state: 'booked' | 'arrived'
    /** Where that hour cannot be, the nearest that works is as good. */
    readonly orNearest?: boolean
  },
): Promise<void> {
  const [visit] = await rowsOf<{
    clientId: string
    workerId: string
    jobs: Json<Job[]>
    own: string | null
    startMs: number | null
    near: string | null
  }>(
    db,
    `SELECT v.clientId, v.workerId, v.jobs, a.id AS own, a.startMs, (
        SELECT id FROM appointments n WHERE n.clientId = v.clientId AND n.visitId IS NULL
          AND n.startMs BETWEEN ? AND ? AND n.state IN ('booked', 'confirmed', 'arrived')
        ORDER BY ABS(n.startMs - ?) LIMIT 1) AS near
     FROM visits v LEFT JOIN appointments a ON a.visitId = v.id WHERE v.id = ?`,
    [hour.atMs - AFTER_MS, hour.atMs + AFTER_MS, hour.atMs, visitId],
  )
  if (!visit) return
  const jobs = json(visit.jobs)
  const of = { clientId: visit.clientId, workerId: visit.workerId, services: servicesOf(jobs) }
  const has = visit.own ?? visit.near
  const startMs = await hourOf(db, { ...of, id: has ?? visitId, jobs }, hour)
  if (has !== null) {
    // Booked for about then, it stays as it is; another day is another hour.
    const same = visit.startMs !== null && Math.abs(visit.startMs - startMs) < AFTER_MS
    const moves = visit.own !== null && !(hour.state === 'arrived' && same)
    await db.sequelize.query(
      `UPDATE appointments SET visitId = ?, state = CASE WHEN ? = 'arrived' THEN 'arrived'
          WHEN state IN ('missed', 'cancelled') THEN 'booked' ELSE state END, cancelledAtMs = NULL,
        workerId = ?, startMs = CASE WHEN ? THEN ? ELSE startMs END, mark = mark + 1 WHERE id = ?`,
      { replacements: [visitId, hour.state, visit.workerId, moves, startMs, has] },
    )
    return
  }
  const { minutes } = await lengthOf(db, await readFigures(db), of)
  await db.models.Appointment.create({
    ...{
      id: visitId,
      visitId,
      clientId: visit.clientId,
      workerId: visit.workerId,
      startMs,
      minutes,
    },
    ...{ jobs: [], state: hour.state, madeAtMs: Date.now() },
  })
}
