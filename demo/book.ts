/** The book of Lantern Quay: four weeks ahead, with what happens in a house. */
import { DEFAULTS } from '../core/house/index.ts'
import { type Job, oneJob, SERVICES } from '../core/services/index.ts'
import { mulberry32 } from '../core/stats/index.ts'
import { addDays, dateAt, DAY_MS, HOUR_MS, isClosed, offsetHere } from '../core/time/index.ts'
import {
  type Appointment,
  type Away,
  type Book,
  MIN_MS,
  momentAt,
  nearestThatWork,
  NO_WISHES,
  type Studio,
  type Wishes,
  type WorkerHours,
} from '../core/week/index.ts'
import { closedAt } from './days.ts'
import type { Person } from './people.ts'
import { idMaker } from './visits.ts'

export const STUDIO_PLACES: Studio = {
  chairs: 2,
  beds: 1,
  towels: 8,
  blades: { shavette: 40 },
  reminders: [48, 3],
}

const WEEKDAYS = [0, 1, 2, 3, 4, 5, 6]
/** The barber's lunch moves with her work of today; the esthetician begins late on one day, and has one off. */
export const HOURS: readonly ((nowMs: number) => WorkerHours)[] = [
  () => Object.fromEntries(WEEKDAYS.map((d) => [d, [[9, 12.5], [13, 18]]])),
  (nowMs) => {
    const today = new Date(nowMs).getDay()
    return { [(today + 2) % 7]: [[11, 18]], [(today + 5) % 7]: [] }
  },
] // prettier-ignore

/** Who comes of those who have no hour today: the others are whom the week wants. */
const COMES = (i: number) => i % 3 !== 1
const WEEKS_AHEAD_MS = 26 * DAY_MS

interface Waits {
  readonly id: string
  readonly clientId: string
  readonly jobs: readonly Job[]
  readonly wishes: Wishes
  readonly note: string
  readonly sinceMs: number
}

type Kept = Appointment & { readonly madeAtMs: number }

/** Appointments to come and of the last days, and time away. */
export function bookAhead(
  people: readonly Person[],
  clients: readonly { readonly id: string }[],
  workers: readonly { readonly id: string; readonly name: string }[],
  nowMs: number,
): {
  appointments: Kept[]
  away: (Away & { source: string })[]
  waiting: readonly Waits[]
  hours: readonly { clientId: string; wishes: Wishes; first: number }[]
} {
  const newId = idMaker(mulberry32(0xb00c))
  const closed = closedAt(nowMs)
  const today = dateAt(nowMs, offsetHere)
  /** The open day so many open days ahead (or back). */
  const day = (ahead: number) => {
    let date = today
    for (let left = Math.abs(ahead); left > 0;) {
      date = addDays(date, Math.sign(ahead))
      if (!isClosed(closed, date)) left--
    }
    return date
  }
  const at = (ahead: number, hour: number) => momentAt(day(ahead), hour, offsetHere)
  const away = [
    { workerId: workers[0]!.id, fromMs: at(3, 14), toMs: at(3, 18), why: 'boat survey' },
    { workerId: workers[1]!.id, fromMs: at(6, 9), toMs: at(6, 18), why: 'course' },
    { workerId: null, fromMs: at(9, 9), toMs: at(9, 18), why: 'harbour fair' },
  ].map((a) => ({ id: newId(), source: 'hand', ...a }))
  const appointments: Kept[] = []
  const book: Book = {
    ...{ nowMs, offset: offsetHere, closed, away, appointments, studio: STUDIO_PLACES },
    workers: workers.map((w, i) => ({ ...w, hours: HOURS[i]!(nowMs) })),
  }
  const put = (person: number, startMs: number, over: Partial<Kept> = {}) => {
    const { service, worker } = people[person]!
    const minutes = 5 * Math.ceil((DEFAULTS(SERVICES[service].slotMin) + 15) / 5)
    appointments.push({
      ...{ id: newId(), clientId: clients[person]!.id, workerId: workers[worker]!.id, startMs },
      ...{ minutes, jobs: [oneJob(newId(), service)], note: '', state: 'booked' },
      ...{ cancelledAtMs: null, visitState: null, madeAtMs: nowMs - 3 * DAY_MS },
      ...over,
    })
  }
  for (const [
    i,
    { everyDays, lastDaysAgo, slotHour, worker, service, story },
  ] of people.entries()) {
    if (everyDays === undefined || lastDaysAgo === undefined || story === 'left-open') continue
    const first = slotHour === undefined ? everyDays - lastDaysAgo : everyDays
    if (!COMES(i)) continue
    // Whoever comes often has the time after that in the book as well.
    for (let ahead = Math.max(1, first), n = 0; n < 2; ahead += everyDays, n++) {
      const wantedMs = momentAt(addDays(today, Math.round(ahead)), 9.5 + ((i * 5) % 8), offsetHere)
      if (wantedMs - nowMs > WEEKS_AHEAD_MS) break
      const minutes = 5 * Math.ceil((DEFAULTS(SERVICES[service].slotMin) + 15) / 5)
      const [hour] = nearestThatWork(DEFAULTS, book, {
        ...{ id: '', clientId: clients[i]!.id, workerId: workers[worker]!.id, startMs: wantedMs },
        ...{ minutes, jobs: [oneJob(newId(), service)] },
      })
      if (hour)
        put(i, hour.startMs, {
          workerId: hour.workerId,
          state: n === 0 && i % 4 === 0 ? 'confirmed' : 'booked',
        })
    }
  }
  const of = (name: string) => people.findIndex((p) => p.name.startsWith(name))
  if (of('Anselm') >= 0 && of('Noor') >= 0) {
    // One did not come, one cancelled an hour before.
    put(of('Anselm'), at(-1, 11), { state: 'missed' })
    put(of('Noor'), at(-2, 15), { state: 'cancelled', cancelledAtMs: at(-2, 15) - HOUR_MS })
    // Two were given the same hour on paper.
    const clash = at(2, 10)
    put(of('Dov'), clash, { note: 'rang the shop' })
    put(of('Anselm'), clash + 30 * MIN_MS, {
      workerId: workers[0]!.id,
      note: 'written down by Joren',
    })
  }
  // Two wait: one for an evening, one for anything sooner than the hour they have.
  const waits = (name: string, daysAgo: number, wishes: Partial<Wishes>, note: string): Waits[] => {
    const i = of(name)
    if (i < 0) return []
    return [
      {
        ...{ id: newId(), clientId: clients[i]!.id, jobs: [oneJob(newId(), people[i]!.service)] },
        ...{ wishes: { ...NO_WISHES, ...wishes }, note, sinceMs: nowMs - daysAgo * DAY_MS },
      },
    ]
  }
  const waiting = [
    ...waits('Corin', 4, { fromHour: 15 }, 'after the ferry'),
    ...waits('Petra', 2, {}, 'sooner, if anybody cancels'),
  ]
  const can = (name: string, wishes: Partial<Wishes>, first = 0) => {
    const i = of(name)
    return i < 0 ? [] : [{ clientId: clients[i]!.id, wishes: { ...NO_WISHES, ...wishes }, first }]
  }
  const hours = [
    ...can('Emeka', { days: [1, 2, 3, 4, 5], toHour: 17 }),
    // The rescue boat waits for nobody.
    ...can('Anselm', {}, 1),
  ]
  return {
    appointments: appointments.map(({ visitState: _v, ...a }) => a as Kept),
    ...{ away, waiting, hours },
  }
}
