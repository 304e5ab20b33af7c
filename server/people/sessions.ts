/**
 * Sessions, in a file of their own beside the data: they are no part of a backup, and writing one never waits for a write
 * of the studio.
 */
import { randomBytes } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import connectSequelize from 'connect-session-sequelize'
import session, { type SessionData } from 'express-session'
import type { RequestHandler } from 'express'
import { Sequelize } from 'sequelize'
import sqlite3 from 'sqlite3'

declare module 'express-session' {
  interface SessionData {
    workerId: string
    locked: boolean
  }
}

export const SESSION_MS = 12 * 3_600_000
/** A session that is used is carried on, but written at most this often. */
const TOUCH_MS = 10 * 60_000
export const COOKIE = 'tide'

export interface Sessions {
  readonly middleware: () => RequestHandler
  /** Ends the sessions of a worker. */
  readonly endOf: (workerId: string) => Promise<void>
  /** How many each worker has. */
  readonly counts: () => Promise<Record<string, number>>
  /** Wrong tries of a worker, and until when the next one waits. */
  readonly tries: {
    readonly of: (key: string) => Promise<{ n: number; untilMs: number }>
    readonly set: (key: string, n: number, untilMs: number) => Promise<void>
  }
  readonly close: () => Promise<void>
}

/** The key that cookies are signed with: made once, read by this user only. */
function keyOf(dataDir: string): string {
  const file = join(dataDir, 'session.key')
  if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString('hex'), { mode: 0o600 })
  return readFileSync(file, 'utf8').trim()
}

export async function openSessions(dataDir: string): Promise<Sessions> {
  const db = new Sequelize({
    ...{ dialect: 'sqlite', storage: join(dataDir, 'sessions.sqlite'), logging: false },
    dialectModule: sqlite3,
  })
  await db.query('PRAGMA journal_mode=WAL')
  await db.query('PRAGMA busy_timeout=5000')
  await db.query(
    'CREATE TABLE IF NOT EXISTS tries (key TEXT PRIMARY KEY, n INTEGER NOT NULL, untilMs INTEGER NOT NULL)',
  )
  const Base = connectSequelize(session.Store)
  const carryOn = (Base.prototype as InstanceType<typeof Base>).touch
  /** What was read is kept at hand: every request asks. */
  class Store extends Base {
    private readonly known = new Map<string, { data: SessionData; touchedMs: number }>()
    override get(sid: string, done: (error: unknown, data?: SessionData | null) => void): void {
      const had = this.known.get(sid)
      if (had && Date.now() - had.touchedMs < SESSION_MS)
        return done(null, structuredClone(had.data))
      super.get(sid, (error: unknown, data?: SessionData | null) => {
        if (data) this.known.set(sid, { data: structuredClone(data), touchedMs: 0 })
        done(error, data)
      })
    }
    override set(sid: string, data: SessionData, done?: (error?: unknown) => void): void {
      this.known.set(sid, {
        data: JSON.parse(JSON.stringify(data)) as SessionData,
        touchedMs: Date.now(),
      })
      super.set(sid, data, done)
    }
    // Only carried on, never made anew: one that was ended meanwhile stays ended.
    override touch = (sid: string, data: SessionData, done?: (error?: unknown) => void): void => {
      const had = this.known.get(sid)
      if (had && Date.now() - had.touchedMs < TOUCH_MS) return done?.()
      if (had) had.touchedMs = Date.now()
      carryOn.call(this, sid, data, done)
    }
    override destroy(sid: string, done?: (error?: unknown) => void): void {
      this.known.delete(sid)
      super.destroy(sid, done)
    }
    forget(): void {
      this.known.clear()
    }
  }
  const store = new Store({
    db,
    tableName: 'sessions',
    checkExpirationInterval: -1,
    expiration: SESSION_MS,
  })
  await db.sync()
  await db.query("DELETE FROM sessions WHERE expires < datetime('now')")
  const secret = keyOf(dataDir)
  const rows = async () =>
    (await db.query('SELECT sid, data FROM sessions'))[0] as { sid: string; data: string }[]
  const workerOf = (data: string) => (JSON.parse(data) as Partial<SessionData>).workerId
  return {
    middleware: () =>
      session({
        ...{ name: COOKIE, secret, store, resave: false, saveUninitialized: false, rolling: true },
        cookie: {
          httpOnly: true,
          sameSite: 'strict',
          secure: 'auto',
          maxAge: SESSION_MS,
          path: '/api',
        },
      }),
    endOf: async (workerId) => {
      for (const { sid, data } of await rows())
        if (workerOf(data) === workerId)
          await db.query('DELETE FROM sessions WHERE sid = ?', { replacements: [sid] })
      store.forget()
    },
    counts: async () => {
      const counts: Record<string, number> = {}
      for (const { data } of await rows()) {
        const id = workerOf(data)
        if (id) counts[id] = (counts[id] ?? 0) + 1
      }
      return counts
    },
    tries: {
      of: async (key) => {
        const [found] = await db.query('SELECT n, untilMs FROM tries WHERE key = ?', {
          replacements: [key],
        })
        return (found as { n: number; untilMs: number }[])[0] ?? { n: 0, untilMs: 0 }
      },
      set: async (key, n, untilMs) => {
        await db.query('INSERT OR REPLACE INTO tries (key, n, untilMs) VALUES (?, ?, ?)', {
          replacements: [key, n, untilMs],
        })
      },
    },
    close: () => db.close(),
  }
}
