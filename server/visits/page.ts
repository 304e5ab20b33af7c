/** A visit with everything its stations show. */
import { carePlan } from '../../core/care/clearances.ts'
import { BEFORE_START, replay, type ChairEvent, type ChairState } from '../../core/chair/service.ts'
import type { Reading } from '../../core/grain/readings.ts'
import type { ServiceId } from '../../core/services.ts'
import type { HairReading, SkinAnswer, VisitPage, VisitState } from '../../contract/types.ts'
import { learnGrowth } from '../clients/learn.ts'
import { windowAfter } from '../clients/window.ts'
import type { Database } from '../db/connection.ts'
import type { ClientRow, EventRow, HairReadingRow, SkinAnswerRow, VisitRow } from '../db/models.ts'
import { readHouse } from '../house/service.ts'
import { notFound } from '../http/problem.ts'

export async function findVisit(db: Database, id: string): Promise<VisitRow> {
  const visit = await db.models.Visit.findByPk(id)
  if (!visit) throw notFound('That visit')
  return visit
}

export async function clientOf(db: Database, visit: VisitRow): Promise<ClientRow> {
  return (await db.models.Client.findByPk(visit.clientId))!
}

/** Stored events as core's events. */
export async function eventsOf(db: Database, visitId: string): Promise<ChairEvent[]> {
  const rows = await db.models.Event.findAll({
    where: { visitId },
    order: [['seq', 'ASC']],
    raw: true,
  })
  return rows.map(toEvent)
}

export function toEvent(row: EventRow): ChairEvent {
  return {
    id: row.id,
    seq: row.seq,
    kind: row.kind as ChairEvent['kind'],
    atMs: row.atMs,
    ...(row.stepId !== null && { stepId: row.stepId }),
    ...(row.reason !== null && { reason: row.reason }),
  }
}

export function toSkinAnswer(row: SkinAnswerRow): SkinAnswer {
  return { moment: row.moment as SkinAnswer['moment'], atMs: row.atMs, zones: row.zones }
}

export function toHairReading(row: HairReadingRow): HairReading & { leftMm: number } {
  return {
    id: row.id,
    visitId: row.visitId,
    kind: row.kind as HairReading['kind'],
    days: row.days,
    zoneId: row.zoneId,
    lengthMm: row.lengthMm,
    leftMm: row.leftMm,
    atMs: row.atMs,
  }
}

/** The client's readings that a visit works from: all made up to its end. */
export async function readingsFor(db: Database, visit: VisitRow): Promise<Reading[]> {
  const rows = await db.models.Reading.findAll({
    where: { clientId: visit.clientId },
    order: [['atMs', 'ASC']],
  })
  const end = visit.endedAtMs ?? Infinity
  return rows
    .filter((r) => r.atMs <= end || r.visitId === visit.id)
    .map((r) => ({
      id: r.id,
      zoneId: r.zoneId as Reading['zoneId'],
      ...r.at,
      method: r.method as Reading['method'],
      atMs: r.atMs,
    }))
}

export async function visitPage(db: Database, visit: VisitRow): Promise<VisitPage> {
  const [client, house, readings, events, answers, hair] = await Promise.all([
    clientOf(db, visit),
    readHouse(db),
    readingsFor(db, visit),
    eventsOf(db, visit.id),
    db.models.SkinAnswer.findAll({ where: { visitId: visit.id } }),
    db.models.HairReading.findAll({
      where: { clientId: visit.clientId },
      order: [['atMs', 'ASC']],
    }),
  ])
  const plan = visit.plan ?? null
  const chair: ChairState = plan ? replay(plan, events) : BEFORE_START
  const service = visit.service as ServiceId
  const skinAnswers = answers.map(toSkinAnswer)
  const hairReadings = hair.map(toHairReading)
  const endedAtMs = visit.endedAtMs ?? null
  return {
    id: visit.id,
    clientId: visit.clientId,
    workerId: visit.workerId,
    service,
    state: visit.state as VisitState,
    slotAtMs: visit.slotAtMs,
    routine: visit.routine,
    startedAtMs: visit.startedAtMs ?? null,
    endedAtMs,
    asked: visit.asked,
    plan,
    planMadeAtMs: visit.planMadeAtMs ?? null,
    readings,
    events,
    chair,
    care:
      endedAtMs !== null && plan
        ? carePlan(service, client.skin, plan.schools, plan.noFragrance, endedAtMs)
        : null,
    answers: skinAnswers,
    hair: hairReadings.filter((h) => h.visitId === visit.id),
    window:
      endedAtMs === null
        ? null
        : windowAfter(
            { service, endedAtMs, leftMm: visit.leftMm ?? null, answers: skinAnswers },
            client.skin,
            plan?.schools ?? house.schools,
            learnGrowth(client.skin, service, hairReadings),
          ),
  }
}
