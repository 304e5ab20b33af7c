/** What hours are worth to a client: what is believed of hair and skin, what holds a visit back, when they can come, what they wait for. */
import { eventQuestion, type ClientEvent, planBack, upkeepLast } from '../../core/ahead/index.ts'
import type { Figures } from '../../core/house/index.ts'
import { figuresOf } from '../../core/register/index.ts'
import { type Job, leadJob, servicesOf } from '../../core/services/index.ts'
import { DAY_MS, offsetHere } from '../../core/time/index.ts'
import {
  bothWishes,
  type Durations,
  hourAt,
  MIN_MS,
  NO_WISHES,
  type Wish,
  type Wishes,
} from '../../core/week/index.ts'
import type { House } from '../../contract/types.ts'
import { clearOf, modelNow, readHistory } from '../clients/model.ts'
import { json, type Json, type Reads } from '../db/reader.ts'
import { type Overview, overviewOf, seenOf } from '../today/overview.ts'
import { heldOn } from './due.ts'
import { lengthOf, plannedMin, readDurations } from './length.ts'

/** Somebody for whom an hour is looked for. */
export interface Seeker {
  readonly clientId: string
  readonly overview: Overview
  readonly jobs: readonly Job[]
  /** Who served them last, where they are still here. */
  readonly workerId: string
  /** Wishes for this hour alone, besides those that they always have. */
  readonly wishes?: Wishes | undefined
}

export interface EventAhead {
  readonly title: string
  readonly atMs: number
  /** Days that serve it, and until when a service may begin. */
  readonly fromMs: number
  readonly toMs: number
}

export interface Wished {
  readonly wish: Wish
  readonly seen: (atMs: number) => number
  readonly clear: (atMs: number) => number
  /** What holds a visit at that moment back, in words. */
  readonly held: (atMs: number) => string | undefined
  readonly event?: EventAhead
}

/** What is told of a client for the book alone. */
export interface ClientHours {
  readonly wishes: Wishes
  readonly first: boolean
}
export const NO_HOURS: ClientHours = { wishes: NO_WISHES, first: false }

const THESE = '(SELECT value FROM json_each(?))'

export async function readHours(
  db: Reads,
  ids: readonly string[],
): Promise<Map<string, ClientHours>> {
  const rows = await db.select<{ clientId: string; wishes: Json<Wishes>; first: 0 | 1 }>(
    `SELECT clientId, wishes, first FROM client_hours WHERE clientId IN ${THESE}`,
    [ids],
  )
  return new Map(rows.map((r) => [r.clientId, { wishes: json(r.wishes), first: r.first === 1 }]))
}

/** Events still to come, of those that have any. */
async function readEvents(
  db: Reads,
  ids: readonly string[],
  nowMs: number,
): Promise<Map<string, ClientEvent[]>> {
  const rows = await db.select<{ id: string; events: Json<ClientEvent[]> }>(
    `SELECT id, events FROM clients WHERE id IN ${THESE} AND json_array_length(events) > 0`,
    [ids],
  )
  return new Map(
    rows.map((r) => [
      r.id,
      json(r.events)
        .filter((e) => e.atMs > nowMs)
        .sort((a, b) => a.atMs - b.atMs),
    ]),
  )
}

/** At which hour of the day each client's last visits began, in the middle. */
async function usualHours(db: Reads, ids: readonly string[]): Promise<Map<string, number>> {
  const rows = await db.select<{ clientId: string; startMs: number }>(
    `SELECT clientId, startMs FROM (SELECT clientId, startMs, ROW_NUMBER() OVER (PARTITION BY clientId ORDER BY startMs DESC) AS n
       FROM appointments WHERE clientId IN ${THESE} AND state = 'arrived') WHERE n <= 6`,
    [ids],
  )
  const of = new Map<string, number[]>()
  for (const { clientId, startMs } of rows)
    of.set(clientId, [...(of.get(clientId) ?? []), hourAt(startMs, offsetHere)])
  return new Map(
    [...of].map(([id, hours]) => [id, hours.sort((a, b) => a - b)[hours.length >> 1]!]),
  )
}

/** Nobody knows yet when somebody without a visit is due: any day serves. */
const ALWAYS = { fromMs: 0, toMs: Number.MAX_SAFE_INTEGER }

/** What hours are worth to each, in the order of the seekers. */
export async function wishesOf(
  db: Reads,
  house: House,
  seekers: readonly Seeker[],
  known?: Durations,
): Promise<Wished[]> {
  const figures = figuresOf(house.figures)
  const nowMs = Date.now()
  const ids = [...new Set(seekers.map((s) => s.clientId))]
  const [durations, usual, own, events] = await Promise.all([
    known ?? readDurations(db, figures),
    usualHours(db, ids),
    readHours(db, ids),
    readEvents(db, ids, nowMs),
  ])
  const out: Wished[] = []
  for (const s of seekers) {
    const { clientId, overview, jobs } = s
    const services = servicesOf(jobs)
    const planned = await plannedMin(db, figures, clientId, services)
    const minutes = new Map<string, number>()
    for (const w of house.workers) {
      const of = { clientId, workerId: w.id, services }
      minutes.set(w.id, (await lengthOf(db, figures, of, durations, planned)).minutes)
    }
    const { next } = overview
    const seen = next ? seenOf(figures, overview) : () => 1
    const clear = next ? await clearOf(db, figures, overview.client, upkeepLast(next)) : () => 1
    const held = (atMs: number) => heldOn(figures, overview, house, atMs)
    const { wishes, first } = own.get(clientId) ?? NO_HOURS
    const { fromMs, toMs } = next?.window ?? ALWAYS
    const event = await eventOf(db, figures, house, s, events.get(clientId) ?? [], planned, nowMs)
    const usualHour = usual.get(clientId)
    out.push({
      ...{ seen, clear, held },
      ...(event && { event }),
      wish: {
        ...{ clientId, jobs, first, lastWorkerId: s.workerId },
        // What an event wants is served even where hair alone would not ask for a visit yet.
        fromMs: event ? Math.min(fromMs, event.fromMs) : fromMs,
        toMs,
        wishes: s.wishes ? bothWishes(wishes, s.wishes) : wishes,
        minutes: (workerId) => minutes.get(workerId) ?? 0,
        // What is known stops a visit before anybody is told an hour for it.
        odds: (atMs) => (held(atMs) === undefined ? seen(atMs) * clear(atMs) : 0),
        ...(event && { event, beforeMs: event.toMs + planned * MIN_MS }),
        ...(usualHour !== undefined && { usualHour }),
      },
    })
  }
  return out
}

/** The first event that a service can still be done in time for; skin and hair ask when. */
async function eventOf(
  db: Reads,
  figures: Figures,
  house: House,
  { clientId, overview, jobs }: Seeker,
  events: readonly ClientEvent[],
  minutes: number,
  nowMs: number,
): Promise<EventAhead | undefined> {
  if (events.length === 0) return undefined
  const { skin, schools } = overview.client
  const { service } = leadJob(jobs)
  const model = modelNow(figures, await readHistory(db, clientId), skin)
  const window = overview.next?.window ?? undefined
  for (const e of events) {
    const plan = planBack(
      figures,
      {
        ...eventQuestion(
          figures,
          {
            ...{ service, skin, model, schools: { ...house.schools, ...schools } },
            ...{ noFragrance: false, products: house.products, window, nowMs },
            ...{ closed: house.closed, offset: offsetHere },
          },
          e.kind,
          e.atMs,
        ),
        minutes,
      },
      false,
    )
    if (plan.latestMs > nowMs)
      return { title: e.title, atMs: e.atMs, fromMs: plan.earliestMs, toMs: plan.latestMs }
  }
  return undefined
}

/** The events of some clients that a service can still be in time for. */
export async function eventsAhead(
  db: Reads,
  house: House,
  seekers: readonly Seeker[],
  nowMs: number,
): Promise<Map<string, EventAhead>> {
  const figures = figuresOf(house.figures)
  const all = await readEvents(
    db,
    seekers.map((s) => s.clientId),
    nowMs,
  )
  const out = new Map<string, EventAhead>()
  for (const s of seekers) {
    const own = all.get(s.clientId)
    if (!own) continue
    const planned = await plannedMin(db, figures, s.clientId, servicesOf(s.jobs))
    const event = await eventOf(db, figures, house, s, own, planned, nowMs)
    if (event) out.set(s.clientId, event)
  }
  return out
}

/** Clients for whom an hour is looked for, whether their days are near or not. */
export async function seekersOf(
  db: Reads,
  house: House,
  of: readonly {
    readonly clientId: string
    readonly jobs: readonly Job[]
    readonly workerId?: string | undefined
    readonly wishes?: Wishes | undefined
  }[],
): Promise<Seeker[]> {
  const ids = [...new Set(of.map((o) => o.clientId))]
  const [overviews, lasts] = await Promise.all([
    overviewOf(db, ids, Infinity),
    db.select<{ clientId: string; workerId: string }>(
      `SELECT clientId, workerId FROM (SELECT clientId, workerId, ROW_NUMBER() OVER (PARTITION BY clientId ORDER BY endedAtMs DESC) AS n
         FROM visits WHERE state = 'finished' AND clientId IN ${THESE}) WHERE n = 1`,
      [ids],
    ),
  ])
  const overviewById = new Map(overviews.map((o) => [o.client.id, o]))
  const last = new Map(lasts.map((l) => [l.clientId, l.workerId]))
  const here = new Set(house.workers.map((w) => w.id))
  return of.flatMap(({ clientId, jobs, workerId, wishes }): Seeker[] => {
    const overview = overviewById.get(clientId)
    if (!overview) return []
    const served = last.get(clientId)
    const usual = served !== undefined && here.has(served) ? served : undefined
    return [{ clientId, overview, jobs, workerId: usual ?? workerId ?? house.workerId, wishes }]
  })
}

/** So far ahead hours are looked for. */
export const LOOK_AHEAD_MS = 42 * DAY_MS
