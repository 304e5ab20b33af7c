/**
 * The book: who comes when to whom. An appointment takes a worker, the client, a place to sit or lie and warm towels for as long as
 * it is booked. What cannot be is refused with its reason, and the nearest hours that work are told.
 */
import { constant, type Figures } from '../house/index.ts'
import { type Job, servicesOf, SERVICES, type ServiceId } from '../services/index.ts'
import {
  addDays,
  type ClosedDays,
  dateAt,
  type Offset,
  timeWords,
  whenWords,
} from '../time/index.ts'
import { listWords } from '../words.ts'
import {
  type Away,
  awayWords,
  type BookWorker,
  freeOn,
  hoursOn,
  openOn,
  type Stretch,
  without,
} from './hours.ts'

export const BOOK_CONSTANTS = {
  receptionMin: constant(5, 'min', 'Greeting, coat, what changed since', 'H'),
  turnoverMin: constant(10, 'min', 'Cleaning and disinfecting after a client', 'H'),
  warmTowelMin: constant(40, 'min', 'Until towels laid into the cabinet are hot again', 'H'),
  lateCancelHours: constant(24, 'h', 'Cancelled later than this before it is late', 'H'),
  latePastMin: constant(15, 'min', 'So long after an hour has passed it may still be booked', 'H'),
} as const

const C = BOOK_CONSTANTS

/** Everything in the book begins and ends on this. */
export const GRID_MIN = 5
export const LEAST_MIN = 5
export const MOST_MIN = 480
export const MIN_MS = 60_000
const GRID_MS = GRID_MIN * MIN_MS

/** What is kept of how an appointment stands; that it is in the chair or done is its visit's own. */
export const APPOINTMENT_STATES = ['booked', 'confirmed', 'arrived', 'missed', 'cancelled'] as const
export type AppointmentState = (typeof APPOINTMENT_STATES)[number]

export interface Appointment {
  readonly id: string
  readonly clientId: string
  readonly workerId: string
  readonly startMs: number
  readonly minutes: number
  readonly jobs: readonly Job[]
  readonly note: string
  readonly state: AppointmentState
  readonly cancelledAtMs: number | null
  /** How its visit stands, where it has one. */
  readonly visitState: 'open' | 'running' | 'finished' | null
}

export const STATUSES = [
  'booked', 'confirmed', 'arrived', 'in-chair', 'done', 'missed', 'cancelled', 'cancelled-late',
] as const // prettier-ignore
/** How an appointment stands. */
export type Status = (typeof STATUSES)[number]

export const STATUS_WORDS: Readonly<Record<Status, string>> = {
  booked: 'booked',
  confirmed: 'confirmed',
  arrived: 'arrived',
  'in-chair': 'in the chair',
  done: 'done',
  missed: 'did not come',
  cancelled: 'cancelled in time',
  'cancelled-late': 'cancelled late',
}

type Standing = Pick<Appointment, 'state' | 'visitState' | 'cancelledAtMs' | 'startMs'>

export function statusOf(figures: Figures, a: Standing): Status {
  if (a.visitState === 'running') return 'in-chair'
  if (a.visitState === 'finished') return 'done'
  if (a.state === 'cancelled')
    return a.startMs - (a.cancelledAtMs ?? a.startMs) < figures(C.lateCancelHours) * 60 * MIN_MS
      ? 'cancelled-late'
      : 'cancelled'
  return a.state
}

/** It takes its time in the book. */
export const standsInBook = (a: Pick<Appointment, 'state'>): boolean =>
  a.state !== 'cancelled' && a.state !== 'missed'

/** It may still be moved, and told to stand otherwise. */
export const isSettled = (a: Pick<Appointment, 'visitState'>): boolean =>
  a.visitState === 'running' || a.visitState === 'finished'

export const endMs = (a: Pick<Appointment, 'startMs' | 'minutes'>): number =>
  a.startMs + a.minutes * MIN_MS

/** What a house has of places and of warm towels. */
export interface Studio {
  readonly chairs: number
  readonly beds: number
  /** Warm towels that the cabinet holds. */
  readonly towels: number
  /** Blades of a kind that are to hand. */
  readonly blades: Readonly<Record<string, number>>
  /** So many hours before their own clients are reminded. */
  readonly reminders: readonly number[]
}

export const USUAL_STUDIO: Studio = { chairs: 2, beds: 1, towels: 8, blades: {}, reminders: [48] }

/** All that an hour is looked up in. */
export interface Book {
  readonly nowMs: number
  readonly offset: Offset
  readonly closed: ClosedDays
  readonly workers: readonly BookWorker[]
  readonly away: readonly Away[]
  readonly studio: Studio
  /** Around the hour that is asked about. */
  readonly appointments: readonly Appointment[]
}

/** An appointment as it is wanted. */
export type Wanted = Pick<
  Appointment,
  'id' | 'clientId' | 'workerId' | 'startMs' | 'minutes' | 'jobs'
>

/** Warm towels that a sitting takes, one of them kept back included. */
export const towelsOf = (figures: Figures, jobs: readonly Job[]): number =>
  servicesOf(jobs).reduce((sum, s) => {
    const { towels } = SERVICES[s]
    return sum + (typeof towels === 'number' ? towels : figures(towels))
  }, 0)

/** Where a sitting takes place: on the bed where one of its services wants it. */
export const placeOf = (jobs: readonly Job[]): 'chair' | 'bed' =>
  servicesOf(jobs).some((s) => SERVICES[s].station === 'bed') ? 'bed' : 'chair'

/** What a stretch of time takes of something there are so many of. */
export interface Use extends Stretch {
  readonly of: string
  readonly many: number
}

/** All that an appointment takes, besides the worker and the client. */
export function usesOf(
  figures: Figures,
  a: Pick<Appointment, 'startMs' | 'minutes' | 'jobs'>,
): Use[] {
  const towels = towelsOf(figures, a.jobs)
  const until = endMs(a)
  return [
    { of: placeOf(a.jobs), many: 1, fromMs: a.startMs, toMs: until },
    ...(towels > 0
      ? [
          {
            ...{ of: 'towels', many: towels, fromMs: a.startMs },
            toMs: a.startMs + figures(C.warmTowelMin) * MIN_MS,
          },
        ]
      : []),
  ]
}

/** Most of something that is taken at once within a stretch. */
export function mostTaken(uses: readonly Use[], of: string, within: Stretch): number {
  const own = uses.filter(
    (u) => u.of === of && u.fromMs < within.toMs && u.toMs > within.fromMs && u.many > 0,
  )
  // It is most where one of them begins.
  return own.reduce((most, { fromMs }) => {
    const at = Math.max(fromMs, within.fromMs)
    const sum = own.reduce((s, u) => (u.fromMs <= at && u.toMs > at ? s + u.many : s), 0)
    return Math.max(most, sum)
  }, 0)
}

export const BREACHES = [
  'length', 'grid', 'past', 'worker', 'closed', 'hours', 'break', 'away', 'licence', 'overlap', 'client', 'chair', 'bed', 'towels',
] as const // prettier-ignore

export interface Breach {
  readonly kind: (typeof BREACHES)[number]
  /** A whole sentence. */
  readonly text: string
}

const overlaps = (a: Stretch, b: Stretch) => a.fromMs < b.toMs && a.toMs > b.fromMs
const stretchOf = (a: Pick<Appointment, 'startMs' | 'minutes'>): Stretch => ({
  fromMs: a.startMs,
  toMs: endMs(a),
})
const inside = (s: Stretch, all: readonly Stretch[]) =>
  all.some((o) => o.fromMs <= s.fromMs && o.toMs >= s.toMs)

/** Services of a sitting that a worker may not do. */
export const notLicensed = (
  worker: Pick<BookWorker, 'services'>,
  jobs: readonly Job[],
): ServiceId[] => servicesOf(jobs).filter((s) => worker.services && !worker.services.includes(s))

/** What speaks against an appointment as it is wanted; nothing where it can be. */
export function breaches(figures: Figures, book: Book, wanted: Wanted): Breach[] {
  const out: Breach[] = []
  const say = (kind: Breach['kind'], text: string) => void out.push({ kind, text })
  const { startMs, minutes } = wanted
  if (!(minutes >= LEAST_MIN && minutes <= MOST_MIN))
    say('length', `An appointment takes ${LEAST_MIN} minutes to ${MOST_MIN / 60} hours.`)
  if (startMs % GRID_MS !== 0 || minutes % GRID_MIN !== 0)
    say('grid', `The book goes by ${GRID_MIN} minutes.`)
  if (startMs < book.nowMs - figures(C.latePastMin) * MIN_MS)
    say('past', `${whenWords(startMs)} is over.`)
  const worker = book.workers.find((w) => w.id === wanted.workerId)
  if (!worker) {
    say('worker', 'That worker is not of this house.')
    return out
  }
  const own = stretchOf(wanted)
  const { closed, offset } = book
  const date = dateAt(startMs, offset)
  const open = openOn(closed, date, offset)
  const hours = hoursOn(closed, worker, date, offset)
  const first = worker.name.split(' ')[0]!
  if (!open) say('closed', `The house is closed on ${dayOf(startMs)}.`)
  else if (!inside(own, [open]))
    say(
      'hours',
      `The house is open from ${timeWords(open.fromMs)} to ${timeWords(open.toMs)} that day.`,
    )
  else if (hours.length === 0) say('hours', `${first} does not work on that day.`)
  else if (!inside(own, hours)) {
    const whole = { fromMs: hours[0]!.fromMs, toMs: hours.at(-1)!.toMs }
    const pause = without([whole], hours).find((p) => overlaps(p, own))
    if (inside(own, [whole]) && pause)
      say(
        'break',
        `${first} has a break from ${timeWords(pause.fromMs)} to ${timeWords(pause.toMs)}.`,
      )
    else
      say(
        'hours',
        `${first} works from ${timeWords(whole.fromMs)} to ${timeWords(whole.toMs)} that day.`,
      )
  }
  const gone = book.away.find(
    (a) => (a.workerId === null || a.workerId === worker.id) && overlaps(a, own),
  )
  if (gone)
    say(
      'away',
      `${gone.workerId === null ? 'The house is closed' : `${first} is away`} from ${awayWords(gone, offset)}${gone.why ? `: ${gone.why}` : ''}.`,
    )
  const not = notLicensed(worker, wanted.jobs)
  if (not.length > 0)
    say(
      'licence',
      `${first} does not do ${listWords(not.map((s) => SERVICES[s].name.toLowerCase()))}.`,
    )
  const others = book.appointments.filter((a) => a.id !== wanted.id && standsInBook(a))
  const taken = others.find((a) => a.workerId === worker.id && overlaps(stretchOf(a), own))
  if (taken)
    say(
      'overlap',
      `${first} has somebody from ${timeWords(taken.startMs)} to ${timeWords(endMs(taken))}.`,
    )
  const twice = others.find((a) => a.clientId === wanted.clientId && overlaps(stretchOf(a), own))
  if (twice && twice !== taken)
    say(
      'client',
      `The client is already booked from ${timeWords(twice.startMs)} to ${timeWords(endMs(twice))}.`,
    )
  const near = others.flatMap((a) => usesOf(figures, a))
  for (const use of usesOf(figures, wanted)) {
    const has = capacityOf(book.studio, use.of)
    if (mostTaken(near, use.of, use) + use.many > has)
      say(use.of as Breach['kind'], fullWords(use.of, has))
  }
  return out
}

/** How many there are. */
export const capacityOf = (studio: Studio, of: string): number =>
  of === 'bed' ? studio.beds : of === 'chair' ? studio.chairs : studio.towels

const fullWords = (of: string, has: number) =>
  of === 'towels'
    ? `The cabinet has ${has} warm towels, and the others take them then.`
    : has === 0
      ? `The house has no ${of}.`
      : has === 1
        ? `The ${of} is taken then.`
        : `All ${has} ${of}s are taken then.`

const dayOf = (ms: number) => whenWords(ms).split(',')[0]!

/** An hour that works. */
export interface Hour {
  readonly workerId: string
  readonly startMs: number
}

/** So far around an hour another one is looked for, days. */
const LOOK_DAYS = 21

/**
 * The nearest hours that work, the nearest first: with the worker who is wanted, and then one with another where that is nearer.
 * @param many how many at most
 */
export function nearestThatWork(
  figures: Figures,
  book: Book,
  wanted: Wanted,
  many = 3,
): readonly Hour[] {
  const date = dateAt(wanted.startMs, book.offset)
  const found: (Hour & { far: number })[] = []
  const able = book.workers.filter((w) => notLicensed(w, wanted.jobs).length === 0)
  const far = (h: Hour) =>
    // Another worker is as far as two hours more.
    Math.abs(h.startMs - wanted.startMs) + (h.workerId === wanted.workerId ? 0 : 120 * MIN_MS)
  for (let away = 0; away <= LOOK_DAYS; away++) {
    for (const day of away === 0 ? [date] : [addDays(date, away), addDays(date, -away)]) {
      for (const worker of able)
        for (const startMs of startsOn(figures, book, wanted, worker, day)) {
          const hour = { workerId: worker.id, startMs }
          found.push({ ...hour, far: far(hour) })
        }
    }
    const picked = apart(found, wanted, many)
    if (picked.length === many || away === LOOK_DAYS) return picked
  }
  return []
}

/** The nearest of them; hours of one worker that follow each other at once tell nothing new. */
function apart(
  found: readonly (Hour & { readonly far: number })[],
  wanted: Pick<Wanted, 'minutes'>,
  many: number,
): Hour[] {
  const picked: Hour[] = []
  for (const { workerId, startMs } of [...found].sort((a, b) => a.far - b.far)) {
    const near = picked.some(
      (p) => p.workerId === workerId && Math.abs(p.startMs - startMs) < wanted.minutes * MIN_MS,
    )
    if (!near) picked.push({ workerId, startMs })
    if (picked.length === many) break
  }
  return picked
}

/** All starts of a day at which a sitting can be with a worker. */
export function startsOn(
  figures: Figures,
  book: Book,
  wanted: Omit<Wanted, 'startMs' | 'workerId'>,
  worker: BookWorker,
  date: string,
): number[] {
  if (notLicensed(worker, wanted.jobs).length > 0) return []
  const free = freeOn(book.closed, worker, book.away, date, book.offset)
  if (free.length === 0) return []
  const day = { fromMs: free[0]!.fromMs - 60 * MIN_MS, toMs: free.at(-1)!.toMs + 60 * MIN_MS }
  const others = book.appointments.filter(
    (a) => a.id !== wanted.id && standsInBook(a) && overlaps(stretchOf(a), day),
  )
  const blocked = others
    .filter((a) => a.workerId === worker.id || a.clientId === wanted.clientId)
    .map(stretchOf)
  const uses = others.flatMap((a) => usesOf(figures, a))
  const needs = usesOf(figures, { ...wanted, startMs: 0 })
  const starts: number[] = []
  for (const gap of without(free, blocked)) {
    const first = Math.ceil(Math.max(gap.fromMs, book.nowMs) / GRID_MS) * GRID_MS
    for (let at = first; at + wanted.minutes * MIN_MS <= gap.toMs; at += GRID_MS) {
      const fits = needs.every((n) => {
        const within = { fromMs: n.fromMs + at, toMs: n.toMs + at }
        const taken = uses.length === 0 ? 0 : mostTaken(uses, n.of, within)
        return taken + n.many <= capacityOf(book.studio, n.of)
      })
      if (fits) starts.push(at)
    }
  }
  return starts
}
