/** Two screens that did not know of each other: what one entered and the other did not is kept, what differs is shown with both. */
import request from 'supertest'
import type { ClientPage, VisitPage } from '../../contract/types.ts'
import { DAY_MS } from '../../core/time/index.ts'
import { askedAll, finishVisit, openStudio, plannedVisit, type Studio } from '../testing/studio.ts'

let studio: Studio
beforeAll(async () => {
  studio = await openStudio()
})
afterAll(() => studio.close())
const api = () => request(studio.app)
const pageOf = async (id: string) =>
  (await api().get(`/api/clients/${id}`).expect(200)).body as ClientPage
const visitOf = async (id: string) =>
  (await api().get(`/api/visits/${id}`).expect(200)).body as VisitPage
const settle = (id: string, take: string) => api().post(`/api/differences/${id}`).send({ take })
const days = (n: number) => Date.now() - n * DAY_MS

it('details of a client: each keeps what only they changed; one field differs and is chosen', async () => {
  const { client } = await plannedVisit(studio.app)
  const patch = (body: object) => api().patch(`/api/clients/${client.id}`).send(body).expect(200)
  const was = { phone: '', note: '', skin: client.skin }
  await patch({ phone: '0555 1', skin: { ...client.skin, curl: 'tight' } })
  await patch({
    phone: '0555 2',
    note: 'Rings twice',
    skin: { ...client.skin, bumpProne: true },
    basis: { was, atMs: days(2) },
  })
  const page = await pageOf(client.id)
  expect(page.client).toMatchObject({
    phone: '0555 1',
    note: 'Rings twice',
    skin: { curl: 'tight', bumpProne: true },
  })
  expect(page.differences).toMatchObject([
    { what: 'changeClient', path: ['phone'], theirs: '0555 1', mine: '0555 2', visitId: null },
  ])
  // Entered once more before anybody chose: still one difference, the later word.
  await patch({ phone: '0555 3', basis: { was: { phone: '0555 2' }, atMs: days(1) } })
  const [difference, ...more] = (await pageOf(client.id)).differences
  expect([difference!.mine, more]).toEqual(['0555 3', []])
  await settle(difference!.id, 'mine').expect(200)
  const after = await pageOf(client.id)
  expect([after.client.phone, after.differences]).toEqual(['0555 3', []])
  await settle(difference!.id, 'theirs').expect(404)
})

it('answers to questions: a yes holds until somebody has chosen', async () => {
  const { client, visit } = await plannedVisit(studio.app)
  const asked = visit.asked
  const put = (answers: object, basis?: object) =>
    api()
      .put(`/api/visits/${visit.id}/asked`)
      .send({ ...asked, answers: { ...asked.answers, ...answers }, ...(basis && { basis }) })
      .expect(200)
  await put({ sunburn: { yes: false, date: '2026-01-02' }, 'first-ever': { yes: true } })
  await put({ sunburn: { yes: true } }, { was: asked, atMs: days(2) })
  const now = await visitOf(visit.id)
  // The other screen's first visit stays, though this one never heard of it.
  expect(now.asked.answers['first-ever']).toMatchObject({ yes: true })
  expect(now.asked.answers['sunburn']).toMatchObject({ yes: true, date: '2026-01-02' })
  expect((await pageOf(client.id)).differences).toEqual([])
  await put({ sunburn: { yes: false } }, { was: asked, atMs: days(1) })
  expect((await visitOf(visit.id)).asked.answers['sunburn']!.yes).toBe(true)
})

it('what both answered of the skin: zones of both, the redder one holds, both are shown', async () => {
  const { client, visit } = await plannedVisit(studio.app)
  await finishVisit(studio.app, visit, days(3))
  const zone = (zoneId: string, redness: number) => ({ zoneId, redness, bumps: 0 })
  const put = (zones: object[]) =>
    api()
      .put(`/api/visits/${visit.id}/skin/24h`)
      .send({
        atMs: days(2),
        zones,
        spots: [],
        feeling: {},
        source: 'seen',
        basis: { was: { zones: [], spots: [], feeling: {}, source: 'seen' }, atMs: days(2) },
      })
      .expect(200)
  await put([zone('chin', 1), zone('cheek-lower-left', 2)])
  await put([zone('chin', 3), zone('cheek-lower-right', 1)])
  const answer = (await visitOf(visit.id)).answers.find((a) => a.moment === '24h')!
  expect(Object.fromEntries(answer.zones.map((z) => [z.zoneId, z.redness]))).toEqual({
    chin: 3,
    'cheek-lower-left': 2,
    'cheek-lower-right': 1,
  })
  const { differences } = await pageOf(client.id)
  expect(differences).toMatchObject([
    { path: ['24h', 'zones', 'chin', 'redness'], theirs: 1, mine: 3, visitId: visit.id },
  ])
  await settle(differences[0]!.id, 'theirs').expect(200)
  const settled = (await visitOf(visit.id)).answers.find((a) => a.moment === '24h')!
  expect(settled.zones.find((z) => z.zoneId === 'chin')!.redness).toBe(1)
})

it('a screen that knows what stands here changes it as before, and a wrong basis is refused', async () => {
  const { client, visit } = await plannedVisit(studio.app)
  const asked = { ...askedAll(), answers: { ...visit.asked.answers, sunburn: { yes: true } } }
  const send = (body: object) => api().put(`/api/visits/${visit.id}/asked`).send(body)
  await send({ ...asked, basis: { was: visit.asked, atMs: Date.now() } }).expect(200)
  await send({ ...visit.asked, basis: { was: asked, atMs: Date.now() } }).expect(200)
  expect((await visitOf(visit.id)).asked.answers['sunburn']!.yes).toBe(false)
  expect((await pageOf(client.id)).differences).toEqual([])
  for (const basis of [1, { was: 'x', atMs: 1 }, { was: {}, atMs: 'now' }, { atMs: 1 }])
    expect((await send({ ...asked, basis })).status).toBe(422)
})
