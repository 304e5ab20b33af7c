/** The visits of Lantern Quay: those that are over, the one that was left open, today's. */
import { replay } from '../core/chair/index.ts'
import type { SkinAndHair } from '../core/client.ts'
import type { Reading, ReaderSeen } from '../core/grain/index.ts'
import type { SurfaceNotes } from '../core/hair/index.ts'
import { learnSkin, sumLoads } from '../core/history/index.ts'
import { DEFAULTS, DEFAULT_SCHOOLS, type Schools } from '../core/house/index.ts'
import { summariseAnswers } from '../core/looks/index.ts'
import { carriedAnswers, type Asked, type Consent, type SkinMark } from '../core/screening/index.ts'
import { byRoot, type Style } from '../core/services/index.ts'
import { mulberry32 } from '../core/stats/index.ts'
import { whenWords, addDays, dateOf, DAY_MS, HOUR_MS, offsetHere } from '../core/time/index.ts'
import { type PlanGround, finishService } from '../core/visit/index.ts'
import { closedAt } from './days.ts'
import { hairReadings, skinAnswers, type Truth } from './outcomes.ts'
import { STUDIO, TRUE_PACES, type Person } from './people.ts'
import { jobsOf, nothingFound, signed, type Nth, type Planner } from './plans.ts'
import { eventRow, kitOf, serviceEvents, withMisses } from './services.ts'

/** Messages of older visits are of no use any more. */
const MESSAGES_KEPT_DAYS = 14

/** Ids from the seed, in the shape of a version 4 UUID. */
export function idMaker(random: () => number): () => string {
  const hex = (n: number) =>
    Array.from({ length: n }, () => Math.floor(random() * 16).toString(16)).join('')
  return () => `${hex(8)}-${hex(4)}-4${hex(3)}-8${hex(3)}-${hex(12)}`
}

export interface Rows {
  clients: object[]
  visits: object[]
  readings: object[]
  events: object[]
  answers: object[]
  plans: object[]
  hair: object[]
  kit: object[]
  messages: object[]
  home: object[]
}

export const readingRow = (r: Reading, clientId: string, visitId: string) => ({
  id: r.id,
  clientId,
  visitId,
  zoneId: r.zoneId,
  at: { point: r.point, normal: r.normal, tangent: r.tangent },
  method: r.method,
  atMs: r.atMs,
})

interface VisitStory {
  readonly person: Person
  readonly truth: Truth
  readonly clientId: string
  readonly visitId: string
  readonly worker: { id: string; hand: 'right' | 'left' }
  readonly atMs: number
  readonly nowMs: number
  readonly spots: readonly SkinMark[]
  readonly notes: SurfaceNotes
  readonly ground: PlanGround
  readonly planned: Planner
  readonly skin: SkinAndHair
  readonly schools: Schools
  readonly style: Style
  readonly bumpFactor: number
  readonly routine: string
  /** It was answered that this is the first of its kind. */
  readonly first: boolean
  readonly silentLately: boolean
  readonly settled: boolean
  readonly nth: Nth
  readonly consent: Consent
  /** What the visit's own readings told of whoever made them. */
  readonly reader: ReaderSeen | undefined
}

export function addVisit(
  v: VisitStory,
  random: () => number,
  newId: () => string,
  rows: Rows,
): void {
  const { person, atMs } = v
  const found = nothingFound(v.spots)
  const asked = {
    ...found,
    answers: { ...found.answers, ...(v.first && { 'first-ever': { yes: true } }) },
    consent: v.consent,
  }
  const { plan, packed } = v.planned(v)
  const own = mulberry32(Number.parseInt(v.visitId.slice(0, 8), 16))
  const events = withMisses(
    serviceEvents(plan, v.skin, atMs, random, newId, TRUE_PACES[person.worker]),
    plan,
    person.worker,
    own,
    idMaker(own),
  )
  const state = replay(plan, events)
  const end = finishService(
    DEFAULTS,
    {
      ...{
        plan,
        state,
        skin: v.skin,
        hairLayer: v.notes.hair,
        calledName: person.called ?? person.name,
      },
      ...{ products: [], answers: [], hair: [] },
      skinOf: learnSkin(DEFAULTS, v.skin, []),
    },
    { name: STUDIO.name, products: [], closed: closedAt(v.nowMs) },
    whenWords,
    offsetHere,
  )
  const { endedAtMs, atChair } = end
  const loads = sumLoads(end.jobs)
  // Of what came out by its root nobody tells how it grew.
  const leftMm: Record<string, number> = {}
  for (const job of end.jobs) if (!byRoot(job.method)) Object.assign(leftMm, job.leftMm)
  const service = {
    ...v,
    endedAtMs,
    loads,
    leftMm,
    nicks: state.nicks.map((n) => n.id),
  }
  // How much of what follows is there yet hangs on the hour: it draws from chances and ids of its own, so that the stories of
  // everybody else stay as they are told.
  const chance = () => mulberry32(Math.floor(random() * 2 ** 32))
  const [later, laterId] = [chance(), idMaker(chance())]
  const answers = skinAnswers(service, later, laterId)
  rows.events.push(...events.map((e) => eventRow(e, v.visitId, plan)))
  rows.kit.push(...kitOf(v.visitId, plan, events, newId))
  rows.plans.push({ visitId: v.visitId, plan: packed, madeAtMs: atMs - 5 * 60_000 })
  rows.answers.push(...answers.map((a) => ({ visitId: v.visitId, ...a })))
  rows.hair.push(...hairReadings(service, later, laterId))
  if (v.nowMs - endedAtMs < MESSAGES_KEPT_DAYS * DAY_MS) {
    rows.messages.push(
      ...end.messages.map((m) => ({
        ...m,
        ...{ id: laterId(), clientId: v.clientId, visitId: v.visitId, state: 'waiting' },
      })),
    )
  }
  rows.visits.push({
    id: v.visitId,
    clientId: v.clientId,
    workerId: v.worker.id,
    jobs: end.jobs,
    state: 'finished',
    slotAtMs: atMs,
    createdAtMs: atMs - HOUR_MS,
    startedAtMs: state.startedAtMs,
    endedAtMs,
    routine: v.routine,
    asked,
    notes: v.notes,
    atChair,
    pace: end.pace,
    misses: end.misses,
    readDeg: v.reader?.deg ?? null,
    readCount: v.reader?.readings ?? null,
    ...summariseAnswers(DEFAULTS, endedAtMs, answers, loads, atChair.redness),
  })
}

/** A service of yesterday that stands open in the middle: nobody pressed on. */
export function addLeftOpen(
  v: Pick<
    VisitStory,
    'person' | 'clientId' | 'worker' | 'nowMs' | 'notes' | 'spots' | 'ground' | 'planned'
  >,
  consent: Consent,
  random: () => number,
  newId: () => string,
  rows: Rows,
): void {
  const { person, clientId } = v
  const atMs = new Date(v.nowMs - DAY_MS).setHours(17, 10, 0, 0)
  const visitId = newId()
  const { skin } = person
  const { plan, packed } = v.planned({
    ...v,
    atMs,
    skin,
    schools: DEFAULT_SCHOOLS,
    style: 'balanced',
  })
  const all = serviceEvents(plan, skin, atMs, random, newId)
  const events = all.slice(0, Math.ceil(all.length * 0.6))
  rows.events.push(...events.map((e) => eventRow(e, visitId, plan)))
  rows.kit.push(...kitOf(visitId, plan, events, newId))
  rows.plans.push({ visitId, plan: packed, madeAtMs: atMs - 5 * 60_000 })
  rows.visits.push({
    id: visitId,
    clientId,
    workerId: v.worker.id,
    jobs: jobsOf(person, clientId),
    state: 'running',
    slotAtMs: atMs,
    createdAtMs: atMs - HOUR_MS,
    startedAtMs: events[0]!.atMs,
    endedAtMs: null,
    routine: '',
    asked: { ...nothingFound(v.spots), consent },
    notes: v.notes,
    worstRedness: null,
    bumps: null,
  })
}

/** Today's visits, each in the state its story asks for. */
export function addOpenVisit(
  person: Person,
  clientId: string,
  workerId: string,
  nowMs: number,
  spots: readonly SkinMark[],
  notes: SurfaceNotes,
  times: readonly number[],
  random: () => number,
  newId: () => string,
  rows: Rows,
): void {
  if (person.slotHour === undefined && person.story !== 'first-visit') return
  const today = dateOf(nowMs, offsetHere(nowMs))
  const last = times[times.length - 1]
  // As the server does it: what was answered last time is asked again only as "still so?".
  let asked: Asked = {
    answers:
      last === undefined
        ? {}
        : carriedAnswers(nothingFound().answers, dateOf(last, offsetHere(last))),
    spots,
    ...(last !== undefined && { consent: signed(person, times[0]!, 'today') }),
  }
  if (person.story === 'postponed') {
    asked = { ...asked, ...nothingFound() }
    asked = {
      ...asked,
      answers: {
        ...asked.answers,
        'retinoid-cream': { yes: true, date: addDays(today, -2) },
      },
    }
  }
  if (person.story === 'patch-test') {
    asked = nothingFound()
    asked = {
      ...asked,
      answers: { ...asked.answers, 'first-ever': { yes: true } },
      patchTest: { zoneId: 'jaw-left', placedAtMs: nowMs - 26 * HOUR_MS, result: 'waiting' },
    }
  }
  const slot = new Date(nowMs)
  slot.setHours(Math.floor(person.slotHour ?? 0), ((person.slotHour ?? 0) % 1) * 60, 0, 0)
  rows.visits.push({
    id: newId(),
    clientId,
    workerId,
    jobs: jobsOf(person, clientId, 'today'),
    state: 'open',
    slotAtMs: person.slotHour === undefined ? null : slot.getTime(),
    createdAtMs: nowMs - Math.round((1 + random()) * HOUR_MS),
    startedAtMs: null,
    endedAtMs: null,
    routine: '',
    asked,
    notes,
    worstRedness: null,
    bumps: null,
  })
}
