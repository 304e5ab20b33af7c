/** What can be done to a visit. Everything that belongs together is written in one transaction. */
import type { BodyOf } from '../../contract/routes.ts'
import { checkSitting, type Job } from '../../core/services/index.ts'
import type { SurfaceNotes } from '../../core/hair/index.ts'
import { bladesIn, type PlanChoice } from '../../core/plan/index.ts'
import { type Asked, patchRefusal } from '../../core/screening/index.ts'
import type { VisitPage } from '../../contract/types.ts'
import { readHistory } from '../clients/model.ts'

import type { Database } from '../db/connection.ts'
import { readFigures, readHouse } from '../house/service.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { gateOf, refuseHeld } from './known.ts'
import { visitPage } from './page.ts'
import { planOf } from './plan.ts'
import { packPlan } from './planStore.ts'
import { joined } from './differences.ts'
import { keepHour } from '../week/visitOf.ts'
import { openVisit } from './open.ts'
import { readVisit, type VisitRecord } from './record.ts'

export async function addVisit(
  db: Database,
  clientId: string,
  body: BodyOf<'addVisit'>,
): Promise<VisitPage> {
  checkSitting(body.jobs)
  await db.write(async () => {
    const [stands] = await db.select<{
      client: number | null
      holder: string | null
      unfinished: string | null
    }>(
      `SELECT (SELECT 1 FROM clients WHERE id = ?1) AS client,
        (SELECT clientId FROM visits WHERE id = ?2) AS holder,
        (SELECT id FROM visits WHERE clientId = ?1 AND state <> 'finished') AS unfinished`,
      [clientId, body.id],
    )
    const { client, holder, unfinished } = stands!
    if (client === null) throw notFound('That client')
    await requireWorker(db, body.workerId)
    if (holder === clientId) return
    if (holder !== null) {
      throw new HttpProblem(409, 'id-taken', 'That id belongs to another visit.')
    }
    if (unfinished !== null) {
      throw new HttpProblem(
        409,
        'visit-open',
        'This client already has a visit that is not finished. Open that one.',
      )
    }
    await openVisit(db, clientId, body)
    if (body.slotAtMs !== null)
      await keepHour(db, body.id, { atMs: body.slotAtMs, state: 'booked', orNearest: true })
  })
  return visitPage(db, body.id)
}

async function requireWorker(db: Database, id: string): Promise<void> {
  if ((await db.select('SELECT id FROM workers WHERE id = ?', [id])).length === 0) {
    throw new HttpProblem(
      422,
      'no-such-worker',
      'That worker is not of this house. Nothing was changed.',
    )
  }
}

function requireOpen(visit: VisitRecord, what: string): void {
  if (visit.state !== 'open') {
    throw new HttpProblem(
      409,
      'already-started',
      `The service has begun, so ${what} no longer changes. What was kept stays as it is.`,
    )
  }
}

export async function changeVisit(
  db: Database,
  id: string,
  change: BodyOf<'changeVisit'>,
): Promise<VisitPage> {
  await db.write(async () => {
    const { orNearest, ...columns } = change
    if (change.workerId !== undefined) await requireWorker(db, change.workerId)
    const found = await readVisit(db, id)
    if (change.jobs !== undefined && !sameWork(change.jobs, found.jobs)) {
      requireOpen(found, 'what is done')
      checkSitting(change.jobs)
      // A plan belongs to its jobs.
      await db.models.Plan.destroy({ where: { visitId: id } })
    }
    await db.models.Visit.update(columns, { where: { id } })
    // The hour and the worker are its appointment's; one that is given no hour any more is cancelled.
    if (change.slotAtMs != null)
      await keepHour(db, id, {
        atMs: change.slotAtMs,
        state: 'booked',
        ...(orNearest && { orNearest }),
      })
    else if (change.slotAtMs === null || change.workerId !== undefined)
      await db.sequelize.query(
        `UPDATE appointments SET workerId = COALESCE(?, workerId), mark = mark + 1,
           state = CASE WHEN ? THEN 'cancelled' ELSE state END, cancelledAtMs = CASE WHEN ? THEN ? ELSE cancelledAtMs END WHERE visitId = ?`,
        {
          replacements: [
            ...[change.workerId ?? null, change.slotAtMs === null, change.slotAtMs === null],
            ...[Date.now(), id],
          ],
        },
      )
  })
  return visitPage(db, id)
}

const sameWork = (a: readonly Job[], b: readonly Job[]) => JSON.stringify(a) === JSON.stringify(b)

export async function saveAsked(db: Database, id: string, told: Asked): Promise<VisitPage> {
  await db.write(async () => {
    const found = await readVisit(db, id)
    requireOpen(found, 'what was asked')
    const about = { what: 'saveAsked', clientId: found.clientId, visitId: id } as const
    const asked = await joined(db, about, told, found.asked)
    const refused = patchRefusal(
      await readFigures(db),
      found.asked.patchTest,
      asked.patchTest,
      Date.now(),
    )
    if (refused) {
      throw new HttpProblem(422, 'patch-not-read', `${refused} What was kept before stays.`)
    }
    await db.models.Visit.update({ asked }, { where: { id } })
  })
  return visitPage(db, id)
}

export async function editReadings(
  db: Database,
  id: string,
  edit: BodyOf<'editReadings'>,
): Promise<VisitPage> {
  await db.write(async () => {
    const found = await readVisit(db, id)
    requireOpen(found, 'the map')
    const { Reading } = db.models
    const { clientId } = found
    // This visit's own readings are erased; those of earlier visits stay in the maps of those.
    await Reading.destroy({ where: { clientId, visitId: id, id: edit.remove } })
    await Reading.update({ goneAtMs: Date.now() }, { where: { clientId, id: edit.remove } })
    await Reading.update({ goneAtMs: null }, { where: { clientId, id: edit.add.map((r) => r.id) } })
    // A repeated request finds its readings already there.
    await Reading.bulkCreate(
      edit.add.map((r) => ({
        id: r.id,
        clientId: found.clientId,
        visitId: found.id,
        zoneId: r.zoneId,
        at: { point: r.point, normal: r.normal, tangent: r.tangent },
        method: r.method,
        atMs: r.atMs,
        answers: r.answers ?? null,
      })),
      { ignoreDuplicates: true },
    )
  })
  return visitPage(db, id)
}

export async function saveNotes(db: Database, id: string, notes: SurfaceNotes): Promise<VisitPage> {
  await db.write(async () => {
    const found = await readVisit(db, id)
    requireOpen(found, 'the lines and the hair')
    const about = { what: 'saveNotes', clientId: found.clientId, visitId: id } as const
    const all = await joined(db, about, notes, found.notes)
    await db.models.Visit.update({ notes: all }, { where: { id } })
  })
  return visitPage(db, id)
}

/** Makes the plan from what is stored and keeps it with the visit; it does not change when the map changes later. */
export async function savePlan(db: Database, id: string, choice: PlanChoice): Promise<VisitPage> {
  await db.write(async () => {
    const visit = await readVisit(db, id)
    requireOpen(visit, 'the plan')
    const [house, history] = await Promise.all([readHouse(db), readHistory(db, visit.clientId)])
    const { findings, screening } = await gateOf(db, visit, house)
    refuseHeld(findings, 'plan')
    const { plan, reader } = planOf(visit, house, history, choice, screening)
    await db.models.Plan.upsert({ visitId: id, plan: packPlan(plan), madeAtMs: Date.now() })
    await db.models.Visit.update(
      {
        ...{ readDeg: reader?.deg ?? null, readCount: reader?.readings ?? null },
        ...{ planMin: plan.totalMinutes, planBlades: bladesIn(plan.kit) },
      },
      { where: { id } },
    )
  })
  return visitPage(db, id)
}

/** Keeps which products were used. */
export async function saveProducts(
  db: Database,
  id: string,
  products: readonly string[],
): Promise<VisitPage> {
  await db.write(async () => {
    await readVisit(db, id)
    const { products: known } = await readHouse(db)
    const stranger = products.find((p) => !known.some((k) => k.id === p))
    if (stranger !== undefined) {
      throw new HttpProblem(
        422,
        'no-such-product',
        `The house has no product "${stranger}". Nothing was changed.`,
      )
    }
    await db.models.Visit.update({ products: [...new Set(products)] }, { where: { id } })
  })
  return visitPage(db, id)
}
