/** Visits kept before there were jobs become visits of one job each: nothing of them is lost, and lists find them as before. */
import { randomUUID } from 'node:crypto'
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Sequelize } from 'sequelize'
import { openDatabase, type Database } from './connection.ts'
import { MIGRATIONS } from './migrations.ts'
import { json, type Json } from './reader.ts'

const LAST_BEFORE = '0006-one-gate'
const WORKER = randomUUID()
const CLIENT = randomUUID()
const CHOICES = { blade: 'shavette', zones: { chin: { nicks: 0, lanes: 2 } } }
const DONE = {
  ...{ id: randomUUID(), service: 'head-shave', state: 'finished', endedAtMs: 5_000 },
  ...{ loads: { 'scalp-mid': 1.25 }, leftMm: { 'scalp-mid': 0.15 }, choices: CHOICES },
  ...{ dueFromMs: 7_000, dueToMs: 9_000 },
}
const OPEN = {
  ...{ id: randomUUID(), service: 'brow-tidy', state: 'open', endedAtMs: null },
  ...{ loads: null, leftMm: null, choices: null, dueFromMs: null, dueToMs: null },
}
const EVENTS = [
  ['prepare:cleanse', null],
  ['scalp-mid:1:a', DONE.id],
  ['feel:scalp-mid', DONE.id],
  ['lather:2', null],
  ['check', null],
  ['close:soothe', null],
  [null, null],
] as const
const SUBJECTS = [
  ['After your hot-towel head shave', 'care'],
  ['How is your skin?', 'question'],
  ['Good days for the next visit are near', 'next'],
] as const

const root = mkdtempSync(join(tmpdir(), 'slow-tide-jobs-'))
const dir = join(root, 'data')
let db: Database

/** A data folder as the version before left it. */
async function fillBefore(): Promise<void> {
  mkdirSync(dir)
  const old = new Sequelize({
    ...{ dialect: 'sqlite', storage: join(dir, 'slow-tide.sqlite'), logging: false },
  })
  const run = (sql: string, replacements: unknown[] = []) => old.query(sql, { replacements })
  await run('CREATE TABLE migrations (name TEXT PRIMARY KEY) WITHOUT ROWID')
  for (const { name, up } of MIGRATIONS) {
    if (name > LAST_BEFORE) break
    for (const sql of up) await run(sql)
    await run('INSERT INTO migrations (name) VALUES (?)', [name])
  }
  await run(`INSERT INTO workers (id, name, role, hand) VALUES (?, 'W', 'barber', 'right')`, [
    WORKER,
  ])
  await run(
    `INSERT INTO clients (id, name, calledName, pronouns, occupation, service, skin, createdAtMs)
     VALUES (?, 'C', '', '', '', 'head-shave', '{}', 1)`,
    [CLIENT],
  )
  const packed = (value: object | null) => (value === null ? null : JSON.stringify(value))
  for (const v of [DONE, OPEN]) {
    await run(
      `INSERT INTO visits (id, clientId, workerId, service, state, createdAtMs, endedAtMs, asked, loads, leftMm, choices,
         dueFromMs, dueToMs) VALUES (?, ?, ?, ?, ?, 1, ?, '{}', ?, ?, ?, ?, ?)`,
      [
        ...[v.id, CLIENT, WORKER, v.service, v.state, v.endedAtMs],
        ...[packed(v.loads), packed(v.leftMm), packed(v.choices), v.dueFromMs, v.dueToMs],
      ],
    )
  }
  for (const [i, [stepId]] of EVENTS.entries())
    await run(
      `INSERT INTO chair_events (id, visitId, seq, kind, atMs, stepId, screen, n) VALUES (?, ?, ?, 'done', ?, ?, 's', ?)`,
      [randomUUID(), DONE.id, i + 1, i, stepId, i + 1],
    )
  for (const [subject] of SUBJECTS)
    await run(
      `INSERT INTO messages (id, visitId, subject, text, dueAtMs, state) VALUES (?, ?, ?, 't', 1, 'waiting')`,
      [randomUUID(), DONE.id, subject],
    )
  await old.close()
}

beforeAll(async () => {
  await fillBefore()
  db = await openDatabase(dir)
})
afterAll(async () => {
  await db.close()
  rmSync(root, { recursive: true, force: true })
})

it('gives each visit its one job, with all that it left', async () => {
  const rows = await db.select<{ id: string; jobs: Json<object[]> }>('SELECT id, jobs FROM visits')
  const jobs = new Map(rows.map((r) => [r.id, json(r.jobs)]))
  for (const { id, state: _state, endedAtMs: _ended, ...left } of [DONE, OPEN])
    expect(jobs.get(id)).toEqual([{ id, zones: null, method: 'blade', ...left }])
})

it('reads service, loads and window of the first job as columns, empty where nothing was left', async () => {
  for (const { id, ...v } of [DONE, OPEN]) {
    const [row] = await db.select<Record<string, string | null>>(
      'SELECT service, loads, leftMm, choices, dueFromMs, dueToMs FROM visits WHERE id = ?',
      [id],
    )
    expect([row!['service'], row!['dueFromMs'], row!['dueToMs']]).toEqual([
      ...[v.service, v.dueFromMs, v.dueToMs],
    ])
    for (const column of ['loads', 'leftMm', 'choices'] as const)
      expect(json(row![column])).toEqual(v[column])
  }
})

it('still finds everybody’s last visit of a service in the index alone', async () => {
  // Asked of the writer: an explained statement that is kept would hold the reader's snapshot.
  const [plan] = await db.sequelize.query(
    `EXPLAIN QUERY PLAN SELECT clientId, service, MAX(endedAtMs) FROM visits
     WHERE state = 'finished' GROUP BY clientId, service`,
  )
  expect((plan as { detail: string }[]).map((r) => r.detail).join()).toContain(
    'COVERING INDEX visits_by_kind',
  )
})

it('follows a change of the jobs', async () => {
  const [before] = await db.select<{ jobs: Json<Record<string, unknown>[]> }>(
    'SELECT jobs FROM visits WHERE id = ?',
    [OPEN.id],
  )
  const [job] = json(before!.jobs)
  await db.write(() =>
    db.models.Visit.update(
      { jobs: [{ ...job, service: 'dermaplane', loads: { chin: 2 } }] as never },
      { where: { id: OPEN.id } },
    ),
  )
  const [row] = await db.select<{ service: string; loads: Json<object> }>(
    'SELECT service, loads FROM visits WHERE id = ?',
    [OPEN.id],
  )
  expect([row!.service, json(row!.loads)]).toEqual(['dermaplane', { chin: 2 }])
})

it('tells of each event whose job it was on, and of each message what it is for', async () => {
  const events = await db.select('SELECT stepId, jobId FROM chair_events ORDER BY seq')
  expect(events.map((r) => [r['stepId'], r['jobId']])).toEqual(EVENTS.map((e) => [...e]))
  const messages = await db.select('SELECT subject, kind FROM messages')
  expect(Object.fromEntries(messages.map((r) => [r['subject'], r['kind']]))).toEqual(
    Object.fromEntries(SUBJECTS),
  )
})
