/** The people of a house: who they are, what they sign in with, who is at which screen. */
import { promisify } from 'node:util'
import { createHash, randomBytes } from 'node:crypto'
import { hash, verify } from '@node-rs/argon2'
import type { Request, RequestHandler } from 'express'
import { HttpProblem } from '../http/problem.ts'
import type { Rank } from '../../contract/rights.ts'
import type { Session } from '../../contract/types.ts'
import type { Config } from '../config.ts'
import type { Database } from '../db/connection.ts'
import { LOOPBACK, nameOf } from '../http/door.ts'
import { readHouse } from '../house/service.ts'
import { readCard } from '../safety/folder.ts'
import { openSessions, type Sessions } from './sessions.ts'
import { Trail } from './trail.ts'
import type { Who } from './who.ts'

/** argon2id as OWASP's cheat sheet on storing passwords has it (from memory): 19 MiB, two passes, one lane. */
const HASH = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const
/** Wrong tries that cost nothing; then each waits twice as long as the one before. */
const FREE_TRIES = 5
const FIRST_WAIT_MS = 30_000
const LONGEST_WAIT_MS = 15 * 60_000
const IDLE_MINUTES = 10
export const SCREEN_COOKIE = 'tide-screen'

/** Figures to try the demo with; they open nothing but made-up data. */
export const DEMO_SECRETS: readonly string[] = ['2468', '1357']

export interface Member {
  readonly id: string
  readonly name: string
  readonly role: string
  readonly rank: Rank
  readonly secret: string | null
  readonly goneAtMs: number | null
}

interface ScreenRow {
  readonly id: string
  readonly name: string
  readonly kind: 'tablet' | 'wall'
}

export const hashSecret = (secret: string) => hash(secret, HASH)
export const digestOf = (token: string) => createHash('sha256').update(token).digest('hex')

/** How long the next try waits after so many wrong ones. */
export const waitAfter = (wrong: number): number =>
  wrong < FREE_TRIES ? 0 : Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (wrong - FREE_TRIES))

export class People {
  readonly trail: Trail
  private readonly db: Database
  private readonly config: Config
  private members: readonly Member[] | undefined
  private screens = new Map<string, ScreenRow & { seenMs: number }>()
  private sessions: Promise<Sessions> | undefined
  private readonly trying = new Map<string, Promise<unknown>>()
  /** Compared with when there is nobody of that number, so that the time tells nothing. */
  private readonly nobody = hashSecret(randomBytes(12).toString('hex'))

  constructor(db: Database, config: Config) {
    this.db = db
    this.config = config
    this.trail = new Trail(db)
  }

  /** Opened when they are first needed: a house where nobody signs in has none. */
  store(): Promise<Sessions> {
    return (this.sessions ??= openSessions(this.config.dataDir))
  }

  async close(): Promise<void> {
    await this.trail.close()
    await (await this.sessions)?.close()
  }

  /** Everybody; those who left too. */
  async all(): Promise<readonly Member[]> {
    return (this.members ??= await this.db.select<Member>(
      'SELECT id, name, role, rank, secret, goneAtMs FROM workers ORDER BY name',
    ))
  }

  /** What was known of them is asked anew. */
  forget(): void {
    this.members = undefined
    this.screens.clear()
  }

  async mode(): Promise<Session['mode']> {
    const card = readCard(this.config.dataDir)
    if (card?.demo) return 'demo'
    const here = (await this.all()).filter((m) => m.goneAtMs === null)
    if (here.some((m) => m.secret !== null)) return 'people'
    return card?.begun || (await this.hasClients()) ? 'open' : 'first-run'
  }

  private clients = false
  /** A house of before there were owners has begun long ago. */
  private async hasClients(): Promise<boolean> {
    return (this.clients ||= (await this.db.select('SELECT 1 FROM clients LIMIT 1')).length > 0)
  }

  /** Reads sessions where there may be any, then who it is. */
  middleware(): RequestHandler {
    let sessions: RequestHandler | undefined
    return (request, response, next) => {
      const asks = async () => {
        const mode = await this.mode()
        if (mode === 'people' || mode === 'demo' || BEGINNINGS.has(request.path)) {
          sessions ??= (await this.store()).middleware()
          await promisify(sessions)(request, response)
        }
        response.locals['who'] = await this.whoAsks(request, mode)
      }
      asks().then(() => next(), next)
    }
  }

  private async whoAsks(request: Request, mode: Session['mode']): Promise<Who> {
    const screen = await this.screenOf(request)
    if (!screen) return { ...NOBODY, letIn: false }
    const at = { screen: screen.name, letIn: true }
    if (screen.kind === 'wall') return { ...NOBODY, ...at, asker: 'wall' }
    // Where nobody signs in, whoever is at this machine is the owner; other screens are nobody's.
    const here = screen.id === 'here'
    if (here && (mode === 'open' || mode === 'first-run')) {
      return { ...NOBODY, ...at, asker: 'owner', worker: 'whoever was here' }
    }
    const signedIn = request.session?.workerId
    const id =
      signedIn ?? (here && mode === 'demo' ? (await readHouse(this.db)).workerId : undefined)
    const member = (await this.all()).find((m) => m.id === id && m.goneAtMs === null)
    if (!member) return { ...NOBODY, ...at }
    return {
      ...at,
      asker: member.rank,
      workerId: member.id,
      worker: member.name,
      locked: request.session?.locked === true,
    }
  }

  /** This machine itself, a paired one, or none. */
  private async screenOf(request: Request): Promise<ScreenRow | undefined> {
    const address = this.config.trustProxy === undefined ? request.socket.remoteAddress : request.ip
    const near = /^(::1|(::ffff:)?127\.0\.0\.1)$/.test(address ?? '')
    const token = cookieOf(request, SCREEN_COOKIE)
    if (token) {
      const digest = digestOf(token)
      let screen = this.screens.get(digest)
      if (!screen) {
        const [row] = await this.db.select<ScreenRow>(
          'SELECT id, name, kind FROM screens WHERE digest = ? AND takenBackAtMs IS NULL',
          [digest],
        )
        if (row) this.screens.set(digest, (screen = { ...row, seenMs: 0 }))
      }
      if (screen) return screen
    }
    // Through a proxy of this machine it comes from outside, whatever the address.
    if (near && LOOPBACK.test(nameOf(request.headers.host ?? ''))) {
      return { id: 'here', name: 'this machine', kind: 'tablet' }
    }
    return undefined
  }

  /** The name of somebody who works or worked here; nothing for anybody else. */
  async nameOf(id: string): Promise<string> {
    return (await this.all()).find((m) => m.id === id)?.name ?? ''
  }

  /**
   * Compares what was typed with what is kept. Tries at one worker come one after the other, and wait longer and longer.
   * @throws HttpProblem 401 `wrong-figures`, 429 `wait`
   */
  async compare(workerId: string, typed: string, nowMs = Date.now()): Promise<Member> {
    const before = this.trying.get(workerId) ?? Promise.resolve()
    const now = before.then(() => this.compareOne(workerId, typed, nowMs))
    const after = now.catch(() => undefined)
    this.trying.set(workerId, after)
    void after.then(() => this.trying.get(workerId) === after && this.trying.delete(workerId))
    return now
  }

  private async compareOne(workerId: string, typed: string, nowMs: number): Promise<Member> {
    const { tries } = await this.store()
    const { n, untilMs } = await tries.of(workerId)
    if (nowMs < untilMs) {
      const seconds = Math.ceil((untilMs - nowMs) / 1000)
      throw new HttpProblem(
        429,
        'wait',
        `Too many wrong tries. The next one may come in ${seconds > 90 ? `${Math.ceil(seconds / 60)} minutes` : `${seconds} seconds`}.`,
      )
    }
    const member = (await this.all()).find((m) => m.id === workerId && m.goneAtMs === null)
    const fits = await verify(member?.secret ?? (await this.nobody), typed)
    if (!member?.secret || !fits) {
      const wrong = n + 1
      await tries.set(workerId, wrong, nowMs + waitAfter(wrong))
      throw new HttpProblem(401, 'wrong-figures', 'Those are not the figures. Type them again.')
    }
    if (n > 0) await tries.set(workerId, 0, 0)
    return member
  }

  /** What the door shows. */
  async session(who: Who): Promise<Session> {
    const [mode, house, all] = await Promise.all([this.mode(), readHouse(this.db), this.all()])
    const here = all.filter((m) => m.goneAtMs === null)
    const member = here.find((m) => m.id === who.workerId)
    return {
      mode,
      house: house.name,
      nowMs: Date.now(),
      worker: member ? { id: member.id, name: member.name, rank: member.rank } : null,
      letIn: who.letIn,
      wall: who.asker === 'wall',
      locked: who.locked,
      // Another machine learns no names before it is paired.
      workers: who.letIn
        ? here.filter((m) => m.secret !== null).map(({ id, name }) => ({ id, name }))
        : [],
      demoSecrets:
        mode === 'demo'
          ? Object.fromEntries(here.map((m, i) => [m.name, DEMO_SECRETS[i] ?? '']))
          : {},
      idleMinutes: IDLE_MINUTES,
    }
  }
}

/** Where a session may begin though nobody has figures yet. */
const BEGINNINGS = new Set(['/session', '/people/owner', '/session/secret'])

const NOBODY: Who = {
  asker: 'nobody',
  workerId: null,
  worker: '',
  screen: '',
  locked: false,
  letIn: true,
}

export function cookieOf(request: Request, name: string): string | undefined {
  for (const part of (request.headers.cookie ?? '').split(';')) {
    const [key, value] = part.trim().split('=')
    if (key === name) return value
  }
  return undefined
}
