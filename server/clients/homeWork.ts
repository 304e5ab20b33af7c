/** What a client took off at home: told by the worker, or by the client on the link page. */
import type { BodyOf } from '../../contract/routes.ts'
import type { HomeWork } from '../../core/history/index.ts'
import { CLOCKS_MS, DAY_MS } from '../../core/time/index.ts'
import type { ClientPage } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { readClient } from './read.ts'
import { clientPage } from './service.ts'

/** Told at most so long afterwards, days. */
const MOST_DAYS_AGO = 120

/**
 * Writes home work down. Part of a write; the same told twice is one.
 * @throws HttpProblem 422 `not-a-day`
 */
export async function keepHome(
  db: Database,
  clientId: string,
  told: BodyOf<'addHomeWork'>,
  source: HomeWork['source'],
): Promise<void> {
  const noon = Date.parse(`${told.date}T12:00:00`)
  const now = Date.now()
  // Of today the hour is not told: what is done this morning is done by now.
  const atMs = Math.min(noon, now)
  if (noon > now + DAY_MS / 2 + CLOCKS_MS || noon < now - MOST_DAYS_AGO * DAY_MS) {
    throw new HttpProblem(
      422,
      'not-a-day',
      'That day is to come, or too long ago to matter. Nothing was changed.',
    )
  }
  const zones = [...new Set(told.zones)]
  await db.models.HomeWork.bulkCreate(
    [
      {
        ...{ id: told.id, clientId, atMs, zones, tool: told.tool, source, toldAtMs: now },
        ...{ fresh: told.fresh ? 1 : 0, dull: told.dull ? 1 : 0 },
      },
    ],
    { ignoreDuplicates: true },
  )
}

export async function addHomeWork(
  db: Database,
  clientId: string,
  body: BodyOf<'addHomeWork'>,
): Promise<ClientPage> {
  await readClient(db, clientId)
  await db.write(() => keepHome(db, clientId, body, 'worker'))
  return clientPage(db, clientId)
}

export async function removeHomeWork(db: Database, id: string): Promise<ClientPage> {
  const [row] = await db.select<{ clientId: string }>(
    'SELECT clientId FROM home_work WHERE id = ?',
    [id],
  )
  if (!row) throw notFound('That work at home')
  await db.write(() => db.models.HomeWork.destroy({ where: { id } }))
  return clientPage(db, row.clientId)
}
