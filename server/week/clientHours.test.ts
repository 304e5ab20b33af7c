/** Hours as clients see them: reminders, their own pages, offers of what came free, calendars; and what the house is told. */
import { randomUUID } from 'node:crypto'
import ICAL from 'ical.js'
import request, { type Response } from 'supertest'
import type { House, Today, VisitPage } from '../../contract/types.ts'
import type { BookedRow, FreeSlotAnswer, Proposal, Week, WeekLoad } from '../../contract/week.ts'
import { oneJob } from '../../core/services/index.ts'
import { addDays, dateAt, DAY_MS, HOUR_MS, isClosed, offsetHere } from '../../core/time/index.ts'
import { MIN_MS, momentAt, NO_WISHES } from '../../core/week/index.ts'
import { finishVisit, newClient, openStudio, plannedVisit, type Studio } from '../testing/studio.ts'
import { remindDue } from './reminders.ts'
import { tellLate } from './late.ts'

let studio: Studio
let house: House
beforeEach(async () => {
  studio = await openStudio()
  house = (await api().get('/api/house')).body as House
})
afterEach(() => studio.close())
const api = () => request(studio.app)

function openDay(ahead: number): string {
  let date = dateAt(Date.now(), offsetHere)
  for (let left = ahead; left > 0;) {
    date = addDays(date, 1)
    if (!isClosed(house.closed, date)) left--
  }
  return date
}
const at = (ahead: number, hour: number) => momentAt(openDay(ahead), hour, offsetHere)
const someClient = async () =>
  ((await api().post('/api/clients').send(newClient({ service: 'face-shave' })).expect(201)).body as {
    id: string
  }).id // prettier-ignore
const jobs = () => [oneJob(randomUUID(), 'face-shave')]
const book = async (clientId: string, startMs: number, over: object = {}) =>
  (
    await api()
      .post('/api/appointments')
      .send({
        ...{ id: randomUUID(), clientId, workerId: house.workers[0]!.id, startMs, minutes: 45 },
        ...{ jobs: jobs(), ...over },
      })
      .expect(200)
  ).body as BookedRow
const week = async () =>
  (
    await api()
      .get(`/api/week?from=${openDay(0)}&days=21`)
      .expect(200)
  ).body as Week
const one = async (id: string) => (await week()).appointments.find((a) => a.id === id)!
const cancel = (a: BookedRow) =>
  api().patch(`/api/appointments/${a.id}`).send({ mark: a.mark, state: 'cancelled' }).expect(200)

interface Sent {
  id: string
  clientId: string
  kind: string
  text: string
  subject: string
  dueAtMs: number
  state: string
}
const sent = async (kind: string) =>
  ((await api().get('/api/messages').expect(200)).body as Sent[]).filter(
    (m) => m.kind === kind && m.state === 'waiting',
  )
const linkIn = (m: Sent) => new URL(/here: (\S+)/.exec(m.text)![1]!).pathname
const send = (path: string, form: object) => api().post(path).type('form').send(form)

/** Somebody who was here so long ago that hair shows again and skin is clear. */
async function dueNow(): Promise<string> {
  const { client, visit } = await plannedVisit(studio.app)
  await finishVisit(studio.app, visit, Date.now() - 9 * DAY_MS)
  return client.id
}

describe('reminders', () => {
  it('lie in the outbox as the house wants them, move with the hour, and go with it', async () => {
    await api()
      .patch('/api/house')
      .send({ studio: { ...house.studio, reminders: [48, 3] } })
      .expect(200)
    const clientId = await someClient()
    const a = await book(clientId, at(5, 15))
    const due = async () => (await sent('reminder')).map((m) => m.dueAtMs).sort((x, y) => x - y)
    expect(await due()).toEqual([at(5, 15) - 48 * HOUR_MS, at(5, 12)])
    // Asked again nothing is laid out twice.
    await remindDue(studio.db, 'http://x')
    await remindDue(studio.db, 'http://x')
    expect(await due()).toHaveLength(2)
    await api()
      .patch(`/api/appointments/${a.id}`)
      .send({ mark: a.mark, startMs: at(6, 10) })
      .expect(200)
    // Three hours before ten is too early for anybody's phone: at nine, when it may ring.
    expect(await due()).toEqual([at(6, 10) - 48 * HOUR_MS, at(6, 9)])
    expect((await sent('reminder'))[0]!.subject).not.toMatch(/shave/i)
    await cancel(await one(a.id))
    expect(await due()).toEqual([])
  })

  it('one that the house took back is not laid out again', async () => {
    await book(await someClient(), at(5, 15))
    const [m] = await sent('reminder')
    await api().patch(`/api/messages/${m!.id}`).send({ state: 'taken-back' }).expect(200)
    await remindDue(studio.db, 'http://x')
    expect(await sent('reminder')).toEqual([])
  })
})

describe('a client’s page for an hour', () => {
  const page = async (startMs = at(5, 15)) => {
    const clientId = await someClient()
    const a = await book(clientId, startMs)
    return { a, path: linkIn((await sent('reminder'))[0]!) }
  }

  it('says the hour and no more, needs no script, and takes "I come"', async () => {
    const { a, path } = await page()
    const seen = await api().get(path).expect(200)
    expect(seen.text).toContain('15:00')
    expect(seen.text).not.toMatch(/<script|shave/i)
    expect(seen.headers['cache-control']).toBe('no-store')
    const said = await send(path, { act: 'confirm' }).expect(200)
    expect(said.text).toContain('knows that you come')
    expect(await one(a.id)).toMatchObject({ state: 'confirmed', changedBy: 'The client' })
    // The same from a page that was opened before.
    await send(path, { act: 'confirm' }).expect(200)
  })

  it('offers other hours that are free, takes one of them, and refuses any else', async () => {
    const { a, path } = await page()
    const asked = await api().get(`${path}/other`).expect(200)
    const hours = [...asked.text.matchAll(/value="(\d+\|[0-9a-f-]{36})"/g)].map((m) => m[1]!)
    expect(hours.length).toBeGreaterThan(3)
    const [startMs, workerId] = hours[0]!.split('|')
    await send(path, { act: 'move', hour: hours[0]! }).expect(200)
    expect(await one(a.id)).toMatchObject({
      startMs: Number(startMs),
      workerId,
      state: 'confirmed',
    })
    const night = `${at(5, 3)}|${house.workers[0]!.id}`
    const no = await send(path, { act: 'move', hour: night }).expect(409)
    expect(no.text).toContain('gone meanwhile')
    for (const bad of [{}, { act: 'erase' }, { act: 'move' }, { act: 'move', hour: 'x|y' }])
      await send(path, bad).expect(422)
    expect(await one(a.id)).toMatchObject({ startMs: Number(startMs) })
  })

  it('cancels, in time or late by the house’s word, and then has nothing to answer', async () => {
    const { a, path } = await page()
    await send(path, { act: 'cancel' }).expect(200)
    expect(await one(a.id)).toMatchObject({ state: 'cancelled' })
    await api().get(path).expect(404)
    await send(path, { act: 'confirm' }).expect(404)
    expect(await one(a.id)).toMatchObject({ state: 'cancelled' })
  })

  it('a token that never was, is odd, or is another’s opens nothing, and no page tells which', async () => {
    const bare = (r: Response) => r.text.replace(/nonce="[^"]*"/, '')
    const closed = await api()
      .get(`/hour/${'A'.repeat(43)}`)
      .expect(404)
    for (const odd of ['x', `${'A'.repeat(42)}'`, 'A'.repeat(200)])
      expect(bare(await api().get(`/hour/${odd}`).expect(404))).toBe(bare(closed))
    await send(`/hour/${'A'.repeat(43)}`, { act: 'cancel' }).expect(404)
    const { path } = await page()
    await api().post(path).set('Origin', 'http://elsewhere.example').type('form').send({ act: 'cancel' }).expect(403) // prettier-ignore
  })

  it('the page that asks after the skin tells of the next hour as well', async () => {
    const { client, visit } = await plannedVisit(studio.app)
    await finishVisit(studio.app, visit, Date.now() - 1.2 * DAY_MS)
    const a = await book(client.id, at(6, 11))
    const { url } = (await api().post(`/api/visits/${visit.id}/link`).expect(201)).body as {
      url: string
    }
    const path = new URL(url).pathname
    expect((await api().get(path).expect(200)).text).toContain('Your next hour')
    await send(`${path}/hour`, { act: 'confirm' }).expect(200)
    expect(await one(a.id)).toMatchObject({ state: 'confirmed' })
    await api().get(`${path}/hour/other`).expect(200)
  })
})

describe('a slot that came free', () => {
  const free = async (startMs: number) =>
    (await api().get(`/api/week/free?worker=${house.workers[0]!.id}&at=${startMs}`).expect(200))
      .body as FreeSlotAnswer

  async function offered() {
    const startMs = at(2, 11)
    const ids = [await dueNow(), await dueNow()]
    const { slot, rows } = await free(startMs)
    expect(rows.map((r) => r.clientId).sort()).toEqual([...ids].sort())
    await api()
      .post('/api/offers')
      .send({
        ...{ id: randomUUID(), ...slot! },
        clients: rows.map((r) => ({
          ...{ clientId: r.clientId, startMs, minutes: 45, jobs: jobs() },
        })),
      })
      .expect(200)
    const messages = await sent('offer')
    return {
      startMs,
      ids,
      paths: ids.map((id) => linkIn(messages.find((m) => m.clientId === id)!)),
    }
  }

  it('first come: of two at once one has it, the other is told that it is gone', async () => {
    const { startMs, ids, paths } = await offered()
    expect((await api().get(paths[0]!).expect(200)).text).toContain('Whoever takes it first has it')
    const both = await Promise.all(paths.map((p) => send(p, { act: 'take' })))
    expect(both.map((r) => r.status).sort()).toEqual([200, 409])
    const won = both.findIndex((r) => r.status === 200)
    const own = (await week()).appointments.filter((a) => a.startMs === startMs)
    expect(own.map((a) => a.clientId)).toEqual([ids[won]])
    expect(
      (
        await api()
          .get(paths[1 - won]!)
          .expect(200)
      ).text,
    ).toContain('That hour is gone')
    expect((await sent('gone')).map((m) => m.clientId)).toEqual([ids[1 - won]])
    // Taken again it is still theirs, once.
    await send(paths[won]!, { act: 'take' }).expect(200)
    expect((await week()).appointments).toHaveLength(1)
    expect((await week()).offers[0]).toMatchObject({ asked: 2, takenBy: expect.any(String) })
  })

  it('what the book has given away meanwhile is gone; an offer taken back opens nothing to take', async () => {
    const { startMs, paths } = await offered()
    await book(await someClient(), startMs)
    expect((await send(paths[0]!, { act: 'take' }).expect(409)).text).toContain('gone meanwhile')
    const [offer] = (await week()).offers
    await api().delete(`/api/offers/${offer!.id}`).expect(200)
    expect((await api().get(paths[0]!).expect(200)).text).toContain('That hour is gone')
    await send(paths[0]!, { act: 'take' }).expect(409)
    expect((await week()).appointments).toHaveLength(1)
  })

  it('somebody who waits gives their own hour back for it, and waits no longer', async () => {
    const clientId = await dueNow()
    const has = await book(clientId, at(6, 15))
    await api()
      .post('/api/waiting')
      .send({ id: randomUUID(), clientId, jobs: jobs(), wishes: { ...NO_WISHES, toHour: 13 } })
      .expect(200)
    expect((await week()).waiting).toMatchObject([{ clientId, has: { id: has.id } }])
    // Not after one: that was the wish.
    expect((await free(at(2, 11))).rows[0]!.startMs).toBeLessThan(at(2, 13))
    const { slot, rows } = await free(at(2, 11))
    const clients = rows.map((r) => ({
      clientId,
      startMs: r.startMs,
      minutes: r.minutes,
      jobs: r.jobs,
    }))
    await api()
      .post('/api/offers')
      .send({ id: randomUUID(), ...slot!, clients })
      .expect(200)
    await send(linkIn((await sent('offer'))[0]!), { act: 'take' }).expect(200)
    expect((await week()).appointments).toMatchObject([
      { id: has.id, startMs: rows[0]!.startMs, state: 'confirmed' },
    ])
    expect((await week()).waiting).toEqual([])
  })

  it('nobody is offered an hour that is taken, over, or not worked', async () => {
    await book(await someClient(), at(2, 11))
    expect((await free(at(2, 11.25))).slot).toBeNull()
    expect((await free(at(2, 3))).slot).toBeNull()
    expect((await free(at(2, 11) - 40 * DAY_MS)).slot).toBeNull()
  })
})

describe('when clients can come', () => {
  it('is kept, checked, and held to by what is proposed', async () => {
    const clientId = await dueNow()
    const set = (body: object) => api().put(`/api/clients/${clientId}/hours`).send(body)
    await set({ wishes: { fromHour: 15, toHour: 9 } }).expect(422)
    await set({ wishes: { ...NO_WISHES, fromHour: 15 }, first: true }).expect(200)
    const hours = (await api().get(`/api/clients/${clientId}/hours`).expect(200)).body
    expect(hours).toMatchObject({ wishes: { fromHour: 15 }, first: true })
    const told = (
      await api()
        .post('/api/week/proposal')
        .send({ from: openDay(1), days: 7 })
        .expect(200)
    ).body as Proposal
    expect(told.proposals.map((p) => p.clientId)).toEqual([clientId])
    const hour = new Date(told.proposals[0]!.startMs).getHours()
    expect(hour).toBeGreaterThanOrEqual(15)
    expect(told.proposals[0]!.why.join(' ')).toContain('serves them first')
  })

  it('what is only booked moves within its day to let somebody in, and is told so', async () => {
    const day = openDay(2)
    const w = house.workers
    // One worker, one hour and three quarters: two fit only when the one in the middle moves.
    const hours = Object.fromEntries([0, 1, 2, 3, 4, 5, 6].map((d) => [d, [[10, 12]]]))
    const off = Object.fromEntries([0, 1, 2, 3, 4, 5, 6].map((d) => [d, []]))
    for (const [i, worker] of w.entries())
      await api()
        .patch('/api/house')
        .send({ worker: { ...worker, hours: i === 0 ? hours : off } })
        .expect(200)
    const clientId = await dueNow()
    const a = await book(await someClient(), momentAt(day, 10.5, offsetHere))
    const asked = { from: day, days: 1 }
    const ask = async (moves: boolean) =>
      (
        await api()
          .post('/api/week/proposal')
          .send({ ...asked, moves })
          .expect(200)
      ).body as Proposal
    const [stay, move] = [await ask(false), await ask(true)]
    expect(stay.proposals).toEqual([])
    expect(move.proposals.map((p) => p.clientId)).toEqual([clientId])
    expect(move.moves).toMatchObject([{ id: a.id, wasMs: a.startMs }])
    const { startMs } = move.moves[0]!
    expect(Math.abs(startMs - a.startMs)).toBeLessThanOrEqual(HOUR_MS)
    await api()
      .patch(`/api/appointments/${a.id}`)
      .send({ mark: a.mark, startMs, tell: true })
      .expect(200)
    expect((await sent('moved'))[0]!.text).toContain('is moved to')
    const { minutes } = move.proposals[0]!
    await book(clientId, move.proposals[0]!.startMs, { minutes })
  })
})

describe('a day that runs late', () => {
  it('those who are still to come are told once, and again when it gets much later', async () => {
    const nowMs = new Date().setHours(12, 0, 0, 0)
    const [first, second] = [await someClient(), await someClient()]
    const row = (clientId: string, startMs: number, state: string) =>
      studio.db.models.Appointment.create({
        ...{ id: randomUUID(), clientId, workerId: house.workers[0]!.id, startMs, minutes: 60 },
        ...{ state, jobs: jobs(), madeAtMs: nowMs },
      })
    await studio.db.write(async () => {
      await row(first, nowMs - 30 * MIN_MS, 'arrived')
      await row(second, nowMs + 20 * MIN_MS, 'booked')
    })
    expect(await tellLate(studio.db, 'http://x', nowMs)).toBe(1)
    expect((await sent('late')).map((m) => m.clientId)).toEqual([second])
    expect(await tellLate(studio.db, 'http://x', nowMs + 2 * MIN_MS)).toBe(0)
    expect(await tellLate(studio.db, 'http://x', nowMs + 25 * MIN_MS)).toBe(1)
  })

  it('Today counts whom nobody has told', async () => {
    expect(((await api().get('/api/today')).body as Today).lateToTell).toBe(0)
    await api().post('/api/week/late').send({}).expect(200, { told: 0 })
  })
})

describe('calendars', () => {
  it('a worker’s hours under a secret address: initials only, until it is taken back', async () => {
    const clientId = await someClient()
    const a = await book(clientId, at(3, 10))
    const worker = house.workers[0]!.id
    const make = async () =>
      new URL(
        ((await api().post(`/api/workers/${worker}/feed`).send({}).expect(201)).body as { url: string })
          .url,
      ).pathname // prettier-ignore
    const path = await make()
    const text = (
      await api()
        .get(path)
        .expect(200)
        .expect('Content-Type', /text\/calendar/)
    ).text
    const events = new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent')
    const own = events.map((e) => new ICAL.Event(e)).find((e) => e.uid.startsWith(a.id))!
    expect(own.startDate.toJSDate().getTime()).toBe(a.startMs)
    expect(own.endDate.toJSDate().getTime()).toBe(a.startMs + 45 * MIN_MS)
    expect(text).not.toContain(a.client)
    const next = await make()
    await api().get(path).expect(404)
    await api().delete(`/api/workers/${worker}/feed`).expect(200)
    await api().get(next).expect(404)
    await api().get('/feed/nothing.ics').expect(404)
  })

  it('busy times take the place of those before, or nothing changes', async () => {
    const worker = house.workers[0]!.id
    const stamp = (ms: number) => new Date(ms).toISOString().replace(/[-:]|\.\d+/g, '')
    const cal = (startMs: number) =>
      ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:x', 'BEGIN:VEVENT', 'UID:1', 'SUMMARY:Dentist',
       `DTSTART:${stamp(startMs)}`, 'DURATION:PT2H', 'END:VEVENT', 'END:VCALENDAR'].join('\r\n') // prettier-ignore
    const bring = (text: string) => api().post('/api/busy').send({ workerId: worker, text })
    await bring(cal(at(3, 10))).expect(200)
    const refused = await api().post('/api/appointments').send({
      ...{ id: randomUUID(), clientId: await someClient(), workerId: worker, startMs: at(3, 11) },
      ...{ minutes: 45, jobs: jobs() },
    }) // prettier-ignore
    expect([refused.status, refused.body.detail]).toEqual([422, expect.stringContaining('is away')])
    const again = await bring(cal(at(4, 10))).expect(200)
    expect(again.body).toMatchObject({ times: 1, replaced: 1, events: 1 })
    const away = async () => (await week()).away
    expect(await away()).toMatchObject([{ fromMs: at(4, 10), source: 'calendar', why: 'busy' }])
    await bring('hello').expect(422)
    await bring(cal(at(4, 10)).replace('DURATION', 'RRULE:FREQ=SECONDLY\r\nDURATION')).expect(422)
    expect(await away()).toHaveLength(1)
    await api().delete(`/api/workers/${worker}/busy`).expect(200)
    expect(await away()).toEqual([])
  })

  it('a period goes out as a table, and the load ahead is told', async () => {
    const a = await book(await someClient(), at(3, 10))
    const csv = await api()
      .get(`/api/week.csv?from=${openDay(3)}&days=1`)
      .expect(200)
    expect(csv.text.split('\r\n')).toHaveLength(3)
    expect(csv.text).toContain(a.client)
    const load = (
      await api()
        .get(`/api/week/load?from=${openDay(3)}&days=1`)
        .expect(200)
    ).body
    expect((load as WeekLoad).days[0]).toMatchObject({ bookedMin: 45, towels: expect.any(Number) })
  })
})

it('an hour that a visit is put at keeps to the book: refused with hours that work, or the nearest of them', async () => {
  const { visit } = await plannedVisit(studio.app)
  await book(await someClient(), at(3, 11), { workerId: visit.workerId })
  const put = (body: object) => api().patch(`/api/visits/${visit.id}`).send(body)
  const refused = await put({ slotAtMs: at(3, 11) }).expect(422)
  expect(refused.body.detail).toMatch(/has somebody from .* The nearest that work/)
  const near = (await put({ slotAtMs: at(3, 11), orNearest: true }).expect(200)).body as VisitPage
  expect(near.slotAtMs).not.toBe(at(3, 11))
  expect(Math.abs(near.slotAtMs! - at(3, 11))).toBeLessThan(4 * HOUR_MS)
  await put({ slotAtMs: at(3, 15) }).expect(200)
  await put({ slotAtMs: at(3, 3) }).expect(422)
})
