/** Other machines: locked by the house's own certificate, let in one by one, a wall only shows. Held from the loopback's second address. */
import { X509Certificate } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import { request as ask } from 'node:https'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { randomUUID } from 'node:crypto'
import type { Screens, Session } from '../../contract/types.ts'
import { DAY_MS } from '../../core/time/index.ts'
import { killAll, runBuilt, type Run } from '../testing/process.ts'
import { plannedOver } from '../testing/overTheWire.ts'
import { newClient, wholeService } from '../testing/studio.ts'
import { certificates } from './certificates.ts'

const root = mkdtempSync(join(tmpdir(), 'slow-tide-lan-'))
afterAll(async () => {
  await killAll()
  rmSync(root, { recursive: true, force: true })
})

interface Told {
  readonly status: number
  readonly body: { code?: string } & Record<string, unknown>
  readonly cookies: readonly string[]
}

/** A device with cookies of its own, at another address than the server's. */
function device(base: string, ca: string | undefined) {
  const jar = new Map<string, string>()
  return (method: string, path: string, body?: unknown) =>
    new Promise<Told>((done, failed) => {
      const { port } = new URL(base)
      const text = body === undefined ? undefined : JSON.stringify(body)
      const r = ask(
        {
          ...{ host: '127.0.0.2', port, method, path, localAddress: '127.0.0.2' },
          ...(ca !== undefined && { ca }),
          headers: {
            Cookie: [...jar].map(([k, v]) => `${k}=${v}`).join('; '),
            ...(text !== undefined && {
              'Content-Type': 'application/json',
              'Content-Length': Buffer.byteLength(text),
            }),
          },
        },
        (answer) => {
          const cookies = answer.headers['set-cookie'] ?? []
          for (const c of cookies) {
            const [, key, value] = /^([^=]+)=([^;]*)/.exec(c)!
            jar.set(key!, value!)
          }
          let said = ''
          answer.on('data', (d: Buffer) => (said += d.toString()))
          answer.on('end', () =>
            done({
              status: answer.statusCode!,
              cookies,
              body: said.startsWith('{') ? (JSON.parse(said) as Told['body']) : {},
            }),
          )
        },
      )
      r.on('error', failed)
      r.end(text)
    })
}

it.each([
  { HOST: '0.0.0.0' },
  { HOST: '192.168.1.4' },
  { ANSWER_PORT: '0', ANSWER_HOST: '0.0.0.0' },
])('listens beyond this machine only when it is asked to: %j', async (env) => {
  const run = runBuilt(join(root, 'never'), [], env)
  expect([await run.ended, run.said()]).toEqual([
    1,
    expect.stringMatching(/only unless it is started with --lan/),
  ])
})

describe('with --lan', () => {
  let server: Run
  let here: string
  let there: string
  let trust: string
  let ca: string
  const near = async <T>(method: string, path: string, body?: unknown): Promise<T> => {
    const r = await fetch(here + path, {
      method,
      headers: { 'Content-Type': 'application/json', Cookie: cookie },
      ...(body !== undefined && { body: JSON.stringify(body) }),
    })
    const [set] = r.headers.getSetCookie()
    if (set) cookie = set.split(';')[0]!
    return (await r.json()) as T
  }
  let cookie = ''
  const ids = { owner: '', visit: '', client: '' }
  beforeAll(async () => {
    server = runBuilt(join(root, 'data'), ['--lan'], { SLOW_TIDE_HOSTS: '127.0.0.2' })
    here = await server.serves
    const found = () =>
      /let in at (https:\S+)\/; a new one begins at (http:\S+)\//.exec(server.said())
    for (let i = 0; i < 200 && !found(); i++) await new Promise((r) => setTimeout(r, 50))
    expect(server.said()).toMatch(/let in at/)
    ;[, there, trust] = found() as unknown as [string, string, string]
    const visit = await plannedOver(here)
    ids.visit = visit.id
    ids.client = visit.clientId
    trust = trust.replace(/\/\/[^:]+/, '//127.0.0.1')
    ca = await (await fetch(`${trust}/root.crt`)).text()
  })
  afterAll(() => server.kill())

  it('offers its root certificate with the fingerprint to compare, and nothing else by plain HTTP', async () => {
    const page = await (await fetch(`${trust}/`)).text()
    const fingerprint = new X509Certificate(ca).fingerprint256
    expect(page).toContain(fingerprint)
    const lan = (await near<Screens>('GET', '/api/screens')).lan!
    expect(lan).toMatchObject({ url: there, fingerprint })
    expect(new X509Certificate(ca).ca).toBe(true)
    for (const path of ['/api/today', '/api/health', '/root.key', '/answer/x'])
      expect((await fetch(trust + path)).status).toBe(404)
  })

  it('is not believed by a device that does not trust the house yet', async () => {
    await expect(device(there, undefined)('GET', '/api/session')).rejects.toThrow(
      /self-signed|unable to/,
    )
  })

  it('lets no screen in that has no code, and nobody where nobody signs in', async () => {
    const tablet = device(there, ca)
    expect(await tablet('GET', '/api/today')).toMatchObject({
      status: 401,
      body: { code: 'not-paired' },
    })
    expect((await tablet('GET', '/api/session')).body).toMatchObject({ workers: [], worker: null })
    expect(
      await tablet('POST', '/api/people/owner', { house: 'x', name: 'thief', secret: '9999' }),
    ).toMatchObject({ status: 403 })
    expect(
      await near('POST', '/api/screens', { name: 'Left chair', kind: 'tablet' }),
    ).toMatchObject({ code: 'nobody-signs-in' })
    const made = await near<Session>('POST', '/api/people/owner', {
      house: 'Lantern Quay',
      name: 'Ines',
      secret: '2468',
    })
    ids.owner = made.worker!.id
  })

  it('a screen is let in by a code that opens once; people sign in on it, and writing works', async () => {
    const { pairing } = await near<Screens>('POST', '/api/screens', {
      name: 'Left chair',
      kind: 'tablet',
    })
    expect(pairing!.code).toMatch(/^[2-9A-HJ-NP-Z]{8}$/)
    expect(pairing!.url).toBe(`${there}/pair?code=${pairing!.code}`)
    expect(pairing!.qr).toContain('<svg')
    const tablet = device(there, ca)
    expect(await tablet('POST', '/api/screens/pair', { code: 'AAAAAAAA' })).toMatchObject({
      status: 401,
      body: { code: 'wrong-code' },
    })
    const paired = await tablet('POST', '/api/screens/pair', { code: pairing!.code.toLowerCase() })
    expect(paired).toMatchObject({ status: 200, body: { name: 'Left chair', kind: 'tablet' } })
    expect(paired.cookies[0]).toMatch(/HttpOnly; Secure; SameSite=Strict/)
    expect(
      await device(there, ca)('POST', '/api/screens/pair', { code: pairing!.code }),
    ).toMatchObject({ status: 401 })
    expect(await tablet('GET', '/api/today')).toMatchObject({
      status: 401,
      body: { code: 'sign-in' },
    })
    const signed = await tablet('POST', '/api/session', { workerId: ids.owner, secret: '2468' })
    expect(signed.cookies[0]).toMatch(/Secure/)
    expect((await tablet('GET', '/api/today')).status).toBe(200)
    expect((await tablet('POST', '/api/clients', newClient())).status).toBe(201)
    // Taken back, it is a stranger again, signed in or not.
    const { screens } = await near<Screens>('GET', '/api/screens')
    await near('PATCH', `/api/screens/${screens[0]!.id}`, { takenBack: true })
    expect(await tablet('GET', '/api/today')).toMatchObject({
      status: 401,
      body: { code: 'not-paired' },
    })
  })

  it('a code is gone after ten wrong ones', async () => {
    const { pairing } = await near<Screens>('POST', '/api/screens', { name: 'x', kind: 'tablet' })
    const statuses = []
    for (let i = 0; i < 11; i++)
      statuses.push(
        (await device(there, ca)('POST', '/api/screens/pair', { code: `WRNG${i}` })).status,
      )
    expect(statuses.filter((s) => s === 401 || s === 429)).toHaveLength(11)
    expect(
      (await device(there, ca)('POST', '/api/screens/pair', { code: pairing!.code })).status,
    ).not.toBe(200)
  })

  it('a screen on the wall sees the service under way and changes nothing', async () => {
    // The minute of the tries before is over for whoever comes from this machine.
    const { pairing } = await near<Screens>('POST', '/api/screens', { name: 'Wall', kind: 'wall' })
    await near('POST', '/api/screens/pair', { code: pairing!.code })
    const wall = (method: string, path: string, body?: unknown) =>
      fetch(here + path, {
        method,
        headers: { 'Content-Type': 'application/json', Cookie: cookie },
        ...(body !== undefined && { body: JSON.stringify(body) }),
      })
    const seen = (await (await wall('GET', '/api/wall')).json()) as { running: object[] }
    expect(seen.running).toEqual([])
    expect((await wall('GET', `/api/visits/${ids.visit}`)).status).toBe(200)
    expect((await wall('GET', `/api/clients/${ids.client}`)).status).toBe(200)
    const page = (await (await wall('GET', `/api/visits/${ids.visit}`)).json()) as Parameters<
      typeof wholeService
    >[0]
    const [event] = wholeService(page, Date.now())
    for (const [method, path, body] of [
      ['POST', `/api/visits/${ids.visit}/events`, event],
      ['PATCH', `/api/clients/${ids.client}`, { note: 'x' }],
      ['GET', '/api/today', undefined],
      ['GET', `/api/clients/${ids.client}/export.json`, undefined],
      ['GET', `/api/photos/${randomUUID()}`, undefined],
      ['POST', '/api/clients', newClient()],
    ] as const) {
      const r = await wall(method, path, body)
      expect([path, r.status]).toEqual([path, 403])
    }
  })
})

describe('certificates', () => {
  it('keep their root when names change or time runs out, and make the rest anew', async () => {
    const dir = join(root, 'keys')
    const first = await certificates(dir, 'Lantern Quay', ['10.1.2.3', 'quay.local'])
    const again = await certificates(dir, 'Lantern Quay', ['10.1.2.3', 'quay.local'])
    expect(again.cert).toBe(first.cert)
    const moved = await certificates(dir, 'Lantern Quay', ['10.1.2.4', 'quay.local'])
    expect([moved.root, moved.cert === first.cert]).toEqual([first.root, false])
    const leaf = new X509Certificate(moved.cert)
    expect(leaf.checkIP('10.1.2.4')).toBe('10.1.2.4')
    expect(leaf.checkIP('10.1.2.3')).toBeUndefined()
    expect(leaf.checkHost('quay.local')).toBe('quay.local')
    expect(leaf.ca).toBe(false)
    const later = await certificates(
      dir,
      'Lantern Quay',
      ['10.1.2.4', 'quay.local'],
      Date.now() + 370 * DAY_MS,
    )
    expect(later.cert).not.toBe(moved.cert)
    expect(Date.parse(new X509Certificate(later.cert).validTo) - Date.now()).toBeGreaterThan(
      700 * DAY_MS,
    )
  })
})
