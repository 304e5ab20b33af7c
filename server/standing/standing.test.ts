import { randomUUID } from 'node:crypto'
import request from 'supertest'
import type { ClientRows, House, StudioAnswer, Today } from '../../contract/types.ts'
import { learnOverStudio } from '../../core/history/index.ts'
import { DAY_MS } from '../../core/time/index.ts'
import { readFigures } from '../house/service.ts'
import { visitFacts } from '../studio/history.ts'
import { finishVisit, newClient, openStudio, plannedVisit, type Studio } from '../testing/studio.ts'
import { workHere } from '../work/work.ts'
import { freshenSums, rebuild, staleSums } from './standing.ts'

let studio: Studio
beforeAll(async () => {
  studio = await openStudio()
})
afterAll(() => studio.close())
const api = () => request(studio.app)
const find = async (words: string, more: object = {}) =>
  (
    await api()
      .get('/api/clients')
      .query({ find: words, ...more })
      .expect(200)
  ).body as ClientRows
const names = async (words: string) => (await find(words)).rows.map((r) => r.name)
const today = async (from = 0) =>
  (await api().get('/api/today').query({ from }).expect(200)).body as Today
const add = (over: object) => api().post('/api/clients').send(newClient(over)).expect(201)

describe('finding', () => {
  it('goes by the beginnings of words, without accents; else within a name', async () => {
    const { body } = await add({ name: 'Åsa Øyen-Brandt', occupation: 'glassblower' })
    await add({ name: 'Joaquín Fernández', calledName: 'Quino' })
    expect(await names('asa')).toEqual(['Åsa Øyen-Brandt'])
    expect(await names('bran ås')).toEqual(['Åsa Øyen-Brandt'])
    expect(await names('FERNANDEZ')).toEqual(['Joaquín Fernández'])
    expect(await names('qui')).toEqual(['Joaquín Fernández'])
    expect(await names('glassb')).toEqual(['Åsa Øyen-Brandt'])
    expect(await names('randt')).toEqual(['Åsa Øyen-Brandt'])
    for (const odd of ['"', '*', 'a" OR name:"b', '😀', 'NEAR(a b)', "'; --"])
      expect(await names(odd)).toEqual([])
    await api()
      .patch(`/api/clients/${(body as { id: string }).id}`)
      .send({ name: 'Åsa Lind' })
      .expect(200)
    expect(await names('brandt')).toEqual([])
    expect(await names('lind')).toEqual(['Åsa Lind'])
  })

  it('leaves nothing of who was erased', async () => {
    const { body } = await add({ name: 'Xanthippe Vrolijk' })
    expect(await names('xanth')).toHaveLength(1)
    await api()
      .delete(`/api/clients/${(body as { id: string }).id}`)
      .send({ confirmName: 'Xanthippe Vrolijk' })
      .expect(200)
    expect(await names('xanth')).toEqual([])
    const left = await studio.db.select(
      `SELECT COUNT(*) AS n FROM client_names_content WHERE c0 LIKE '%anthipp%'`,
    )
    expect(left).toEqual([{ n: 0 }])
  })
})

describe('many clients', () => {
  const here = async () => (await find('')).total
  it('come a page at a time, each once, in one order', async () => {
    const more = Array.from({ length: 230 }, (_, i) => newClient({ name: `Crowd ${1000 + i}` }))
    await api()
      .post('/api/imports')
      .send({ id: randomUUID(), source: 'crowd.csv', clients: more })
      .expect(201)
    const total = await here()
    const listed: string[] = []
    for (let from = 0; from < total;) {
      const { rows } = await find('', { from })
      expect(rows.length).toBeLessThanOrEqual(100)
      listed.push(...rows.map((r) => r.name))
      from += rows.length
    }
    expect(new Set(listed).size).toBe(total)
    expect(listed).toEqual([...listed].sort((a, b) => a.localeCompare(b)))
    const shown: string[] = []
    for (let from = 0; from < total;) {
      const page = await today(from)
      expect([page.total, page.from]).toEqual([total, from])
      expect(page.rows.length).toBeLessThanOrEqual(60)
      shown.push(...page.rows.map((r) => r.client.id))
      from += page.rows.length
    }
    expect(new Set(shown).size).toBe(total)
  })

  it('do not bury the day and what is owed: both stand on the first page of Today', async () => {
    const owing = await plannedVisit(studio.app)
    await finishVisit(studio.app, owing.visit, Date.now() - 30 * 3_600_000)
    const coming = await plannedVisit(studio.app)
    const { rows, answersOwed, firstVisits } = await today()
    const at = (id: string) => rows.findIndex((r) => r.client.id === id)
    expect(at(owing.client.id)).toBeGreaterThanOrEqual(0)
    expect(rows[at(owing.client.id)]!.flags.map((f) => f.text)).toContain('Day 1 answer owed')
    expect(answersOwed).toBe(1)
    expect(firstVisits).toBe((await here()) - 1)
    await api().patch(`/api/visits/${coming.visit.id}`).send({ slotAtMs: Date.now() }).expect(200)
    const again = await today()
    expect(again.rows.some((r) => r.client.id === coming.client.id)).toBe(true)
    await api()
      .put(`/api/visits/${owing.visit.id}/skin/24h`)
      .send({ atMs: Date.now(), zones: [{ zoneId: 'chin', redness: 1, bumps: 0 }] })
      .expect(200)
    expect((await today()).answersOwed).toBe(0)
  })
})

it('is shown from what was kept where nothing can be written any more', async () => {
  await add({ name: 'Quirin Overmars' })
  await studio.db.sequelize.query('PRAGMA query_only=ON')
  expect(await names('quir')).toEqual(['Quirin Overmars'])
  expect((await today()).rows.length).toBeGreaterThan(0)
  await studio.db.sequelize.query('PRAGMA query_only=OFF')
  expect(await names('quir')).toEqual(['Quirin Overmars'])
})

describe('what the visits add to the studio', () => {
  const everyone = async () => {
    const ids = await studio.db.select<{ id: string }>(
      "SELECT DISTINCT clientId AS id FROM visits WHERE state = 'finished'",
    )
    return visitFacts(
      studio.db,
      ids.map((r) => r.id),
    )
  }
  it('is kept by client, made anew for those who changed, and the same as from all visits at once', async () => {
    const work = workHere(studio.db)
    await freshenSums(studio.db, work)
    expect((await staleSums(studio.db)).left).toBe(0)
    const { visit } = await plannedVisit(studio.app)
    await finishVisit(studio.app, visit, Date.now() - 3 * DAY_MS)
    await api()
      .put(`/api/visits/${visit.id}/skin/24h`)
      .send({ atMs: Date.now() - 2 * DAY_MS, zones: [{ zoneId: 'chin', redness: 3, bumps: 0 }] })
      .expect(200)
    expect((await staleSums(studio.db)).left).toBe(1)
    const { left, learned } = (await api().get('/api/studio').expect(200)).body as StudioAnswer
    expect([left, (await staleSums(studio.db)).left]).toEqual([0, 0])
    const whole = learnOverStudio(await readFigures(studio.db), await everyone(), Date.now())
    expect(learned!.view).toEqual(JSON.parse(JSON.stringify(whole.view)))
    expect(learned!.effects).toHaveLength(whole.effects.length)
    learned!.effects.forEach((e, i) =>
      e.effects.forEach((c, k) => expect(c.ratio).toBeCloseTo(whole.effects[i]!.effects[k]!.ratio)),
    )
  })

  it('is made anew when a figure of the house changes, and by hand', async () => {
    const { of } = await staleSums(studio.db)
    expect(of).toBe(2)
    const house = (await api().get('/api/house')).body as House
    const stay = () => api().patch('/api/house').send({ workerId: house.workerId }).expect(200)
    await stay()
    await freshenSums(studio.db, workHere(studio.db))
    await stay()
    expect((await staleSums(studio.db)).left).toBe(0)
    const graceDays = { 'changes.graceDays': 3 }
    await api().patch('/api/house').send({ figures: graceDays }).expect(200)
    expect((await staleSums(studio.db)).left).toBe(of)
    expect(await rebuild(studio.db, workHere(studio.db))).toBe(of)
    expect((await staleSums(studio.db)).left).toBe(0)
    const done = (await api().get('/api/studio').expect(200)).body as StudioAnswer
    expect(done.learned!.view.clients).toBe(of)
  })

  it('tells how far it is while many are gone through, and then all of it', async () => {
    // As after a change of the figures in a studio of many years.
    const clients = Array.from({ length: 90 }, () => newClient())
    await api()
      .post('/api/imports')
      .send({ id: randomUUID(), source: 'many.csv', clients })
      .expect(201)
    await studio.db.write(() =>
      studio.db.sequelize.query(
        `INSERT INTO visits (id, clientId, workerId, jobs, state, createdAtMs, startedAtMs, endedAtMs, asked)
         SELECT 'v' || id, id, (SELECT id FROM workers), '[{"service":"face-shave"}]', 'finished', 1, 1, 1, '{"answers":{},"spots":[]}'
         FROM clients WHERE id IN (SELECT value FROM json_each(?))`,
        { replacements: [JSON.stringify(clients.map((c) => c.id))] },
      ),
    )
    const ask = async () => (await api().get('/api/studio').expect(200)).body as StudioAnswer
    const first = await ask()
    expect([first.learned, first.left, first.of]).toEqual([null, 90, 92])
    let now = first
    for (let i = 0; i < 200 && !now.learned; i++) {
      await new Promise((r) => setTimeout(r, 25))
      now = await ask()
    }
    expect(now.learned!.view).toMatchObject({ visits: 92, clients: 92 })
  })
})
