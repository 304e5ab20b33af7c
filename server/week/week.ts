/** The book of some days, and who these days want. */
import type { Week, WantRow } from '../../contract/week.ts'
import { figuresOf } from '../../core/register/index.ts'
import type { Figures } from '../../core/house/index.ts'
import { upkeepLast } from '../../core/ahead/index.ts'
import { hairSince } from '../../core/history/index.ts'
import { seenOdds, workedZones } from '../../core/regrowth/index.ts'
import { servicesOf } from '../../core/services/index.ts'
import { addDays, DAY_MS, offsetHere } from '../../core/time/index.ts'
import { momentAt } from '../../core/week/index.ts'
import type { House } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { readHouse } from '../house/service.ts'
import { freshen } from '../standing/standing.ts'
import { overviewOf, type Overview } from '../today/overview.ts'
import { readAppointments, readAway } from './book.ts'
import { lengthOf, readDurations } from './length.ts'
import { openDue } from './visitOf.ts'

/** Who is wanted is told so many at once. */
const WANTS = 40
/** Whose good days are over for longer is not waited for every week. */
const LONG_OVER_MS = 42 * DAY_MS

export async function readWeek(db: Database, from: string, days: number): Promise<Week> {
  await openDue(db)
  await freshen(db)
  const nowMs = Date.now()
  const fromMs = momentAt(from, 0, offsetHere)
  const toMs = momentAt(addDays(from, days), 0, offsetHere)
  const house = await readHouse(db)
  const [appointments, away, wants] = await Promise.all([
    readAppointments(db, fromMs, toMs, nowMs),
    readAway(db, fromMs, toMs),
    wanted(db, house, fromMs, toMs, nowMs),
  ])
  return {
    ...{ from, days, nowMs, closed: house.closed, studio: house.studio, away, appointments },
    workers: house.workers.map(({ id, name, hours, services }) => ({ id, name, hours, services })),
    ...wants,
  }
}

/** Clients whose good days touch a stretch and who have no hour to come. */
async function wanted(
  db: Database,
  house: House,
  fromMs: number,
  toMs: number,
  nowMs: number,
): Promise<Pick<Week, 'wants' | 'more'>> {
  if (toMs < nowMs) return { wants: [], more: 0 }
  const rows = await db.select<{ clientId: string; workerId: string | null }>(
    `SELECT s.clientId, (SELECT workerId FROM visits l WHERE l.clientId = s.clientId AND l.state = 'finished'
         ORDER BY l.endedAtMs DESC LIMIT 1) AS workerId FROM standings s WHERE s.dueFromMs < ? AND s.dueToMs > ?
       AND NOT EXISTS (SELECT 1 FROM appointments a LEFT JOIN visits v ON v.id = a.visitId WHERE a.clientId = s.clientId
         AND a.startMs > ? AND a.state IN ('booked', 'confirmed', 'arrived') AND COALESCE(v.state, 'open') <> 'finished')
       AND NOT EXISTS (SELECT 1 FROM visits r WHERE r.clientId = s.clientId AND r.state = 'running')
     ORDER BY s.dueToMs`,
    [toMs, Math.max(fromMs, nowMs) - LONG_OVER_MS, nowMs - DAY_MS / 2],
  )
  const ids = rows.slice(0, WANTS).map((r) => r.clientId)
  const figures = figuresOf(house.figures)
  const [overview, durations] = await Promise.all([
    overviewOf(db, ids, Infinity),
    readDurations(db, figures),
  ])
  const of = new Map(overview.map((o) => [o.client.id, o]))
  const wants: WantRow[] = []
  const here = new Set(house.workers.map((w) => w.id))
  for (const { clientId: id, workerId: last } of rows.slice(0, WANTS)) {
    const workerId = last !== null && here.has(last) ? last : house.workerId
    const o = of.get(id)
    const window = o?.next?.window
    if (!o?.next || !window) continue
    const jobs = [o.next.job]
    const { minutes } = await lengthOf(
      db,
      figures,
      { clientId: id, workerId, services: servicesOf(jobs) },
      durations,
    )
    wants.push({
      ...{ clientId: id, name: o.client.name, workerId, jobs, minutes },
      ...{ fromMs: window.fromMs, toMs: window.toMs },
      seenByEnd: seenByEnd(figures, o),
      event: null,
    })
  }
  return { wants, more: Math.max(0, rows.length - WANTS) }
}

function seenByEnd(figures: Figures, { next, growth }: Overview): number | null {
  if (!next?.window) return null
  const last = upkeepLast(next)
  const own = Object.fromEntries(next.zones.map((z) => [z, growth[z]!]))
  const now = hairSince(figures, last, own, next.home)
  const zones = workedZones(now.leftMm ?? {})
  const at = next.window.toMs
  return seenOdds(figures, { endedAtMs: last.endedAtMs, growth: now.growth, zones }, at)
}
