/**
 * Replays the demo and writes down what it says: pages, plans, learned figures, what goes home. Two such files, of before
 * and after a move, say whether it changed anything.
 *
 *     npm run replay -- FILE          writes what this code says
 *     npm run replay -- BEFORE AFTER  tells where two files differ; ends with 1 when they do
 *
 * The demo is the same for the same day, so the clock stands still on one.
 */
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import pino from 'pino'
import request from 'supertest'
import type { ClientPage, ClientRows, VisitPage } from '../contract/types.ts'

/** A working day, in the morning, so that today's visits lie ahead. */
const STANDS_AT_MS = Date.UTC(2026, 10, 28, 8, 30)
/** Beyond rounding; sums taken in another order differ by less. */
const SAME = 1e-9
const MOST_TOLD = 60

type Told = Record<string, unknown>

function stopTheClock(): void {
  process.env['TZ'] = 'Europe/Lisbon'
  const Real = Date
  class Stopped extends Real {
    constructor(...given: unknown[]) {
      super(...((given.length === 0 ? [STANDS_AT_MS] : given) as [number]))
    }
    static override now = () => STANDS_AT_MS
  }
  globalThis.Date = Stopped as DateConstructor
}

async function tell(): Promise<Told> {
  stopTheClock()
  const { createApp } = await import('../server/app.ts')
  const { openDatabase } = await import('../server/db/connection.ts')
  const { ensureWorkers } = await import('../server/house/service.ts')
  const { seedDemo } = await import('../demo/seed.ts')
  const dataDir = mkdtempSync(join(tmpdir(), 'slow-tide-replay-'))
  const db = await openDatabase(dataDir)
  const told: Told = {}
  try {
    await seedDemo(db, STANDS_AT_MS)
    await ensureWorkers(db)
    const config = {
      ...{
        host: '127.0.0.1',
        port: 0,
        answerHost: '127.0.0.1',
        hosts: [],
        lanPort: 0,
        trustPort: 0,
        logLevel: 'silent',
      },
      ...{ dataDir, version: 'replay', webDir: undefined },
    }
    const app = createApp(db, config, pino({ level: 'silent' }))
    const note = async <T,>(path: string): Promise<T> => {
      const answer = await request(app).get(path)
      const body = answer.body as object
      told[`GET ${path}`] = Object.keys(body).length === 0 ? answer.text : body
      return body as T
    }
    for (const path of ['today', 'house', 'studio', 'messages', 'kit-events'])
      await note(`/api/${path}`)
    const { rows: clients } = await note<ClientRows>('/api/clients')
    for (const { id } of clients) {
      const page = await note<ClientPage>(`/api/clients/${id}`)
      for (const part of ['history', 'tide?back=2', 'readings.csv', 'export.json'])
        await note(`/api/clients/${id}/${part}`)
      for (const { id: visitId } of page.visits) {
        const visit = await note<VisitPage>(`/api/visits/${visitId}`)
        if (visit.endedAtMs !== null) {
          await note(`/api/visits/${visitId}/care`)
          await note(`/api/visits/${visitId}/care.ics`)
          continue
        }
        for (const style of ['gentlest', 'balanced', 'closest']) {
          const { status, body } = (await request(app)
            .put(`/api/visits/${visitId}/plan`)
            .send({ style, edits: {} })) as { status: number; body: unknown }
          told[`PLAN ${visitId} ${style}`] = { status, body }
        }
      }
    }
    return told
  } finally {
    await db.close()
    rmSync(dataDir, { recursive: true, force: true })
  }
}

/** Where two values differ, as paths with both. */
function differences(a: unknown, b: unknown, path: string, found: string[]): void {
  if (a === b) return
  if (typeof a === 'number' && typeof b === 'number') {
    if (Math.abs(a - b) <= SAME * Math.max(1, Math.abs(a), Math.abs(b))) return
  } else if (a && b && typeof a === 'object' && typeof b === 'object') {
    const [p, q] = [a as Told, b as Told]
    for (const key of new Set([...Object.keys(p), ...Object.keys(q)]))
      differences(p[key], q[key], `${path} › ${key}`, found)
    return
  }
  const short = (x: unknown) => (JSON.stringify(x) ?? 'nothing').slice(0, 120)
  found.push(`${path}: ${short(a)} → ${short(b)}`)
}

const [first, second] = process.argv.slice(2)
if (!first) throw new Error('Name a file to write, or two to compare.')
if (second) {
  const read = (file: string) => JSON.parse(readFileSync(file, 'utf8')) as Told
  const found: string[] = []
  differences(read(first), read(second), '', found)
  // Places of one shape are one difference: ids and numbers of a list aside.
  const shapes = new Map<string, string[]>()
  for (const line of found) {
    const shape = line
      .slice(0, line.indexOf(': '))
      .replace(/[0-9a-f]{8}-[0-9a-f-]{27}/g, '*')
      .replace(/› \d+/g, '› *')
    shapes.set(shape, [...(shapes.get(shape) ?? []), line])
  }
  for (const [shape, lines] of [...shapes].slice(0, MOST_TOLD))
    console.log(`${lines.length} × ${shape}\n    ${lines[0]!.slice(lines[0]!.indexOf(': ') + 2)}`)
  console.log(found.length === 0 ? 'Nothing differs.' : `${found.length} places differ.`)
  process.exit(found.length === 0 ? 0 : 1)
}
const told = await tell()
writeFileSync(first, JSON.stringify(told, null, 1))
console.log(`${Object.keys(told).length} answers are in ${first}.`)
process.exit(0)
