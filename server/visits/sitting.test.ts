/** A sitting of two jobs over the wire: planned, served, and what is read of it afterwards. */
import { randomUUID } from 'node:crypto'
import request from 'supertest'
import type { ClientPage, Today, VisitPage } from '../../contract/types.ts'
import type { ZoneHere } from '../../core/ahead/index.ts'
import { oneJob } from '../../core/services/index.ts'
import { DAY_MS } from '../../core/time/index.ts'
import { consentText } from '../../core/screening/index.ts'
import {
  askedAll,
  mapOf,
  newClient,
  openStudio,
  wholeService,
  type Studio,
} from '../testing/studio.ts'

let studio: Studio
beforeAll(async () => {
  studio = await openStudio()
})
afterAll(() => studio.close())
const api = () => request(studio.app)

const shave = oneJob(randomUUID(), 'face-shave')
const brow = {
  ...{ id: randomUUID(), service: 'brow-tidy' as const, method: 'wax' as const },
  ...{ zones: ['glabella' as const], everyDays: 30 },
}

describe('a sitting of two jobs', () => {
  let page: VisitPage
  let client: string

  it('is planned, served and kept job by job', async () => {
    const body = newClient()
    client = body.id
    await api().post('/api/clients').send(body).expect(201)
    const house = (await api().get('/api/house')).body as { workerId: string }
    const jobs = [shave, brow]
    const visit = { id: randomUUID(), jobs, workerId: house.workerId }
    await api().post(`/api/clients/${client}/visits`).send(visit).expect(201)
    const asked = askedAll()
    const consent = { ...asked.consent!, text: consentText(jobs) }
    await api()
      .put(`/api/visits/${visit.id}/asked`)
      .send({ ...asked, consent })
      .expect(200)
    await api().post(`/api/visits/${visit.id}/readings`).send(mapOf()).expect(200)
    page = (await api().put(`/api/visits/${visit.id}/plan`).expect(200)).body as VisitPage
    expect(page.plan!.hand).toEqual([
      expect.objectContaining({ jobId: brow.id, zones: ['glabella'] }),
    ])
    for (const e of wholeService(page, Date.now() - 1.2 * DAY_MS))
      await api().post(`/api/visits/${visit.id}/events`).send(e).expect(200)
    page = (await api().get(`/api/visits/${visit.id}`)).body as VisitPage
    expect(page.state).toBe('finished')
    expect(page.loads!['glabella']).toBe(2)
    expect(page.loads!['chin']).toBeGreaterThan(0)
    expect(page.lookAt).toEqual(expect.arrayContaining(['glabella', 'chin']))
    expect(page.windows.map((w) => w.jobId).sort()).toEqual([shave.id, brow.id].sort())
    // An event on a step is told of its job.
    const rows = await studio.db.select<{ jobId: string; n: number }>(
      'SELECT jobId, COUNT(*) AS n FROM chair_events WHERE visitId = ? AND jobId IS NOT NULL GROUP BY jobId',
      [visit.id],
    )
    expect(new Set(rows.map((r) => r.jobId))).toEqual(new Set([shave.id, brow.id]))
  })

  it('comes again by two rhythms: page, tide line, today and the next gate tell each', async () => {
    const told = (await api().get(`/api/clients/${client}`)).body as ClientPage
    expect(told.due.map((d) => [d.service, d.method, d.state])).toEqual([
      ['face-shave', 'blade', 'waits'],
      ['brow-tidy', 'wax', 'waits'],
    ])
    expect(told.due[1]!.everyDays).toBe(30)
    expect([told.tide.id, told.tide.others.map((o) => o.id)]).toEqual([
      'face-shave:blade',
      ['brow-tidy:wax'],
    ])
    const [wax] = told.tide.others
    expect((wax!.window!.fromMs - page.endedAtMs!) / DAY_MS).toBeCloseTo(30, 1)
    // Torn hair rests: its curve lies on the ground for weeks.
    const early = wax!.curve.ahead.filter((p) => p.atMs < page.endedAtMs! + 10 * DAY_MS)
    expect(early.every((p) => p.mm === 0)).toBe(true)
    const stretch = await api().get(`/api/clients/${client}/tide?back=1&work=brow-tidy:wax`)
    expect(stretch.body.id).toBe('brow-tidy:wax')
    const today = (await api().get('/api/today')).body as Today
    const row = today.rows.find((r) => r.client.id === client)!
    expect([row.service, row.window!.fromMs]).toEqual(['face-shave', told.tide.window!.fromMs])
    const next = {
      id: randomUUID(),
      jobs: [{ ...brow, id: randomUUID() }],
      workerId: page.workerId,
    }
    const opened = (await api().post(`/api/clients/${client}/visits`).send(next).expect(201))
      .body as VisitPage
    expect(opened.facts.past[0]!.jobs).toHaveLength(2)
    expect(opened.facts.windows[0]!.window.fromMs).toBeCloseTo(wax!.window!.fromMs, -3)
  })

  it('tells what each method came to in a place, from its own tries', async () => {
    const methods = async (zone: string) =>
      (await api().get(`/api/clients/${client}/methods?zone=${zone}`).expect(200)).body
        .here as ZoneHere
    const of = (here: ZoneHere, method: string) => here.methods.find((m) => m.method === method)!
    const before = of(await methods('glabella'), 'wax')
    expect([before.tries, before.load]).toEqual([0, 2])
    await api()
      .put(`/api/visits/${page.id}/skin/24h`)
      .send({
        atMs: page.endedAtMs! + DAY_MS,
        zones: [{ zoneId: 'glabella', redness: 3, bumps: 0 }],
      })
      .expect(200)
    const brow = await methods('glabella')
    expect(brow.last).toMatchObject({ name: 'Wax: the brows', home: false })
    expect(brow.lengthMm).toBe(0)
    expect([of(brow, 'wax').tries, of(brow, 'wax').here]).toEqual([1, 1])
    expect(of(brow, 'wax').redness.odds).toBeGreaterThan(before.redness.odds)
    const chin = await methods('chin')
    expect([of(chin, 'blade').here, of(chin, 'wax').here]).toEqual([1, 0])
    await api().get(`/api/clients/${client}/methods?zone=nowhere`).expect(400)
  })

  it('does not learn growth from hair that had come out by its root', async () => {
    const add = (zoneId: string) =>
      api()
        .post(`/api/visits/${page.id}/hair`)
        .send({
          id: randomUUID(),
          ...{ kind: 'felt', zoneId },
          date: new Date(page.endedAtMs! + DAY_MS).toISOString().slice(0, 10),
        })
    await add('glabella').expect(200)
    await add('chin').expect(200)
    const rows = await studio.db.select<{ zoneId: string; byRoot: number }>(
      'SELECT zoneId, byRoot FROM hair_readings WHERE visitId = ? ORDER BY zoneId',
      [page.id],
    )
    expect(rows).toEqual([
      { zoneId: 'chin', byRoot: 0 },
      { zoneId: 'glabella', byRoot: 1 },
    ])
  })
})
