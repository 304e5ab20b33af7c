/**
 * Lantern Quay, made by core's own models from a seed: hidden true grain, growth and sensitivity, noisy readings, and
 * eighteen months of visits up to today. The same every time for the same day.
 */
import { whenWords, addDays, dateOf, DAY_MS, HOUR_MS, offsetHere } from '../core/time/index.ts'
import { type PlanGround, finishService } from '../core/visit/index.ts'
import { type Style } from '../core/services/index.ts'
import { DEFAULTS, DEFAULT_SCHOOLS, type Schools } from '../core/house/index.ts'
import { replay } from '../core/chair/index.ts'
import type { SkinAndHair } from '../core/client.ts'
import { NO_NOTES, type SurfaceNotes } from '../core/hair/index.ts'
import type { Reading } from '../core/grain/index.ts'
import { carriedAnswers, type Asked, type Consent, type SkinMark } from '../core/screening/index.ts'
import { mulberry32 } from '../core/stats/index.ts'
import { summariseAnswers } from '../core/looks/index.ts'
import type { Model, ModelStatic } from 'sequelize'
import { DEMO_SECRETS, hashSecret } from '../server/people/people.ts'
import type { Database } from '../server/db/connection.ts'
import { keepHouse } from '../server/house/service.ts'
import { usualLines, makeReadings } from './map.ts'
import { drawTruth, hairReadings, skinAnswers, type Truth } from './outcomes.ts'
import { PEOPLE, STUDIO, TRUE_PACES, type Person } from './people.ts'
import {
  feltAtChair,
  jobsOf,
  makeGround,
  nothingFound,
  planner,
  signed,
  type Planner,
  moleOnJaw,
} from './plans.ts'
import { eventRow, kitOf, serviceEvents } from './services.ts'

const MONTHS_18_DAYS = 547

/** Messages of older visits are of no use any more. */
const MESSAGES_KEPT_DAYS = 14

/** Ids from the seed, in the shape of a version 4 UUID. */
function idMaker(random: () => number): () => string {
  const hex = (n: number) =>
    Array.from({ length: n }, () => Math.floor(random() * 16).toString(16)).join('')
  return () => `${hex(8)}-${hex(4)}-4${hex(3)}-8${hex(3)}-${hex(12)}`
}

interface Rows {
  clients: object[]
  visits: object[]
  readings: object[]
  events: object[]
  answers: object[]
  plans: object[]
  hair: object[]
  kit: object[]
  messages: object[]
}

/** Numbers that reach nobody. */
const phoneOf = (i: number) => `0555 01 ${String(i + 10).padStart(2, '0')}`

/** A moment on the half hour of a working day. */
function workingTime(ms: number, random: () => number): number {
  const day = new Date(ms)
  day.setHours(9 + Math.floor(random() * 8), random() < 0.5 ? 0 : 30, 0, 0)
  return day.getTime()
}

/** Fills an empty database with Lantern Quay; leaves one that already has clients as it is. */
export async function seedDemo(
  db: Database,
  nowMs: number,
  people: readonly Person[] = PEOPLE,
): Promise<void> {
  if ((await db.models.Client.count()) > 0) return
  const random = mulberry32(0x51de)
  const newId = idMaker(random)
  const secrets = await Promise.all(DEMO_SECRETS.map(hashSecret))
  const workers = STUDIO.workers.map((w, i) => ({ id: newId(), ...w, secret: secrets[i]! }))
  const rows: Rows = {
    clients: [],
    visits: [],
    readings: [],
    events: [],
    answers: [],
    plans: [],
    hair: [],
    kit: [],
    messages: [],
  }
  for (const person of people) {
    addPerson(person, workers, nowMs, random, newId, rows)
  }
  const m = db.models
  await db.write(async () => {
    await m.Worker.bulkCreate(workers)
    await keepHouse(db, { name: STUDIO.name, workerId: workers[0]!.id })
    const fill = async <M extends Model>(model: ModelStatic<M>, list: readonly object[]) => {
      for (let i = 0; i < list.length; i += 400) {
        await model.bulkCreate(list.slice(i, i + 400) as never[])
      }
    }
    await fill(m.Client, rows.clients)
    await fill(m.Visit, rows.visits)
    await fill(m.Plan, rows.plans)
    await fill(m.Reading, rows.readings)
    await fill(m.Event, rows.events)
    await fill(m.SkinAnswer, rows.answers)
    await fill(m.HairReading, rows.hair)
    await fill(m.KitEvent, rows.kit)
    await fill(m.Message, rows.messages)
  })
}

function addPerson(
  person: Person,
  workers: readonly { id: string; hand: 'right' | 'left' }[],
  nowMs: number,
  random: () => number,
  newId: () => string,
  rows: Rows,
): void {
  const clientId = newId()
  const worker = workers[person.worker]!
  const times: number[] = []
  if (person.everyDays !== undefined && person.lastDaysAgo !== undefined) {
    for (
      let daysAgo = person.lastDaysAgo;
      daysAgo < MONTHS_18_DAYS;
      daysAgo += person.everyDays * (0.85 + 0.3 * random())
    ) {
      times.unshift(workingTime(nowMs - daysAgo * DAY_MS, random))
    }
  }
  rows.clients.push({
    id: clientId,
    name: person.name,
    calledName: person.called ?? '',
    pronouns: person.pronouns ?? '',
    occupation: person.occupation,
    service: person.service,
    skin: person.skin,
    phone: phoneOf(rows.clients.length),
    email: `${person.name.split(' ')[0]!.toLowerCase()}@example.org`,
    events: (person.events ?? []).map(({ inDays, hour, ...event }) => ({
      id: newId(),
      ...event,
      atMs: new Date(nowMs + inDays * DAY_MS).setHours(hour, 0, 0, 0),
    })),
    createdAtMs: times[0] ?? nowMs - 2 * DAY_MS,
  })
  const spots = person.story === 'mole' ? [moleOnJaw(newId)] : []
  const { change } = person
  const notes: SurfaceNotes = {
    ...NO_NOTES,
    lines: usualLines(person.service, newId, times[0] ?? nowMs),
  }
  const truth = drawTruth(person, random)
  let readings: Reading[] = []
  const planned = planner()
  let ground: PlanGround | undefined
  let changed = false
  for (const [index, atMs] of times.entries()) {
    const visitId = newId()
    // A full map at the first visit; read again every half year or so.
    if (index === 0 || (index % 24 === 23 && random() < 0.8)) {
      const fresh = makeReadings(person, atMs, random, newId)
      readings = [...readings, ...fresh]
      ground ??= makeGround(person, fresh, notes)
      rows.readings.push(...fresh.map((r) => readingRow(r, clientId, visitId)))
    }
    // What the map left open was felt at the chair, at the first visit and again where it has faded.
    if (person.story !== 'half-read' && (index === 0 || index === times.length - 1)) {
      const visit = {
        person,
        atMs,
        worker,
        spots,
        notes,
        skin: person.skin,
        style: 'balanced',
      } as const
      const felt = feltAtChair(person, readings, { ...visit, schools: DEFAULT_SCHOOLS }, newId)
      readings = [...readings, ...felt]
      rows.readings.push(...felt.map((r) => readingRow(r, clientId, visitId)))
    }
    const before = change && atMs < nowMs - change.daysAgo * DAY_MS ? change : undefined
    const turning: boolean = change !== undefined && !before && !changed
    changed ||= turning
    addVisit(
      {
        person,
        truth,
        clientId,
        visitId,
        worker,
        atMs,
        nowMs,
        notes,
        // Read at the first visit, so it is there at every one.
        ground: ground!,
        planned,
        spots,
        skin: before ? { ...person.skin, bumpProne: before.bumpProne } : person.skin,
        schools: { ...DEFAULT_SCHOOLS, ...before?.schools },
        style: before?.style ?? 'balanced',
        bumpFactor: before?.bumpFactor ?? 1,
        routine: turning && change ? change.words : '',
        silentLately: person.story === 'answer-owed',
        settled:
          index === times.length - 1 &&
          person.slotHour !== undefined &&
          person.story !== 'too-often' &&
          person.story !== 'severe',
        consent: signed(person, times[0]!),
      },
      random,
      newId,
      rows,
    )
  }
  if (person.story === 'left-open') {
    addLeftOpen(
      { person, clientId, worker, nowMs, notes, spots, ground: ground!, planned },
      signed(person, times[0]!),
      random,
      newId,
      rows,
    )
    return
  }
  addOpenVisit(person, clientId, worker.id, nowMs, spots, notes, times, random, newId, rows)
}

const readingRow = (r: Reading, clientId: string, visitId: string) => ({
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
  readonly silentLately: boolean
  readonly settled: boolean
  readonly consent: Consent
}

function addVisit(v: VisitStory, random: () => number, newId: () => string, rows: Rows): void {
  const { person, atMs } = v
  const asked = { ...nothingFound(v.spots), consent: v.consent }
  const { plan, packed } = v.planned(v)
  const events = serviceEvents(plan, v.skin, atMs, random, newId, TRUE_PACES[person.worker])
  const state = replay(plan, events)
  const end = finishService(
    DEFAULTS,
    {
      ...{ plan, state, skin: v.skin, calledName: person.called ?? person.name },
      ...{ products: [], answers: [], hair: [] },
    },
    { name: STUDIO.name, products: [] },
    whenWords,
  )
  const { endedAtMs, atChair } = end
  const { loads, leftMm } = end.jobs[0]!
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
        ...{ id: laterId(), visitId: v.visitId, state: 'waiting' },
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
    ...summariseAnswers(DEFAULTS, endedAtMs, answers, loads, atChair.redness),
  })
}

/** A service of yesterday that stands open in the middle: nobody pressed on. */
function addLeftOpen(
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
function addOpenVisit(
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
    ...(last !== undefined && { consent: signed(person, times[0]!) }),
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
    jobs: jobsOf(person, clientId),
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
