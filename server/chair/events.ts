/** Storing what happens at the chair. Everything that belongs to an event is written in one transaction. */
import { randomUUID } from 'node:crypto'
import { messagesFor } from '../../core/care/messages.ts'
import { kitEvents } from '../../core/chair/kit.ts'
import { executedLoads, leftStanding } from '../../core/chair/outcome.ts'
import { admit } from '../../core/chair/rules.ts'
import type { ChairEvent, ToldEvent } from '../../core/chair/service.ts'
import { summariseAnswers } from '../../core/history/answers.ts'
import { choicesOf } from '../../core/history/choices.ts'
import { bladeLifeStrokes } from '../../core/plan/tools.ts'
import type { VisitWindow } from '../../core/regrowth/nextVisit.ts'
import { DAY_MS } from '../../core/time/dates.ts'
import type { ChairAnswer, SkinAnswer } from '../../contract/types.ts'
import type { SkinAndHair } from '../../core/client.ts'
import type { ServiceId } from '../../core/services.ts'
import type { Database } from '../db/connection.ts'
import { json } from '../db/reader.ts'
import { HttpProblem } from '../http/problem.ts'
import { WHEN } from '../care/when.ts'
import { readHouse } from '../house/service.ts'
import { afterService, type AfterFacts } from '../visits/page.ts'
import { readHair } from '../visits/record.ts'
import type { ChairDesk, Running } from './desk.ts'

/** An event that waits for its turn to be stored. */
interface Waiting {
  readonly visitId: string
  readonly told: ToldEvent
  readonly stored: (answer: ChairAnswer) => void
  readonly refused: (error: unknown) => void
}

/** An event that has been looked at, before the transaction it is in has ended. */
interface Placed {
  readonly waiting: Waiting
  readonly event: ChairEvent
  readonly before: Running
  readonly now: Running
  readonly repeated: boolean
}

/**
 * Stores events; each counts only once it is stored. Events that come while one transaction is under way go into the next
 * together, so that many services at once wait for the disk once and not in a row.
 */
export class EventWriter {
  private readonly db: Database
  private readonly desk: ChairDesk
  private waiting: Waiting[] = []
  private scheduled = false

  constructor(db: Database, desk: ChairDesk) {
    this.db = db
    this.desk = desk
  }

  /** Resolves when the event is stored; the same event again changes nothing. */
  add(visitId: string, told: ToldEvent): Promise<ChairAnswer> {
    return new Promise((stored, refused) => {
      this.waiting.push({ visitId, told, stored, refused })
      if (this.scheduled) return
      this.scheduled = true
      void this.writeAll()
    })
  }

  private async writeAll(): Promise<void> {
    let batch: Waiting[] = []
    try {
      const placed = await this.db.write(async () => {
        batch = this.waiting
        this.waiting = []
        this.scheduled = false
        return this.place(batch)
      })
      // Committed: from here on it counts.
      for (const { waiting, event, now, repeated } of placed) {
        if (!repeated) this.desk.stored(waiting.visitId, now, event)
        waiting.stored({ state: now.live.state, seq: event.seq, repeated })
      }
    } catch (error) {
      for (const w of batch) w.refused(error)
    }
  }

  /** Looks at each event on top of those before it, and writes those that may be. Refusals concern only their own event. */
  private async place(batch: readonly Waiting[]): Promise<Placed[]> {
    const { db, desk } = this
    const latest = new Map<string, Running>()
    const placed: Placed[] = []
    for (const waiting of batch) {
      const { visitId, told } = waiting
      try {
        const before = latest.get(visitId) ?? (await desk.of(visitId))
        const next = placeOne(before, told)
        latest.set(visitId, next.now)
        placed.push({ waiting, ...next })
      } catch (error) {
        waiting.refused(error)
      }
    }
    const fresh = placed.filter((p) => !p.repeated)
    if (fresh.length === 0) return placed
    await db.models.Event.bulkCreate(
      fresh.map(({ waiting, event }) => ({
        ...event,
        visitId: waiting.visitId,
        stepId: event.stepId ?? null,
        reason: event.reason ?? null,
        detail: event.detail ?? null,
      })),
    )
    const kit = fresh.flatMap(({ waiting, before, event }) =>
      kitEvents(waiting.visitId, before.live, event, randomUUID),
    )
    if (kit.length > 0) await db.models.KitEvent.bulkCreate(kit)
    for (const { waiting, event, now } of fresh) {
      await changeOfVisit(db, waiting.visitId, event, now)
    }
    return placed
  }
}

/** An event on top of a service as it is stored. */
function placeOne(before: Running | undefined, told: ToldEvent): Omit<Placed, 'waiting'> {
  if (!before) {
    throw new HttpProblem(409, 'no-plan', 'There is no plan yet. Save the plan first, then start.')
  }
  const known = before.events.find((e) => e.id === told.id)
  if (known) return { event: known, before, now: before, repeated: true }
  if (before.events.some((e) => e.screen === told.screen && e.n >= told.n)) {
    throw new HttpProblem(
      409,
      'out-of-order',
      'That screen has already told what came after this. Nothing was counted; reload to catch up.',
    )
  }
  const event: ChairEvent = { ...told, seq: before.live.state.seq + 1 }
  const live = admit(before.live, event)
  return {
    event,
    before,
    now: { ...before, live, events: [...before.events, event] },
    repeated: false,
  }
}

/** What an event changes of the visit itself. */
async function changeOfVisit(
  db: Database,
  visitId: string,
  event: ChairEvent,
  { live: { plan, state } }: Running,
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
  const summary = summariseAnswers(event.atMs, answers, loads)
  await Visit.update({ ...ended, ...summary, loads }, { where: { id: visitId } })
  const { skin, window } = await fillOutbox(db, visitId, {
    ...ended,
    plan,
    schools: plan.schools,
    answers,
    nicks: state.nicks.length,
  })
  // What was done and what was told of the next visit, for learning from both later.
  await Visit.update(
    {
      choices: choicesOf(plan, state, bladeLifeStrokes(plan.service, skin)),
      dueFromMs: window ? Math.round(window.fromMs) : null,
      dueToMs: window ? Math.round(window.toMs) : null,
    },
    { where: { id: visitId } },
  )
}

/** Writes down what would be sent to the client. Part of the write that ends the service. */
async function fillOutbox(
  db: Database,
  visitId: string,
  ended: Omit<AfterFacts, 'service' | 'skin' | 'products'>,
): Promise<{ skin: SkinAndHair; window: VisitWindow | null }> {
  const [[row], house] = await Promise.all([
    db.select(
      `SELECT v.clientId, v.service, v.products, c.skin, c.name, c.calledName
       FROM visits v JOIN clients c ON c.id = v.clientId WHERE v.id = ?`,
      [visitId],
    ),
    readHouse(db),
  ])
  const service = row!['service'] as ServiceId
  const skin = json<SkinAndHair>(row!['skin'])!
  const { care, window } = afterService(
    {
      ...ended,
      service,
      skin,
      products: json<string[]>(row!['products'])!,
    },
    house,
    await readHair(db, row!['clientId'] as string),
  )
  const drafts = messagesFor({
    care: care!,
    service,
    name: String(row!['calledName'] || row!['name']),
    house: house.name,
    nextFromMs: window ? window.fromMs - DAY_MS : undefined,
    when: (ms) => WHEN.format(ms),
  })
  await db.models.Message.bulkCreate(
    drafts.map((m) => ({ ...m, id: randomUUID(), visitId, state: 'waiting' })),
  )
  return { skin, window }
}
