/** A studio of many years: pages, search, learning and papers at 300 000 visits, and what a service at the chair waits for meanwhile. */
import { randomUUID } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { choicesOf } from '../core/history/index.ts'
import { DEFAULTS } from '../core/house/index.ts'
import { executedLoads } from '../core/chair/outcome.ts'
import { leftStanding, play, replay } from '../core/chair/index.ts'
import { makePlan } from '../core/plan/index.ts'
import { RULES } from '../core/screening/index.ts'
import { mulberry32 } from '../core/stats/index.ts'
import { planInput } from '../core/testing/plan.ts'
import { DAY_MS } from '../core/time/index.ts'
import { serve } from '../e2e/server.ts'
import { openDatabase, type Database } from '../server/db/connection.ts'
import { openReader } from '../server/db/reader.ts'
import { dataFile } from '../server/safety/folder.ts'
import { ensureWorkers } from '../server/house/service.ts'
import { freshen, freshenSums } from '../server/standing/standing.ts'
import { plannedOver, send } from '../server/testing/overTheWire.ts'
import { wholeService } from '../server/testing/studio.ts'
import { workHere } from '../server/work/work.ts'
import { SKIN } from '../core/testing/client.ts'

type Figure = (name: string, value: number, unit: string) => void
const quantile = (list: number[], q: number) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(q * list.length))]!

const FIRST = ['Ada', 'Bram', 'Cato', 'Dunya', 'Eskil', 'Fenna', 'Gideon', 'Halla', 'Ivo', 'Jorun']
const LAST = ['Marsh', 'Reef', 'Holm', 'Tarn', 'Wick', 'Fell', 'Strand', 'Quay', 'Ness', 'Brook']

/** Ten years: each client came fifty times, about every ten weeks, and answered most times. */
async function fillYears(db: Database, clients: number, visits: number): Promise<void> {
  await ensureWorkers(db)
  const [worker] = await db.select<{ id: string }>('SELECT id FROM workers')
  const random = mulberry32(9)
  const now = Date.now()
  const asked = { answers: Object.fromEntries(RULES.map((r) => [r.id, { yes: false }])), spots: [] }
  const plan = makePlan(planInput())
  const by = { startMs: now, bladeLife: 400, screen: '', newId: randomUUID }
  const state = replay(plan, play(DEFAULTS, plan, by))
  const kept = {
    service: 'face-shave',
    zones: null,
    method: 'blade',
    loads: executedLoads(plan, state.outcomes),
    leftMm: leftStanding(DEFAULTS, plan, state),
    dueFromMs: null,
    dueToMs: null,
  }
  const done = choicesOf(plan, state, 400)
  const zones = Object.keys(done.zones)
  const relations = ['with', 'across', 'against'] as const
  const each = Math.round(visits / clients)
  for (let c = 0; c < clients; c += 20) {
    const people: object[] = []
    const rows: object[] = []
    const answers: object[] = []
    for (let k = 0; k < 20; k++) {
      const clientId = randomUUID()
      const reactivity = ['tough', 'average', 'reactive'][k % 3]
      people.push({
        id: clientId,
        name: `${FIRST[Math.floor(random() * 10)]} ${LAST[Math.floor(random() * 10)]}${c + k}`,
        skin: { ...SKIN, reactivity },
      })
      // Spread over the weeks, as clients of a studio are.
      const since = 70 * DAY_MS * random()
      for (let v = 0; v < each; v++) {
        const id = randomUUID()
        const endedAtMs = Math.round(now - since - (each - 1 - v) * 70 * DAY_MS)
        const relation = relations[Math.floor(random() * 3)]!
        const choices = {
          ...done,
          zones: Object.fromEntries(
            zones.map((z) => [
              z,
              { ...done.zones[z]!, relation, wear: random() < 0.5 ? 0.2 : 0.7 },
            ]),
          ),
        }
        const redness = random() < 0.15 ? 2 : random() < 0.4 ? 1 : 0
        rows.push({ id, clientId, jobs: [{ ...kept, id, choices }], endedAtMs, redness })
        if (random() < 0.7)
          answers.push({
            visitId: id,
            atMs: endedAtMs + DAY_MS,
            zones: zones.slice(0, 4).map((zoneId) => ({ zoneId, redness, bumps: 0 })),
          })
      }
    }
    const run = (sql: string, values: unknown[]) =>
      db.sequelize.query(sql, { replacements: values })
    await db.write(async () => {
      await run(
        `INSERT INTO clients (id, name, calledName, pronouns, occupation, service, skin, createdAtMs)
         SELECT j.value ->> '$.id', j.value ->> '$.name', '', '', 'harbour hand', 'face-shave', j.value -> '$.skin', ?
         FROM json_each(?) j`,
        [now, JSON.stringify(people)],
      )
      await run(
        `INSERT INTO visits (id, clientId, workerId, jobs, state, slotAtMs, createdAtMs, startedAtMs, endedAtMs, asked, worstRedness, bumps)
         SELECT j.value ->> '$.id', j.value ->> '$.clientId', ?, j.value -> '$.jobs', 'finished',
           j.value ->> '$.endedAtMs', j.value ->> '$.endedAtMs', j.value ->> '$.endedAtMs', j.value ->> '$.endedAtMs', ?,
           j.value ->> '$.redness', 0 FROM json_each(?) j`,
        [worker!.id, JSON.stringify(asked), JSON.stringify(rows)],
      )
      await run(
        `INSERT INTO skin_answers (visitId, moment, atMs, zones, toldAtMs)
         SELECT j.value ->> '$.visitId', '24h', j.value ->> '$.atMs', j.value -> '$.zones', j.value ->> '$.atMs'
         FROM json_each(?) j`,
        [JSON.stringify(answers)],
      )
    })
  }
}

/** Largest resident memory of a process so far, MB, from the system's own table. */
const peakMb = (pid: number) =>
  Number(/VmHWM:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? NaN) / 1024

/** Sends events of services one after the other, a tap each so often, and tells how long each waited. */
async function taps(base: string) {
  const visits = []
  for (let i = 0; i < 12; i++) visits.push(await plannedOver(base))
  const all = visits.flatMap((visit) =>
    wholeService(visit, Date.now()).map((event) => ({
      path: `/api/visits/${visit.id}/events`,
      event,
    })),
  )
  let next = 0
  return async (work: () => Promise<unknown>): Promise<{ ms: number; longest: number }> => {
    let over = false
    let longest = 0
    const tapping = (async () => {
      while (!over && next < all.length) {
        const { path, event } = all[next++]!
        const sent = performance.now()
        await send(base, 'POST', path, event)
        longest = Math.max(longest, performance.now() - sent)
        await new Promise((r) => setTimeout(r, 15))
      }
    })()
    await new Promise((r) => setTimeout(r, 60))
    const began = performance.now()
    await work()
    const ms = performance.now() - began
    over = true
    await tapping
    return { ms, longest }
  }
}

/** Fills a folder as a studio of many years has it, all made that is kept of its clients. */
export async function manyYears(dir: string, clients: number, visits: number): Promise<void> {
  const db = await openDatabase(dir)
  await fillYears(db, clients, visits)
  await freshen(db)
  await freshenSums(db, workHere(db))
  await db.close()
}

/** @param filled a folder of `manyYears`; it is written to */
export async function sizeFigures(figure: Figure, filled?: string): Promise<void> {
  const [clients, visits] = [6000, 300_000]
  const dir = filled ?? join(mkdtempSync(join(tmpdir(), 'slow-tide-size-')), 'data')
  if (!filled) await manyYears(dir, clients, visits)
  let began = performance.now()
  const lap = (what: string) => {
    if (process.env['SLOW_TIDE_TELL']) console.error(what, Math.round(performance.now() - began))
    began = performance.now()
  }
  const reader = await openReader(dataFile(dir))
  const ids = (
    await reader.select<{ id: string }>('SELECT clientId AS id FROM standings WHERE visits > 40')
  ).map((r) => r.id)
  await reader.close()
  const { base, pid, kill } = await serve({ demo: false, dir })
  lap('started')
  const random = mulberry32(5)
  const pick = () => ids[Math.floor(random() * ids.length)]!
  let bytes = 0
  const get = async (path: string) => {
    const r = await fetch(base + path)
    const body = await r.arrayBuffer()
    if (!r.ok) throw new Error(`${path} answered ${r.status}`)
    bytes = body.byteLength
    return body
  }
  const during = await taps(base)
  lap('taps ready')
  let longest = 0
  const measure = async (times: number, path: () => string) => {
    const took: number[] = []
    for (let i = 0; i < times; i++) {
      const one = await during(() => get(path()))
      took.push(one.ms)
      longest = Math.max(longest, one.longest)
      lap(`${path()} ${Math.round(one.ms)} ms, a tap waited ${Math.round(one.longest)} ms`)
    }
    return quantile(took, 0.5)
  }
  const words = `ms at ${visits} visits`
  // Once before it counts, as after a night: what is read first is not in memory yet.
  await measure(2, () => '/api/today')
  longest = 0
  figure('size.today.ms', await measure(7, () => '/api/today'), words)
  figure('size.today.kb', bytes / 1024, 'kB')
  figure(
    'size.find.ms',
    await measure(9, () => `/api/clients?find=${'ada mar'.slice(0, 2 + Math.floor(random() * 6))}`),
    words,
  )
  figure('size.list.ms', await measure(5, () => '/api/clients?sort=due'), words)
  figure('size.client.ms', await measure(15, () => `/api/clients/${pick()}`), words)
  figure('size.studio.ms', await measure(3, () => '/api/studio'), words)
  figure('size.report.ms', await measure(3, () => `/api/clients/${pick()}/report.pdf`), words)
  const people = Array.from({ length: 5000 }, (_, i) => ({
    ...{ id: randomUUID(), name: `Guest ${i}`, service: 'face-shave', skin: SKIN },
  }))
  const brought = await during(() =>
    send(base, 'POST', '/api/imports', { id: randomUUID(), source: 'many.csv', clients: people }),
  )
  lap(`import ${Math.round(brought.ms)} ms, a tap waited ${Math.round(brought.longest)} ms`)
  figure('size.import_5000.ms', brought.ms, 'ms')
  await measure(2, () => '/api/today')
  figure('size.chair_wait.ms', Math.max(longest, brought.longest), 'ms, the longest of all')
  figure('size.peak_rss.mb', peakMb(pid), 'MB')
  await kill()
  if (!filled) rmSync(join(dir, '..'), { recursive: true, force: true })
}
