/** The book over the wire: what is refused, what belongs together, two who move the same. */
import { randomUUID } from 'node:crypto'
import request from 'supertest'
import { today } from '../today/service.ts'
import type { ClientPage, House, Today, VisitPage } from '../../contract/types.ts'
import type { AppointmentLength, BookedRow, Proposal, Week } from '../../contract/week.ts'
import { oneJob, type ServiceId } from '../../core/services/index.ts'
import { addDays, dateAt, DAY_MS, isClosed, offsetHere } from '../../core/time/index.ts'
import { MIN_MS, momentAt } from '../../core/week/index.ts'
import {
  chairEvent,
  finishVisit,
  newClient,
  openStudio,
  plannedVisit,
  type Studio,
} from '../testing/studio.ts'

let studio: Studio
let house: House
beforeEach(async () => {
  studio = await openStudio()
  house = (await api().get('/api/house')).body as House
})
afterEach(() => studio.close())
const api = () => request(studio.app)

/** A day to come on which the house is open, so many open days ahead. */
function openDay(ahead: number): string {
  let date = dateAt(Date.now(), offsetHere)
  for (let left = ahead; left > 0;) {
    date = addDays(date, 1)
    if (!isClosed(house.closed, date)) left--
  }
  return date
}
const at = (ahead: number, hour: number) => momentAt(openDay(ahead), hour, offsetHere)
const someClient = async (service: ServiceId = 'face-shave') =>
  (await api().post('/api/clients').send(newClient({ service })).expect(201)).body as { id: string }
const body = (clientId: string, startMs: number, over: object = {}) => ({
  ...{ id: randomUUID(), clientId, workerId: house.workers[0]!.id, startMs, minutes: 45 },
  ...{ jobs: [oneJob(randomUUID(), 'face-shave')] },
  ...over,
})
const add = (b: object) => api().post('/api/appointments').send(b)
const change = (a: BookedRow, c: object) =>
  api()
    .patch(`/api/appointments/${a.id}`)
    .send({ mark: a.mark, ...c })
const week = async (from = openDay(1), days = 7) =>
  (await api().get(`/api/week?from=${from}&days=${days}`).expect(200)).body as Week

it('is made, moved, cancelled and booked again; the week shows it', async () => {
  const { id } = await someClient()
  const made = (await add(body(id, at(3, 10))).expect(200)).body as BookedRow
  expect(made).toMatchObject({ state: 'booked', minutes: 45, visitId: null, mark: 1 })
  // The same told twice is one.
  await add({ ...body(id, at(3, 10)), id: made.id }).expect(200)
  const moved = (await change(made, { startMs: at(3, 11) }).expect(200)).body as BookedRow
  const off = (await change(moved, { state: 'cancelled' }).expect(200)).body as BookedRow
  expect(off.cancelledAtMs).toBeGreaterThan(Date.now() - 60_000)
  const again = (await change(off, { state: 'booked' }).expect(200)).body as BookedRow
  expect(again).toMatchObject({ state: 'booked', cancelledAtMs: null, startMs: at(3, 11), mark: 4 })
  expect((await week()).appointments.map((a) => a.id)).toEqual([made.id])
})

it('what cannot be is refused with the reason and hours that work, and nothing is half done', async () => {
  const [a, b] = [await someClient(), await someClient()]
  await add(body(a.id, at(3, 10))).expect(200)
  const refused = await add(body(b.id, at(3, 10.5))).expect(422)
  expect(refused.body.detail).toMatch(
    /has somebody from .* Nothing was changed\. The nearest that work: /,
  )
  for (const [wrong, code] of [
    [{ startMs: Date.now() - 3 * DAY_MS }, 'book'],
    [{ startMs: at(3, 3) }, 'book'],
    [{ startMs: at(3, 12) + 60_000 }, 'book'],
    [{ minutes: 47 }, 'invalid'],
    [{ minutes: -5 }, 'invalid'],
    [{ workerId: randomUUID() }, 'book'],
    [{ jobs: [] }, 'invalid'],
  ] as const)
    expect((await add(body(b.id, at(4, 10), wrong)).expect(422)).body.code).toBe(code)
  await add(body(randomUUID(), at(4, 10))).expect(404)
  expect((await week()).appointments).toHaveLength(1)
})

it('of two who move the same appointment one wins, and the other is told', async () => {
  const { id } = await someClient()
  const made = (await add(body(id, at(3, 10))).expect(200)).body as BookedRow
  const both = await Promise.all([
    change(made, { startMs: at(3, 11) }),
    change(made, { startMs: at(3, 14) }),
  ])
  expect(both.map((r) => r.status).sort()).toEqual([200, 409])
  const told = both.find((r) => r.status === 409)!
  expect(told.body.code).toBe('moved')
  expect(told.body.detail).toMatch(
    /has changed this appointment meanwhile: it is at .* That stands/,
  )
})

it('closed days, time away, hours and services of a worker hold', async () => {
  const { id } = await someClient()
  const [ines, joren] = house.workers
  const away = {
    id: randomUUID(),
    workerId: ines!.id,
    fromMs: at(3, 9),
    toMs: at(3, 18),
    why: 'fair',
  }
  await api().post('/api/away').send(away).expect(200)
  await api()
    .post('/api/away')
    .send({ ...away, toMs: away.fromMs })
    .expect(422)
  expect((await add(body(id, at(3, 10))).expect(422)).body.detail).toMatch(/is away .*: fair\./)
  await api().delete(`/api/away/${away.id}`).expect(200)
  await add(body(id, at(3, 10))).expect(200)
  const worker = { ...joren!, services: ['dermaplane'], hours: { '1': [[9, 12]] } }
  await api().patch('/api/house').send({ worker }).expect(200)
  const other = await someClient()
  const refused = await add(body(other.id, at(4, 10), { workerId: joren!.id })).expect(422)
  expect(refused.body.detail).toMatch(/does not do hot-towel face shave/)
  const wrong = { ...worker, hours: { '1': [[12, 9]] } }
  await api().patch('/api/house').send({ worker: wrong }).expect(422)
})

it('the next appointment has the client’s visit: made when it is near, given on when another comes before', async () => {
  const { id } = await someClient()
  const far = (await add(body(id, at(6, 10))).expect(200)).body as BookedRow
  expect(far.visitId).toBeNull()
  // One that is near has its visit at once, with its hour.
  const soonMs = Math.ceil((Date.now() + 20 * MIN_MS) / (5 * MIN_MS)) * 5 * MIN_MS
  await studio.db.models.Appointment.create({
    ...{
      id: randomUUID(),
      clientId: id,
      workerId: house.workers[0]!.id,
      startMs: soonMs,
      minutes: 30,
    },
    ...{ jobs: [oneJob(randomUUID(), 'face-shave')], state: 'booked', madeAtMs: Date.now() },
  })
  const near = (await week(dateAt(soonMs, offsetHere))).appointments.find(
    (a) => a.startMs === soonMs,
  )!
  expect(near.visitState).toBe('open')
  const page = (await api().get(`/api/clients/${id}`)).body as ClientPage
  expect(page.visits[0]).toMatchObject({ id: near.visitId, slotAtMs: soonMs, state: 'open' })
  const today = (await api().get('/api/today')).body as Today
  expect(today.rows.find((r) => r.client.id === id)?.slotAtMs).toBe(soonMs)
  // Cancelled, its visit goes on to the next.
  await change(near, { state: 'cancelled' }).expect(200)
  const after = (await week(openDay(1), 14)).appointments.find((a) => a.id === far.id)!
  expect(after.visitId).toBe(near.visitId)
  const visit = (await api().get(`/api/visits/${near.visitId!}`)).body as VisitPage
  expect(visit.slotAtMs).toBe(far.startMs)
})

it('a walk-in makes an appointment, and what has begun no longer moves', async () => {
  const { client, visit } = await plannedVisit(studio.app)
  await api().post(`/api/visits/${visit.id}/events`).send(chairEvent(1, 'started')).expect(200)
  const today = dateAt(Date.now(), offsetHere)
  const [own] = (await week(today, 1)).appointments.filter((a) => a.clientId === client.id)
  expect(own).toMatchObject({ visitId: visit.id, visitState: 'running', state: 'arrived' })
  expect(Math.abs(own!.startMs - Date.now())).toBeLessThan(6 * 60_000)
  expect((await change(own!, { minutes: 60 }).expect(409)).body.code).toBe('already-started')
  await change(own!, { note: 'came early' }).expect(200)
  await api().delete(`/api/appointments/${own!.id}`).expect(409)
})

it('what was made by mistake is taken out, for a while', async () => {
  const { id } = await someClient()
  const made = (await add(body(id, at(3, 10))).expect(200)).body as BookedRow
  await api().delete(`/api/appointments/${made.id}`).expect(200)
  await api().delete(`/api/appointments/${made.id}`).expect(404)
  const old = (await add(body(id, at(3, 10))).expect(200)).body as BookedRow
  await studio.db.models.Appointment.update(
    { madeAtMs: Date.now() - DAY_MS },
    { where: { id: old.id } },
  )
  expect((await api().delete(`/api/appointments/${old.id}`).expect(409)).body.code).toBe('too-late')
})

it('an appointment takes what is planned, greeting and cleaning, as visits here really took', async () => {
  const { client, visit } = await plannedVisit(studio.app)
  const ask = async (worker = house.workers[0]!.id) =>
    (
      await api()
        .get(`/api/clients/${client.id}/length?worker=${worker}&services=face-shave`)
        .expect(200)
    ).body as AppointmentLength
  const first = await ask()
  expect(first.plannedMin).toBeCloseTo(visit.plan!.totalMinutes, 6)
  expect(first.lowMin).toBeLessThan(first.midMin)
  expect(first.minutes).toBeGreaterThanOrEqual(first.midMin + first.besidesMin)
  expect(first.minutes % 5).toBe(0)
  await api()
    .get(`/api/clients/${client.id}/length?worker=${house.workers[0]!.id}&services=haircut`)
    .expect(400)
})

it('hours are proposed for whoever is due, by what they are worth, and can be booked as they are', async () => {
  const due: string[] = []
  for (let i = 0; i < 3; i++) {
    const { client, visit } = await plannedVisit(studio.app)
    await finishVisit(studio.app, visit, Date.now() - (9 + i) * DAY_MS)
    due.push(client.id)
  }
  const from = openDay(1)
  const ask = async () =>
    (await api().post('/api/week/proposal').send({ from, days: 7 }).expect(200)).body as Proposal
  const told = await ask()
  expect(told.proposals.map((p) => p.clientId).sort()).toEqual([...due].sort())
  expect(told.within).toBeLessThan(0.02)
  for (const p of told.proposals) {
    expect(p.why.join(' ')).toMatch(/hair seen with .*skin clear with /)
    const { clientId, workerId, startMs, minutes, jobs } = p
    await add({ id: randomUUID(), clientId, workerId, startMs, minutes, jobs }).expect(200)
  }
  // Whoever has an hour wants none.
  expect((await ask()).proposals).toEqual([])
  await api().post('/api/week/proposal').send({ from: 'soon', days: 7 }).expect(422)
})

it('a service that runs over makes the next of its worker late, on Today and with the right minutes', async () => {
  const noon = new Date().setHours(12, 0, 0, 0)
  const [first, next] = [await someClient(), await someClient()]
  const workerId = house.workers[0]!.id
  const { Visit, Appointment } = studio.db.models
  const visitId = randomUUID()
  const jobs = [oneJob(randomUUID(), 'face-shave')]
  await Visit.create({
    ...{ id: visitId, clientId: first.id, workerId, jobs, state: 'running', slotAtMs: null },
    ...{ createdAtMs: noon, startedAtMs: noon - 10 * MIN_MS, asked: { answers: {}, spots: [] } },
  })
  const row = { workerId, minutes: 45, jobs, state: 'booked', madeAtMs: noon }
  await Appointment.create({
    ...{ ...row, id: randomUUID(), clientId: first.id, visitId, startMs: noon - 30 * MIN_MS },
  })
  const id = randomUUID()
  await Appointment.create({ ...row, id, clientId: next.id, startMs: noon + 15 * MIN_MS })
  const told = await today(studio.db, null, 0, noon)
  const late = Object.fromEntries(told.rows.map((r) => [r.client.id, r.lateMin]))
  expect(late).toEqual({ [first.id]: null, [next.id]: 20 })
})

it('whose skin took it badly is told so, and is proposed no hour until somebody has looked', async () => {
  const { client, visit } = await plannedVisit(studio.app)
  await finishVisit(studio.app, visit, Date.now() - 9 * DAY_MS)
  const severe = {
    ...{ atMs: Date.now() - 60 * MIN_MS, source: 'phone', feeling: { stinging: 8 } },
    zones: visit.plan!.zones.map((z) => ({ zoneId: z.zoneId, redness: 4, bumps: 4, pustules: 1 })),
  }
  await api().put(`/api/visits/${visit.id}/skin/h215`).send(severe).expect(200)
  const from = openDay(1)
  const told = (await api().post('/api/week/proposal').send({ from, days: 28 }).expect(200))
    .body as Proposal
  expect(told.proposals).toEqual([])
  expect(told.without.map((w) => w.why).join()).toMatch(/^Postpone/)
  const [want] = (await week(from, 28)).wants
  expect(want!.held).toMatch(/^Postpone/)
  const worker = house.workers[0]!.id
  const length = (
    await api()
      .get(`/api/clients/${client.id}/length?worker=${worker}&services=face-shave&at=${at(2, 10)}`)
      .expect(200)
  ).body as AppointmentLength
  expect(length.held).toMatch(/^Postpone/)
  expect(length.good).not.toBeNull()
})
