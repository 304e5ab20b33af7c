/**
 * Speed and memory: one JSON line a figure, with its aim. Run on a quiet machine; figures vary two to three times on a busy one.
 * `--check` ends with 1 when one is farther than half as much again from its aim; names after it measure only those parts.
 */
import { oneJob } from '../core/services/index.ts'
import { buildHead } from '../core/head/index.ts'
import { DEFAULTS } from '../core/house/index.ts'
import { addDays } from '../core/time/index.ts'
import { pack, weekProblem } from '../core/week/index.ts'
import { RULES } from '../core/screening/index.ts'
import { mulberry32 } from '../core/stats/index.ts'
import { spawn } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { chromium } from '@playwright/test'
import { CHROMIUM } from '../e2e/chromium.ts'
import { serve } from '../e2e/server.ts'
import { openDatabase } from '../server/db/connection.ts'
import type { House } from '../contract/types.ts'
import { AIMS, beyond } from './aims.mts'
import { fieldFigures, strokeFrames } from './field.mts'
import { chairFigures } from './chair.mts'
import { fill } from './fill.ts'
import { planFigures } from './plan.mts'
import { forecastFigures, importFigures, learnFigures, studioFigures } from './return.mts'
import { sizeFigures } from './size.mts'
import { pageFigures } from './web.mts'
import { killFigures, soakFigures } from './soak.mts'

const far: string[] = []
function figure(name: string, value: number, unit: string): void {
  const aim = AIMS[name]
  if (aim === undefined) throw new Error(`${name} has no aim: give it one in bench/aims.mts.`)
  if (beyond(value, aim)) far.push(name)
  console.log(JSON.stringify({ name, value: Math.round(value * 1e4) / 1e4, unit, aim }))
}
const quantile = (list: number[], q: number) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(q * list.length))]!
const median = (list: number[]) => quantile(list, 0.5)

function headBuild(): void {
  const began = performance.now()
  buildHead()
  figure('head.build.ms', performance.now() - began, 'ms')
}

/** 1 000 mixed requests, one after the other, against 200 clients with 20 000 visits. */
async function api(): Promise<void> {
  const dir = mkdtempSync(join(tmpdir(), 'slow-tide-bench-'))
  const db = await openDatabase(dir)
  const { clientIds, visitIds } = await fill(db, 200, 20_000)
  await db.close()
  const served = await serve({ demo: false, dir })
  const random = mulberry32(4)
  const pick = <T,>(list: readonly T[]) => list[Math.floor(random() * list.length)]!
  const house = (await (await fetch(`${served.base}/api/house`)).json()) as House
  const send = async (method: string, path: string, body?: unknown) => {
    const began = performance.now()
    const r = await fetch(served.base + path, {
      method,
      headers: { 'Content-Type': 'application/json' },
      ...(body !== undefined && { body: JSON.stringify(body) }),
    })
    await r.arrayBuffer()
    if (r.status >= 500) throw new Error(`${method} ${path} answered ${r.status}`)
    return performance.now() - began
  }
  for (let i = 0; i < 60; i++) await send('GET', `/api/clients/${pick(clientIds)}`)
  const open = new Map<string, string>()
  const times: number[] = []
  for (let i = 0; i < 1000; i++) {
    const kind = random()
    const client = pick(clientIds)
    if (kind < 0.35) times.push(await send('GET', `/api/clients/${client}`))
    else if (kind < 0.65) times.push(await send('GET', `/api/visits/${pick(visitIds)}`))
    else if (kind < 0.7) times.push(await send('GET', '/api/house'))
    else if (kind < 0.8) {
      times.push(
        await send('PUT', `/api/visits/${pick(visitIds)}/skin/48h`, {
          atMs: Date.now(),
          zones: [{ zoneId: 'chin', redness: 1, bumps: 2 }],
        }),
      )
    } else if (kind < 0.86)
      times.push(await send('PATCH', `/api/clients/${client}`, { occupation: `hand ${i}` }))
    else if (kind < 0.92) {
      const id = randomUUID()
      times.push(
        await send('POST', `/api/clients/${client}/visits`, {
          id,
          jobs: [oneJob(crypto.randomUUID(), 'face-shave')],
          workerId: house.workerId,
          slotAtMs: null,
        }),
      )
      if (!open.has(client)) open.set(client, id)
    } else {
      const visit = pick([...open.values(), ...visitIds.slice(0, 1)])
      times.push(
        await send('PUT', `/api/visits/${visit}/asked`, {
          answers: Object.fromEntries(RULES.map((r) => [r.id, { yes: false }])),
          spots: [],
        }),
      )
    }
  }
  figure('api.p50.ms', median(times), 'ms')
  figure('api.p99.ms', quantile(times, 0.99), 'ms')
  const today = []
  for (let i = 0; i < 20; i++) today.push(await send('GET', '/api/today'))
  figure('today.200_clients.ms', median(today), 'ms')
  const clients = []
  for (let i = 0; i < 20; i++) clients.push(await send('GET', '/api/clients'))
  figure('clients.200.ms', median(clients), 'ms')
  await served.kill()
  rmSync(dir, { recursive: true, force: true })
}

/** A week out of a hundred thousand appointments; a month of 200 clients and four workers proposed. */
async function week(): Promise<void> {
  const dir = mkdtempSync(join(tmpdir(), 'slow-tide-bench-'))
  const db = await openDatabase(dir)
  const { clientIds } = await fill(db, 200, 400)
  const worker = (await db.models.Worker.findOne())!
  await db.write(() =>
    db.sequelize.query(
      `INSERT INTO appointments (id, clientId, workerId, startMs, minutes, jobs, state, madeAtMs)
       WITH RECURSIVE n(i) AS (SELECT 0 UNION ALL SELECT i + 1 FROM n WHERE i < 99999)
       SELECT 'a' || i, json_extract(?, '$[' || (i % 200) || ']'), ?, ? - i * 1500000, 45, ?, 'arrived', 0 FROM n`,
      {
        replacements: [
          ...[JSON.stringify(clientIds), worker.id, Math.floor(Date.now() / 300_000) * 300_000],
          JSON.stringify([oneJob(randomUUID(), 'face-shave')]),
        ],
      },
    ),
  )
  await db.close()
  const served = await serve({ demo: false, dir })
  const times: number[] = []
  for (let i = 0; i < 15; i++) {
    const from = new Date(Date.now() - 7 * (i + 1) * 86_400_000).toISOString().slice(0, 10)
    const began = performance.now()
    const r = await fetch(`${served.base}/api/week?from=${from}&days=7`)
    if (r.status !== 200) throw new Error(`The week answered ${r.status}`)
    await r.arrayBuffer()
    times.push(performance.now() - began)
  }
  figure('week.open_100k_ms', median(times), 'ms')
  // As the screen asks for it: beliefs of 200 clients read, four weeks searched, reasons told.
  const asked = performance.now()
  const whole = await fetch(`${served.base}/api/week/proposal`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ from: new Date().toISOString().slice(0, 10), days: 28 }),
  })
  if (whole.status !== 200) throw new Error(`The proposal answered ${whole.status}`)
  await whole.arrayBuffer()
  figure('week.proposal.ms', performance.now() - asked, 'ms')
  await served.kill()
  rmSync(dir, { recursive: true, force: true })
  const began = performance.now()
  const { arrays } = aMonth(200, 4)
  const { value, bound } = pack(arrays, { nowMs: Date.now, untilMs: Date.now() + 4500 })
  figure('week.propose.ms', performance.now() - began, 'ms')
  figure('week.gap_pct', (100 * (bound - value)) / bound, '%')
}

/** A month by chance: clients due all through it, a worker in two at their usual hour, lunch, Sundays closed. */
function aMonth(clients: number, workers: number) {
  const random = mulberry32(200)
  const nowMs = Date.UTC(2026, 11, 1)
  const dates = Array.from({ length: 28 }, (_, i) => addDays('2026-12-01', i))
  const lunch = [
    [9, 12.5],
    [13, 18],
  ]
  const hours = Object.fromEntries([0, 1, 2, 3, 4, 5, 6].map((d) => [d, lunch]))
  const staff = Array.from({ length: workers }, (_, i) => ({ id: `w${i}`, name: `W${i}`, hours }))
  return weekProblem(
    DEFAULTS,
    {
      ...{ nowMs, offset: 0, closed: { weekdays: [0], dates: [] }, workers: staff, away: [] },
      ...{
        studio: { chairs: workers, beds: 1, towels: 8, blades: {}, reminders: [] },
        appointments: [],
      },
    },
    Array.from({ length: clients }, (_, i) => {
      const fromMs = nowMs + random() * 28 * 86_400_000
      const toMs = fromMs + (1 + 4 * random()) * 86_400_000
      const minutes = 40 + 5 * Math.floor(6 * random())
      return {
        ...{ clientId: `c${i}`, fromMs, toMs, minutes: () => minutes },
        jobs: [oneJob('j', random() < 0.3 ? 'dermaplane' : 'face-shave')],
        odds: (ms: number) => 1 / (1 + Math.exp(((fromMs + toMs) / 2 - ms) / 43_200_000)),
        ...{ lastWorkerId: `w${i % workers}`, usualHour: 9 + 8 * random() },
      }
    }),
    dates,
  )
}

/** JavaScript that Today needs before anything of the head: the entry and what it imports at once. */
function firstLoad(): void {
  const manifest = JSON.parse(readFileSync('dist/web/.vite/manifest.json', 'utf8')) as Record<
    string,
    { file: string; imports?: string[] }
  >
  const seen = new Set<string>()
  const add = (key: string) => {
    if (seen.has(key)) return
    seen.add(key)
    manifest[key]!.imports?.forEach(add)
  }
  add('index.html')
  const bytes = [...seen].reduce(
    (s, key) => s + gzipSync(readFileSync(join('dist/web', manifest[key]!.file))).length,
    0,
  )
  figure('web.first_load.kb_gzip', bytes / 1024, 'kB')
}

/** A cold page of the demo until Today is usable; and the server's own start and memory. */
async function page(): Promise<void> {
  const first = await serve({ demo: true })
  await first.kill()
  const starts: number[] = []
  let served = first
  for (let i = 0; i < 5; i++) {
    const began = performance.now()
    served = await serve({ demo: true, dir: first.dir })
    starts.push(performance.now() - began)
    if (i < 4) await served.kill()
  }
  figure('server.start.ms', median(starts), 'ms')
  const browser = await chromium.launch(CHROMIUM)
  const ready: number[] = []
  for (let i = 0; i < 5; i++) {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
    const tab = await context.newPage()
    const began = performance.now()
    await tab.goto(served.base)
    await tab.getByRole('link', { name: 'Tobias Arkwell' }).waitFor()
    ready.push(performance.now() - began)
    await context.close()
  }
  figure('web.ready.ms', median(ready), 'ms')
  const found = (await (await fetch(`${served.base}/api/clients?find=Tobias`)).json()) as {
    rows: { id: string }[]
  }
  const drawn = await browser.newPage({
    viewport: { width: 1280, height: 800 },
    reducedMotion: 'reduce',
  })
  await strokeFrames(drawn, `${served.base}/clients/${found.rows[0]!.id}/read`, figure)
  await pageFigures(browser, served.base, figure)
  await browser.close()
  for (let i = 0; i < 50; i++) await fetch(`${served.base}/api/today`).then((r) => r.arrayBuffer())
  figure('server.rss.mb', await memoryOf(served.base), 'MB')
  await served.kill()
  rmSync(first.dir, { recursive: true, force: true })
}

/** Resident memory of the process that listens at an address, from the system's own table. */
function memoryOf(base: string): Promise<number> {
  return new Promise((resolve, reject) => {
    const port = new URL(base).port
    const child = spawn('sh', [
      '-c',
      `pid=$(ss -ltnpH "sport = :${port}" | sed -n 's/.*pid=\\([0-9]*\\).*/\\1/p' | head -1); grep VmRSS /proc/$pid/status`,
    ])
    let said = ''
    child.stdout.on('data', (c: Buffer) => (said += c.toString()))
    child.on('exit', () => {
      const found = /(\d+) kB/.exec(said)
      if (found) resolve(Number(found[1]) / 1024)
      else reject(new Error('The memory of the server could not be read.'))
    })
  })
}

const PARTS: Readonly<Record<string, () => void | Promise<void>>> = {
  head: headBuild,
  plan: () => planFigures(figure),
  chair: () => chairFigures(figure),
  field: () => fieldFigures(figure),
  learn: () => learnFigures(figure),
  forecast: () => forecastFigures(figure),
  studio: () => studioFigures(figure),
  import: () => importFigures(figure),
  web: firstLoad,
  page,
  api,
  week,
  size: () => sizeFigures(figure),
  // Short here; `npm run soak` does it at full length.
  soak: () => soakFigures(figure, 50, 30),
  kills: () => killFigures(figure, 40),
}
const named = process.argv.slice(2).filter((a) => !a.startsWith('--'))
const unknown = named.filter((n) => !Object.hasOwn(PARTS, n))
if (unknown.length > 0) {
  console.error(
    `There is no part "${unknown.join(', ')}". There are: ${Object.keys(PARTS).join(', ')}.`,
  )
  process.exit(1)
}
for (const [name, part] of Object.entries(PARTS)) {
  if (named.length === 0 || named.includes(name)) await part()
}
if (process.argv.includes('--check') && far.length > 0) {
  console.error(`Beyond their aims: ${far.join(', ')}`)
  process.exit(1)
}
