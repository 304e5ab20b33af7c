/** Storing what happens at the chair. Everything that belongs to an event is written in one transaction. */
import type { Figures } from '../../core/house/index.ts'
import {
  kitEvents,
  admit,
  type ChairEvent,
  type ToldEvent,
  type Live,
} from '../../core/chair/index.ts'
import { holding } from '../../core/visit/index.ts'
import type { ChairAnswer } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { keepHour } from '../week/visitOf.ts'
import { HttpProblem } from '../http/problem.ts'
import { readFigures, readHouse } from '../house/service.ts'
import { amendEnd, keepEnd } from './ends.ts'
import { gateOf, refuseHeld } from '../visits/known.ts'
import { readVisit } from '../visits/record.ts'
import type { ChairDesk, Running } from './desk.ts'
import { randomUUID } from 'node:crypto'
import { UniqueConstraintError } from 'sequelize'

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
      // Where not even the transaction could begin, nobody has taken them over yet.
      if (batch.length === 0) {
        batch = this.waiting
        this.waiting = []
        this.scheduled = false
      }
      for (const w of batch) w.refused(error)
    }
  }

  /**
   * Looks at each event on top of those before it, and writes those that may be. Together where that goes, which is nearly
   * always; where one cannot be written, each by itself: nobody else's service waits for it or is refused with it.
   */
  private async place(batch: readonly Waiting[]): Promise<Placed[]> {
    try {
      return await this.within('together', () => this.placeThese(batch))
    } catch {
      const placed: Placed[] = []
      for (const waiting of batch) {
        try {
          placed.push(...(await this.within('alone', () => this.placeThese([waiting], placed))))
        } catch (error) {
          waiting.refused(error instanceof UniqueConstraintError ? taken() : error)
        }
      }
      return placed
    }
  }

  /** A part of the transaction that is taken back by itself when it fails. */
  private async within<T>(name: string, work: () => Promise<T>): Promise<T> {
    const { sequelize } = this.db
    await sequelize.query(`SAVEPOINT ${name}`)
    try {
      const done = await work()
      await sequelize.query(`RELEASE ${name}`)
      return done
    } catch (error) {
      await sequelize.query(`ROLLBACK TO ${name}`)
      await sequelize.query(`RELEASE ${name}`)
      throw error
    }
  }

  /** @param before what was placed earlier in the same transaction */
  private async placeThese(
    batch: readonly Waiting[],
    before: readonly Placed[] = [],
  ): Promise<Placed[]> {
    const { db, desk } = this
    const begins = new Beginnings(db)
    const figures = await readFigures(db)
    const latest = new Map(before.map((p) => [p.waiting.visitId, p.now]))
    const placed: Placed[] = []
    const refusals: (() => void)[] = []
    for (const waiting of batch) {
      const { visitId, told } = waiting
      try {
        let stands = latest.get(visitId) ?? (await desk.of(visitId))
        const pause = stands && heldSince(stands, told)
        if (pause) {
          const paused = placeOne(figures, stands, pause)
          stands = paused.now
          latest.set(visitId, stands)
          placed.push({ waiting: byTheHouse(visitId, pause), ...paused })
        }
        let next = placeOne(figures, stands, told)
        if (told.kind === 'started' && !next.repeated) {
          const held = await begins.may(visitId, told)
          if (held) {
            const reason = `Begun with the house away, which would have held it back: ${held}.`
            next = placeOne(figures, stands, { ...told, reason })
          }
        }
        latest.set(visitId, next.now)
        placed.push({ waiting, ...next })
      } catch (error) {
        refusals.push(() => waiting.refused(error))
      }
    }
    await this.keep(placed.filter((p) => !p.repeated))
    for (const refuse of refusals) refuse()
    return placed
  }

  private async keep(fresh: readonly Placed[]): Promise<void> {
    if (fresh.length === 0) return
    const { db } = this
    await db.models.Event.bulkCreate(
      fresh.map(({ waiting, before, event }) => ({
        ...event,
        jobId: jobOf(before.live, event),
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
    for (const { waiting, event, before, now } of fresh) {
      await changeOfVisit(db, waiting.visitId, event, before, now)
    }
  }
}

const taken = () =>
  new HttpProblem(
    409,
    'id-taken',
    'That id belongs to an event of another service. Nothing was kept.',
  )

/** The job whose step an event is on; null where it belongs to the whole visit. */
const jobOf = ({ plan }: Live, { stepId }: ChairEvent): string | null =>
  plan.steps.find((s) => s.id === stepId)?.jobId ?? null

/** A tap that is told as it is made; older ones have waited on their screen, and are kept as what was done. */
const TOLD_NOW_MS = 15_000

/**
 * A service that was begun with the house away, though it would have been held back, stands once its screen is back: what was
 * done meanwhile is kept, and the first tap of now waits until somebody has looked.
 * @returns the pause that comes before what is told; undefined where none is due
 */
function heldSince({ live, events }: Running, told: ToldEvent): ToldEvent | undefined {
  const start = events.findLast((e) => e.kind === 'started')
  if (!start?.detail?.away || !start.reason || live.state.status !== 'running') return undefined
  if (told.atMs < Date.now() - TOLD_NOW_MS || events.some((e) => e.id === told.id)) return undefined
  if (events.some((e) => e.kind === 'paused' && e.reason === start.reason)) return undefined
  return {
    ...{ id: randomUUID(), screen: randomUUID(), n: 1, kind: 'paused', atMs: Date.now() },
    ...{ reason: start.reason, detail: { zones: [] } },
  }
}

/** An event that nobody waits for. */
const byTheHouse = (visitId: string, told: ToldEvent): Waiting => ({
  ...{ visitId, told, stored: () => undefined, refused: () => undefined },
})

/** A beginning that is told at once is held to what is known now, wherever its screen was. */
const LONG_AGO_MS = 60_000

/** Whether services may begin: by the gate, and by who else has begun in the same write. */
class Beginnings {
  private readonly db: Database
  private readonly begun = new Set<string>()

  constructor(db: Database) {
    this.db = db
  }

  /**
   * What a screen that was without the house began on what it knew, and has done since, is not undone by refusing to hear of
   * it: it is kept, with what would have held it back.
   * @returns what would have, in words
   * @throws HttpProblem 409 `held-back`
   */
  async may(visitId: string, told: ToldEvent): Promise<string | undefined> {
    const [visit, house] = await Promise.all([readVisit(this.db, visitId), readHouse(this.db)])
    const away = told.detail?.away === true
    // Without the house a screen could not ask whether two go on beside each other; it said so to whoever began.
    const beside = away || told.detail?.beside === true
    const all = (await gateOf(this.db, visit, house)).findings
    const findings = beside ? all.filter((f) => f.about !== 'busy') : all
    if (away && told.atMs < Date.now() - LONG_AGO_MS)
      return holding(findings, 'start')
        .map((f) => f.title)
        .join('; ')
    refuseHeld(findings, 'start')
    if (this.begun.has(visit.workerId) && !beside) {
      throw new HttpProblem(
        409,
        'held-back',
        'The service does not begin yet. Another client of this worker has just been started: end that service first, or say that both go on.',
      )
    }
    this.begun.add(visit.workerId)
    return undefined
  }
}

/** An event on top of a service as it is stored. */
function placeOne(
  figures: Figures,
  before: Running | undefined,
  told: ToldEvent,
): Omit<Placed, 'waiting'> {
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
  // A screen whose clock has jumped back puts nothing before what has happened already.
  const lastMs = before.events.at(-1)?.atMs ?? 0
  // One that was ahead of the house's own time holds nobody to it.
  const atMs = lastMs <= Date.now() ? Math.max(told.atMs, lastMs) : told.atMs
  const event: ChairEvent = { ...told, atMs, seq: before.live.state.seq + 1 }
  const live = admit(figures, before.live, event)
  return {
    event,
    before,
    now: { ...before, live, events: [...before.events, event] },
    repeated: false,
  }
}

/** What an event changes of the visit itself, and of the map. */
async function changeOfVisit(
  db: Database,
  visitId: string,
  event: ChairEvent,
  before: Running,
  { live, clientId }: Running,
): Promise<void> {
  const { Visit } = db.models
  const { status } = live.state
  switch (event.kind) {
    case 'started':
      await Visit.update({ state: 'running', startedAtMs: event.atMs }, { where: { id: visitId } })
      await keepHour(db, visitId, { atMs: event.atMs, state: 'arrived' })
      return
    case 'taken-back':
      if (status === 'waiting') {
        await Visit.update({ state: 'open', startedAtMs: null }, { where: { id: visitId } })
      } else if (status === 'finished') await amendEnd(db, visitId, live)
      return
    case 'felt':
      await keepFelt(db, clientId, visitId, event, before.live)
      return
    case 'finished':
    case 'ended-late':
      await keepEnd(db, visitId, live)
  }
}

/** What was felt becomes a reading of the map; felt once more in the same zone it takes the place of the first. */
async function keepFelt(
  db: Database,
  clientId: string,
  visitId: string,
  event: ChairEvent,
  before: Live,
): Promise<void> {
  const { zoneId, point, normal, tangent } = event.detail!
  const earlier = before.state.felt[zoneId!]
  if (earlier) await db.models.Reading.destroy({ where: { id: earlier.id, visitId } })
  await db.models.Reading.create({
    id: event.id,
    clientId,
    visitId,
    zoneId: zoneId!,
    at: { point: point!, normal: normal!, tangent: tangent! },
    method: 'felt',
    atMs: event.atMs,
  })
}
