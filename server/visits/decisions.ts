/** A worker's word on what stands in the way of a visit, kept with name, hour and reason. */
import type { BodyOf } from '../../contract/routes.ts'
import { alarmId, checkDecision, LEAST_REASON } from '../../core/visit/index.ts'
import type { VisitPage } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { readHouse } from '../house/service.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { gateOf } from './known.ts'
import { visitPage } from './page.ts'
import { readVisit } from './record.ts'

/**
 * Keeps a decision: one that lifts a finding of an open visit, or that an alarm of a finished one was looked into.
 * @throws HttpProblem 404, 409 `already-started`, 422; DomainError of `checkDecision`
 */
export async function decide(
  db: Database,
  visitId: string,
  body: BodyOf<'decide'>,
): Promise<VisitPage> {
  await db.write(async () => {
    const [visit, house] = await Promise.all([readVisit(db, visitId), readHouse(db)])
    const [known] = await db.select('SELECT visitId FROM decisions WHERE id = ?', [body.id])
    if (known?.['visitId'] === visitId) return
    if (known) throw new HttpProblem(409, 'id-taken', 'That id belongs to another decision.')
    const worker = house.workers.find((w) => w.id === body.workerId)
    if (!worker) {
      throw new HttpProblem(
        422,
        'no-such-worker',
        'That worker is not of this house. Nothing was kept.',
      )
    }
    if (body.finding === alarmId(visitId)) {
      if (body.reason.trim().length < LEAST_REASON) {
        throw new HttpProblem(422, 'no-reason', 'Say in a few words what you found or advised.')
      }
    } else {
      if (visit.state !== 'open') {
        throw new HttpProblem(
          409,
          'already-started',
          'The service has begun: what held it back is settled. Nothing was kept.',
        )
      }
      const { findings } = await gateOf(db, visit, house)
      checkDecision(findings, body.finding, worker, body.reason)
    }
    await db.models.Decision.create({
      ...body,
      reason: body.reason.trim(),
      visitId,
      workerName: worker.name,
      atMs: Date.now(),
    })
  })
  return visitPage(db, visitId)
}

/**
 * Takes a word back while the visit has not begun, or one on an alarm; that it was given stays in the record.
 * @throws HttpProblem 404, 409 `already-started`
 */
export async function takeBackDecision(db: Database, id: string): Promise<VisitPage> {
  let visitId = ''
  await db.write(async () => {
    const row = await db.models.Decision.findByPk(id)
    if (!row) throw notFound('That decision')
    visitId = row.visitId
    const visit = await readVisit(db, visitId)
    if (visit.state !== 'open' && row.finding !== alarmId(visitId)) {
      throw new HttpProblem(
        409,
        'already-started',
        'The service has begun by this word. Stop it at the chair if that was wrong.',
      )
    }
    if (row.takenBackAtMs === null) await row.update({ takenBackAtMs: Date.now() })
  })
  return visitPage(db, visitId)
}
