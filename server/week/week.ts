/** The book of some days, and who these days want. */
import type { Week, WantRow } from '../../contract/week.ts'
import { figuresOf } from '../../core/register/index.ts'
import { servicesOf } from '../../core/services/index.ts'
import { addDays, offsetHere } from '../../core/time/index.ts'
import { momentAt } from '../../core/week/index.ts'
import type { House } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { readHouse } from '../house/service.ts'
import { freshen } from '../standing/standing.ts'
import { readAppointments, readAway } from './book.ts'
import { seenOf } from '../today/overview.ts'
import { dueClients, heldOn } from './due.ts'
import { lengthOf, readDurations } from './length.ts'
import { readOffers } from './offers.ts'
import { sweepReminders } from './reminders.ts'
import { openDue } from './visitOf.ts'
import { readWaiting } from './waiting.ts'
import { eventsAhead } from './wish.ts'

/** Who is wanted is told so many at once. */
const WANTS = 40

/** @param base the address of the pages on which clients answer */
export async function readWeek(
  db: Database,
  from: string,
  days: number,
  base: string,
): Promise<Week> {
  await openDue(db)
  await sweepReminders(db, base)
  await freshen(db)
  const nowMs = Date.now()
  const fromMs = momentAt(from, 0, offsetHere)
  const toMs = momentAt(addDays(from, days), 0, offsetHere)
  const house = await readHouse(db)
  const [appointments, away, wants, waiting, offers] = await Promise.all([
    readAppointments(db, fromMs, toMs, nowMs),
    readAway(db, fromMs, toMs),
    wanted(db, house, fromMs, toMs, nowMs),
    readWaiting(db, nowMs),
    readOffers(db, nowMs),
  ])
  return {
    ...{ from, days, nowMs, closed: house.closed, studio: house.studio, away, appointments },
    workers: house.workers.map(({ id, name, hours, services }) => ({ id, name, hours, services })),
    ...{ ...wants, waiting, offers },
  }
}

async function wanted(
  db: Database,
  house: House,
  fromMs: number,
  toMs: number,
  nowMs: number,
): Promise<Pick<Week, 'wants' | 'more'>> {
  const figures = figuresOf(house.figures)
  const { due, all } = await dueClients(db, house, { fromMs, toMs, nowMs, most: WANTS })
  const wants: WantRow[] = []
  if (due.length === 0) return { wants, more: 0 }
  const [durations, events] = await Promise.all([
    readDurations(db, figures),
    eventsAhead(db, house, due, nowMs),
  ])
  for (const d of due) {
    const { clientId, workerId, overview, next, jobs } = d
    const event = events.get(clientId)
    const of = { clientId, workerId, services: servicesOf(jobs) }
    const { minutes } = await lengthOf(db, figures, of, durations)
    const { window } = next
    wants.push({
      ...{ clientId, workerId, name: overview.client.name, jobs, minutes },
      ...{ fromMs: window.fromMs, toMs: window.toMs },
      held: heldOn(figures, overview, house, Math.max(nowMs, fromMs)) ?? null,
      seenByEnd: seenOf(figures, overview)(window.toMs),
      event: event ? { name: event.title, atMs: event.atMs, byMs: event.toMs } : null,
    })
  }
  return { wants, more: Math.max(0, all - WANTS) }
}
