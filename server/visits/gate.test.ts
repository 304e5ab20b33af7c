/** The one gate over the wire: what is known of a visit holds back its plan and its start, whoever asks. */
import { type ServiceId, oneJob } from '../../core/services/index.ts'
import { DEFAULTS } from '../../core/house/index.ts'
import type { Asked } from '../../core/screening/index.ts'
import { alarmId, gate, holding, knownOf } from '../../core/visit/index.ts'
import { dateOf, DAY_MS, HOUR_MS, offsetHere } from '../../core/time/index.ts'
import { randomUUID } from 'node:crypto'
import fc from 'fast-check'
import request, { type Response } from 'supertest'
import type { Client, House, Today, TodayRow, VisitPage } from '../../contract/types.ts'
import {
  askedAll,
  chairEvent,
  finishVisit,
  mapOf,
  newClient,
  NO_TO_ALL,
  openStudio,
  plannedVisit,
  wholeService,
  type Studio,
} from '../testing/studio.ts'

let studio: Studio
let house: House
beforeAll(async () => {
  studio = await openStudio()
  house = (await api().get('/api/house')).body as House
})
afterAll(() => studio.close())

const api = () => request(studio.app)
const refused = (r: Response, status: number, code: string) =>
  expect([r.status, r.body?.code, r.status < 400 ? r.body : '']).toEqual([status, code, ''])
const page = async (id: string) =>
  (await api().get(`/api/visits/${id}`).expect(200)).body as VisitPage
const tell = (id: string, e: object) => api().post(`/api/visits/${id}/events`).send(e)
const start = (id: string) => tell(id, chairEvent(1, 'started'))
const plan = (id: string, choice: object = {}) => api().put(`/api/visits/${id}/plan`).send(choice)
const ask = (id: string, asked: Asked) => api().put(`/api/visits/${id}/asked`).send(asked)
const decide = (visitId: string, finding: string, over: object = {}) =>
  api()
    .post(`/api/visits/${visitId}/decisions`)
    .send({ id: randomUUID(), finding, workerId: house.workerId, reason: 'pale and cool', ...over })
const look = (id: string, moment: string, body: object) =>
  api()
    .put(`/api/visits/${id}/skin/${moment}`)
    .send({ atMs: Date.now(), zones: [], ...body })
const findings = async (id: string) => {
  const visit = await page(id)
  return gate(knownOf(DEFAULTS, visit, house, {}, visit.facts, Date.now(), offsetHere)).findings
}
const about = async (id: string, what: string) =>
  (await findings(id)).filter((f) => f.about === what)

const openVisit = async (clientId: string, service: ServiceId = 'face-shave') =>
  (
    await api()
      .post(`/api/clients/${clientId}/visits`)
      .send({
        id: randomUUID(),
        jobs: [oneJob(randomUUID(), service)],
        workerId: house.workerId,
        slotAtMs: Date.now(),
      })
      .expect(201)
  ).body as VisitPage
const someone = async (over: object = {}) =>
  (await api().post('/api/clients').send(newClient(over)).expect(201)).body as Client

/** A service that ended so many days ago, and the open visit after it, asked and planned again when that may be. */
async function after(daysAgo: number, told?: { moment: string; body: object }) {
  const { client, visit } = await plannedVisit(studio.app)
  await finishVisit(studio.app, visit, Date.now() - daysAgo * DAY_MS)
  if (told) await look(visit.id, told.moment, told.body).expect(200)
  const next = await openVisit(client.id)
  await ask(next.id, askedAll()).expect(200)
  return { client, done: await page(visit.id), next: next.id }
}
const today = async () => (await api().get('/api/today').expect(200)).body as Today
const rowOf = async (clientId: string): Promise<TodayRow | undefined> =>
  (await today()).rows.find((r) => r.client.id === clientId)

describe('a visit of which nothing is known', () => {
  it('is neither planned nor started; asked, signed, planned, it is', async () => {
    const { id: client } = await someone()
    const { id } = await openVisit(client)
    expect((await findings(id)).map((f) => f.id)).toEqual(
      expect.arrayContaining(['unasked', 'consent', 'unread', 'no-plan']),
    )
    refused(await plan(id), 409, 'held-back')
    refused(await start(id), 409, 'no-plan')
    await ask(id, { answers: NO_TO_ALL, spots: [] }).expect(200)
    await plan(id).expect(200)
    const r = await start(id)
    refused(r, 409, 'held-back')
    expect(r.body.detail).toMatch(/The service does not begin yet/)
    expect(r.body.errors.map((e: { path: string }) => e.path)).toEqual(['consent'])
    await ask(id, askedAll()).expect(200)
    await start(id).expect(200)
    expect((await page(id)).state).toBe('running')
  })

  it('of several jobs is not begun: a plan that was kept for one of them does not stand for both', async () => {
    const { visit } = await plannedVisit(studio.app)
    const [face] = visit.jobs
    const back = oneJob(randomUUID(), 'back-and-chest')
    const change = (jobs: object[]) => api().patch(`/api/visits/${visit.id}`).send({ jobs })
    // What cannot be one sitting is refused, and what was kept stays.
    refused(await change([face!, back]), 422, 'two-grounds')
    expect((await page(visit.id)).plan).not.toBeNull()
    const lip = { ...oneJob(randomUUID(), 'facial-razor'), zones: ['upper-lip-left'] }
    refused(await change([face!, { ...lip, method: 'wax' }]), 422, 'root-and-blade')
    const brow = { ...oneJob(randomUUID(), 'facial-razor'), zones: ['glabella'], method: 'wax' }
    await change([face!, brow]).expect(200)
    expect((await page(visit.id)).plan).toBeNull()
    refused(await start(visit.id), 409, 'no-plan')
    await plan(visit.id).expect(200)
    // Both are agreed to, not one.
    refused(await start(visit.id), 409, 'held-back')
    // Another service alone: only that one is planned, and begun when it was asked about.
    await api()
      .patch(`/api/visits/${visit.id}`)
      .send({ jobs: [back] })
      .expect(200)
    await plan(visit.id).expect(200)
    expect((await findings(visit.id)).map((f) => f.id)).toContain('consent')
    refused(await start(visit.id), 409, 'held-back')
    await ask(visit.id, askedAll('back-and-chest')).expect(200)
    await start(visit.id).expect(200)
  })

  it('goes on by a word that is kept with name and reason, until that is taken back', async () => {
    const { id: client } = await someone()
    const { id } = await openVisit(client)
    await ask(id, { answers: NO_TO_ALL, spots: [] }).expect(200)
    await plan(id).expect(200)
    refused(await decide(id, 'consent', { reason: 'so' }), 422, 'no-reason')
    refused(await decide(id, 'unasked'), 422, 'no-such-finding')
    refused(await decide(id, 'consent', { workerId: randomUUID() }), 422, 'no-such-worker')
    const kept = randomUUID()
    await decide(id, 'consent', { id: kept, reason: 'agreed aloud, hand in a sling' }).expect(200)
    await decide(id, 'consent', { id: kept }).expect(200)
    const [f] = await about(id, 'consent')
    expect(f!.decided).toMatchObject({
      workerName: house.workers[0]!.name,
      reason: 'agreed aloud, hand in a sling',
    })
    await api().delete(`/api/decisions/${kept}`).expect(200)
    refused(await start(id), 409, 'held-back')
    // Taken back, not erased.
    expect((await page(id)).facts.decisions).toEqual([
      expect.objectContaining({ id: kept, takenBackAtMs: expect.any(Number) }),
    ])
    await decide(id, 'consent').expect(200)
    await start(id).expect(200)
    refused(await decide(id, 'consent'), 409, 'already-started')
    refused(
      await api().delete(`/api/decisions/${(await page(id)).facts.decisions[1]!.id}`),
      409,
      'already-started',
    )
  })

  it('a stop is nobody’s to lift', async () => {
    const { visit } = await plannedVisit(studio.app)
    const stop = { ...askedAll(), answers: { ...NO_TO_ALL, infection: { yes: true } } }
    await ask(visit.id, stop).expect(200)
    const [f] = await about(visit.id, 'rule')
    refused(await decide(visit.id, f!.id), 422, 'not-theirs-to-lift')
    refused(await start(visit.id), 409, 'held-back')
    await ask(visit.id, askedAll()).expect(200)
    await start(visit.id).expect(200)
  })

  it('a wait of the house is lifted by the practised, not by somebody who learns', async () => {
    const { visit } = await plannedVisit(studio.app)
    const date = dateOf(Date.now(), offsetHere(Date.now()))
    await ask(visit.id, {
      ...askedAll(),
      answers: { ...NO_TO_ALL, acids: { yes: true, date } },
    }).expect(200)
    refused(await plan(visit.id), 409, 'held-back')
    const [f] = await about(visit.id, 'rule')
    const level = (l: string) =>
      api()
        .patch('/api/house')
        .send({ worker: { ...house.workers[0], level: l } })
        .expect(200)
    await level('learning')
    refused(await decide(visit.id, f!.id), 422, 'practised-only')
    await level('practised')
    await decide(visit.id, f!.id).expect(200)
    await plan(visit.id).expect(200)
    await start(visit.id).expect(200)
  })
})

describe('a severe answer', () => {
  const FORM = {
    redness: '4',
    areas: ['chin'],
    bumps: '35',
    pus: 'true',
    stinging: '8',
    itch: '1',
    dryness: '1',
    hair: 'no',
    since: '0',
    words: '',
  }
  /** Told by the client on the link page. */
  async function severe() {
    const { client, visit } = await plannedVisit(studio.app)
    await finishVisit(studio.app, visit, Date.now() - 1.1 * DAY_MS)
    await api().patch(`/api/clients/${client.id}`).send({ phone: '0555 019' }).expect(200)
    const { url } = (await api().post(`/api/visits/${visit.id}/link`).expect(201)).body as {
      url: string
    }
    const thanks = await api().post(new URL(url).pathname).type('form').send(FORM).expect(200)
    return { client, visit, thanks: thanks.text }
  }

  it('tells the client what to do now, and promises only what is still to come', async () => {
    const { thanks, visit } = await severe()
    expect(thanks).toContain('What to do now')
    expect(thanks).toContain('pharmacist or doctor')
    // Nobody is promised for: the client is told what to do when nothing comes.
    expect(thanks).not.toContain('will ring')
    const day = (days: number) =>
      new Intl.DateTimeFormat('en-GB', { weekday: 'long', day: 'numeric', month: 'long' }).format(
        Date.now() - 1.1 * DAY_MS + days * DAY_MS,
      )
    expect(thanks).not.toContain(day(1))
    expect(thanks).toContain(' asks again on ')
    // One that is mild is told nothing of it.
    const { client: other, visit: calm } = await plannedVisit(studio.app)
    await finishVisit(studio.app, calm, Date.now() - 8 * DAY_MS)
    expect(other.id).not.toBe(visit.clientId)
    const { url } = (await api().post(`/api/visits/${calm.id}/link`).expect(201)).body as {
      url: string
    }
    const mild = await api()
      .post(new URL(url).pathname)
      .type('form')
      .send({ ...FORM, redness: '1', bumps: '0', pus: [], stinging: '1' })
      .expect(200)
    expect(mild.text).not.toContain('What to do now')
    expect(mild.text).toContain('This was the last time')
  })

  it('alarms on Today with the telephone number until somebody has looked', async () => {
    const before = (await today()).alarms
    const { client, visit } = await severe()
    const after = await today()
    expect(after.alarms).toBe(before + 1)
    const row = await rowOf(client.id)
    expect(row).toMatchObject({ phone: '0555 019' })
    expect(row!.flags[0]).toMatchObject({ kind: 'alarm', ring: true })
    expect(row!.flags[0]!.text).toMatch(/redness 4, severe/)
    expect(after.rows[0]!.flags[0]!.kind).toBe('alarm')
    refused(await decide(visit.id, alarmId(visit.id), { reason: 'so' }), 422, 'no-reason')
    await decide(visit.id, alarmId(visit.id), { reason: 'rang: sees a doctor' }).expect(200)
    expect((await today()).alarms).toBe(before)
  })

  it('leaves those zones out of the next plan, until seen calm', async () => {
    const { client, done, next } = await after(9, {
      moment: '7d',
      body: { source: 'client', zones: [{ zoneId: 'chin', redness: 4, bumps: 0 }] },
    })
    await decide(next, (await about(next, 'unsettled'))[0]!.id).expect(200)
    const planned = (await plan(next).expect(200)).body as VisitPage
    expect(planned.plan!.zones.find((z) => z.zoneId === 'chin')?.passes ?? []).toEqual([])
    expect((await about(next, 'aftermath'))[0]).toMatchObject({
      severity: 'leave-out',
      zones: ['chin'],
      visitId: done.id,
    })
    // The visit after that one still leaves them out: nobody has seen them calm, and no blade went there.
    await finishVisit(studio.app, planned, Date.now() - 2 * HOUR_MS)
    const third = await openVisit(client.id)
    await ask(third.id, askedAll()).expect(200)
    expect(await about(third.id, 'aftermath')).toEqual([
      expect.objectContaining({ zones: ['chin'], visitId: done.id }),
    ])
    await look(done.id, 'h220', { zones: [] }).expect(422)
    await look(done.id, 'h215', { zones: [] }).expect(200)
    expect(await about(third.id, 'aftermath')).toEqual([])
  })

  it('told of the whole face, or spreading, it holds the next visit back as a whole', async () => {
    const { next } = await after(9, {
      moment: '7d',
      body: {
        source: 'client',
        zones: [],
        feeling: { spreading: true },
      },
    })
    refused(await plan(next), 409, 'held-back')
    const [f] = await about(next, 'aftermath')
    await decide(next, f!.id).expect(200)
    await plan(next).expect(200)
    await start(next).expect(200)
  })

  it('that comes in while its client is in the chair pauses the service until somebody goes on', async () => {
    const { next, done } = await after(9)
    const { plan: kept } = (await plan(next).expect(200)).body as VisitPage
    await start(next).expect(200)
    const first = kept!.steps[0]!.id
    // What is mild lets it go on.
    const mild = { source: 'client', zones: [{ zoneId: 'chin', redness: 1, bumps: 0 }] }
    await look(done.id, '48h', mild).expect(200)
    expect((await page(next)).chair.status).toBe('running')
    const bad = { source: 'client', zones: [{ zoneId: 'chin', redness: 4, bumps: 0 }] }
    await look(done.id, '7d', bad).expect(200)
    expect((await page(next)).chair).toMatchObject({
      status: 'paused',
      pausedFor: {
        words: expect.stringContaining('redness 4, severe; chin'),
        zones: ['chin'],
      },
    })
    refused(await tell(next, chairEvent(2, 'done', first)), 422, 'paused')
    // A screen that has not heard of it does not go on; one that has names it.
    refused(await tell(next, chairEvent(3, 'resumed')), 422, 'paused')
    const { pausedFor } = (await page(next)).chair
    const looked = { detail: { of: pausedFor!.id } }
    await tell(next, chairEvent(4, 'resumed', undefined, Date.now(), looked)).expect(200)
    // The same answer kept once more is no news; one more place is, with all that waits.
    await look(done.id, '7d', bad).expect(200)
    await tell(next, chairEvent(5, 'done', first)).expect(200)
    const jaw = { zoneId: 'jaw-left', redness: 4, bumps: 0 }
    await look(done.id, '48h', { source: 'client', zones: [jaw] }).expect(200)
    await look(done.id, '48h', { source: 'client', zones: [jaw, ...bad.zones] }).expect(200)
    expect((await page(next)).chair.pausedFor!.zones).toEqual(['jaw-left', 'chin'])
    expect((await page(next)).events.map((e) => e.kind)).toEqual([
      'started',
      'paused',
      'resumed',
      'done',
      'paused',
      'paused',
    ])
  })

  it('adds nothing to a service that nobody ended', async () => {
    const { next, done } = await after(9)
    await plan(next).expect(200)
    await tell(next, chairEvent(1, 'started', undefined, Date.now() - 20 * HOUR_MS)).expect(200)
    const bad = { source: 'client', zones: [{ zoneId: 'chin', redness: 4, bumps: 0 }] }
    await look(done.id, '7d', bad).expect(200)
    const { chair } = await page(next)
    expect([chair.status, chair.lastAtMs < Date.now() - 19 * HOUR_MS]).toEqual(['running', true])
  })

  it('a word on a finished visit stays, but for one on its alarm', async () => {
    const { visit } = await severe()
    const id = randomUUID()
    await decide(visit.id, alarmId(visit.id), { id, reason: 'rang nobody yet' }).expect(200)
    await api().delete(`/api/decisions/${id}`).expect(200)
    expect((await page(visit.id)).facts.decisions[0]!.takenBackAtMs).not.toBeNull()
  })

  it('shows as what it was on the tide line', async () => {
    const { visit, client } = await severe()
    const { visits } = (await api().get(`/api/clients/${client.id}`)).body as {
      visits: { id: string; worstRedness: number }[]
    }
    expect(visits.find((v) => v.id === visit.id)!.worstRedness).toBe(4)
  })
})

it('skin that has not settled waits at the plan and at the start, as Today says', async () => {
  const { client, done, next } = await after(2, {
    moment: '48h',
    body: { zones: [{ zoneId: 'chin', redness: 2, bumps: 0 }] },
  })
  refused(await plan(next), 409, 'held-back')
  const flags = (await rowOf(client.id))!.flags.map((f) => f.text)
  const [f] = await about(next, 'unsettled')
  expect(flags.some((t) => t.startsWith('Skin not settled: wait until'))).toBe(true)
  expect(f!.text).toMatch(/^Wait until/)
  // Seen clear since.
  await look(done.id, 'h50', { zones: [] }).expect(422)
  await look(done.id, 'h47', { zones: [] }).expect(200)
  expect(await about(next, 'unsettled')).toEqual([])
  await plan(next).expect(200)
})

describe('a patch test', () => {
  const test = (result: string, hoursAgo: number, read?: number): Asked => ({
    ...askedAll('dermaplane'),
    answers: { ...NO_TO_ALL, 'first-ever': { yes: true } },
    patchTest: {
      zoneId: 'jaw-left',
      placedAtMs: Date.now() - hoursAgo * HOUR_MS,
      ...(read !== undefined && { readAtMs: Date.now() - read * HOUR_MS }),
      result,
    } as never,
  })

  it('is called calm only when it was read in its window; a reaction is taken at any time', async () => {
    const { visit } = await plannedVisit(studio.app, 'dermaplane')
    await ask(visit.id, test('waiting', 0.02)).expect(200)
    refused(await ask(visit.id, test('calm', 0.02, 0)), 422, 'patch-not-read')
    expect((await page(visit.id)).asked.patchTest!.result).toBe('waiting')
    await ask(visit.id, test('reacted', 0.02, 0)).expect(200)
    // Another, placed yesterday: to be read today.
    const waited = test('waiting', 30)
    await ask(visit.id, waited).expect(200)
    refused(await plan(visit.id), 409, 'held-back')
    const { placedAtMs, zoneId } = waited.patchTest!
    const calm = { zoneId, placedAtMs, readAtMs: Date.now(), result: 'calm' as const }
    await ask(visit.id, { ...waited, patchTest: calm }).expect(200)
    await plan(visit.id).expect(200)
  })
})

describe('a moment that has not come', () => {
  it('cannot be answered, nor one later than now', async () => {
    const { visit } = await plannedVisit(studio.app)
    await finishVisit(studio.app, visit, Date.now() - 2 * HOUR_MS)
    refused(await look(visit.id, '24h', {}), 422, 'not-yet')
    refused(await look(visit.id, '1h', { atMs: Date.now() + HOUR_MS }), 422, 'not-yet')
    expect((await page(visit.id)).answers.map((a) => a.moment)).toEqual(['now'])
    await look(visit.id, '1h', {}).expect(200)
  })

  it('comes when the house says; worker and client file under the same one', async () => {
    const { visit } = await plannedVisit(studio.app)
    await finishVisit(studio.app, visit, Date.now() - 26 * HOUR_MS)
    const owed = async () => (await rowOf(visit.clientId))?.flags.map((f) => f.text) ?? []
    expect(await owed()).toContain('Day 1 answer owed')
    const first = (hours: number | null) =>
      api()
        .patch('/api/house')
        .send({ figures: { 'care.firstAnswerHours': hours } })
        .expect(200)
    await first(36)
    expect(await owed()).not.toContain('Day 1 answer owed')
    refused(await look(visit.id, '24h', {}), 422, 'not-yet')
    await first(null)
    await look(visit.id, '24h', {}).expect(200)
  })
})

describe('what happened at the chair', () => {
  /** Chin reddens before its lanes, is left out, and a jaw is nicked. */
  async function reddened(daysAgo: number) {
    const { client, visit } = await plannedVisit(studio.app)
    const chin = new Set(visit.plan!.lanes.filter((l) => l.zoneId === 'chin').map((l) => l.stepId!))
    const events = wholeService(visit, Date.now() - daysAgo * DAY_MS)
    const first = events.findIndex((e) => chin.has(e.stepId ?? ''))
    const at = events[first]!
    let n = 10_000
    const more = (kind: 'redness' | 'nick', detail: object) => ({
      ...chairEvent(++n, kind, undefined, at.atMs),
      screen: '22222222-2222-4222-8222-222222222222',
      detail,
    })
    const told: object[] = []
    for (const [i, e] of events.entries()) {
      if (i === first) {
        told.push(more('redness', { zoneId: 'chin', grade: 2 }))
        told.push(more('nick', { zoneId: 'jaw-left', sizeMm: 2 }))
      }
      if (e.kind === 'done' && chin.has(e.stepId!))
        told.push({ ...e, kind: 'skipped', reason: 'the skin reddens' })
      else told.push(e)
    }
    for (const e of told) await tell(visit.id, e).expect(200)
    return { client, visit: await page(visit.id) }
  }

  it('stands at Return, in the care sheet, in the messages, in learning and in the window', async () => {
    const { visit, client } = await reddened(1)
    expect(visit.atChair).toMatchObject({
      redness: { chin: 2 },
      // What is done in one go with the chin is left with it.
      leftOut: { chin: 'it reddened', 'under-lip': 'the skin reddens' },
      nicks: { 'jaw-left': 1 },
    })
    expect(visit.lookAt).toContain('chin')
    const said = visit.care!.today.join(' ')
    expect(said).toMatch(/Reddened today: .*chin/i)
    expect(said).toMatch(/Left out today: .*chin/i)
    expect(said).toMatch(/nick/i)
    expect(visit.care!.clearances.map((c) => c.id)).toContain('reddened')
    const texts = visit.messages.map((m) => m.text).join('\n')
    expect(texts).toMatch(/Reddened today: .*chin/i)
    // A zone that was left out is still one to look at.
    await look(visit.id, '1h', { zones: [{ zoneId: 'chin', redness: 1, bumps: 0 }] }).expect(200)
    refused(
      await look(visit.id, '1h', { zones: [{ zoneId: 'occiput', redness: 1, bumps: 0 }] }),
      422,
      'not-worked',
    )
    const { visits } = (await api().get(`/api/clients/${client.id}`)).body as {
      visits: { worstRedness: number }[]
    }
    expect(visits[0]!.worstRedness).toBe(2)
    expect(visit.loads!['chin']).toBeGreaterThan(0)
    const plain = await plannedVisit(studio.app)
    await finishVisit(studio.app, plain.visit, Date.now() - DAY_MS)
    const why = (window: VisitPage['window']) => window!.reasons.map((r) => r.text).join(' ')
    expect(why(visit.window)).toMatch(/Redness was last seen and not yet seen clear/)
    expect(why((await page(plain.visit.id)).window)).not.toMatch(/Redness/)
  })

  it('a nick or redness wrongly recorded is taken back by an event; what follows from it goes too', async () => {
    const { visit } = await reddened(1)
    const of = (kind: string) => visit.events.find((e) => e.kind === kind)!.id
    const other = { screen: randomUUID() }
    await tell(
      visit.id,
      chairEvent(1, 'taken-back', undefined, Date.now(), { ...other, detail: { of: of('nick') } }),
    ).expect(200)
    const now = await page(visit.id)
    expect(now.atChair).toMatchObject({ nicks: {}, redness: { chin: 2 } })
    expect(now.care!.today.join(' ')).not.toMatch(/nick/i)
    expect(now.events.map((e) => e.kind)).toEqual(expect.arrayContaining(['nick', 'taken-back']))
    refused(
      await tell(
        visit.id,
        chairEvent(2, 'taken-back', undefined, Date.now(), {
          ...other,
          detail: { of: of('finished') },
        }),
      ),
      409,
      'not-possible',
    )
  })

  it('a start by mistake is taken back, and the visit is open again', async () => {
    const { visit } = await plannedVisit(studio.app)
    const e = chairEvent(1, 'started')
    await tell(visit.id, e).expect(200)
    await tell(visit.id, {
      ...chairEvent(2, 'taken-back'),
      detail: { of: e.id },
    }).expect(200)
    expect(await page(visit.id)).toMatchObject({ state: 'open', startedAtMs: null })
    await tell(visit.id, chairEvent(3, 'started')).expect(200)
  })
})

describe('a zone that was never read', () => {
  it('is called a guess, felt before its first lane, and the reading is kept', async () => {
    const { visit } = await plannedVisit(studio.app, 'face-shave', false)
    expect(visit.plan!.lanes.every((l) => l.grain === 'guess')).toBe(true)
    expect(visit.plan!.steps.find((s) => s.kind === 'stroke')!.text).toMatch(/guess/)
    const events = wholeService(visit, Date.now())
    const felt = events.findIndex((e) => e.kind === 'felt')
    const stroke = events.findIndex((e) => e.kind === 'done' && e.stepId!.includes(':1:'))
    expect(felt).toBeGreaterThan(0)
    expect(felt).toBeLessThan(stroke)
    for (const e of events.slice(0, felt)) await tell(visit.id, e).expect(200)
    const live = await page(visit.id)
    const step = live.plan!.steps[live.chair.index]!
    expect(step.kind).toBe('feel')
    // Passed over, its lanes are refused.
    const lane = live.plan!.steps.find((s) => s.kind === 'stroke' && s.zoneId === step.zoneId)!
    refused(await tell(visit.id, chairEvent(felt + 1, 'done', step.id)), 422, 'feel-first')
    await tell(visit.id, { ...events[felt]!, n: felt + 2 }).expect(200)
    expect((await page(visit.id)).readings).toEqual([
      expect.objectContaining({ zoneId: step.zoneId, method: 'felt', id: events[felt]!.id }),
    ])
    expect(lane.text).toMatch(/guess/)
  })

  it('is told of by name: what is no zone is refused before it is counted', async () => {
    const { visit } = await plannedVisit(studio.app)
    await start(visit.id).expect(200)
    const red = { ...chairEvent(2, 'redness'), detail: { zoneId: 'elbow', grade: 2 } }
    refused(await tell(visit.id, red), 422, 'invalid')
    expect((await page(visit.id)).chair.redness).toEqual([])
  })

  it('is a guess no more once it was read', async () => {
    const { visit } = await plannedVisit(studio.app)
    expect(visit.plan!.lanes.filter((l) => l.grain === 'guess')).toEqual([])
    expect(visit.plan!.steps.filter((s) => s.kind === 'feel')).toEqual([])
  })
})

describe('one client in the chair', () => {
  it('of a worker: a second start asks, and goes on when it is said that both do', async () => {
    const workerId = house.workers[1]!.id
    const own = async () => {
      const { visit } = await plannedVisit(studio.app)
      await api().patch(`/api/visits/${visit.id}`).send({ workerId }).expect(200)
      await plan(visit.id).expect(200)
      return visit.id
    }
    const [a, b] = [await own(), await own()]
    const alone = (n: number) => ({ ...chairEvent(n, 'started'), detail: undefined })
    await tell(a, alone(1)).expect(200)
    const r = await tell(b, alone(1))
    refused(r, 409, 'held-back')
    expect(r.body.errors[0].path).toMatch(/^busy/)
    await tell(b, chairEvent(1, 'started')).expect(200)
  })

  it('left open since yesterday it ends as of its last event, by one event', async () => {
    const { client, visit } = await plannedVisit(studio.app)
    const events = wholeService(visit, Date.now() - 20 * HOUR_MS).slice(0, 6)
    for (const e of events) await tell(visit.id, e).expect(200)
    const last = events.at(-1)!.atMs
    expect((await rowOf(client.id))!.flags[0]!.text).toMatch(/^Left open since/)
    await tell(visit.id, chairEvent(100, 'ended-late')).expect(200)
    const now = await page(visit.id)
    expect(now).toMatchObject({ state: 'finished', endedAtMs: last })
    expect(now.care!.endedAtMs).toBe(last)
    // One that is under way is not left open.
    const fresh = await plannedVisit(studio.app)
    await start(fresh.visit.id).expect(200)
    refused(await tell(fresh.visit.id, chairEvent(2, 'ended-late')), 422, 'not-left-open')
  })
})

describe('a change of a lane by hand', () => {
  it('goes through the rules of the plan: a blade that may not be is refused with the reason', async () => {
    const { visit } = await plannedVisit(studio.app)
    const lane = visit.plan!.lanes.find((l) => l.pass === 1)!
    const r = await plan(visit.id, { edits: { [lane.id]: { bladeId: 'dermaplane-10r' } } })
    expect([r.status, r.body.code]).toEqual([422, expect.any(String)])
    expect(r.body.detail.length).toBeGreaterThan(20)
    refused(await plan(visit.id, { edits: { [lane.id]: { way: 'against' } } }), 422, 'not-this-way')
    // Nothing was kept of it.
    expect((await page(visit.id)).plan!.lanes.some((l) => l.edited)).toBe(false)
    const two = visit.plan!.lanes.find((l) => l.pass === 2)
    if (two) await plan(visit.id, { edits: { [two.id]: { way: 'across-clockwise' } } }).expect(200)
  })

  it('is allowed above the house’s limit, and says by how much on lane and plan', async () => {
    const { visit } = await plannedVisit(studio.app)
    const { skin } = newClient()
    await api()
      .patch(`/api/clients/${visit.clientId}`)
      .send({ skin: { ...skin, reactivity: 'reactive' } })
      .expect(200)
    const careful = (await plan(visit.id).expect(200)).body as VisitPage
    const edits = Object.fromEntries(
      careful.plan!.lanes.map((l) => [l.id, { way: 'across-clockwise' }]),
    )
    const kept = (await plan(visit.id, { edits }).expect(200)).body as VisitPage
    const [over] = kept.plan!.overLimit!
    expect(over!.odds).toBeGreaterThan(over!.limit)
    expect((await about(visit.id, 'plan')).map((f) => f.id)).toContain('over-limit')
  })
})

describe('any sequence of requests', () => {
  const date = () => dateOf(Date.now(), offsetHere(Date.now()))
  const answered = (more: object): Asked => ({
    ...askedAll(),
    answers: { ...NO_TO_ALL, ...more },
  })
  const ASKED: Readonly<Record<string, () => Asked>> = {
    nothing: () => ({ answers: {}, spots: [] }),
    half: () => ({ answers: { infection: { yes: false } }, spots: [] }),
    unsigned: () => ({ answers: NO_TO_ALL, spots: [] }),
    all: () => askedAll(),
    infection: () => answered({ infection: { yes: true } }),
    acids: () => answered({ acids: { yes: true, date: date() } }),
    still: () => answered({ infection: { yes: false, still: 'ask' } }),
  }
  type Step =
    | { act: 'ask'; how: string }
    | { act: 'decide'; which: number }
    | { act: 'look'; grade: number }
    | { act: 'plan' | 'start' | 'read' | 'take back' | 'unstart' }
  const step: fc.Arbitrary<Step> = fc.oneof(
    fc.record({ act: fc.constant('ask' as const), how: fc.constantFrom(...Object.keys(ASKED)) }),
    fc.record({
      act: fc.constantFrom(
        ...(['plan', 'start', 'start', 'read', 'take back', 'unstart'] as const),
      ),
    }),
    fc.record({ act: fc.constant('decide' as const), which: fc.nat(5) }),
    fc.record({ act: fc.constant('look' as const), grade: fc.constantFrom(0, 2, 4) }),
  )

  it('never starts a service that the gate forbids without a kept word', async () => {
    // The studio goes on from run to run: each sequence begins where the last one left it.
    const clients = new Map([
      [2, await after(2)],
      [9, await after(9)],
    ])
    const screens = new Map([...clients.keys()].map((k) => [k, randomUUID()]))
    let n = 0
    const met = { begun: 0, held: 0 }
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom(2, 9),
        fc.array(step, { minLength: 4, maxLength: 12 }),
        async (daysAgo, steps) => {
          const { done, next } = clients.get(daysAgo)!
          const screen = screens.get(daysAgo)!
          const words: string[] = []
          let startId = ''
          const unstart = async () => {
            if (!startId) return
            const e = chairEvent(++n, 'taken-back', undefined, Date.now(), { screen })
            await tell(next, { ...e, detail: { of: startId } }).expect(200)
            startId = ''
          }
          for (const s of [...steps, { act: 'start' } as const]) {
            const running = startId !== ''
            const before = await findings(next)
            if (s.act === 'ask') await ask(next, ASKED[s.how]!())
            else if (s.act === 'read')
              await api().post(`/api/visits/${next}/readings`).send(mapOf())
            else if (s.act === 'unstart') await unstart()
            else if (s.act === 'take back') {
              const word = words.pop()
              if (word) await api().delete(`/api/decisions/${word}`)
            } else if (s.act === 'look') {
              await look(done.id, daysAgo > 5 ? '7d' : '48h', {
                source: s.grade === 0 ? 'seen' : 'client',
                zones: s.grade === 0 ? [] : [{ zoneId: 'chin', redness: s.grade, bumps: 0 }],
              }).expect(200)
            } else if (s.act === 'decide') {
              const id = randomUUID()
              const f = before[s.which % Math.max(1, before.length)]
              const r = await decide(next, f?.id ?? 'none', { id })
              if (r.status === 200) {
                expect(f!.lift).toContain('decide')
                words.push(id)
              }
            } else if (s.act === 'plan') {
              const r = await plan(next)
              if (running) continue
              const may = holding(before, 'plan').length === 0
              expect([r.status, r.body.code]).toEqual(may ? [200, undefined] : [409, 'held-back'])
            } else {
              const e = chairEvent(++n, 'started', undefined, Date.now(), { screen })
              const r = await tell(next, e)
              if (running) continue
              const may = holding(before, 'start').filter((f) => f.about !== 'busy').length === 0
              expect(r.status).toBe(may ? 200 : 409)
              met[may ? 'begun' : 'held']++
              if (may) startId = e.id
            }
          }
          await unstart()
        },
      ),
      {
        numRuns: 8,
        examples: [
          [9, [{ act: 'ask', how: 'all' }, { act: 'plan' }, { act: 'start' }]],
          [2, [{ act: 'ask', how: 'all' }, { act: 'look', grade: 2 }, { act: 'plan' }]],
        ],
      },
    )
    expect(met.begun).toBeGreaterThan(0)
    expect(met.held).toBeGreaterThan(0)
  })
})
