/** Weeks by chance: what is proposed can be booked one after the other, by the rules of the book alone; the bound holds. */
import { DEFAULTS } from '../house/index.ts'
import { type Job, oneJob } from '../services/index.ts'
import { mulberry32 } from '../stats/index.ts'
import { addDays, DAY_MS, type Offset, USUALLY_CLOSED } from '../time/index.ts'
import { type Appointment, type Book, breaches, MIN_MS, standsInBook } from './book.ts'
import { hourAt, momentAt } from './hours.ts'
import { pack, unfit } from './packing.ts'
import { weekProblem, type Wish } from './propose.ts'

const FACE: Job[] = [oneJob('f', 'face-shave')]
const PEEL: Job[] = [oneJob('d', 'dermaplane')]

/** A week by chance, with what is booked already, time away, and who is due. */
function aWeek(seed: number, first: string, offset: Offset, clients = 12) {
  const random = mulberry32(seed)
  const upTo = (n: number) => Math.floor(n * random())
  const dates = Array.from({ length: 7 }, (_, i) => addDays(first, i))
  const at = (day: number, hour: number) => momentAt(dates[day]!, hour, offset)
  const workers = [
    { id: 'w0', name: 'Ines', hours: { '2': [[9, 12.5], [13, 18]], '3': [[10, 16]] } },
    { id: 'w1', name: 'Joren', ...(random() < 0.5 && { services: ['dermaplane' as const] }) },
  ] // prettier-ignore
  const appointments: Appointment[] = []
  const book: Book = {
    ...{ nowMs: at(0, 8 + upTo(30)), offset, closed: USUALLY_CLOSED, workers, appointments },
    away: [{ id: 'a', workerId: 'w1', fromMs: at(2, 11), toMs: at(2, 15), why: '' }],
    studio: { chairs: 1 + upTo(2), beds: upTo(2), towels: 2 + upTo(7), blades: {}, reminders: [] },
  }
  for (let i = 0; i < 14; i++) {
    const own: Appointment = {
      ...{ id: `b${i}`, clientId: `x${i}`, workerId: `w${upTo(2)}`, minutes: 20 + 5 * upTo(12) },
      ...{ startMs: at(upTo(7), 9 + upTo(96) / 12), jobs: random() < 0.7 ? FACE : PEEL, note: '' },
      ...{ state: random() < 0.8 ? 'booked' : 'cancelled', cancelledAtMs: null, visitState: null },
    }
    if (breaches(DEFAULTS, { ...book, nowMs: 0 }, own).length === 0) appointments.push(own)
  }
  const wishes = Array.from({ length: clients }, (_, i): Wish => {
    const fromMs = at(0, 0) + random() * 6 * DAY_MS
    const toMs = fromMs + (0.5 + 3 * random()) * DAY_MS
    const minutes = 25 + 5 * upTo(10)
    return {
      ...{ clientId: `c${i}`, jobs: random() < 0.7 ? FACE : PEEL, fromMs, toMs },
      ...{ minutes: () => minutes, lastWorkerId: `w${upTo(2)}`, usualHour: 9 + 8 * random() },
      odds: (ms) => 1 / (1 + Math.exp((fromMs - ms) / DAY_MS)),
      ...(random() < 0.3 && { beforeMs: at(upTo(7), 14) }),
    }
  })
  return { dates, book, wishes }
}

function hold(seed: number, first: string, offset: Offset): number {
  const { dates, book, wishes } = aWeek(seed, first, offset)
  const { arrays, places } = weekProblem(DEFAULTS, book, wishes, dates)
  const { chosen, value, bound } = pack(arrays, { rounds: 40 })
  expect(unfit(arrays, chosen)).toBeUndefined()
  expect(bound).toBeGreaterThanOrEqual(value - 1e-9)
  // Booked one after the other: nothing speaks against any of them.
  const booked = book.appointments.filter(standsInBook)
  const placed = [...chosen].flatMap((at) => (at < 0 ? [] : [places[at]!]))
  for (const { wish, workerId, startMs, minutes } of placed) {
    const { clientId, jobs, fromMs, beforeMs = Infinity } = wishes[wish]!
    const wanted = { id: clientId, clientId, workerId, startMs, minutes, jobs }
    expect(breaches(DEFAULTS, { ...book, appointments: booked }, wanted)).toEqual([])
    expect(startMs).toBeGreaterThanOrEqual(fromMs)
    expect(startMs + minutes * MIN_MS).toBeLessThanOrEqual(beforeMs)
    booked.push({
      ...{ ...wanted, note: '', state: 'booked', cancelledAtMs: null, visitState: null },
    })
  }
  return placed.length
}

it('of 500 weeks all that is proposed can be booked, and the bound holds', () => {
  let placed = 0
  for (let seed = 1; seed <= 500; seed++) placed += hold(seed, '2026-11-30', 0)
  expect(placed).toBeGreaterThan(500)
})

it('holds in the weeks in which the clocks change, at hours of the clock on the wall', () => {
  const utc = (text: string) => Date.parse(`${text}Z`)
  const paris: Offset = (ms) =>
    ms >= utc('2026-03-29T01:00') && ms < utc('2026-10-25T01:00') ? 120 : 60
  for (const first of ['2026-03-26', '2026-10-22'])
    for (let seed = 1; seed <= 15; seed++) hold(seed, first, paris)
  const { dates, book, wishes } = aWeek(3, '2026-10-22', paris)
  const { places } = weekProblem(
    DEFAULTS,
    { ...book, closed: { weekdays: [], dates: [] } },
    wishes,
    dates,
  )
  for (const p of places) {
    expect(hourAt(p.startMs, paris)).toBeGreaterThanOrEqual(9)
    expect(hourAt(p.startMs + p.minutes * MIN_MS, paris)).toBeLessThanOrEqual(18)
  }
})

it('prefers the day that serves best, the usual worker and hour, and leaves no gap that nobody fits into', () => {
  const dates = ['2026-12-01', '2026-12-02']
  const workers = [
    { id: 'w0', name: 'Ines' },
    { id: 'w1', name: 'Joren' },
  ]
  const at = (day: number, hour: number) => momentAt(dates[day]!, hour, 0)
  const book: Book = {
    ...{ nowMs: at(0, 0), offset: 0, closed: { weekdays: [], dates: [] }, workers, away: [] },
    ...{ studio: { chairs: 2, beds: 1, towels: 8, blades: {}, reminders: [] }, appointments: [] },
  }
  const wish: Wish = {
    ...{ clientId: 'c', jobs: FACE, minutes: () => 60, fromMs: at(0, 0), toMs: at(1, 24) },
    ...{ lastWorkerId: 'w1', usualHour: 14, odds: (ms) => (ms > at(1, 0) ? 0.9 : 0.7) },
  }
  const best = (b: Book, w: Wish) => {
    const { arrays, places } = weekProblem(DEFAULTS, b, [w], dates)
    return places[pack(arrays).chosen[0]!]!
  }
  expect(best(book, wish)).toMatchObject({ workerId: 'w1', startMs: at(1, 14) })
  const ends: Appointment = {
    ...{ id: 'a', clientId: 'x', workerId: 'w1', startMs: at(1, 13), minutes: 50, jobs: FACE },
    ...{ note: '', state: 'booked', cancelledAtMs: null, visitState: null },
  }
  // Ten minutes that nobody fits into cost more than ten minutes off the usual hour.
  expect(best({ ...book, appointments: [ends] }, wish).startMs).toBe(at(1, 13 + 50 / 60))
  expect(best(book, { ...wish, beforeMs: at(1, 9) }).startMs).toBe(at(0, 14))
})
