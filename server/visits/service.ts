/** What can be done to a visit. Everything that belongs together is written in one transaction. */
import { Op } from 'sequelize'
import { applyEvent, replay, type ChairEvent } from '../../core/chair/service.ts'
import { executedLoads, leftStanding } from '../../core/chair/outcome.ts'
import { grainMap, type Reading } from '../../core/grain/readings.ts'
import { ZONE_IDS, type ZoneId } from '../../core/head/zones.ts'
import { makePlan } from '../../core/plan/makePlan.ts'
import type { Plan } from '../../core/plan/types.ts'
import { LASTING_SPOTS } from '../../core/screening/rules.ts'
import { NOTHING_ASKED, screen, type Asked } from '../../core/screening/screen.ts'
import { serviceZones, type ServiceId } from '../../core/services.ts'
import { dateOf, DAY_MS } from '../../core/time/dates.ts'
import type { ChairAnswer, Moment, SkinAnswer, VisitPage } from '../../contract/types.ts'
import { ZONES } from '../atlas.ts'
import { clientModel } from '../clients/model.ts'
import { summariseAnswers } from '../../core/history/answers.ts'
import type { Database } from '../db/connection.ts'
import type { VisitRow } from '../db/models.ts'
import { readHouse } from '../house/service.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { answersOf, clientOf, eventsOf, findVisit, planOf, readingsFor, visitPage } from './page.ts'

/** Minutes east of UTC at a moment, as this machine keeps time. */
export const offsetMinutes = (ms: number) => -new Date(ms).getTimezoneOffset()

export async function addVisit(
  db: Database,
  clientId: string,
  body: { id: string; service: string; workerId: string; slotAtMs: number | null },
): Promise<VisitPage> {
  const client = await db.models.Client.findByPk(clientId)
  if (!client) throw notFound('That client')
  await requireWorker(db, body.workerId)
  const visit = await db.writes.run(async () => {
    const same = await db.models.Visit.findByPk(body.id)
    if (same) {
      if (same.clientId !== clientId)
        throw new HttpProblem(409, 'id-taken', 'That id belongs to another visit.')
      return same
    }
    const unfinished = await db.models.Visit.findOne({
      where: { clientId, state: { [Op.ne]: 'finished' } },
    })
    if (unfinished) {
      throw new HttpProblem(
        409,
        'visit-open',
        'This client already has a visit that is not finished. Open that one.',
      )
    }
    const last = await db.models.Visit.findOne({
      where: { clientId, state: 'finished' },
      order: [['endedAtMs', 'DESC']],
    })
    return db.models.Visit.create({
      ...body,
      clientId,
      state: 'open',
      createdAtMs: Date.now(),
      asked: carriedOver(last?.asked),
    })
  })
  return visitPage(db, visit)
}

/** Marks that last are there again at the next visit; everything else is asked anew. */
function carriedOver(before: Asked | undefined): Asked {
  return {
    ...NOTHING_ASKED,
    spots: (before?.spots ?? []).filter((s) => LASTING_SPOTS.includes(s.kind)),
  }
}

async function requireWorker(db: Database, id: string): Promise<void> {
  if (!(await db.models.Worker.findByPk(id))) {
    throw new HttpProblem(
      422,
      'no-such-worker',
      'That worker is not of this house. Nothing was changed.',
    )
  }
}

function requireOpen(visit: VisitRow, what: string): void {
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
  change: { service?: string; workerId?: string; slotAtMs?: number | null; routine?: string },
): Promise<VisitPage> {
  if (change.workerId !== undefined) await requireWorker(db, change.workerId)
  const visit = await db.writes.run(async () => {
    const found = await findVisit(db, id)
    if (change.service !== undefined && change.service !== found.service) {
      requireOpen(found, 'the service')
      // A plan belongs to its service.
      await db.models.Plan.destroy({ where: { visitId: id } })
    }
    return found.update(change)
  })
  return visitPage(db, visit)
}

/** Ids of zones that a body may name. */
function requireZones(ids: readonly string[]): void {
  const unknown = ids.find((id) => !ZONE_IDS.includes(id as ZoneId))
  if (unknown !== undefined) {
    throw new HttpProblem(
      422,
      'no-such-zone',
      `There is no zone "${unknown}". Nothing was changed.`,
    )
  }
}

export async function saveAsked(db: Database, id: string, asked: Asked): Promise<VisitPage> {
  requireZones([
    ...asked.spots.map((s) => s.zoneId),
    ...(asked.patchTest ? [asked.patchTest.zoneId] : []),
  ])
  const visit = await db.writes.run(async () => {
    const found = await findVisit(db, id)
    requireOpen(found, 'what was asked')
    return found.update({ asked })
  })
  return visitPage(db, visit)
}

export async function editReadings(
  db: Database,
  id: string,
  edit: { remove: string[]; add: Reading[] },
): Promise<VisitPage> {
  requireZones(edit.add.map((r) => r.zoneId))
  const visit = await db.writes.run(async () => {
    const found = await findVisit(db, id)
    const { Reading } = db.models
    await db.sequelize.transaction(async (transaction) => {
      await Reading.destroy({ where: { clientId: found.clientId, id: edit.remove }, transaction })
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
        })),
        { ignoreDuplicates: true, transaction },
      )
    })
    return found
  })
  return visitPage(db, visit)
}

/** Makes the plan from what is stored and keeps it with the visit; it does not change when the map changes later. */
export async function savePlan(db: Database, id: string): Promise<VisitPage> {
  const visit = await findVisit(db, id)
  requireOpen(visit, 'the plan')
  const [client, house, readings, worker] = await Promise.all([
    clientOf(db, visit),
    readHouse(db),
    readingsFor(db, visit),
    db.models.Worker.findByPk(visit.workerId),
  ])
  const now = Date.now()
  const service = visit.service as ServiceId
  const model = await clientModel(db, client, service)
  const offset = offsetMinutes(now)
  const plan: Plan = makePlan({
    service,
    zones: ZONES,
    grain: grainMap(readings, now),
    client: client.skin,
    screening: screen(service, visit.asked, house.schools, dateOf(now, offset), now, offset),
    schools: house.schools,
    hand: worker!.hand as 'left' | 'right',
    sensitivity: (zone) => model.sensitivity[zone]!,
    growth: (zone) => model.growth[zone]!,
  })
  const saved = await db.writes.run(async () => {
    const fresh = await findVisit(db, id)
    requireOpen(fresh, 'the plan')
    await db.models.Plan.upsert({ visitId: id, plan, madeAtMs: now })
    return fresh
  })
  return visitPage(db, saved)
}

/** Stores a chair event; it counts only once it is stored. The same event again changes nothing. */
export async function addEvent(
  db: Database,
  visitId: string,
  event: ChairEvent,
): Promise<ChairAnswer> {
  return db.writes.run(async () => {
    const visit = await findVisit(db, visitId)
    const plan = (await planOf(db, visitId))?.plan
    if (!plan) {
      throw new HttpProblem(
        409,
        'no-plan',
        'There is no plan yet. Save the plan first, then start.',
      )
    }
    const events = await eventsOf(db, visitId)
    const before = replay(plan, events)
    const stored = events.find((e) => e.seq === event.seq)
    if (stored) {
      if (stored.id === event.id) return { state: before, repeated: true }
      throw new HttpProblem(
        409,
        'number-taken',
        'Another screen has moved this service on. Nothing was counted; reload to catch up.',
      )
    }
    const state = applyEvent(plan, before, event)
    await db.sequelize.transaction(async (transaction) => {
      await db.models.Event.create(
        {
          id: event.id,
          visitId,
          seq: event.seq,
          kind: event.kind,
          atMs: event.atMs,
          stepId: event.stepId ?? null,
          reason: event.reason ?? null,
        },
        { transaction },
      )
      if (event.kind === 'started') {
        await visit.update({ state: 'running', startedAtMs: event.atMs }, { transaction })
      }
      if (event.kind === 'finished') {
        await visit.update(
          {
            state: 'finished',
            endedAtMs: event.atMs,
            loads: executedLoads(plan, state.outcomes),
            leftMm: leftStanding(plan, state),
          },
          { transaction },
        )
      }
    })
    return { state, repeated: false }
  })
}

function requireFinished(visit: VisitRow): void {
  if (visit.state !== 'finished') {
    throw new HttpProblem(
      409,
      'not-finished',
      'The service is not finished yet, so there is nothing to look back on.',
    )
  }
}

export async function saveSkinAnswer(
  db: Database,
  id: string,
  moment: Moment,
  body: Omit<SkinAnswer, 'moment'>,
): Promise<VisitPage> {
  const visit = await db.writes.run(async () => {
    const found = await findVisit(db, id)
    requireFinished(found)
    const own = serviceZones(found.service as ServiceId) as string[]
    const stranger = body.zones.find((z) => !own.includes(z.zoneId))
    if (stranger) {
      throw new HttpProblem(
        422,
        'not-worked',
        `"${stranger.zoneId}" was not part of this service. Nothing was changed.`,
      )
    }
    const before = await answersOf(db, id)
    const answers = [...before.filter((a) => a.moment !== moment), { moment, ...body }]
    await db.sequelize.transaction(async (transaction) => {
      await db.models.SkinAnswer.upsert({ visitId: id, moment, ...body }, { transaction })
      await found.update(summariseAnswers(found.endedAtMs!, answers), { transaction })
    })
    return found
  })
  return visitPage(db, visit)
}

export async function addHairReading(
  db: Database,
  id: string,
  body: { id: string; kind: string; date: string; zoneId: string | null; lengthMm?: number },
): Promise<VisitPage> {
  const visit = await db.writes.run(async () => {
    const found = await findVisit(db, id)
    requireFinished(found)
    if (body.zoneId !== null) requireZones([body.zoneId])
    const endedAtMs = found.endedAtMs!
    const noon = Date.parse(`${body.date}T12:00:00`)
    const days = (noon - endedAtMs) / DAY_MS
    if (days <= 0 || noon > Date.now() + DAY_MS) {
      throw new HttpProblem(
        422,
        'not-after',
        'That day does not lie between the service and today. Nothing was changed.',
      )
    }
    const left = body.zoneId !== null ? found.leftMm?.[body.zoneId] : undefined
    const all = Object.values(found.leftMm ?? {})
    await db.models.HairReading.bulkCreate(
      [
        {
          id: body.id,
          clientId: found.clientId,
          visitId: found.id,
          kind: body.kind,
          days,
          zoneId: body.zoneId,
          lengthMm: body.lengthMm ?? null,
          leftMm: left ?? (all.length > 0 ? all.reduce((s, v) => s + v, 0) / all.length : 0.15),
          atMs: noon,
        },
      ],
      { ignoreDuplicates: true },
    )
    return found
  })
  return visitPage(db, visit)
}

export async function removeHairReading(db: Database, id: string): Promise<{ removed: true }> {
  await db.writes.run(() => db.models.HairReading.destroy({ where: { id } }))
  return { removed: true }
}
