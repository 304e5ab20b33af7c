/** A server that is really killed (SIGKILL) between and during events loses no event it had acknowledged. */
import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { mulberry32 } from '../core/stats/random.ts'
import type { ChairAnswer, House, VisitPage } from '../contract/types.ts'
import { newClient, NO_TO_ALL, wholeService } from './testing/studio.ts'
import { randomUUID } from 'node:crypto'

const KILLS = 20
const dir = mkdtempSync(join(tmpdir(), 'slow-tide-kill-'))
let child: ChildProcess | undefined
let base = ''

function start(): Promise<void> {
  return new Promise((resolve, reject) => {
    const server = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts'], {
      env: {
        ...process.env,
        SLOW_TIDE_DATA: dir,
        PORT: '0',
        LOG_LEVEL: 'silent',
        NODE_OPTIONS: '',
      },
      stdio: ['ignore', 'pipe', 'pipe'],
    })
    child = server
    let said = ''
    server.stdout.on('data', (chunk: Buffer) => {
      said += chunk.toString()
      const found = /http:\/\/[\d.]+:\d+/.exec(said)
      if (found) {
        base = found[0]
        resolve()
      }
    })
    server.stderr.on('data', (chunk: Buffer) => (said += chunk.toString()))
    server.on('exit', () => reject(new Error(`The server ended: ${said}`)))
  })
}

function kill(): Promise<void> {
  return new Promise((resolve) => {
    child!.once('exit', () => resolve())
    child!.kill('SIGKILL')
  })
}

async function send<T>(method: string, path: string, body?: unknown): Promise<T> {
  const r = await fetch(base + path, {
    method,
    headers: { 'Content-Type': 'application/json' },
    ...(body !== undefined && { body: JSON.stringify(body) }),
  })
  if (!r.ok) throw new Error(`${method} ${path}: ${r.status} ${await r.text()}`)
  return (await r.json()) as T
}

afterAll(async () => {
  if (child && child.exitCode === null && child.signalCode === null) await kill()
  rmSync(dir, { recursive: true, force: true })
})

it(`loses nothing over ${KILLS} kills`, async () => {
  await start()
  const random = mulberry32(5)
  const house = await send<House>('GET', '/api/house')
  const client = newClient()
  await send('POST', '/api/clients', client)
  const id = randomUUID()
  await send('POST', `/api/clients/${client.id}/visits`, {
    id,
    service: 'face-shave',
    workerId: house.workerId,
    slotAtMs: null,
  })
  await send('PUT', `/api/visits/${id}/asked`, { answers: NO_TO_ALL, spots: [] })
  const planned = await send<VisitPage>('PUT', `/api/visits/${id}/plan`)
  const events = wholeService(planned, Date.now())
  const acknowledged: string[] = []
  let next = 0
  for (let round = 0; round < KILLS; round++) {
    const these = Math.min(1 + Math.floor(random() * 2), events.length - next)
    for (let i = 0; i < these; i++) {
      await send<ChairAnswer>('POST', `/api/visits/${id}/events`, events[next])
      acknowledged.push(events[next]!.id)
      next++
    }
    // Half the time the next event is on its way when the server dies: it may or may not be stored.
    const underWay =
      random() < 0.5 && next < events.length
        ? send('POST', `/api/visits/${id}/events`, events[next]).catch(() => undefined)
        : undefined
    if (underWay) await new Promise((r) => setTimeout(r, random() * 12))
    await kill()
    await underWay
    await start()
    const page = await send<VisitPage>('GET', `/api/visits/${id}`)
    const kept = page.events.map((e) => e.id)
    expect(kept.slice(0, acknowledged.length)).toEqual(acknowledged)
    expect(kept.length - acknowledged.length).toBeLessThanOrEqual(1)
    expect(page.chair.seq).toBe(kept.length)
    // One that was stored but never acknowledged is sent again by the screen and changes nothing.
    if (kept.length > acknowledged.length) {
      const again = await send<ChairAnswer>('POST', `/api/visits/${id}/events`, events[next])
      expect(again.repeated).toBe(true)
      acknowledged.push(events[next]!.id)
      next++
    }
  }
  for (; next < events.length; next++) await send('POST', `/api/visits/${id}/events`, events[next])
  const page = await send<VisitPage>('GET', `/api/visits/${id}`)
  expect(page.state).toBe('finished')
  expect(page.events.map((e) => e.id)).toEqual(events.map((e) => e.id))
}, 240_000)
