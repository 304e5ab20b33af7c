/**
 * What was entered and the server does not have yet: kept in the browser's own database first, sent in order until it is
 * taken, and dropped only when the house itself refuses it, which is then said. Without interface code.
 */

/** A write on its way. */
export interface Write {
  /** Its number, made here: given back with a refusal. */
  readonly id: string
  /** Place in the order. */
  readonly n: number
  /** It has been on its way: the server may have it, so what is entered next builds on it and comes behind it. */
  readonly sent?: boolean | undefined
  readonly route: string
  readonly params: Readonly<Record<string, string>>
  readonly body: unknown
  /** What the screen had before it, where it may meet another entry. */
  readonly was?: object | null | undefined
  /** Whose it is: what belongs together is sent in order. */
  readonly clientId: string
  readonly visitId?: string | undefined
  /** Writes of the same row take each other's place while they wait. */
  readonly row?: string | undefined
  /** Who entered it: it is sent in nobody else's name. Null where nobody signs in. */
  readonly by?: string | null | undefined
  /** What it is, in words: "answers", "the map". */
  readonly what: string
  readonly atMs: number
}

/** A write that the house refused, kept to be seen. */
export interface Refused extends Write {
  readonly why: string
  readonly code: string
}

/** A write before it is kept. */
export type NewWrite = Omit<Write, 'n' | 'sent'>

/** Each step is whole: two tabs, or a tap between two steps, never see half of one. */
export interface OutboxStore {
  /** In order. */
  readonly all: () => Promise<Write[]>
  /** Keeps a write at the end, or in the place of one of the same row that was never on its way. */
  readonly put: (write: NewWrite) => Promise<Write>
  /** Marks the oldest write as on its way. @param but clients whose writes wait @returns it, if there is one */
  readonly take: (but: ReadonlySet<string>) => Promise<Write | undefined>
  readonly remove: (write: Write) => Promise<void>
  readonly refuse: (refused: Refused) => Promise<void>
  readonly refusals: () => Promise<Refused[]>
  readonly dismiss: (id: string) => Promise<void>
}

export interface OutboxWorld {
  readonly store: OutboxStore
  readonly send: (write: Write) => Promise<unknown>
  /** The house's own refusal of a write, in its words; undefined for anything else. */
  readonly refusal: (error: unknown, write: Write) => { why: string; code: string } | undefined
  /** Whether the house was heard at all: a fault of one write need not hold up the others. */
  readonly heard: (error: unknown, write: Write) => boolean
  readonly later: (work: () => void, ms: number) => () => void
  /** Runs alone among all tabs of this browser. */
  readonly alone: (work: () => Promise<void>) => Promise<void>
  /** Tells other tabs, and hears them. */
  readonly tell: (news: News) => void
}

/** What became of a write, for every tab. */
export type News =
  | { readonly kind: 'changed' }
  | { readonly kind: 'taken'; readonly id: string; readonly answer: unknown }
  | { readonly kind: 'refused'; readonly id: string; readonly why: string; readonly code: string }

export interface OutboxView {
  readonly waiting: readonly Write[]
  readonly refused: readonly Refused[]
  /** False while the server does not answer. */
  readonly here: boolean
}

/** A write was refused by the house. */
export class WriteRefused extends Error {
  readonly code: string

  constructor(why: string, code: string) {
    super(why)
    this.code = code
  }
}

const RETRY_FIRST_MS = 400
const RETRY_MOST_MS = 10_000

interface Promised {
  readonly taken: (answer: unknown) => void
  readonly refused: (error: WriteRefused) => void
}

export class Outbox {
  private readonly world: OutboxWorld
  private view: OutboxView = { waiting: [], refused: [], here: true }
  private readonly listeners = new Set<() => void>()
  private readonly promised = new Map<string, Promised[]>()
  private pumping = false
  private again = false
  private retryMs = RETRY_FIRST_MS
  private cancelRetry: (() => void) | undefined

  constructor(world: OutboxWorld) {
    this.world = world
  }

  readonly look = (): OutboxView => this.view
  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  /** Takes up what waited from before, and sends it. */
  async open(): Promise<void> {
    await this.refresh()
    this.wake()
  }

  /**
   * Keeps a write and sends it when its turn comes.
   * @returns the server's answer; it may come much later
   * @throws WriteRefused when the house refuses it
   */
  async add(write: NewWrite): Promise<unknown> {
    const kept = await this.world.store.put(write)
    await this.refresh()
    this.world.tell({ kind: 'changed' })
    const answer = new Promise<unknown>((taken, refused) => {
      const others = this.promised.get(kept.id) ?? []
      this.promised.set(kept.id, [...others, { taken, refused }])
    })
    void this.pump()
    return answer
  }

  /** The network is there again, or the page was looked at: what waits is tried at once. */
  wake(): void {
    this.retryMs = RETRY_FIRST_MS
    this.cancelRetry?.()
    void this.pump()
  }

  /** What another tab has told. */
  heard(news: News): void {
    if (news.kind === 'taken') this.settle(news.id, (p) => p.taken(news.answer))
    if (news.kind === 'refused')
      this.settle(news.id, (p) => p.refused(new WriteRefused(news.why, news.code)))
    void this.refresh()
  }

  /** Keeps to be seen what was refused on a way of its own. */
  async keepRefused(refused: Refused): Promise<void> {
    await this.world.store.refuse(refused)
    await this.refresh()
    this.world.tell({ kind: 'changed' })
  }

  async dismiss(id: string): Promise<void> {
    await this.world.store.dismiss(id)
    await this.refresh()
    this.world.tell({ kind: 'changed' })
  }

  private settle(id: string, how: (promised: Promised) => void): void {
    for (const promised of this.promised.get(id) ?? []) how(promised)
    this.promised.delete(id)
  }

  private async refresh(here = this.view.here): Promise<void> {
    const [waiting, refused] = await Promise.all([
      this.world.store.all(),
      this.world.store.refusals(),
    ])
    this.view = { waiting, refused, here }
    for (const listener of this.listeners) listener()
  }

  private async pump(): Promise<void> {
    this.again = true
    if (this.pumping) return
    this.pumping = true
    try {
      while (this.again) {
        this.again = false
        await this.world.alone(() => this.sendAll())
      }
    } finally {
      this.pumping = false
    }
  }

  /** Sends what waits, the oldest first. Of a client with whom something is amiss the rest waits; others go on. */
  private async sendAll(): Promise<void> {
    const { store, send, refusal, heard, tell } = this.world
    const amiss = new Set<string>()
    for (;;) {
      const next = await store.take(amiss)
      if (!next) break
      try {
        const answer = await send(next)
        this.retryMs = RETRY_FIRST_MS
        await store.remove(next)
        this.settle(next.id, (p) => p.taken(answer))
        tell({ kind: 'taken', id: next.id, answer })
        await this.refresh(true)
      } catch (error) {
        const no = refusal(error, next)
        if (no) {
          await store.remove(next)
          await store.refuse({ ...next, ...no })
          this.settle(next.id, (p) => p.refused(new WriteRefused(no.why, no.code)))
          tell({ kind: 'refused', id: next.id, ...no })
          await this.refresh(true)
          continue
        }
        amiss.add(next.clientId)
        const here = heard(error, next)
        await this.refresh(here)
        if (!here) break
      }
    }
    if (amiss.size > 0) this.tryLater()
  }

  private tryLater(): void {
    this.cancelRetry?.()
    this.cancelRetry = this.world.later(() => void this.pump(), this.retryMs)
    this.retryMs = Math.min(RETRY_MOST_MS, this.retryMs * 2)
  }
}
