/** Who may do what, held over the wire: signing in, waits, locks, rights of every route, the trail. */
import { randomUUID } from 'node:crypto'
import request from 'supertest'
import { ADDRESSES } from '../../contract/addresses.ts'
import { LOCKED_MAY, mayDo, RANKS, RIGHTS, type Rank } from '../../contract/rights.ts'
import type { RouteName } from '../../contract/routes.ts'
import { trailWords } from '../../contract/trailWords.ts'
import type { ClientPage, House, People, Session, Trail } from '../../contract/types.ts'
import { READ_WRITE, withPlain } from '../db/plain.ts'
import { dataFile, writeCard } from '../safety/folder.ts'
import { chairEvent, newClient, openStudio, plannedVisit, type Studio } from '../testing/studio.ts'
import { waitAfter } from './people.ts'

let studio: Studio
/** What a screen's cookies are, by who signed in on it. */
const screens: Partial<Record<Rank, ReturnType<typeof request.agent>>> = {}
const ids: Partial<Record<Rank, string>> = {}
const SECRETS: Record<Rank, string> = {
  owner: '4821',
  worker: '7730',
  learner: 'slow morning tide',
  'front-desk': '1199',
}
let visit: Awaited<ReturnType<typeof plannedVisit>>
const fresh = () => request.agent(studio.app)
const code = (r: request.Response) => [
  r.status,
  (r.body as { code?: string }).code ?? JSON.parse(r.text).code,
]
const signIn = (screen: ReturnType<typeof request.agent>, rank: Rank, secret = SECRETS[rank]) =>
  screen.post('/api/session').send({ workerId: ids[rank], secret })

beforeAll(async () => {
  studio = await openStudio()
  visit = await plannedVisit(studio.app)
})
afterAll(() => studio.close())

describe('before anybody has figures', () => {
  it('whoever is at this machine is the owner, and the house says so', async () => {
    const s = (await fresh().get('/api/session').expect(200)).body as Session
    expect(s).toMatchObject({ mode: 'open', worker: null, locked: false, workers: [] })
    await fresh().get('/api/safety').expect(200)
  })

  it('a new house asks for its owner first', async () => {
    const other = await openStudio()
    try {
      const screen = request.agent(other.app)
      expect(((await screen.get('/api/session')).body as Session).mode).toBe('first-run')
      const made = await screen
        .post('/api/people/owner')
        .send({ house: 'Lantern Quay', name: 'Ines', secret: '2468' })
        .expect(200)
      expect(made.body).toMatchObject({
        mode: 'people',
        house: 'Lantern Quay',
        worker: { name: 'Ines', rank: 'owner' },
      })
      await screen.get('/api/today').expect(200)
      await request(other.app).get('/api/today').expect(401)
      expect(code(await screen.post('/api/people/owner').send({ house: 'x', name: 'y' }))).toEqual([
        409,
        'begun',
      ])
    } finally {
      await other.close()
    }
  })
})

describe('people', () => {
  beforeAll(async () => {
    const house = (await fresh().get('/api/house')).body as House
    ids.owner = house.workers[0]!.id
    const screen = fresh()
    await screen
      .post('/api/people/owner')
      .send({ house: 'Lantern Quay', name: 'Ines', hand: 'right', secret: SECRETS.owner })
      .expect(200)
    screens.owner = screen
    for (const rank of RANKS.filter((r) => r !== 'owner')) {
      ids[rank] = randomUUID()
      const worker = {
        id: ids[rank],
        name: `Who is ${rank}`,
        role: 'barber',
        hand: 'left',
        rank,
        secret: SECRETS[rank],
      }
      await screen.post('/api/people').send(worker).expect(201)
      screens[rank] = fresh()
      await signIn(screens[rank], rank).expect(200)
    }
  })

  it('without signing in see nothing but the door', async () => {
    const names = Object.keys(ADDRESSES) as RouteName[]
    for (const name of names) {
      const { method, path } = ADDRESSES[name]
      const at = path.replace(':id', visit.visit.id).replace(':moment', '24h')
      const r = await fresh()[method.toLowerCase() as 'get'](at)
      if (mayDo('nobody', name))
        expect([name, r.status === 401 && code(r)[1] === 'sign-in']).toEqual([name, false])
      else if (r.status !== 415) expect([name, ...code(r)]).toEqual([name, 401, 'sign-in'])
    }
    // No figure, no digest, no right is told there.
    const door = JSON.stringify((await fresh().get('/api/session')).body)
    expect(door).not.toMatch(/argon|rank|secret":"/)
  })

  it.each(RANKS)('a %s may do what the table says and nothing else', async (rank) => {
    const names = Object.keys(RIGHTS) as RouteName[]
    const leftOut = [
      'follow',
      'followAll',
      'signOut',
      'signOutEverywhere',
      'lockScreen',
      'changeSecret',
      'signIn',
      'backUp',
      'prove',
      'eraseClient',
    ]
    for (const name of names.filter((n) => !leftOut.includes(n))) {
      const { method, path } = ADDRESSES[name]
      const id = path.startsWith('/api/clients') ? visit.client.id : visit.visit.id
      const at = path.replace(':id', id).replace(':moment', '24h')
      const asked = screens[rank]![method.toLowerCase() as 'get'](at)
      // A body that no route takes: who may is refused for that, who may not before it.
      const r = await (method === 'GET'
        ? asked
        : path.endsWith('/photos')
          ? asked.field('x', 'y')
          : asked.send({ nothing: true }))
      const refused = r.status === 403 && code(r)[1] === 'no-right'
      expect([name, refused]).toEqual([name, !mayDo(rank, name)])
    }
  })

  it('at the front desk see names and times, and nothing of how the skin took it', async () => {
    await studio.db.sequelize.query('UPDATE visits SET worstRedness = 3, bumps = 5 WHERE id = ?', {
      replacements: [visit.visit.id],
    })
    const see = async (rank: Rank) =>
      ((await screens[rank]!.get(`/api/clients/${visit.client.id}`).expect(200)).body as ClientPage)
        .visits[0]!
    expect(await see('worker')).toMatchObject({ worstRedness: 3, bumps: 5 })
    expect(await see('front-desk')).toMatchObject({ worstRedness: null, bumps: null, routine: '' })
    await screens['front-desk']!.patch(`/api/clients/${visit.client.id}`)
      .send({ phone: '12' })
      .expect(200)
  })

  it('only the owner changes the house; others what their work needs', async () => {
    const change = (rank: Rank, body: object) => screens[rank]!.patch('/api/house').send(body)
    expect(code(await change('worker', { schools: { beardPasses: 'with-only' } }))).toEqual([
      403,
      'no-right',
    ])
    expect(
      code(await change('worker', { figures: { 'skin.rednessLimit': 0.1 }, products: [] })),
    ).toEqual([403, 'no-right'])
    await change('worker', { products: [] }).expect(200)
    expect(code(await change('learner', { products: [] }))).toEqual([403, 'no-right'])
    await change('learner', { probe: { iceShowsC: 1 } }).expect(200)
    await change('owner', { figures: { 'skin.rednessLimit': 0.1 } }).expect(200)
  })

  it('are who works at their screen, and nobody lifts a finding in another’s name', async () => {
    for (const rank of RANKS)
      expect(((await screens[rank]!.get('/api/house')).body as House).workerId).toBe(ids[rank])
    const word = {
      id: randomUUID(),
      finding: 'consent',
      workerId: ids.owner,
      reason: 'agreed by word of mouth',
    }
    const r = await screens.worker!.post(`/api/visits/${visit.visit.id}/decisions`).send(word)
    expect(code(r)).toEqual([403, 'not-yours'])
  })

  it('wait longer after each wrong try, however many come at once, and across a restart', async () => {
    expect([0, 4, 5, 6, 7, 20].map(waitAfter)).toEqual([0, 0, 30_000, 60_000, 120_000, 900_000])
    const tries = await Promise.all(
      Array.from({ length: 12 }, () => signIn(fresh(), 'learner', '0000')),
    )
    expect(tries.map((t) => t.status).sort()).toEqual([
      401, 401, 401, 401, 401, 429, 429, 429, 429, 429, 429, 429,
    ])
    const late = await signIn(fresh(), 'learner')
    expect(code(late)).toEqual([429, 'wait'])
    expect((late.body as { detail: string }).detail).toMatch(/in \d+ seconds/)
    const { tries: kept } = await studio.people.store()
    expect((await kept.of(ids.learner!)).n).toBe(5)
    // Others are not held up, and time lets them in again.
    await signIn(fresh(), 'worker').expect(200)
    await kept.set(ids.learner!, 5, Date.now() - 1)
    await signIn(fresh(), 'learner').expect(200)
    expect((await kept.of(ids.learner!)).n).toBe(0)
    expect(
      code(await fresh().post('/api/session').send({ workerId: randomUUID(), secret: '1234' })),
    ).toEqual([401, 'wrong-figures'])
    const { rows } = await studio.people.trail.page({ worker: ids.learner! })
    expect(rows.map((r) => r.what)).toEqual(expect.arrayContaining(['signIn', 'signInRefused']))
  })

  it('get a session of a new number when they sign in, in a cookie that no page can read or send from elsewhere', async () => {
    const screen = fresh()
    const r = await signIn(screen, 'worker').expect(200)
    const [cookie] = r.headers['set-cookie'] as unknown as string[]
    expect(cookie).toMatch(/^tide=.*HttpOnly; SameSite=Strict/)
    const again = await signIn(screen, 'owner').expect(200)
    const [other] = again.headers['set-cookie'] as unknown as string[]
    expect(other!.split(';')[0]).not.toBe(cookie!.split(';')[0])
    // The one before opens nothing any more.
    const before = await request(studio.app).get('/api/today').set('Cookie', cookie!.split(';')[0]!)
    expect(before.status).toBe(401)
  })

  it('lock a screen: only the service under way on it goes on, until the figures are typed', async () => {
    const screen = fresh()
    await signIn(screen, 'worker').expect(200)
    const mine = visit.visit
    await screen.patch(`/api/visits/${mine.id}`).send({ workerId: ids.worker }).expect(200)
    await screen.put(`/api/visits/${mine.id}/plan`).expect(200)
    await screen.post(`/api/visits/${mine.id}/events`).send(chairEvent(1, 'started')).expect(200)
    await screen.post('/api/session/lock').send({}).expect(200)
    expect((await screen.get('/api/session')).body).toMatchObject({ locked: true })
    await screen.get(`/api/visits/${mine.id}`).expect(200)
    await screen.get(`/api/clients/${visit.client.id}`).expect(200)
    await screen.post(`/api/visits/${mine.id}/events`).send(chairEvent(2, 'paused')).expect(200)
    const other = (await screens.owner!.post('/api/clients').send(newClient()).expect(201))
      .body as { id: string }
    for (const path of [
      `/api/clients/${other.id}`,
      '/api/today',
      '/api/clients',
      `/api/visits/${mine.id}/care`,
    ])
      expect(code(await screen.get(path))).toEqual([401, 'locked'])
    expect(code(await screen.patch(`/api/clients/${visit.client.id}`).send({ note: 'x' }))).toEqual(
      [401, 'locked'],
    )
    expect(LOCKED_MAY).toContain('addEvent')
    await signIn(screen, 'worker').expect(200)
    await screen.get('/api/today').expect(200)
  })

  it('sign out everywhere, and are out when the owner changes their figures or lets them go', async () => {
    const [a, b] = [fresh(), fresh()]
    for (const s of [a, b]) await signIn(s, 'worker').expect(200)
    await a.delete('/api/sessions').expect(200)
    for (const s of [a, b]) expect((await s.get('/api/today')).status).toBe(401)
    await signIn(a, 'worker').expect(200)
    await screens.owner!.patch(`/api/people/${ids.worker}`).send({ secret: '5555' }).expect(200)
    expect((await a.get('/api/today')).status).toBe(401)
    expect((await signIn(a, 'worker')).status).toBe(401)
    await signIn(a, 'worker', '5555').expect(200)
    await a.post('/api/session/secret').send({ before: '5555', secret: SECRETS.worker }).expect(200)
    await a.get('/api/today').expect(200)
    expect(
      code(await a.post('/api/session/secret').send({ before: '5555', secret: '6666' })),
    ).toEqual([401, 'wrong-figures'])
    const done = (
      await screens.owner!.patch(`/api/people/${ids.worker}`).send({ gone: true }).expect(200)
    ).body as People
    expect(done.people.find((p) => p.id === ids.worker)).toMatchObject({ gone: true, sessions: 0 })
    expect((await a.get('/api/today')).status).toBe(401)
    await screens.owner!.patch(`/api/people/${ids.worker}`).send({ gone: false }).expect(200)
    for (const body of [{ rank: 'worker' }, { gone: true }, { secret: null }])
      expect(code(await screens.owner!.patch(`/api/people/${ids.owner}`).send(body))).toEqual([
        409,
        'last-owner',
      ])
  })

  it.each(['123', '12', 'short', '12345678901234'])(
    'no figures like "%s" are taken',
    async (secret) => {
      const r = await screens.owner!.patch(`/api/people/${ids.learner}`).send({ secret })
      expect(r.status).toBe(422)
    },
  )

  it('from another machine are nobody until the screen is paired', async () => {
    const r = await fresh().get('/api/today').set('Host', 'localhost')
    expect(r.status).toBe(401)
    // Through a proxy of this machine, under the name of the house.
    const { createApp } = await import('../app.ts')
    const pino = (await import('pino')).default
    const app = createApp(
      studio.db,
      { ...studio.config, hosts: ['studio.example'] },
      pino({ level: 'silent' }),
      { people: studio.people },
    )
    const far = await request(app).get('/api/today').set('Host', 'studio.example')
    expect(code(far)).toEqual([401, 'not-paired'])
    expect(
      ((await request(app).get('/api/session').set('Host', 'studio.example')).body as Session)
        .workers,
    ).toEqual([])
    const door = await request(app)
      .post('/api/session')
      .set('Host', 'studio.example')
      .send({ workerId: ids.owner, secret: SECRETS.owner })
    expect(code(door)).toEqual([403, 'not-paired'])
  })
})

describe('the trail', () => {
  const trail = async (query = '') =>
    (await screens.owner!.get(`/api/trail${query}`).expect(200)).body as Trail
  let client: { id: string; name: string }
  beforeAll(async () => {
    client = (
      await screens
        .owner!.post('/api/clients')
        .send(newClient({ name: 'Quillon Vantreese' }))
        .expect(201)
    ).body as typeof client
  })

  it('tells once that a screen keeps a client for the day, as no look of anybody', async () => {
    const { id } = visit.client
    await signIn(screens.worker!, 'worker').expect(200)
    const uses = async () => (await trail(`?client=${id}`)).rows.map((r) => r.use)
    const before = await uses()
    for (let i = 0; i < 3; i++)
      for (const path of [`/api/clients/${id}`, `/api/visits/${visit.visit.id}`])
        await screens.worker!.get(path).set('X-Ahead', '1').expect(200)
    expect(await uses()).toEqual(['keep', ...before])
  })

  it('tells who looked, changed, took out and printed, of a client and of a worker', async () => {
    await signIn(screens.learner!, 'learner')
    for (let i = 0; i < 3; i++) await screens.learner!.get(`/api/clients/${client.id}`).expect(200)
    await screens.learner!.patch(`/api/clients/${client.id}`).send({ note: 'x' }).expect(200)
    await screens.learner!.get(`/api/clients/${client.id}/export.json`).expect(403)
    await screens.owner!.get(`/api/clients/${client.id}/export.json`).expect(200)
    const paper = await screens
      .owner!.get(`/api/clients/${client.id}/record.pdf`)
      .buffer(true)
      .expect(200)
    expect(paper.headers['content-type']).toBe('application/pdf')
    await screens.owner!.patch(`/api/clients/${client.id}`).send({ name: '' }).expect(422)
    const { rows, whole } = await trail(`?client=${client.id}`)
    expect(whole).toBe(true)
    // Three looks within ten minutes are one; what was refused is none.
    expect(rows.map((r) => [r.worker, trailWords(r.use, r.what)]).reverse()).toEqual([
      ['Ines', 'added the client'],
      ['Who is learner', 'looked at the client’s page'],
      ['Who is learner', 'changed the client’s details'],
      ['Ines', 'took out everything, as a file (JSON)'],
      ['Ines', 'printed everything, on paper (PDF)'],
    ])
    expect(rows.every((r) => r.client === 'Quillon Vantreese' && r.screen === 'this machine')).toBe(
      true,
    )
    const own = await trail(`?worker=${ids.learner}`)
    expect(new Set(own.rows.map((r) => r.worker))).toEqual(new Set(['Who is learner']))
  })

  it('stays when the client is erased, by number only', async () => {
    await screens
      .owner!.delete(`/api/clients/${client.id}`)
      .send({ confirmName: client.name })
      .expect(200)
    const { rows } = await trail(`?client=${client.id}`)
    expect(rows[0]).toMatchObject({ use: 'erase', clientId: client.id, client: null })
    expect(rows).toHaveLength(6)
  })

  it('cannot be changed through the database, and a file changed beside it is found', async () => {
    for (const sql of ["UPDATE trail SET worker = 'nobody'", 'DELETE FROM trail'])
      await expect(studio.db.sequelize.query(sql)).rejects.toMatchObject({
        parent: { message: expect.stringMatching(/only added to/) as string },
      })
    expect(await studio.people.trail.verify()).toBeUndefined()
    const tamper = (sql: string) =>
      withPlain(dataFile(studio.dir), READ_WRITE, (f) =>
        f.exec(`DROP TRIGGER trail_stays_update; DROP TRIGGER trail_stays_delete; ${sql}
          CREATE TRIGGER trail_stays_update BEFORE UPDATE ON trail BEGIN SELECT RAISE(ABORT, 'x'); END;
          CREATE TRIGGER trail_stays_delete BEFORE DELETE ON trail BEGIN SELECT RAISE(ABORT, 'x'); END;`),
      )
    const [row] = await studio.db.select<{ atMs: number }>('SELECT atMs FROM trail WHERE seq = 3')
    await tamper('UPDATE trail SET atMs = atMs + 1 WHERE seq = 3;')
    expect(await studio.people.trail.verify()).toBe(3)
    expect((await trail()).whole).toBe(false)
    await tamper(`UPDATE trail SET atMs = ${row!.atMs} WHERE seq = 3;`)
    expect(await studio.people.trail.verify()).toBeUndefined()
    await tamper('DELETE FROM trail WHERE seq = 4;')
    expect(await studio.people.trail.verify()).toBe(4)
  })

  it('has words for every use that the table of rights names', () => {
    for (const [name, right] of Object.entries(RIGHTS))
      if ('use' in right) expect(trailWords(right.use, name)).toMatch(/^[a-z’, ()A-Z]+$/)
  })
})

it('the demo signs in by itself, and its lock is tried with figures that it shows', async () => {
  const demo = await openStudio()
  try {
    writeCard(demo.dir, { demo: true })
    const screen = request.agent(demo.app)
    const s = (await screen.get('/api/session')).body as Session
    expect(s).toMatchObject({ mode: 'demo', locked: false })
    expect(s.worker).not.toBeNull()
    await screen.post('/api/session/lock').send({}).expect(200)
    expect((await screen.get('/api/today')).status).toBe(401)
  } finally {
    await demo.close()
  }
})
