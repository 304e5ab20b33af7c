/** A visit with everything its stations show. */
import { carePlan } from '../../core/care/clearances.ts'
import type { SkinAndHair } from '../../core/client.ts'
import { BEFORE_START, replay, type ChairEvent, type ChairState } from '../../core/chair/service.ts'
import type { Reading } from '../../core/grain/readings.ts'
import type { Plan } from '../../core/plan/types.ts'
import type { Asked } from '../../core/screening/screen.ts'
import type { ServiceId } from '../../core/services.ts'
import type { HairReading, SkinAnswer, VisitPage, VisitState } from '../../contract/types.ts'
import { learnGrowth } from '../../core/history/learn.ts'
import { windowAfter } from '../../core/history/window.ts'
import type { Database } from '../db/connection.ts'
import type { ClientRow, VisitRow } from '../db/models.ts'
import { json, select } from '../db/select.ts'
import { readHouse } from '../house/service.ts'
import { notFound } from '../http/problem.ts'

export async function findVisit(db: Database, id: string): Promise<VisitRow> {
  const visit = await db.models.Visit.findByPk(id)
  if (!visit) throw notFound('That visit')
  return visit
}

/** What a page shows of a visit's own row. */
export type VisitFields = Pick<
  VisitRow,
  'id' | 'clientId' | 'workerId' | 'service' | 'state' | 'slotAtMs' | 'routine' | 'asked'
> & {
  startedAtMs?: number | null
  endedAtMs?: number | null
  leftMm?: Record<string, number> | null
}

/** Reads a visit for showing only. */
export async function readVisit(db: Database, id: string): Promise<VisitFields> {
  const [row] = await select(
    db,
    `SELECT id, clientId, workerId, service, state, slotAtMs, startedAtMs, endedAtMs, routine, asked, leftMm
     FROM visits WHERE id = ?`,
    [id],
  )
  if (!row) throw notFound('That visit')
  return {
    ...(row as unknown as VisitFields),
    asked: json<Asked>(row['asked'])!,
    leftMm: json<Record<string, number>>(row['leftMm']),
  }
}

export async function clientOf(db: Database, visit: VisitRow): Promise<ClientRow> {
  return (await db.models.Client.findByPk(visit.clientId))!
}

async function skinOf(db: Database, clientId: string): Promise<SkinAndHair> {
  const [row] = await select(db, 'SELECT skin FROM clients WHERE id = ?', [clientId])
  return json<SkinAndHair>(row!['skin'])!
}

/** Stored events as core's events. */
export async function eventsOf(db: Database, visitId: string): Promise<ChairEvent[]> {
  const rows = await select(
    db,
    'SELECT id, seq, kind, atMs, stepId, reason FROM chair_events WHERE visitId = ? ORDER BY seq',
    [visitId],
  )
  return rows.map((row) => ({
    id: row['id'] as string,
    seq: row['seq'] as number,
    kind: row['kind'] as ChairEvent['kind'],
    atMs: row['atMs'] as number,
    ...(row['stepId'] !== null && { stepId: row['stepId'] as string }),
    ...(row['reason'] !== null && { reason: row['reason'] as string }),
  }))
}

/** The plan kept with a visit. */
export async function planOf(
  db: Database,
  visitId: string,
): Promise<{ plan: Plan; madeAtMs: number } | undefined> {
  const [row] = await select(db, 'SELECT plan, madeAtMs FROM plans WHERE visitId = ?', [visitId])
  return row && { plan: json<Plan>(row['plan'])!, madeAtMs: row['madeAtMs'] as number }
}

/** The answers given after a visit. */
export async function answersOf(db: Database, visitId: string): Promise<SkinAnswer[]> {
  const rows = await select(db, 'SELECT moment, atMs, zones FROM skin_answers WHERE visitId = ?', [
    visitId,
  ])
  return rows.map((row) => ({
    moment: row['moment'] as SkinAnswer['moment'],
    atMs: row['atMs'] as number,
    zones: json<SkinAnswer['zones']>(row['zones'])!,
  }))
}

/** When a client's hair was felt, seen or measured, with what each service had left standing. */
export async function hairOf(
  db: Database,
  clientId: string,
): Promise<(HairReading & { leftMm: number })[]> {
  const rows = await select(
    db,
    `SELECT id, visitId, kind, days, zoneId, lengthMm, leftMm, atMs FROM hair_readings
     WHERE clientId = ? ORDER BY atMs`,
    [clientId],
  )
  return rows as unknown as (HairReading & { leftMm: number })[]
}

/** The client's readings that a visit works from: all made up to its end. */
export async function readingsFor(
  db: Database,
  visit: Pick<VisitFields, 'id' | 'clientId' | 'endedAtMs'>,
): Promise<Reading[]> {
  const rows = await select(
    db,
    'SELECT id, visitId, zoneId, at, method, atMs FROM readings WHERE clientId = ? ORDER BY atMs',
    [visit.clientId],
  )
  const end = visit.endedAtMs ?? Infinity
  return rows
    .filter((r) => (r['atMs'] as number) <= end || r['visitId'] === visit.id)
    .map((r) => ({
      id: r['id'] as string,
      zoneId: r['zoneId'] as Reading['zoneId'],
      ...json<Pick<Reading, 'point' | 'normal' | 'tangent'>>(r['at'])!,
      method: r['method'] as Reading['method'],
      atMs: r['atMs'] as number,
    }))
}

export async function visitPage(db: Database, visit: VisitFields): Promise<VisitPage> {
  const [skin, house, readings, events, skinAnswers, hairReadings, kept] = await Promise.all([
    skinOf(db, visit.clientId),
    readHouse(db),
    readingsFor(db, visit),
    eventsOf(db, visit.id),
    answersOf(db, visit.id),
    hairOf(db, visit.clientId),
    planOf(db, visit.id),
  ])
  const plan = kept?.plan ?? null
  const chair: ChairState = plan ? replay(plan, events) : BEFORE_START
  const service = visit.service as ServiceId
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
    planMadeAtMs: kept?.madeAtMs ?? null,
    readings,
    events,
    chair,
    care:
      endedAtMs !== null && plan
        ? carePlan(service, skin, plan.schools, plan.noFragrance, endedAtMs)
        : null,
    answers: skinAnswers,
    hair: hairReadings.filter((h) => h.visitId === visit.id),
    window:
      endedAtMs === null
        ? null
        : windowAfter(
            { service, endedAtMs, leftMm: visit.leftMm ?? null, answers: skinAnswers },
            skin,
            plan?.schools ?? house.schools,
            learnGrowth(skin, service, hairReadings),
          ),
  }
}
