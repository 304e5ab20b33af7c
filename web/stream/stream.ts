/**
 * What other screens tell of services under way: one stream for a browser, however many tabs follow. Browsers open six
 * connections to a server and no more; six tabs with a stream each would stop everything. One tab holds the stream and passes on
 * what it hears; when it goes, another takes over. Without interface code.
 */
import type { ChairEvent } from '../../core/chair/index.ts'

/** What a follower of one visit hears. */
export interface Follower {
  readonly chair: (event: ChairEvent) => void
  readonly clock: (nowMs: number) => void
  /** The visit has changed in another way. */
  readonly changed: () => void
  /** Whether the stream is there. */
  readonly here: (here: boolean) => void
}

/** What comes down the stream. */
export type News =
  | { readonly kind: 'chair'; readonly visitId: string; readonly event: ChairEvent }
  | { readonly kind: 'changed'; readonly visitId: string }
  | { readonly kind: 'clock'; readonly nowMs: number }
  | { readonly kind: 'here'; readonly here: boolean }

/** What tabs say to each other. */
export type Message =
  | { readonly kind: 'news'; readonly news: News }
  /** Whoever follows anything says what, and from where. */
  | { readonly kind: 'who' }
  | {
      readonly kind: 'want'
      readonly tab: string
      readonly visits: Readonly<Record<string, number>>
    }

export interface StreamWorld {
  readonly tab: string
  readonly say: (message: Message) => void
  /** Calls back once this tab is the one that holds the stream; never twice. */
  readonly lead: (leads: () => void) => void
  /** Opens a stream of visits, each from a place in its service on. */
  readonly open: (
    from: Readonly<Record<string, number>>,
    heard: (news: News) => void,
    broken: () => void,
  ) => () => void
  readonly later: (work: () => void, ms: number) => () => void
}

/** Tabs say again that they are there; one that has not for three times is gone. */
export const STILL_HERE_MS = 20_000
const RETRY_MS = 1000
/** Several tabs that say at once what they follow open the stream once. */
const GATHER_MS = 30

export class Stream {
  private readonly world: StreamWorld
  private readonly own = new Map<string, { after: number; follower: Follower }[]>()
  private readonly others = new Map<string, Readonly<Record<string, number>>>()
  private readonly missed = new Map<string, number>()
  private readonly last = new Map<string, number>()
  /** From where somebody new follows, until the stream was opened for them. */
  private readonly need = new Map<string, number>()
  private leads = false
  /** Unknown until a stream was opened or broke. */
  private here: boolean | undefined
  private close: (() => void) | undefined
  private cancel: (() => void) | undefined
  private openFor = ''

  constructor(world: StreamWorld) {
    this.world = world
    world.lead(() => {
      this.leads = true
      world.say({ kind: 'who' })
      this.soon(GATHER_MS)
    })
    this.beat()
  }

  /** Follows a visit from a place in its service on. @returns ends it */
  follow(visitId: string, after: number, follower: Follower): () => void {
    const mine = { after, follower }
    this.own.set(visitId, [...(this.own.get(visitId) ?? []), mine])
    // What was heard before this one came is told once more; who knows it already ignores it.
    this.needs(visitId, after)
    if (this.here !== undefined) follower.here(this.here)
    this.tell()
    this.soon(GATHER_MS, true)
    return () => {
      const left = (this.own.get(visitId) ?? []).filter((m) => m !== mine)
      if (left.length > 0) this.own.set(visitId, left)
      else this.own.delete(visitId)
      this.tell()
      this.soon(GATHER_MS)
    }
  }

  /** What another tab has said. */
  hears(message: Message): void {
    if (message.kind === 'news') return this.pass(message.news)
    if (message.kind === 'who') return this.tell()
    const { tab, visits } = message
    const before = this.others.get(tab)
    this.missed.set(tab, 0)
    if (JSON.stringify(before) === JSON.stringify(visits)) return
    this.others.set(tab, visits)
    for (const [id, after] of Object.entries(visits))
      if (before?.[id] === undefined) this.needs(id, after)
    this.soon(GATHER_MS, true)
  }

  /** Tries at once: the tablet woke up, or found the network again. */
  wake(): void {
    if (this.leads && !this.here) this.soon(0, true)
  }

  private needs(visitId: string, after: number): void {
    this.need.set(visitId, Math.min(after, this.need.get(visitId) ?? after))
  }

  private tell(): void {
    const visits: Record<string, number> = {}
    for (const [id, all] of this.own) visits[id] = Math.min(...all.map((m) => m.after))
    this.world.say({ kind: 'want', tab: this.world.tab, visits })
  }

  private beat(): void {
    this.world.later(() => {
      if (this.own.size > 0) this.tell()
      for (const [tab, n] of this.missed) {
        this.missed.set(tab, n + 1)
        if (n < 3) continue
        this.missed.delete(tab)
        this.others.delete(tab)
        this.soon(GATHER_MS)
      }
      this.beat()
    }, STILL_HERE_MS)
  }

  /** What all tabs follow together. */
  private wanted(): string[] {
    const all = new Set([...this.own.keys(), ...[...this.others.values()].flatMap(Object.keys)])
    return [...all].sort()
  }

  /** @param anew also when the same visits are followed as before */
  private soon(ms: number, anew = false): void {
    if (!this.leads) return
    if (anew) this.openFor = ''
    this.cancel?.()
    this.cancel = this.world.later(() => this.reopen(), ms)
  }

  private reopen(): void {
    const wanted = this.wanted()
    if (wanted.join() === this.openFor) return
    this.close?.()
    this.close = undefined
    this.openFor = wanted.join()
    if (wanted.length === 0) return
    const from = Object.fromEntries(
      wanted.map((id) => {
        const known = [this.need.get(id), this.last.get(id)].filter((seq) => seq !== undefined)
        return [id, known.length > 0 ? Math.min(...known) : 0]
      }),
    )
    this.need.clear()
    const stream = this.world.open(
      from,
      (news) => {
        if (this.close === stream) this.bring(news)
      },
      () => {
        if (this.close !== stream) return
        this.close()
        this.close = undefined
        this.openFor = ''
        this.bring({ kind: 'here', here: false })
        this.soon(RETRY_MS)
      },
    )
    this.close = stream
  }

  /** News of the stream itself: for this tab and all others. */
  private bring(news: News): void {
    if (news.kind === 'chair') {
      this.last.set(news.visitId, Math.max(news.event.seq, this.last.get(news.visitId) ?? 0))
    }
    this.world.say({ kind: 'news', news })
    this.pass(news)
  }

  private pass(news: News): void {
    if (news.kind === 'here') this.here = news.here
    for (const [id, all] of this.own) {
      for (const { follower } of all) {
        if (news.kind === 'here') follower.here(news.here)
        else if (news.kind === 'clock') follower.clock(news.nowMs)
        else if (news.visitId !== id) continue
        else if (news.kind === 'chair') follower.chair(news.event)
        else follower.changed()
      }
    }
  }
}
