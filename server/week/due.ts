/** Clients whose good days touch a stretch and who have no hour to come. */
import type { Figures } from '../../core/house/index.ts'
import { figuresOf } from '../../core/register/index.ts'
import { heldBack } from '../../core/visit/index.ts'
import { DAY_MS } from '../../core/time/index.ts'
import type { House } from '../../contract/types.ts'
import type { Job } from '../../core/services/index.ts'
import { randomUUID } from 'node:crypto'
import type { Reads } from '../db/reader.ts'
import { readHouse } from '../house/service.ts'
import { notFound } from '../http/problem.ts'
import { knownFrom } from '../today/flags.ts'
import { overviewOf, type Overview, type OverviewUpkeep } from '../today/overview.ts'

/** Whose good days are over for longer is not waited for every week. */
const LONG_OVER_MS = 42 * DAY_MS

export interface DueClient {
  readonly clientId: string
  /** Who served them last, if they are still here; else whoever is at this screen. */
  readonly workerId: string
  readonly overview: Overview
  readonly next: OverviewUpkeep & { readonly window: NonNullable<OverviewUpkeep['window']> }
  /** What is to be done, as it is booked. */
  readonly jobs: readonly Job[]
}

/**
 * What speaks for and against a day of a client: the good days, and what holds a visit on it back.
 * @throws HttpProblem 404
 */
export async function dayOf(
  db: Reads,
  clientId: string,
  atMs: number,
): Promise<{ good: { fromMs: number; toMs: number } | null; held: string | null }> {
  const [house, [o]] = await Promise.all([readHouse(db), overviewOf(db, [clientId], Infinity)])
  if (!o) throw notFound('That client')
  const window = o.next?.window
  return {
    good: window ? { fromMs: window.fromMs, toMs: window.toMs } : null,
    held: heldOn(figuresOf(house.figures), o, house, atMs) ?? null,
  }
}

/** What would hold a visit at a moment back, by all that is known now, in words. */
export const heldOn = (
  figures: Figures,
  o: Overview,
  house: House,
  atMs: number,
): string | undefined => heldBack(knownFrom(figures, o, house, atMs))

/**
 * Those who are due first come first.
 * @param most so many at most
 * @returns they, and how many there are in all
 */
export async function dueClients(
  db: Reads,
  house: House,
  { fromMs, toMs, nowMs, most }: { fromMs: number; toMs: number; nowMs: number; most: number },
): Promise<{ readonly due: readonly DueClient[]; readonly all: number }> {
  if (toMs < nowMs) return { due: [], all: 0 }
  const rows = await db.select<{ clientId: string; workerId: string | null }>(
    `SELECT s.clientId, (SELECT workerId FROM visits l WHERE l.clientId = s.clientId AND l.state = 'finished'
         ORDER BY l.endedAtMs DESC LIMIT 1) AS workerId
     FROM standings s WHERE s.dueFromMs < ? AND s.dueToMs > ?
       AND NOT EXISTS (SELECT 1 FROM appointments a LEFT JOIN visits v ON v.id = a.visitId WHERE a.clientId = s.clientId
         AND a.startMs > ? AND a.state IN ('booked', 'confirmed', 'arrived') AND COALESCE(v.state, 'open') <> 'finished')
       AND NOT EXISTS (SELECT 1 FROM visits r WHERE r.clientId = s.clientId AND r.state = 'running')
     ORDER BY s.dueToMs`,
    [toMs, Math.max(fromMs, nowMs) - LONG_OVER_MS, nowMs - DAY_MS / 2],
  )
  const here = new Set(house.workers.map((w) => w.id))
  const first = rows.slice(0, most)
  const overview = await overviewOf(
    db,
    first.map((r) => r.clientId),
    Infinity,
  )
  const of = new Map(overview.map((o) => [o.client.id, o]))
  const due = first.flatMap(({ clientId, workerId }): DueClient[] => {
    const o = of.get(clientId)
    const window = o?.next?.window
    if (!o?.next || !window) return []
    const whom = workerId !== null && here.has(workerId) ? workerId : house.workerId
    const { service, zones, method, everyDays } = o.next.job
    const job = {
      id: randomUUID(),
      service,
      zones,
      method,
      ...(everyDays !== undefined && { everyDays }),
    }
    return [{ clientId, workerId: whom, overview: o, next: { ...o.next, window }, jobs: [job] }]
  })
  return { due, all: rows.length }
}
