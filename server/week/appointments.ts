/** What can be done to an appointment. The book is looked at within the write, so that of two at once one is told. */
import { QueryTypes } from 'sequelize'
import type { BodyOf } from '../../contract/routes.ts'
import type { BookedRow } from '../../contract/week.ts'
import { figuresOf } from '../../core/register/index.ts'
import { checkSitting, type Job, leadJob, servicesOf } from '../../core/services/index.ts'
import { HOUR_MS, whenWords } from '../../core/time/index.ts'
import { isSettled, standsInBook } from '../../core/week/index.ts'
import type { House } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { readHouse } from '../house/service.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { underWay } from '../people/who.ts'
import { readAppointment } from './book.ts'
import { newHourLink, putMessage, workerCalled } from './hourMessages.ts'
import { lengthOf } from './length.ts'
import { bookAround, refuse } from './refusals.ts'
import { remindDue } from './reminders.ts'
import { linkNext } from './visitOf.ts'

/** What was made by mistake is noticed so soon. */
const MISTAKE_MS = HOUR_MS

const whoNow = () => underWay.getStore()?.who?.worker ?? ''

const kept = async (db: Database, id: string): Promise<BookedRow> => {
  const row = await readAppointment(db, id)
  if (!row) throw notFound('That appointment')
  return row
}

/** Who books, and where clients find their pages. */
export interface Booking {
  /** Whoever is at the screen, unless somebody else says so. */
  readonly by?: string
  readonly base: string
}

export async function addAppointment(
  db: Database,
  body: BodyOf<'addAppointment'>,
  { base, by }: Booking,
): Promise<BookedRow> {
  await db.write(() => bookIn(db, body, by ?? whoNow()))
  await remindDue(db, base)
  return kept(db, body.id)
}

/** Books. Part of a write. */
export async function bookIn(
  db: Database,
  body: BodyOf<'addAppointment'>,
  by: string,
): Promise<void> {
  checkSitting(body.jobs)
  const [stands] = await db.select<{ client: number | null; holder: string | null }>(
    `SELECT (SELECT 1 FROM clients WHERE id = ?) AS client,
        (SELECT clientId FROM appointments WHERE id = ?) AS holder`,
    [body.clientId, body.id],
  )
  if (stands!.client === null) throw notFound('That client')
  if (stands!.holder === body.clientId) return
  if (stands!.holder !== null)
    throw new HttpProblem(409, 'id-taken', 'That id belongs to another appointment.')
  const house = await readHouse(db)
  const figures = figuresOf(house.figures)
  const { clientId, workerId, jobs } = body
  const minutes =
    body.minutes ??
    (await lengthOf(db, figures, { clientId, workerId, services: servicesOf(jobs) })).minutes
  const wanted = { ...body, minutes }
  refuse(house, await bookAround(db, house, body.startMs), wanted)
  await db.models.Appointment.create({
    ...{ id: body.id, clientId, workerId, jobs, minutes, startMs: body.startMs, note: body.note },
    ...{ state: 'booked', madeAtMs: Date.now(), changedBy: by },
  })
  // Whoever has an hour waits no longer.
  await db.sequelize.query(
    'UPDATE waiting SET doneAtMs = ? WHERE clientId = ? AND doneAtMs IS NULL',
    { replacements: [Date.now(), clientId] },
  )
  await linkNext(db, clientId)
}

export async function changeAppointment(
  db: Database,
  id: string,
  { tell, ...body }: BodyOf<'changeAppointment'>,
  { base, by }: Booking,
): Promise<BookedRow> {
  await db.write(async () => {
    const before = await changeIn(db, id, body, by ?? whoNow())
    const startMs = body.startMs ?? before.startMs
    if (tell && startMs !== before.startMs) await tellMoved(db, base, before, startMs)
  })
  await remindDue(db, base)
  return kept(db, id)
}

/** Tells the client that their hour is another now. Part of a write. */
async function tellMoved(
  db: Database,
  base: string,
  before: BookedRow,
  startMs: number,
): Promise<void> {
  const house = await readHouse(db)
  const { id: appointmentId, clientId, workerId } = before
  const link = await newHourLink(db, base, { clientId, appointmentId, untilMs: startMs })
  const told = { when: whenWords(startMs), was: whenWords(before.startMs), link }
  await putMessage(db, house, 'moved', { clientId, workerId, appointmentId, told })
}

/** Changes an appointment. Part of a write. @returns how it stood before */
export async function changeIn(
  db: Database,
  id: string,
  { mark, ...change }: Omit<BodyOf<'changeAppointment'>, 'tell'>,
  by: string,
): Promise<BookedRow> {
  if (change.jobs) checkSitting(change.jobs)
  const before = await kept(db, id)
  const house = await readHouse(db)
  if (before.mark !== mark) throw movedMeanwhile(house, before)
  const { note, ...rest } = change
  if (isSettled(before) && Object.keys(rest).length > 0) {
    throw new HttpProblem(
      409,
      'already-started',
      `That service ${before.visitState === 'running' ? 'has begun' : 'is done'}, so its appointment no longer changes. Nothing was changed.`,
    )
  }
  const next = { ...before, ...rest }
  const moved = (['startMs', 'minutes', 'workerId', 'jobs'] as const).some(
    (k) => rest[k] !== undefined && JSON.stringify(rest[k]) !== JSON.stringify(before[k]),
  )
  if (standsInBook(next) && (moved || !standsInBook(before)))
    refuse(house, await bookAround(db, house, next.startMs), next)
  const { jobs, ...columns } = rest
  await db.models.Appointment.update(
    {
      ...{ ...columns, mark: mark + 1, changedBy: by },
      ...(note !== undefined && { note }),
      ...(jobs && { jobs }),
      ...(rest.state !== undefined && {
        cancelledAtMs: rest.state === 'cancelled' ? (before.cancelledAtMs ?? Date.now()) : null,
      }),
    },
    { where: { id } },
  )
  if (jobs && before.visitId) await changeWork(db, before.visitId, before.jobs, jobs)
  await linkNext(db, before.clientId)
  return before
}

/** What is done stands with the visit; its plan belongs to what was to be done before. */
async function changeWork(
  db: Database,
  visitId: string,
  before: readonly Job[],
  jobs: readonly Job[],
): Promise<void> {
  await db.models.Visit.update({ jobs }, { where: { id: visitId } })
  if (leadJob(before).service !== leadJob(jobs).service || before.length !== jobs.length)
    await db.models.Plan.destroy({ where: { visitId } })
}

function movedMeanwhile(house: House, now: BookedRow): HttpProblem {
  const by = now.changedBy ? `${now.changedBy} has changed` : 'Somebody has changed'
  const stands =
    now.state === 'cancelled'
      ? 'it is cancelled'
      : `it is at ${whenWords(now.startMs)} with ${workerCalled(house, now.workerId)}, ${now.minutes} min`
  return new HttpProblem(
    409,
    'moved',
    `${by} this appointment meanwhile: ${stands}. That stands; yours was not kept.`,
  )
}

/**
 * Takes an appointment out that was made by mistake a moment ago; later it is cancelled.
 * @throws HttpProblem 409 `too-late`
 */
export async function removeAppointment(db: Database, id: string): Promise<void> {
  await db.write(async () => {
    const [row] = await db.sequelize.query<{ clientId: string; madeAtMs: number; begun: number }>(
      `SELECT clientId, madeAtMs, EXISTS (SELECT 1 FROM visits v WHERE v.id = a.visitId AND v.state <> 'open') AS begun
       FROM appointments a WHERE id = ?`,
      { replacements: [id], type: QueryTypes.SELECT },
    )
    if (!row) throw notFound('That appointment')
    if (row.begun || Date.now() - row.madeAtMs > MISTAKE_MS) {
      throw new HttpProblem(
        409,
        'too-late',
        'That was made some time ago: cancel it, so that it stays in the book as cancelled. Nothing was changed.',
      )
    }
    await db.sequelize.query('UPDATE appointments SET visitId = NULL WHERE id = ?', {
      replacements: [id],
    })
    await db.models.Appointment.destroy({ where: { id } })
    await linkNext(db, row.clientId)
  })
}
