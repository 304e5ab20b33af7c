/**
 * The trail: who looked at, changed, took out, printed or erased what, and when. A change stands in the transaction that
 * makes it; looks follow within two seconds. Each line's hash holds the line before it, so that none can be changed, taken
 * out or put in between unseen; cutting the end off is noticed by the count of writes.
 */
import { createHash } from 'node:crypto'
import type { Trail as TrailPage } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { type Deed, underWay } from './who.ts'

/** The same look again within this time is the same look. */
const SAME_LOOK_MS = 10 * 60_000
/** A screen that keeps the day's clients does so again and again. */
const SAME_DAY_MS = 12 * 3_600_000
const LATER_MS = 2000
const PAGE = 100
const FIRST = '0'.repeat(64)

interface Line {
  readonly seq: number
  readonly atMs: number
  readonly workerId: string | null
  readonly worker: string
  readonly screen: string
  readonly use: string
  readonly what: string
  readonly clientId: string | null
  readonly hash: string
}

/** A line as it is told. */
export type TrailRow = TrailPage['rows'][number]

/** SHA-256 over the hash before and the line's own words, in a fixed order. */
const hashLine = (before: string, l: Omit<Line, 'hash'>) =>
  createHash('sha256')
    .update(
      JSON.stringify([
        before,
        l.seq,
        l.atMs,
        l.workerId,
        l.worker,
        l.screen,
        l.use,
        l.what,
        l.clientId,
      ]),
    )
    .digest('hex')

export class Trail {
  private readonly db: Database
  private head: { seq: number; hash: string } | undefined
  private readonly looks: { deed: Deed; atMs: number }[] = []
  private readonly seen = new Map<string, number>()
  private timer: NodeJS.Timeout | undefined
  private broken: number | undefined

  constructor(db: Database) {
    this.db = db
    db.withEachWrite(async (run) => {
      const own = underWay.getStore()
      const now = this.looks.splice(0)
      if (own?.deed) now.push({ deed: own.deed, atMs: Date.now() })
      if (now.length === 0) return () => undefined
      let head = (this.head ??= await this.last())
      for (const { deed, atMs } of now) {
        const line = {
          ...{ seq: head.seq + 1, atMs, workerId: deed.who.workerId, worker: deed.who.worker },
          ...{ screen: deed.who.screen, use: deed.use, what: deed.what, clientId: deed.clientId },
        }
        const hash = hashLine(head.hash, line)
        await run(
          'INSERT INTO trail (seq, atMs, workerId, worker, screen, use, what, clientId, hash) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
          [...Object.values(line), hash],
        )
        head = { seq: line.seq, hash }
      }
      return (kept) => {
        if (kept) this.head = head
        else this.looks.unshift(...now.filter((l) => l.deed !== own?.deed))
        // A request that writes twice has done one thing.
        if (kept && own) own.deed = undefined
      }
    })
  }

  private async last(): Promise<{ seq: number; hash: string }> {
    const [row] = await this.db.select<{ seq: number; hash: string }>(
      'SELECT seq, hash FROM trail ORDER BY seq DESC LIMIT 1',
    )
    return row ?? { seq: 0, hash: FIRST }
  }

  /** What was only looked at, or goes on for a while: written soon, once. */
  note(deed: Deed): void {
    const atMs = Date.now()
    const key = `${deed.who.workerId} ${deed.who.screen} ${deed.use} ${deed.what} ${deed.clientId}`
    if (atMs - (this.seen.get(key) ?? 0) < (deed.use === 'keep' ? SAME_DAY_MS : SAME_LOOK_MS))
      return
    if (this.seen.size > 5000) this.seen.clear()
    this.seen.set(key, atMs)
    this.looks.push({ deed, atMs })
    this.timer ??= setTimeout(() => {
      this.timer = undefined
      // A full disk keeps them for the next write.
      void this.flush().catch(() => undefined)
    }, LATER_MS)
    this.timer.unref()
  }

  /** Writes what was looked at. */
  async flush(): Promise<void> {
    if (this.looks.length > 0) await this.settled()
  }

  /** Waits for a write after all that are under way: what one of them took along is then written, too. */
  private settled(): Promise<void> {
    return underWay.run({ deed: undefined }, () => this.db.write(() => Promise.resolve()))
  }

  async close(): Promise<void> {
    clearTimeout(this.timer)
    await this.flush().catch(() => undefined)
  }

  /**
   * Goes through every line.
   * @returns the first line that does not follow from the one before; undefined when all do
   */
  async verify(): Promise<number | undefined> {
    let before = FIRST
    let seq = 0
    for (;;) {
      const lines = await this.db.select<Line>(
        'SELECT * FROM trail WHERE seq > ? ORDER BY seq LIMIT 5000',
        [seq],
      )
      if (lines.length === 0) break
      for (const { hash, ...line } of lines) {
        if (line.seq !== seq + 1 || hashLine(before, line) !== hash) return (this.broken = seq + 1)
        before = hash
        seq = line.seq
      }
    }
    return (this.broken = undefined)
  }

  /** Every line of a client, the newest first. */
  async ofClient(client: string): Promise<TrailRow[]> {
    const rows: TrailRow[] = []
    for (let before: number | undefined; ;) {
      const page = await this.page({ client, before })
      rows.push(...page.rows)
      if (!page.more) return rows
      before = rows.at(-1)!.seq
    }
  }

  /** Lines, the newest first. */
  async page(of: {
    client?: string | undefined
    worker?: string | undefined
    before?: number | undefined
  }): Promise<TrailPage> {
    await this.settled()
    const rows = await this.db.select<Omit<Line, 'hash'> & { client: string | null }>(
      `SELECT t.seq, t.atMs, t.worker, t.screen, t.use, t.what, t.clientId, c.name AS client FROM trail t
       LEFT JOIN clients c ON c.id = t.clientId
       WHERE t.seq < ? ${of.client ? 'AND t.clientId = ?' : ''} ${of.worker ? 'AND t.workerId = ?' : ''}
       ORDER BY t.seq DESC LIMIT ${PAGE + 1}`,
      [
        of.before ?? Number.MAX_SAFE_INTEGER,
        ...[of.client, of.worker].filter((v) => v !== undefined),
      ],
    )
    return {
      rows: rows.slice(0, PAGE),
      more: rows.length > PAGE,
      whole: this.broken === undefined,
    }
  }
}
