import { figuresOf } from '../../core/register/index.ts'
import { corrected } from '../../core/chair/index.ts'
import { createSession } from 'better-sse'
import type { Express } from 'express'
import type { KitLog } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { readHouse } from '../house/service.ts'
import type { Who } from '../people/who.ts'
import { mount } from '../http/mount.ts'
import type { Chair } from './chair.ts'
import { makeProbe } from './probe.ts'

/** Blades of the log that are shown. */
const LOG_LENGTH = 60

export function chairRoutes(app: Express, db: Database, { desk, writer }: Chair): void {
  const probe = makeProbe(7)
  mount(app, 'addEvent', ({ params, body }) => writer.add(params.id, body))
  mount(app, 'follow', async ({ params, query, response }) => {
    // Asked before the stream begins, so that a visit that is not there is told as such.
    await desk.of(params.id)
    const session = await createSession(response.req, response, { retry: 1000, keepAlive: 15_000 })
    // A browser that connects again by itself says what it heard last.
    const heard = Number(session.lastId || 0)
    await desk.follow(params.id, session, Math.max(query.after, Number.isFinite(heard) ? heard : 0))
  })
  mount(app, 'followAll', async ({ query, response }) => {
    const from = new Map(
      query.of.split(',').map((one) => {
        const [id, after] = one.split(':')
        return [id!, Number(after)] as const
      }),
    )
    const who = response.locals['who'] as Who
    // A locked screen goes on with its own services and hears of no other.
    if (who.locked) {
      const own = await db.select<{ id: string }>(
        "SELECT id FROM visits WHERE workerId = ? AND state = 'running'",
        [who.workerId ?? ''],
      )
      for (const id of from.keys()) if (!own.some((v) => v.id === id)) from.delete(id)
    }
    await Promise.all([...from.keys()].map((id) => desk.of(id)))
    await desk.followAll(
      from,
      await createSession(response.req, response, { retry: 1000, keepAlive: 15_000 }),
    )
  })
  mount(app, 'probe', async ({ body }) => {
    const nowMs = Date.now()
    const rawC = probe(body, nowMs)
    const { probe: calibration, figures: changed } = await readHouse(db)
    return {
      atMs: nowMs,
      rawC,
      ...corrected(figuresOf(changed), rawC, calibration ?? undefined, nowMs),
    }
  })
  mount(app, 'kitEvents', () => kitLog(db))
}

async function kitLog(db: Database): Promise<KitLog> {
  const [events, counts] = await Promise.all([
    db.select<KitLog['events'][number]>(
      `SELECT k.*, COALESCE(c.name, '') AS client FROM kit_events k
       LEFT JOIN visits v ON v.id = k.visitId LEFT JOIN clients c ON c.id = v.clientId
       ORDER BY k.atMs DESC, k.rowid DESC LIMIT ?`,
      [LOG_LENGTH],
    ),
    db.select<KitLog['counts'][number]>(
      `SELECT bladeId, SUM(kind = 'opened') AS opened, SUM(why IN ('tug', 'pressure')) AS failed,
         SUM(kind <> 'opened') AS put FROM kit_events GROUP BY bladeId ORDER BY opened DESC`,
    ),
  ])
  return { events, counts }
}
