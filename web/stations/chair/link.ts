/**
 * A screen's link to a service under way: what is told is kept first, shown at once, and sent in order, once, when the
 * server is there; what other screens tell arrives by itself. Without interface code; useChair.ts puts it into React.
 */
import type { Figures } from '../../../core/house/index.ts'
import {
  foresee,
  admit,
  advance,
  replayLive,
  type ChairEvent,
  type Draft,
  type ToldEvent,
  type Live,
} from '../../../core/chair/index.ts'
import { DomainError } from '../../../core/errors.ts'
import type { Plan } from '../../../core/plan/index.ts'
import type { WaitingStore } from './waiting.ts'

/** What a link needs of the world. */
export interface World {
  readonly store: WaitingStore
  readonly newId: () => string
  /** Sends an event; a refusal and silence are thrown. */
  readonly send: (event: ToldEvent) => Promise<{ seq: number }>
  /** Whether what was thrown is the house's own refusal of that event. */
  readonly refused: (error: unknown, event: ToldEvent) => boolean
  /** The service as the server has it. */
  readonly fetch: () => Promise<{ plan: Plan; events: readonly ChairEvent[] }>
  /** Steady time in ms, whatever the clock on the wall does. */
  readonly steadyMs: () => number
  readonly wallMs: () => number
  readonly later: (work: () => void, ms: number) => () => void
}

/** What a screen shows. */
export interface LinkView {
  /** The service with everything that this screen has told. */
  readonly live: Live
  /** Events that the server has stored. */
  readonly stored: readonly ChairEvent[]
  readonly waiting: number
  readonly here: boolean
  readonly problem?: string | undefined
}

/** Clocks of screens differ by less. */
const JUMPED_MS = 6 * 3_600_000
const RETRY_FIRST_MS = 400
const RETRY_MOST_MS = 5000

export class ChairLink {
  private readonly figures: Figures
  private readonly world: World
  private readonly visitId: string
  /** The plan that was kept, before anything was amended. */
  private base: Plan
  private server: Live
  private events: ChairEvent[]
  private waiting: ToldEvent[] = []
  private here = true
  private problem: string | undefined
  private sending = false
  private retryMs = RETRY_FIRST_MS
  private cancelRetry: (() => void) | undefined
  /** Server's time less the steady time; unknown until it has been told. */
  private offset: number | undefined
  private readonly listeners = new Set<() => void>()
  private shown: LinkView
  private telling: Promise<unknown> = Promise.resolve()
  private closed = false

  constructor(
    figures: Figures,
    world: World,
    visitId: string,
    plan: Plan,
    events: readonly ChairEvent[],
  ) {
    this.figures = figures
    this.world = world
    this.visitId = visitId
    this.base = plan
    this.server = replayLive(plan, events)
    this.events = [...events]
    this.shown = this.look()
  }

  readonly view = (): LinkView => this.shown
  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  /**
   * Takes up what waited from before (a tab that was closed), and sends it.
   * @param kept true where the service comes from what this screen kept of it: what it has heard since is added
   */
  open(kept = false): Promise<void> {
    this.closed = false
    // What is told meanwhile comes after what waited: it is judged by all that is known.
    const opened = this.telling.then(() => this.takeUp(kept))
    this.telling = opened.catch(() => undefined)
    return opened
  }

  private async takeUp(kept: boolean): Promise<void> {
    const { store } = this.world
    this.waiting = await store.all(this.visitId)
    if (kept) this.here = false
    for (const event of kept ? await store.settled(this.visitId) : [])
      if (event.seq === this.server.state.seq + 1) this.settle(event)
    if (!kept && this.server.state.status === 'finished') void store.forget(this.visitId)
    this.changed()
    void this.pump()
  }

  close(): void {
    this.closed = true
    this.cancelRetry?.()
  }

  /**
   * Now, by the server's clock carried on steadily; by this screen's own until the server has been heard. Never before what
   * has happened already: clocks that jump back (a tablet without a net) put nothing out of order.
   */
  nowMs(): number {
    this.offset ??= Math.max(this.world.wallMs(), this.lastAtMs()) - this.world.steadyMs()
    return Math.round(this.world.steadyMs() + this.offset)
  }

  clock(serverMs: number): void {
    // A clock far behind what has happened has jumped: this screen's own steady time goes on. A little behind, another
    // screen's clock was ahead.
    if (serverMs < this.lastAtMs() - JUMPED_MS && this.offset !== undefined) return
    this.offset = serverMs - this.world.steadyMs()
  }

  private lastAtMs(): number {
    return Math.max(0, this.events.at(-1)?.atMs ?? 0, this.waiting.at(-1)?.atMs ?? 0)
  }

  /**
   * Tells that something has happened. It is kept before it is shown.
   * @returns false when the rules of the chair do not allow it; the view says why
   */
  tell(draft: Draft | ((live: Live) => Draft | undefined)): Promise<boolean> {
    const next = this.telling.then(() => this.keep(draft))
    this.telling = next.catch(() => undefined)
    return next
  }

  private async keep(draft: Draft | ((live: Live) => Draft | undefined)): Promise<boolean> {
    const { live } = this.shown
    const told = typeof draft === 'function' ? draft(live) : draft
    if (!told) return false
    // What the house has heard meanwhile was not known here: it is told that.
    const meant: Draft =
      told.kind === 'started' && !this.here
        ? { ...told, detail: { ...told.detail, away: true } }
        : told
    const atMs = this.nowMs()
    try {
      const trial = { ...meant, id: '', screen: '', n: 0, atMs, seq: live.state.seq + 1 }
      admit(this.figures, live, trial)
    } catch (error) {
      if (!(error instanceof DomainError)) throw error
      this.problem = error.message
      this.changed()
      return false
    }
    const event = await this.world.store.add(this.visitId, meant, this.world.newId(), atMs)
    this.waiting = [...this.waiting, event]
    this.problem = undefined
    this.changed()
    void this.pump()
    return true
  }

  /** Another screen's event, or an echo of one's own. */
  arrived(event: ChairEvent): void {
    if (event.seq <= this.server.state.seq) return
    if (event.seq > this.server.state.seq + 1) {
      void this.catchUp()
      return
    }
    this.settle(event)
    this.changed()
  }

  /** The connection is there again, or gone. */
  connected(here: boolean): void {
    this.here = here
    this.changed()
    if (here) this.wake()
  }

  /** The tablet woke up, or found the network again: what waits is tried at once. */
  wake(): void {
    this.retryMs = RETRY_FIRST_MS
    this.cancelRetry?.()
    void this.pump()
  }

  /** The server's plan and events in place of what was known. */
  take(plan: Plan, events: readonly ChairEvent[]): void {
    // What was asked for before the last event was heard is older than what is known.
    if (events.length < this.events.length && plan === this.base) return
    this.base = plan
    this.server = replayLive(plan, events)
    this.events = [...events]
    this.changed()
  }

  async catchUp(): Promise<void> {
    try {
      const { plan, events } = await this.world.fetch()
      if (events.length >= this.events.length) this.take(plan, events)
    } catch {
      this.connected(false)
    }
  }

  private settle(event: ChairEvent): void {
    this.server = advance(this.server, event)
    this.events = [...this.events, event]
    void this.world.store.settle(this.visitId, event)
  }

  /** Sends what waits, one at a time, the oldest first; goes on by itself when the server is back. */
  private async pump(): Promise<void> {
    if (this.sending || this.closed) return
    this.sending = true
    try {
      for (;;) {
        // Asked of the store, not of memory: another tab of this browser numbers its events in between.
        const [event] = await this.world.store.all(this.visitId)
        if (!event || this.closed) return
        let seq: number
        try {
          seq = (await this.world.send(event)).seq
        } catch (error) {
          if (!this.world.refused(error, event)) {
            this.here = false
            this.tryLater()
            return
          }
          // Another screen was quicker, or it no longer fits: it is dropped, and said.
          this.problem = (error as Error).message
          await this.drop(event)
          await this.catchUp()
          continue
        }
        this.here = true
        this.retryMs = RETRY_FIRST_MS
        if (seq === this.server.state.seq + 1) this.settle({ ...event, seq })
        else if (seq > this.server.state.seq) await this.catchUp()
        await this.drop(event)
      }
    } finally {
      this.sending = false
      this.changed()
    }
  }

  private async drop(event: ToldEvent): Promise<void> {
    await this.world.store.remove(event.id)
    this.waiting = this.waiting.filter((e) => e.id !== event.id)
    this.changed()
  }

  private tryLater(): void {
    this.cancelRetry?.()
    this.cancelRetry = this.world.later(() => void this.pump(), this.retryMs)
    this.retryMs = Math.min(RETRY_MOST_MS, this.retryMs * 2)
  }

  private look(): LinkView {
    const known = new Set(this.events.map((e) => e.id))
    const waiting = this.waiting.filter((e) => !known.has(e.id))
    return {
      live: foresee(this.figures, this.server, waiting).live,
      stored: this.events,
      waiting: waiting.length,
      here: this.here,
      problem: this.problem,
    }
  }

  private changed(): void {
    if (this.closed) return
    this.shown = this.look()
    for (const listener of this.listeners) listener()
  }
}
