/** Work at home over the wire: told by the worker or on the client's link page, and known wherever it bears. */
import { randomUUID } from 'node:crypto'
import request from 'supertest'
import type { AnswerLink, ClientPage, Today, VisitPage } from '../../contract/types.ts'
import { DAY_MS } from '../../core/time/index.ts'
import { finishVisit, openStudio, plannedVisit, type Studio } from '../testing/studio.ts'

let studio: Studio
beforeAll(async () => {
  studio = await openStudio()
})
afterAll(() => studio.close())
const api = () => request(studio.app)
const day = (daysAgo: number) => new Date(Date.now() - daysAgo * DAY_MS).toISOString().slice(0, 10)
const page = async (id: string) =>
  (await api().get(`/api/clients/${id}`).expect(200)).body as ClientPage

describe('work at home', () => {
  it('told by the worker moves the next visit, drops on the tide line and stands at the gate', async () => {
    const { client, visit } = await plannedVisit(studio.app)
    await finishVisit(studio.app, visit, Date.now() - 9 * DAY_MS)
    const before = await page(client.id)
    const told = {
      ...{ id: randomUUID(), date: day(1), zones: ['chin', 'neck-upper-left'], tool: 'cartridge' },
    }
    const send = (body: object) => api().post(`/api/clients/${client.id}/home`).send(body)
    const after = (await send(told).expect(200)).body as ClientPage
    expect(after.home).toEqual([expect.objectContaining({ tool: 'cartridge', source: 'worker' })])
    expect(after.tide.home).toHaveLength(1)
    expect(after.tide.window!.fromMs).toBeGreaterThan(before.tide.window!.fromMs)
    const today = (await api().get('/api/today')).body as Today
    const row = today.rows.find((r) => r.client.id === client.id)!
    expect(row.window!.fromMs).toBeCloseTo(after.tide.window!.fromMs, -3)
    // The same told twice is one; a day to come is refused, and nothing is lost.
    await send(told).expect(200)
    await send({ ...told, id: randomUUID(), date: day(-3) }).expect(422)
    await send({ ...told, id: randomUUID(), zones: [] }).expect(422)
    expect((await page(client.id)).home).toHaveLength(1)
    const next = { id: randomUUID(), jobs: visit.jobs.map((j) => ({ ...j, id: randomUUID() })) }
    const open = (
      await api()
        .post(`/api/clients/${client.id}/visits`)
        .send({ ...next, workerId: visit.workerId })
        .expect(201)
    ).body as VisitPage
    expect(open.facts.home).toHaveLength(1)
    const gone = (await api().delete(`/api/home/${told.id}`).expect(200)).body as ClientPage
    expect([gone.home, gone.tide.home]).toEqual([[], []])
    await api().delete(`/api/home/${told.id}`).expect(404)
  })

  it('is told on the link page by any phone, once and the same again', async () => {
    const { client, visit } = await plannedVisit(studio.app)
    await finishVisit(studio.app, visit, Date.now() - 5 * DAY_MS)
    const { url } = (await api().post(`/api/visits/${visit.id}/link`).send({}).expect(201))
      .body as AnswerLink
    const path = new URL(url).pathname
    const form = async () => (await api().get(path).expect(200)).text
    expect(await form()).toContain('Have you taken hair off at home?')
    expect(await form()).not.toContain('The same again')
    const send = (fields: string) =>
      api()
        .post(`${path}/home`)
        .set('Content-Type', 'application/x-www-form-urlencoded')
        .send(fields)
    expect((await send(`date=${day(2)}&tool=cartridge`)).text).toContain('Tap where it was.')
    await send(`date=${day(-5)}&areas=chin&tool=cartridge`).expect(422)
    await send(`date=${day(2)}&areas=tail&tool=cartridge`).expect(422)
    const thanks = await send(`date=${day(2)}&areas=neck&areas=chin&tool=cartridge&dull=true`)
    expect([thanks.status, thanks.text]).toEqual([200, expect.stringContaining('Noted, thank you')])
    const [home] = (await page(client.id)).home
    expect(home).toMatchObject({ source: 'client', tool: 'cartridge', dull: true })
    expect(home!.zones).toEqual(expect.arrayContaining(['chin', 'neck-upper-left']))
    expect(home!.zones).not.toContain('jaw-left')
    expect(await form()).toMatch(/The same again today: .*cartridge razor/)
  })
})
