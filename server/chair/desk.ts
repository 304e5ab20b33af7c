/** Services that run, kept in memory beside the database so that an event need not read the plan again; and who follows them. */
import { createChannel, type Channel, type Session } from 'better-sse'
import { replayLive, type ChairEvent, type Live } from '../../core/chair/index.ts'
import type { Plan } from '../../core/plan/index.ts'
import type { Database } from '../db/connection.ts'
import { notFound } from '../http/problem.ts'
import { readChair } from '../visits/record.ts'

/** A service as it is stored. */
export interface Running {
  readonly clientId: string
  readonly live: Live<Plan>
  readonly events: readonly ChairEvent[]
}

/** Services kept in memory at most: beyond these the one not touched for longest is read again. */
const KEPT = 120
/** The server's clock is told this often, so that a tablet's own may jump. */
const CLOCK_EVERY_MS = 10_000

export class ChairDesk {
  private readonly db: Database
  private readonly running = new Map<string, Running>()
  private readonly channels = new Map<string, Channel>()
  /** Who follows several visits hears whose each thing is. */
  private readonly named = new Map<string, Channel>()
  private readonly several = createChannel()
  private readonly sessions = new Set<Session>()
  private readonly clock: NodeJS.Timeout

  constructor(db: Database) {
    this.db = db
    this.clock = setInterval(() => {
      for (const channel of this.channels.values())
        channel.broadcast({ nowMs: Date.now() }, 'clock')
      this.several.broadcast({ nowMs: Date.now() }, 'clock')
    }, CLOCK_EVERY_MS)
    this.clock.unref()
  }

  /**
   * A service as it is stored now; undefined while no plan is kept.
   * @throws HttpProblem 404
   */
  async of(visitId: string): Promise<Running | undefined> {
    const had = this.running.get(visitId)
    if (had) {
      this.running.delete(visitId)
      this.running.set(visitId, had)
      return had
    }
    const kept = await readChair(this.db, visitId)
    if (!kept) throw notFound('That visit')
    if (!kept.plan) return undefined
    const { clientId, events } = kept
    const read = { clientId, live: replayLive(kept.plan, events), events }
    this.keep(visitId, read)
    return read
  }

  /** What has been stored counts from here on, and is told to all who follow. */
  stored(visitId: string, now: Running, event: ChairEvent): void {
    this.keep(visitId, now)
    this.channels.get(visitId)?.broadcast(event, 'chair', { eventId: String(event.seq) })
    this.named.get(visitId)?.broadcast({ visitId, event }, 'chair')
  }

  /** The visit has changed in another way: who follows asks anew. */
  changed(visitId: string): void {
    this.running.delete(visitId)
    this.channels.get(visitId)?.broadcast({}, 'changed')
    this.named.get(visitId)?.broadcast({ visitId }, 'changed')
  }

  /** Everything is read again: a client was erased. */
  forgetAll(): void {
    this.running.clear()
  }

  /** A screen follows a service: what it has not heard of yet at once, then each event as it is stored. */
  async follow(visitId: string, session: Session, after: number): Promise<void> {
    const now = await this.of(visitId)
    session.push({ nowMs: Date.now() }, 'clock')
    // Pushed and registered in one turn: nothing is stored in between.
    for (const event of now?.events ?? []) {
      if (event.seq > after) session.push(event, 'chair', String(event.seq))
    }
    this.register(this.channels, visitId, session)
  }

  /** A browser follows several services: of each what it has not heard of yet, then each event as it is stored. */
  async followAll(from: ReadonlyMap<string, number>, session: Session): Promise<void> {
    const ids = [...from.keys()]
    const all = await Promise.all(ids.map((id) => this.of(id)))
    session.push({ nowMs: Date.now() }, 'clock')
    ids.forEach((visitId, i) => {
      // What was stored since it was read stands in memory by now.
      for (const event of (this.running.get(visitId) ?? all[i])?.events ?? [])
        if (event.seq > from.get(visitId)!) session.push({ visitId, event }, 'chair')
      this.register(this.named, visitId, session)
    })
    this.several.register(session)
  }

  private register(channels: Map<string, Channel>, visitId: string, session: Session): void {
    const channel = channels.get(visitId) ?? createChannel()
    channels.set(visitId, channel)
    channel.register(session)
    this.sessions.add(session)
    session.once('disconnected', () => {
      this.sessions.delete(session)
      if (channel.sessionCount === 0 && channels.get(visitId) === channel) channels.delete(visitId)
    })
  }

  private keep(visitId: string, now: Running): void {
    this.running.delete(visitId)
    this.running.set(visitId, now)
    if (this.running.size > KEPT) this.running.delete(this.running.keys().next().value!)
  }

  close(): void {
    clearInterval(this.clock)
    for (const channel of this.channels.values()) channel.broadcast({}, 'bye')
    this.channels.clear()
    this.named.clear()
    this.running.clear()
  }
}
