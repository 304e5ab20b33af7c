/** Storing what happens at the chair. Everything that belongs to an event is written in one transaction. */
import { randomUUID } from 'node:crypto'
import { messagesFor } from '../../core/care/messages.ts'
import { kitEvents } from '../../core/chair/kit.ts'
import { executedLoads, leftStanding } from '../../core/chair/outcome.ts'
import { admit } from '../../core/chair/rules.ts'
import type { ChairEvent, Live, ToldEvent } from '../../core/chair/service.ts'
import { summariseAnswers } from '../../core/history/answers.ts'
import { DAY_MS } from '../../core/time/dates.ts'
import type { ChairAnswer, SkinAnswer } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { HttpProblem } from '../http/problem.ts'
import { readHouse } from '../house/service.ts'
import { pageOf } from '../visits/page.ts'
import { readHair, readVisit, type VisitRecord } from '../visits/record.ts'
import type { ChairDesk, Running } from './desk.ts'

/** Stores an event; it counts only once it is stored. The same event again changes nothing. */
export async function addEvent(
  db: Database,
  desk: ChairDesk,
  visitId: string,
  told: ToldEvent,
): Promise<ChairAnswer> {
  const stored = await db.write(async () => {
    const before = await desk.of(visitId)
    if (!before) {
      throw new HttpProblem(
        409,
        'no-plan',
        'There is no plan yet. Save the plan first, then start.',
      )
    }
    const known = before.events.find((e) => e.id === told.id)
    if (known) return { event: known, now: before, repeated: true }
    if (before.events.some((e) => e.screen === told.screen && e.n >= told.n)) {
      throw new HttpProblem(
        409,
        'out-of-order',
        'That screen has already told what came after this. Nothing was counted; reload to catch up.',
      )
    }
    const event: ChairEvent = { ...told, seq: before.live.state.seq + 1 }
    const live = admit(before.live, event)
    await db.models.Event.create({
      ...event,
      visitId,
      stepId: event.stepId ?? null,
      reason: event.reason ?? null,
      detail: event.detail ?? null,
    })
    const kit = kitEvents(visitId, before.live, event, randomUUID)
    if (kit.length > 0) await db.models.KitEvent.bulkCreate(kit as never[])
    await changeOfVisit(db, visitId, event, live)
    return {
      event,
      now: { ...before, live, events: [...before.events, event] } satisfies Running,
      repeated: false,
    }
  })
  const { event, now, repeated } = stored
  if (!repeated) {
    desk.stored(visitId, now, event)
  }
  return { state: now.live.state, seq: event.seq, repeated }
}

/** What an event changes of the visit itself. */
async function changeOfVisit(
  db: Database,
  visitId: string,
  event: ChairEvent,
  { plan, state }: Live,
): Promise<void> {
  const { Visit, SkinAnswer } = db.models
  if (event.kind === 'started') {
    await Visit.update({ state: 'running', startedAtMs: event.atMs }, { where: { id: visitId } })
  }
  if (event.kind !== 'finished') return
  const answers: SkinAnswer[] = []
  if (state.looked) {
    const worked = new Set(plan.zones.map((z) => z.zoneId as string))
    const zones = state.looked
      .filter((z) => worked.has(z.zoneId) && z.redness > 0)
      .map((z) => ({ ...z, bumps: 0 }))
    answers.push({ moment: 'now', atMs: event.atMs, zones })
    await SkinAnswer.upsert({ visitId, ...answers[0]! })
  }
  const ended = {
    state: 'finished' as const,
    endedAtMs: event.atMs,
    leftMm: leftStanding(plan, state),
  }
  const loads = executedLoads(plan, state.outcomes)
  const summary = summariseAnswers(event.atMs, answers)
  await Visit.update({ ...ended, ...summary, loads }, { where: { id: visitId } })
  const visit = await readVisit(db, visitId)
  await fillOutbox(db, { ...visit, ...ended, answers, events: [...visit.events, event] })
}

/** Writes down what would be sent to the client. Part of the write that ends the service. */
async function fillOutbox(db: Database, visit: VisitRecord): Promise<void> {
  const [house, hair] = await Promise.all([readHouse(db), readHair(db, visit.clientId)])
  const page = pageOf(visit, house, hair, null)
  const [client] = await db.select('SELECT name, calledName FROM clients WHERE id = ?', [
    visit.clientId,
  ])
  const rows = messagesFor({
    care: page.care!,
    service: page.service,
    name: String(client!['calledName'] || client!['name']),
    house: house.name,
    nextFromMs: page.window ? page.window.fromMs - DAY_MS : undefined,
    when: (ms) => WHEN.format(ms),
  }).map((m) => ({ ...m, id: randomUUID(), visitId: page.id, state: 'waiting' }))
  await db.models.Message.bulkCreate(rows)
}

const WHEN = new Intl.DateTimeFormat('en-GB', {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
})
