/** What can be done to an appointment. The book is looked at within the write, so that of two at once one is told. */
import { QueryTypes } from 'sequelize'
import type { BodyOf } from '../../contract/routes.ts'
import type { BookedRow } from '../../contract/week.ts'
import { figuresOf } from '../../core/register/index.ts'
import type { Figures } from '../../core/house/index.ts'
import { checkSitting, type Job, leadJob, servicesOf } from '../../core/services/index.ts'
import { HOUR_MS, whenWords } from '../../core/time/index.ts'
import {
  type Book,
  breaches,
  isSettled,
  nearestThatWork,
  standsInBook,
  type Wanted,
} from '../../core/week/index.ts'
import type { House } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { readHouse } from '../house/service.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { underWay } from '../people/who.ts'
import { readAppointment, readBook } from './book.ts'
import { lengthOf } from './length.ts'
import { linkNext } from './visitOf.ts'

/** What was made by mistake is noticed so soon. */
const MISTAKE_MS = HOUR_MS

const whoNow = () => underWay.getStore()?.who?.worker ?? ''

/** The words of a worker's name that they are called by. */
const called = (house: House, id: string) =>
  house.workers.find((w) => w.id === id)?.name.split(' ')[0] ?? ''

/** @throws HttpProblem 422 `book`, with the reasons and the nearest hours that work */
function refuse(figures: Figures, house: House, book: Book, wanted: Wanted): void {
  const why = breaches(figures, book, wanted)
  if (why.length === 0) return
  const near = nearestThatWork(figures, book, wanted).map(
    (h) => `${whenWords(h.startMs)} with ${called(house, h.workerId)}`,
  )
  const instead =
    near.length > 0
      ? ` The nearest that work: ${near.join('; ')}.`
      : ' No hour within three weeks works.'
  throw new HttpProblem(
    422,
    'book',
    `${why.map((w) => w.text).join(' ')} Nothing was changed.${instead}`,
  )
}

/** Three weeks around an hour: as far as another is looked for. */
const LOOK_MS = 22 * 24 * HOUR_MS
const bookAround = (db: Database, house: House, ms: number) =>
  readBook(db, house, ms - LOOK_MS, ms + LOOK_MS)

const kept = async (db: Database, id: string): Promise<BookedRow> => {
  const row = await readAppointment(db, id)
  if (!row) throw notFound('That appointment')
  return row
}

export async function addAppointment(
  db: Database,
  body: BodyOf<'addAppointment'>,
): Promise<BookedRow> {
  checkSitting(body.jobs)
  await db.write(async () => {
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
    refuse(figures, house, await bookAround(db, house, body.startMs), wanted)
    await db.models.Appointment.create({
      ...{ id: body.id, clientId, workerId, jobs, minutes, startMs: body.startMs, note: body.note },
      ...{ state: 'booked', madeAtMs: Date.now(), changedBy: whoNow() },
    })
    await linkNext(db, clientId)
  })
  return kept(db, body.id)
}

export async function changeAppointment(
  db: Database,
  id: string,
  { mark, ...change }: BodyOf<'changeAppointment'>,
): Promise<BookedRow> {
  if (change.jobs) checkSitting(change.jobs)
  await db.write(async () => {
    const before = await kept(db, id)
    const house = await readHouse(db)
    const figures = figuresOf(house.figures)
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
      refuse(figures, house, await bookAround(db, house, next.startMs), next)
    const { jobs, ...columns } = rest
    await db.models.Appointment.update(
      {
        ...{ ...columns, mark: mark + 1, changedBy: whoNow() },
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
  })
  return kept(db, id)
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
      : `it is at ${whenWords(now.startMs)} with ${called(house, now.workerId)}, ${now.minutes} min`
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
