/** Who may knock: other names, other pages, other kinds of content, and what the log keeps of it. */
import pino from 'pino'
import request from 'supertest'
import { createApp } from '../app.ts'
import { newClient, openStudio, plannedVisit, type Studio } from '../testing/studio.ts'
import { plainError, plainPath } from './log.ts'

let studio: Studio
beforeAll(async () => {
  studio = await openStudio()
})
afterAll(() => studio.close())
const api = () => request(studio.app)
const code = (r: request.Response) => [r.status, (JSON.parse(r.text) as { code: string }).code]

describe('names', () => {
  it.each([
    'evil.example',
    'evil.example:4170',
    '127.0.0.1.evil.example',
    'localhost.evil.example',
    '192.168.1.9',
    '',
  ])('that are not this house’s are not answered: "%s"', async (host) => {
    const get = await api().get('/api/clients').set('Host', host)
    expect(code(get)).toEqual([421, 'not-this-house'])
    const post = await api().post('/api/clients').set('Host', host).send(newClient())
    expect(post.status).toBe(421)
    expect((await api().get('/').set('Host', host)).status).toBe(421)
  })

  it.each(['localhost:4170', '127.0.0.1:9', '[::1]:4170', 'tide.localhost'])(
    'of this machine are: %s',
    async (host) => {
      await api().get('/api/clients').set('Host', host).expect(200)
    },
  )

  it('that the house was given are', async () => {
    const config = { ...studio.config, hosts: ['studio.example', 'other.example:444'] }
    const app = createApp(studio.db, config, pino({ level: 'silent' }), {
      people: studio.people,
    })
    for (const host of ['studio.example', 'STUDIO.example:8443', 'other.example'])
      await request(app).get('/api/health').set('Host', host).expect(200)
    await request(app).get('/api/health').set('Host', 'x.studio.example').expect(421)
  })
})

describe('pages', () => {
  const CASES: readonly Record<string, string>[] = [
    { Origin: 'https://evil.example' },
    { Origin: 'null' },
    { Origin: 'http://localhost:5000' },
    { 'Sec-Fetch-Site': 'cross-site' },
    { 'Sec-Fetch-Site': 'same-site' },
    { 'Sec-Fetch-Site': 'none' },
    { 'Sec-Fetch-Site': 'same-origin', Origin: 'https://evil.example' },
  ]
  it.each(CASES)('other than ours change nothing: %j', async (headers) => {
    const client = newClient()
    const r = await api().post('/api/clients').set(headers).send(client)
    expect(code(r)).toEqual([403, 'not-from-here'])
    await api().get(`/api/clients/${client.id}`).expect(404)
  })

  it('other than ours see nothing, pictures least of all', async () => {
    const { visit } = await plannedVisit(studio.app)
    for (const path of ['/api/clients', `/api/visits/${visit.id}`, `/api/photos/${visit.id}`])
      expect(code(await api().get(path).set('Sec-Fetch-Site', 'cross-site'))).toEqual([
        403,
        'not-from-here',
      ])
    // Typed into the address line.
    await api().get('/api/clients').set('Sec-Fetch-Site', 'none').expect(200)
  })

  it('of ours may', async () => {
    const headers = {
      Host: '127.0.0.1:4170',
      Origin: 'http://127.0.0.1:4170',
      'Sec-Fetch-Site': 'same-origin',
    }
    await api().post('/api/clients').set(headers).send(newClient()).expect(201)
  })

  it('are told to keep nothing', async () => {
    for (const path of ['/api/clients', '/api/today', '/api/nothing'])
      expect((await api().get(path)).headers['cache-control']).toBe('no-store')
  })
})

it.each([
  'text/plain',
  'application/x-www-form-urlencoded',
  'multipart/form-data; boundary=x',
  'application/jsonx',
  'text/json',
])('a form of another page cannot send %s where JSON is taken', async (type) => {
  const client = newClient()
  const r = await api().post('/api/clients').set('Content-Type', type).send(JSON.stringify(client))
  expect(code(r)).toEqual([415, 'wrong-kind'])
  await api().get(`/api/clients/${client.id}`).expect(404)
})

it('the address of a link page is never taken from what a request says', async () => {
  const { visit } = await plannedVisit(studio.app)
  const { finishVisit } = await import('../testing/studio.ts')
  await finishVisit(studio.app, visit, Date.now() - 3_600_000)
  const r = await api()
    .post(`/api/visits/${visit.id}/link`)
    .set('Host', 'localhost:1')
    .set('X-Forwarded-Host', 'evil.example')
    .set('X-Forwarded-Proto', 'https')
    .send({})
  expect((r.body as { url: string }).url).toMatch(/^http:\/\/127\.0\.0\.1:\d+\/answer\//)
})

describe('the log', () => {
  it('holds no name, no token, no text, whatever happens', async () => {
    const lines: string[] = []
    const logger = pino({ level: 'trace' }, { write: (line: string) => void lines.push(line) })
    const app = createApp(studio.db, studio.config, logger, { people: studio.people })
    const client = newClient({ name: 'Quillon Vantreese', note: 'a scar on the chin' })
    await request(app).post('/api/clients').send(client).expect(201)
    // A write that the database itself refuses: its message holds the row.
    const { Client } = studio.db.models
    const create = Client.create.bind(Client)
    const spy = Object.assign(Client, {
      create: () => create({ ...client, createdAtMs: 1 } as never),
      findByPk: () => Promise.resolve(null),
    })
    const r = await request(app)
      .post('/api/clients')
      .set('Cookie', 'tide=secret-of-a-screen')
      .send(client)
    delete (spy as { create?: unknown }).create
    delete (spy as { findByPk?: unknown }).findByPk
    expect(r.status).toBe(500)
    await request(app).get('/api/clients?find=Quillon').expect(200)
    await request(app).get('/answer/AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA')
    await request(app).get(`/api/clients/${client.id}`).expect(200)
    expect(lines.length).toBeGreaterThan(4)
    const all = lines.join('')
    for (const word of ['Quillon', 'scar', 'average', 'secret-of', 'AAAAAAAA', client.id, 'rigger'])
      expect([word, all.includes(word)]).toEqual([word, false])
    expect(all).toContain('SequelizeUniqueConstraintError')
    expect(all).toContain('/api/clients/:…')
  })

  it('tells of an address and an error only what says nothing of a person', () => {
    expect(plainPath('/api/visits/0b7e/care.pdf?x=Ada')).toBe('/api/visits/:…/care.pdf')
    expect(plainPath('/answer/Ada-Reef_123')).toBe('/answer/:…')
    expect(
      JSON.stringify(plainError(new Error('Vantreese', { cause: new TypeError('Quillon') }))),
    ).not.toMatch(/Vantreese|Quillon/)
  })
})
