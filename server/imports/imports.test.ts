import { oneJob } from '../../core/services/index.ts'
import { draftClients, guessMapping, readClientsFile } from '../../core/formats/index.ts'
import { randomUUID } from 'node:crypto'
import request from 'supertest'
import type { ClientRows, ImportRecord, ImportUndone } from '../../contract/types.ts'
import { newClient, openStudio, plannedVisit, type Studio } from '../testing/studio.ts'

let studio: Studio
beforeAll(async () => {
  studio = await openStudio()
})
afterAll(() => studio.close())
const api = () => request(studio.app)
const count = () => studio.db.models.Client.count()

const { id: _id, ...person } = newClient()
const someone = (name: string, over: object = {}) => ({
  ...person,
  id: randomUUID(),
  name,
  ...over,
})
const bring = (clients: object[], id = randomUUID()) =>
  api().post('/api/imports').send({ id, source: 'people.csv', clients })

describe('clients brought in', () => {
  it('come in together, once, and are taken back together', async () => {
    const before = await count()
    const id = randomUUID()
    const clients = [someone('Una Pell'), someone('Tove Marsh', { phone: '0555 01 77' })]
    expect((await bring(clients, id).expect(201)).body).toMatchObject({
      clients: 2,
      source: 'people.csv',
    })
    // The same again: the answer was lost on the way.
    await bring(clients, id).expect(201)
    expect(await count()).toBe(before + 2)
    const list = ((await api().get('/api/clients?find=Tove')).body as ClientRows).rows
    expect(list[0]).toMatchObject({ name: 'Tove Marsh', phone: '0555 01 77' })
    const undone = (await api().delete(`/api/imports/${id}`).expect(200)).body as ImportUndone
    expect(undone).toEqual({ removed: 2, kept: [] })
    expect(await count()).toBe(before)
    const [record] = (await api().get('/api/imports')).body as ImportRecord[]
    expect(record!.undoneAtMs).not.toBeNull()
  })

  it('given up before they were written are not written after all', async () => {
    const before = await count()
    const id = randomUUID()
    // Whoever gave it up is faster than what was sent.
    await api().delete(`/api/imports/${id}`).expect(404)
    const late = await bring([someone('Came Late')], id)
    expect([late.status, late.body.code]).toEqual([409, 'given-up'])
    expect(await count()).toBe(before)
  })

  it.each([0, 150, 400])('given up after %i ms all go out again', async (wait) => {
    const before = await count()
    const id = randomUUID()
    const many = Array.from({ length: 3000 }, (_, i) => someone(`Many ${i}`))
    const sending = bring(many, id).then((r) => r.status)
    // Now before it is written, now in the middle of it.
    await new Promise((r) => setTimeout(r, wait))
    const told = await api().delete(`/api/imports/${id}`)
    expect([told.status, await sending]).toEqual(told.status === 404 ? [404, 409] : [200, 201])
    expect(await count()).toBe(before)
  })

  it('are refused as a whole when one of them cannot be taken', async () => {
    const before = await count()
    const imports = async () => (await api().get('/api/imports')).body as ImportRecord[]
    const had = (await imports()).length
    const bad = await bring([someone('Good One'), someone('')])
    expect([bad.status, bad.body.code]).toEqual([422, 'invalid'])
    const { client } = await plannedVisit(studio.app)
    const taken = await bring([someone('Another'), someone('Copy', { id: client.id })])
    expect([taken.status, taken.body.code]).toEqual([409, 'id-taken'])
    const twice = randomUUID()
    expect((await bring([someone('A', { id: twice }), someone('B', { id: twice })])).status).toBe(
      422,
    )
    expect((await bring([])).status).toBe(422)
    expect(await count()).toBe(before + 1)
    expect(await imports()).toHaveLength(had)
  })

  it('who have had a visit since stay when the rest is taken back', async () => {
    const id = randomUUID()
    const [stays, goes] = [someone('Stays Here'), someone('Goes Again')]
    await bring([stays, goes], id).expect(201)
    const house = (await api().get('/api/house')).body as { workerId: string }
    await api()
      .post(`/api/clients/${stays.id}/visits`)
      .send({
        id: randomUUID(),
        jobs: [oneJob(randomUUID(), 'face-shave')],
        workerId: house.workerId,
        slotAtMs: null,
      })
      .expect(201)
    const undone = (await api().delete(`/api/imports/${id}`).expect(200)).body as ImportUndone
    expect(undone).toEqual({ removed: 1, kept: ['Stays Here'] })
    await api().get(`/api/clients/${stays.id}`).expect(200)
    await api().get(`/api/clients/${goes.id}`).expect(404)
  })

  it('two thousand hostile lines: what can be read comes in whole, and nothing is half done', async () => {
    const hostile = [
      '=cmd|calc,x,y',
      "Robert'); DROP TABLE clients;--,+1 (555) 010,r@example.org",
      '<script>alert(1)</script>,0555,<x@y>',
      '\u0000\u0001\u202eevil,\u200b0555,a@b',
      `${'长'.repeat(400)},${'9'.repeat(400)},${'a'.repeat(400)}@b.c`,
      ',,',
      '"quoted, comma","0555 1","q@example.org"',
      '😀 Emoji 👩‍🚀,0555 2,e@example.org',
      'Zalgơ̷̢ H̵e,not a phone,not a mail',
      '__proto__,constructor,toString',
    ]
    const lines = Array.from({ length: 2000 }, (_, i) => hostile[i % hostile.length]!)
    const table = readClientsFile(`name,phone,email\r\n${lines.join('\r\n')}`)
    const drafts = draftClients(table, guessMapping(table), [])
    expect(drafts.length + table.unread.length).toBe(2000 - 200)
    const taken = drafts.filter((d) => d.problems.length === 0)
    const before = await count()
    const clients = taken.map(({ line: _l, problems: _p, mended: _m, same: _s, ...d }) => ({
      ...person,
      id: randomUUID(),
      ...d,
      service: d.service ?? person.service,
    }))
    const id = randomUUID()
    await bring(clients, id).expect(201)
    expect(await count()).toBe(before + taken.length)
    const rows = await studio.db.select(
      'SELECT name, phone, email FROM clients WHERE importId = ? LIMIT 20',
      [id],
    )
    for (const row of rows) {
      expect(String(row['name']).length).toBeLessThanOrEqual(80)
      expect(String(row['name'])).not.toMatch(/\p{Cc}|[\u202e\u200b]/u)
      expect(String(row['phone'])).toMatch(/^[0-9+()./ -]{0,30}$/)
    }
    // One that is wrong at the very end takes all the others with it.
    const last = clients.map((c) => ({ ...c, id: randomUUID() }))
    last[last.length - 1]!.name = 'x'.repeat(200)
    expect((await bring(last)).status).toBe(422)
    expect(await count()).toBe(before + taken.length)
    await api().delete(`/api/imports/${id}`).expect(200)
    expect(await count()).toBe(before)
  })
})
