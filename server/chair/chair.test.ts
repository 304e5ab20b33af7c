/** The chair over the wire: order, followers, products, pictures, messages, the sheet. */
import { DEFAULTS, DEFAULT_SCHOOLS } from '../../core/house/index.ts'
import { type ChairEvent, replay } from '../../core/chair/index.ts'
import { DAY_MS, HOUR_MS } from '../../core/time/index.ts'
import { carePlan } from '../../core/care/index.ts'
import { oneJob } from '../../core/services/index.ts'
import { SKIN } from '../../core/testing/client.ts'
import { createServer, type Server } from 'node:http'
import { randomUUID } from 'node:crypto'
import { existsSync } from 'node:fs'
import type { AddressInfo } from 'node:net'
import { join } from 'node:path'
import { EventSource } from 'eventsource'
import ICAL from 'ical.js'
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'
import sharp from 'sharp'
import request from 'supertest'
import type { House, KitLog, Message, ProbeReading, VisitPage } from '../../contract/types.ts'
import { careCalendar } from '../care/routes.ts'
import { careSheet } from '../care/sheet.ts'
import { photoFile } from '../photos/names.ts'
import {
  chairEvent,
  finishVisit,
  askedAll,
  openStudio,
  plannedVisit,
  wholeService,
  type Studio,
} from '../testing/studio.ts'

let studio: Studio
let server: Server
let base: string
beforeAll(async () => {
  studio = await openStudio()
  server = createServer(studio.app)
  await new Promise<void>((go) => server.listen(0, '127.0.0.1', go))
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
})
afterAll(async () => {
  server.closeAllConnections()
  await new Promise((gone) => server.close(gone))
  await studio.close()
})
const api = () => request(studio.app)
const post = (id: string, e: object) => api().post(`/api/visits/${id}/events`).send(e)

/** A follower that keeps what it hears. */
function follow(id: string, after = 0) {
  const source = new EventSource(`${base}/api/visits/${id}/follow?after=${after}`)
  const heard: ChairEvent[] = []
  const clocks: number[] = []
  source.addEventListener('chair', (e) => heard.push(JSON.parse(e.data) as ChairEvent))
  source.addEventListener('clock', (e) =>
    clocks.push((JSON.parse(e.data) as { nowMs: number }).nowMs),
  )
  const has = async (n: number) => {
    for (let i = 0; i < 200 && heard.length < n; i++) await new Promise((r) => setTimeout(r, 10))
    return heard
  }
  return { heard, clocks, has, close: () => source.close() }
}

describe('following a service', () => {
  it('tells each event to all as it is stored, the missed ones first, and the clock', async () => {
    const { visit } = await plannedVisit(studio.app)
    const events = wholeService(visit, Date.now())
    await post(visit.id, events[0]!).expect(200)
    const early = follow(visit.id)
    await early.has(1)
    for (const e of events.slice(1, 6)) await post(visit.id, e).expect(200)
    const late = follow(visit.id, 3)
    await late.has(3)
    await early.has(6)
    expect(early.heard.map((e) => e.id)).toEqual(events.slice(0, 6).map((e) => e.id))
    expect(early.heard.map((e) => e.seq)).toEqual([1, 2, 3, 4, 5, 6])
    expect(late.heard.map((e) => e.seq)).toEqual([4, 5, 6])
    expect(Math.abs(early.clocks[0]! - Date.now())).toBeLessThan(5000)
    // What a follower has heard replays to what the server answers.
    const page = (await api().get(`/api/visits/${visit.id}`)).body as VisitPage
    expect(JSON.parse(JSON.stringify(replay(visit.plan!, early.heard)))).toEqual(page.chair)
    early.close()
    late.close()
  })

  it('of several services comes down one stream, each from where it was heard last', async () => {
    const visits = await Promise.all([1, 2].map(() => plannedVisit(studio.app)))
    const scripts = visits.map(({ visit }) =>
      wholeService(visit, Date.now()).map((e) => ({ ...e, screen: visit.id })),
    )
    for (const [i, { visit }] of visits.entries())
      for (const e of scripts[i]!.slice(0, 3)) await post(visit.id, e).expect(200)
    const of = visits.map(({ visit }, i) => `${visit.id}:${i === 0 ? 2 : 0}`).join(',')
    const source = new EventSource(`${base}/api/follow?of=${of}`)
    const heard: string[] = []
    source.addEventListener('chair', (e) => {
      const { visitId, event } = JSON.parse(e.data as string) as {
        visitId: string
        event: ChairEvent
      }
      heard.push(`${visits.findIndex((v) => v.visit.id === visitId)}:${event.seq}`)
    })
    const has = async (n: number) => {
      for (let i = 0; i < 300 && heard.length < n; i++) await new Promise((r) => setTimeout(r, 10))
    }
    await has(4)
    expect([...heard].sort()).toEqual(['0:3', '1:1', '1:2', '1:3'])
    await post(visits[0]!.visit.id, scripts[0]![3]!).expect(200)
    await has(5)
    expect(heard.at(-1)).toBe('0:4')
    source.close()
    await api().get('/api/follow').expect(400)
    await api().get(`/api/follow?of=${randomUUID()}:0`).expect(404)
    await api().get('/api/follow?of=x').expect(400)
  })
  it('of nobody is refused before the stream begins', async () => {
    await api().get(`/api/visits/${randomUUID()}/follow`).expect(404)
    await api().get('/api/visits/x/follow').expect(400)
  })
})

describe('storing', () => {
  it('lets a screen tell nothing that comes before what it has told', async () => {
    const { visit } = await plannedVisit(studio.app)
    await post(visit.id, chairEvent(5, 'started')).expect(200)
    const r = await post(visit.id, chairEvent(4, 'nick'))
    expect([r.status, r.body.code]).toEqual([409, 'out-of-order'])
    // Another screen has numbers of its own.
    const other = { screen: randomUUID() }
    await post(visit.id, chairEvent(1, 'nick', undefined, Date.now(), other)).expect(200)
  })

  it('of two screens that do the same step at once counts one', async () => {
    const { visit } = await plannedVisit(studio.app)
    await post(visit.id, chairEvent(1, 'started')).expect(200)
    const first = visit.plan!.steps[0]!.id
    const answers = await Promise.all(
      [1, 2, 3].map((k) =>
        post(visit.id, chairEvent(9, 'done', first, Date.now(), { screen: randomUUID(), n: k })),
      ),
    )
    expect(answers.map((a) => a.status).sort()).toEqual([200, 409, 409])
  })

  it('refuses one that cannot be written by itself: others of the same moment are stored', async () => {
    const visits = await Promise.all([1, 2, 3].map(() => plannedVisit(studio.app)))
    const screens = visits.map(() => ({ screen: randomUUID() }))
    const events = visits.map((_, i) => chairEvent(1, 'started', undefined, Date.now(), screens[i]))
    // A number that an event of another service has.
    await post(visits[0]!.visit.id, events[0]!).expect(200)
    const nick = chairEvent(2, 'nick', undefined, Date.now(), screens[0])
    const taken = { ...events[1]!, id: events[0]!.id }
    const answers = await Promise.all([
      post(visits[0]!.visit.id, nick),
      post(visits[1]!.visit.id, taken).set('X-Write', taken.id),
      post(visits[2]!.visit.id, events[2]!),
    ])
    expect(answers.map((a) => a.status)).toEqual([200, 409, 200])
    expect(JSON.parse(answers[1].text)).toMatchObject({ code: 'id-taken', write: taken.id })
    // The one that was refused holds nothing up.
    await post(visits[1]!.visit.id, events[1]!).expect(200)
  })
  it('writes down what became of blades, once for each event', async () => {
    const { visit } = await plannedVisit(studio.app)
    const events = wholeService(visit, Date.now())
    for (const e of events) {
      await post(visit.id, e).expect(200)
      await post(visit.id, e).expect(200)
    }
    const log = (await api().get('/api/kit-events')).body as KitLog
    const own = log.events.filter((e) => e.visitId === visit.id)
    const strokes = visit.plan!.steps.reduce((s, x) => s + (x.strokes ?? 0), 0)
    expect(own.filter((e) => e.kind !== 'opened').reduce((s, e) => s + e.strokes, 0)).toBe(strokes)
    expect(own.filter((e) => e.kind === 'opened')).toHaveLength(
      own.filter((e) => e.kind !== 'opened').length,
    )
  })

  it('refuses a change of the plan that undoes what is done', async () => {
    const { visit } = await plannedVisit(studio.app)
    const events = wholeService(visit, Date.now()).slice(0, 8)
    for (const e of events) await post(visit.id, e).expect(200)
    const amendment = { text: 'x', after: 0, steps: visit.plan!.steps, lanes: [], covers: [] }
    const r = await post(visit.id, { ...chairEvent(99, 'amended'), detail: { amendment } })
    expect([r.status, r.body.code]).toEqual([409, 'not-possible'])
    const bad = { ...amendment, lanes: [{ id: 'chin:1:a' }] }
    await post(visit.id, { ...chairEvent(99, 'amended'), detail: { amendment: bad } }).expect(422)
    // Every lane and step that core makes passes the check of what comes over the wire.
    const rest = visit.plan!.steps.slice(events.filter((e) => e.kind === 'done').length)
    const whole = {
      text: 'the same again',
      after: events.filter((e) => e.kind === 'done').length,
      steps: rest,
      lanes: visit.plan!.lanes.filter((l) => rest.some((s) => s.laneId === l.id)),
      covers: visit.plan!.zones.map((z) => ({ zoneId: z.zoneId, cover: z.cover })),
    }
    await post(visit.id, { ...chairEvent(99, 'amended'), detail: { amendment: whole } }).expect(200)
  })

  it('keeps the first look as the reading at the chair; it is no answer of the next day', async () => {
    const { visit } = await plannedVisit(studio.app)
    const events = wholeService(visit, Date.now()).map((e) =>
      e.kind === 'looked'
        ? {
            ...e,
            detail: {
              zones: [
                { zoneId: 'chin', redness: 2 },
                { zoneId: 'occiput', redness: 4 },
              ],
            },
          }
        : e,
    )
    for (const e of events) await post(visit.id, e).expect(200)
    const page = (await api().get(`/api/visits/${visit.id}`)).body as VisitPage
    expect(page.answers).toEqual([
      expect.objectContaining({ moment: 'now', zones: [{ zoneId: 'chin', redness: 2, bumps: 0 }] }),
    ])
  })
})

describe('the probe', () => {
  it('shows with an error of its own that two known temperatures put right', async () => {
    const read = async (body: object) =>
      (await api().post('/api/probe').send(body).expect(200)).body as ProbeReading
    const mean = async (body: object) => {
      const all = await Promise.all(Array.from({ length: 12 }, () => read(body)))
      return all.reduce((s, r) => s + r.rawC, 0) / all.length
    }
    const ice = await mean({ into: 'ice' })
    const warm = await mean({ into: 'warm' })
    expect(Math.abs(ice)).toBeGreaterThan(0.8)
    const before = await read({ into: 'ice' })
    expect(before.withinC).toBeGreaterThan(3)
    const house = (
      await api()
        .patch('/api/house')
        .send({ probe: { iceShowsC: ice, warm: { knownC: 40, showsC: warm } } })
        .expect(200)
    ).body as House
    expect(house.probe!.offsetC).toBeCloseTo((-ice * 40) / (warm - ice), 6)
    expect(house.changes.at(-1)!.what).toContain('Probe')
    const towel = await read({ into: 'towel', outAtMs: Date.now() - 60_000 })
    // The imitated towel after a minute: 21.5 + 40 e^(−1/5.4) = 54.7 °C.
    expect(Math.abs(towel.tempC - 54.7)).toBeLessThan(1)
    expect(towel.withinC).toBeLessThan(0.5)
    await api()
      .patch('/api/house')
      .send({ probe: { iceShowsC: 44 } })
      .expect(422)
  })
})

it('what was begun with the house away is kept, with what would have held it back; told at once it is held as ever', async () => {
  const before = await plannedVisit(studio.app)
  await finishVisit(studio.app, before.visit, Date.now() - 3 * DAY_MS)
  const id = randomUUID()
  const { workerId } = before.visit
  await api()
    .post(`/api/clients/${before.client.id}/visits`)
    .send({ id, jobs: [oneJob(randomUUID(), 'face-shave')], workerId, slotAtMs: null })
    .expect(201)
  await api().put(`/api/visits/${id}/asked`).send(askedAll()).expect(200)
  const visit = (await api().put(`/api/visits/${id}/plan`).expect(200)).body as VisitPage
  // Meanwhile the client tells of something severe, which the tablet without the house cannot know.
  await api()
    .put(`/api/visits/${before.visit.id}/skin/48h`)
    .send({
      atMs: Date.now() - DAY_MS,
      zones: [{ zoneId: 'chin', redness: 4, bumps: 0 }],
      source: 'client',
    })
    .expect(200)
  const script = wholeService(visit, Date.now() - 2 * HOUR_MS)
  const [first, ...rest] = script
  const send = (e: object) => api().post(`/api/visits/${id}/events`).send(e)
  const held = (r: { status: number; body: { code?: string } }) => [r.status, r.body.code]
  expect(held(await send({ ...first!, detail: undefined }))).toEqual([409, 'held-back'])
  const now = { ...first!, id: randomUUID(), atMs: Date.now(), detail: { away: true } }
  expect(held(await send(now))).toEqual([409, 'held-back'])
  await send({ ...first!, detail: { away: true } }).expect(200)
  // What was done meanwhile is kept; the first tap of now waits until somebody has looked.
  const last = rest.pop()!
  for (const e of rest) await send(e).expect(200)
  const tap = { ...last, id: randomUUID(), n: 100, screen: randomUUID(), atMs: Date.now() }
  for (let i = 0; i < 2; i++)
    expect(held(await send({ ...tap, id: randomUUID(), n: 100 + i }))).toEqual([422, 'paused'])
  const { chair } = (await api().get(`/api/visits/${id}`)).body as VisitPage
  expect(chair).toMatchObject({
    status: 'paused',
    pausedFor: { words: expect.stringMatching(/^Begun with the house away/) as string },
  })
  const looked = { kind: 'resumed', stepId: undefined, detail: { of: chair.pausedFor!.id } }
  await send({ ...tap, ...looked, id: randomUUID(), n: 102 }).expect(200)
  await send(last).expect(200)
  const page = (await api().get(`/api/visits/${id}`)).body as VisitPage
  expect(page.state).toBe('finished')
  expect(page.events[0]!.reason).toMatch(
    /^Begun with the house away, which would have held it back: .+/,
  )
})

it('a clock that jumps back three days in the middle: in order, ends after it starts, nothing refused', async () => {
  const { visit } = await plannedVisit(studio.app)
  const script = wholeService(visit, Date.now() - HOUR_MS)
  for (const [i, event] of script.entries()) {
    const atMs = i < script.length / 2 ? event.atMs : event.atMs - 3 * DAY_MS
    await api()
      .post(`/api/visits/${visit.id}/events`)
      .send({ ...event, atMs })
      .expect(200)
  }
  const page = (await api().get(`/api/visits/${visit.id}`)).body as VisitPage
  expect(page.state).toBe('finished')
  expect(page.endedAtMs!).toBeGreaterThanOrEqual(page.startedAtMs!)
  const times = page.events.map((e) => e.atMs)
  expect(times).toEqual([...times].sort((a, b) => a - b))
  expect(page.chair.spentMs).toBeGreaterThan(0)
  const late = await api()
    .put(`/api/visits/${visit.id}/skin/now`)
    .send({ atMs: page.endedAtMs! - 3 * DAY_MS, zones: [] })
    .expect(200)
  const kept = (late.body as VisitPage).answers.find((a) => a.moment === 'now')!
  expect(kept.atMs).toBe(page.endedAtMs)
})

describe('what goes home', () => {
  it('messages are written when the service ends, can be changed and taken back, and go nowhere', async () => {
    const { visit } = await plannedVisit(studio.app)
    await finishVisit(studio.app, visit, Date.now() - HOUR_MS)
    const page = (await api().get(`/api/visits/${visit.id}`)).body as VisitPage
    const subjects = page.messages.map((m) => m.subject)
    expect(subjects[0]).toBe('After your hot-towel face shave')
    expect(subjects.filter((s) => s === 'How is your skin?')).toHaveLength(3)
    expect(subjects).toContain('Good days for the next visit are near')
    const due = page.messages.map((m) => m.dueAtMs)
    expect(due).toEqual([...due].sort((a, b) => a - b))
    const [first] = page.messages
    expect(first!.text).toContain('No strong sun until')
    const changed = (
      await api()
        .patch(`/api/messages/${first!.id}`)
        .send({ text: 'Shorter.', state: 'taken-back' })
        .expect(200)
    ).body as Message
    expect(changed).toMatchObject({ text: 'Shorter.', state: 'taken-back' })
    await api().patch(`/api/messages/${first!.id}`).send({ state: 'sent' }).expect(422)
    const all = (await api().get('/api/messages').expect(200)).body as Message[]
    expect(all.filter((m) => m.visitId === visit.id)).toHaveLength(page.messages.length)
  })

  it('products are kept, change the clearances, and must be of the house', async () => {
    const { visit } = await plannedVisit(studio.app)
    await finishVisit(studio.app, visit, Date.now() - HOUR_MS)
    const put = (products: string[]) =>
      api().put(`/api/visits/${visit.id}/products`).send({ products })
    const sun = (v: VisitPage) => v.care!.clearances.find((c) => c.id === 'sun')!.untilMs
    const plain = (await put(['balm-plain']).expect(200)).body as VisitPage
    await api()
      .patch('/api/house')
      .send({
        products: [
          { id: 'peel', name: 'Mild peel', use: 'after', holds: ['acid'] },
          { id: 'balm-plain', name: 'Balm', use: 'after', holds: [] },
        ],
      })
      .expect(200)
    const acid = (await put(['peel', 'peel']).expect(200)).body as VisitPage
    expect(acid.products).toEqual(['peel'])
    expect(sun(acid)).toBeGreaterThan(sun(plain) + 4 * DAY_MS)
    const r = await put(['magic'])
    expect([r.status, r.body.code]).toEqual([422, 'no-such-product'])
  })

  it('pictures are kept without place, time and device, small ones beside them, and go with the client', async () => {
    const { client, visit } = await plannedVisit(studio.app)
    const withPlace = await sharp({
      create: { width: 900, height: 600, channels: 3, background: '#b86' },
    })
      .withExif({
        IFD0: { Make: 'Camera of Someone' },
        IFD3: { GPSLatitude: '54/1 19/1 0/1', GPSLatitudeRef: 'N' },
      })
      .jpeg()
      .toBuffer()
    expect((await sharp(withPlace).metadata()).exif).toBeDefined()
    const id = randomUUID()
    const send = (bytes: Buffer, photo = id) =>
      api()
        .post(`/api/visits/${visit.id}/photos`)
        .field('id', photo)
        .attach('photo', bytes, 'x.jpg')
    await send(withPlace).expect(201)
    await send(withPlace).expect(200)
    const whole = await api().get(`/api/photos/${id}`).expect(200)
    const meta = await sharp(whole.body as Buffer).metadata()
    expect(meta).toMatchObject({ width: 900, height: 600, format: 'jpeg' })
    expect(meta.exif).toBeUndefined()
    expect((whole.body as Buffer).includes('Someone')).toBe(false)
    const small = await api().get(`/api/photos/${id}?size=thumbnail`).expect(200)
    expect((await sharp(small.body as Buffer).metadata()).width).toBe(320)
    const text = await send(Buffer.from('no picture at all'), randomUUID())
    expect([text.status, text.body.code]).toEqual([422, 'no-picture'])
    await api().post(`/api/visits/${visit.id}/photos`).field('id', randomUUID()).expect(422)
    await api()
      .post(`/api/visits/${randomUUID()}/photos`)
      .field('id', randomUUID())
      .attach('photo', withPlace, 'x.jpg')
      .expect(404)
    expect(((await api().get(`/api/visits/${visit.id}`)).body as VisitPage).photos).toHaveLength(1)
    expect(existsSync(photoFile(studio.dir, id, 'whole'))).toBe(true)
    await api().delete(`/api/clients/${client.id}`).send({ confirmName: client.name }).expect(200)
    expect(existsSync(photoFile(studio.dir, id, 'whole'))).toBe(false)
    expect(existsSync(photoFile(studio.dir, id, 'thumbnail'))).toBe(false)
    await api().get(`/api/photos/${id}`).expect(404)
  })
})

/** The text of a PDF by another reader (pdf.js), page by page. */
async function textOf(bytes: Uint8Array): Promise<string[]> {
  const fonts = join(process.cwd(), 'node_modules/pdfjs-dist/standard_fonts/')
  const pdf = await getDocument({
    data: new Uint8Array(bytes),
    standardFontDataUrl: fonts,
    verbosity: 0,
  }).promise
  const pages: string[] = []
  for (let i = 1; i <= pdf.numPages; i++) {
    const { items } = await (await pdf.getPage(i)).getTextContent()
    pages.push(items.map((x) => ('str' in x ? x.str + (x.hasEOL ? ' ' : '') : '')).join(''))
  }
  return pages
}

it('pictures of too many points, of other kinds and of no kind are refused in a sentence', async () => {
  const { visit } = await plannedVisit(studio.app)
  const send = (picture: Buffer) =>
    api()
      .post(`/api/visits/${visit.id}/photos`)
      .field('id', randomUUID())
      .attach('photo', picture, 'skin.png')
  const plain = (width: number, height: number) =>
    sharp({ create: { width, height, channels: 3, background: '#a87' } })
  // A few kilobytes that would fill a hundred megabytes of memory.
  const bomb = await plain(6000, 4200).png({ compressionLevel: 9 }).toBuffer()
  expect(bomb.length).toBeLessThan(400_000)
  const refused = await send(bomb)
  expect([refused.status, refused.body.code]).toEqual([422, 'too-many-pixels'])
  const svg = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>')
  for (const other of [svg, await plain(20, 20).tiff().toBuffer(), Buffer.from('nothing')]) {
    const r = await send(other)
    expect([r.status, r.body.code]).toEqual([422, 'no-picture'])
  }
  await send(await plain(5000, 4900).webp().toBuffer()).expect(201)
})

describe('the sheet as PDF', () => {
  it('is one page whose text another reader reads back, names of many scripts’ letters included', async () => {
    const { visit } = await plannedVisit(studio.app, 'dermaplane')
    await finishVisit(studio.app, visit, Date.now() - HOUR_MS)
    const r = await api().get(`/api/visits/${visit.id}/care.pdf`).buffer(true).expect(200)
    expect(r.headers['content-type']).toBe('application/pdf')
    const pages = await textOf(r.body as Buffer)
    expect(pages).toHaveLength(1)
    for (const words of [
      'After your dermaplaning',
      'No strong sun',
      'until',
      'Count bumps',
      'see a clinician',
    ])
      expect(pages[0]).toContain(words)
  })

  it('stays one page however much there is to say', async () => {
    const care = carePlan(
      DEFAULTS,
      'face-shave',
      { ...SKIN, reactivity: 'reactive', bumpProne: true },
      DEFAULT_SCHOOLS,
      true,
      Date.UTC(2026, 9, 24, 12),
      {
        atChair: { redness: { chin: 2 }, leftOut: { chin: 'it reddened' }, nicks: { chin: 2 } },
        products: [
          {
            id: 'a',
            name: 'A peel with a very long name indeed, as houses have them',
            use: 'after',
            holds: ['acid'],
          },
        ],
      },
    )
    const bytes = await careSheet({
      care,
      client: 'Żofia Łuczyńska-Ősz',
      service: 'Hot-towel face shave',
      house: 'Lantern Quay',
      next: '1 Nov – 4 Nov',
      when: (ms) => new Date(ms).toISOString().slice(0, 16),
    })
    const pages = await textOf(bytes)
    expect(pages).toHaveLength(1)
    expect(pages[0]).toContain('Żofia Łuczyńska-Ősz')
    for (const c of care.clearances.filter((x) => x.kind === 'avoid'))
      expect(pages[0]).toContain(c.title)
    // Nothing but PDF's own letters before the first object.
    expect(bytes.subarray(0, 5).toString()).toBe('%PDF-')
  })
})

describe('the calendar over summer time', () => {
  it.each(['Europe/Berlin', 'America/New_York', 'Australia/Lord_Howe', 'UTC'])(
    'keeps hours as hours, and another parser finds the local hour of %s',
    (zone) => {
      // Two days before clocks go back in Europe, and on the day itself; and spring.
      for (const endedAtMs of [
        Date.UTC(2026, 9, 24, 10),
        Date.UTC(2026, 9, 25, 0, 30),
        Date.UTC(2026, 2, 28, 13),
        Date.UTC(2026, 10, 1, 4),
      ]) {
        const care = carePlan(DEFAULTS, 'dermaplane', SKIN, DEFAULT_SCHOOLS, false, endedAtMs)
        const text = careCalendar(
          { id: randomUUID(), jobs: [oneJob('', 'dermaplane')], window: null },
          care,
        )
        const events = new ICAL.Component(ICAL.parse(text))
          .getAllSubcomponents('vevent')
          .map((e) => new ICAL.Event(e))
        const local = new Intl.DateTimeFormat('en-GB', {
          timeZone: zone,
          dateStyle: 'short',
          timeStyle: 'short',
        })
        for (const c of care.clearances) {
          if (c.kind !== 'avoid') continue
          const e = events.find((x) => x.uid.includes(`-${c.id}@`))!
          expect(e.startDate.toJSDate().getTime()).toBe(c.untilMs)
          expect(local.format(e.startDate.toJSDate())).toBe(local.format(c.untilMs))
        }
        const makeUp = events.find((x) => x.uid.includes('-make-up@'))!
        expect(makeUp.startDate.toJSDate().getTime() - endedAtMs).toBe(24 * HOUR_MS)
      }
    },
  )
})
