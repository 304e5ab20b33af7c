/** Each visit keeps its own map, lines and marks; a data file of before is brought up to date. */
import { oneJob } from '../../core/services/index.ts'
import { toRadians, readingFromBearing, type Reading } from '../../core/grain/index.ts'
import { NO_NOTES, type SurfaceNotes } from '../../core/hair/index.ts'
import { usual } from '../../core/testing/lines.ts'
import { DAY_MS } from '../../core/time/index.ts'
import { randomUUID } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import request from 'supertest'
import sqlite3 from 'sqlite3'
import type { VisitPage } from '../../contract/types.ts'
import { ZONES } from '../atlas.ts'
import { openDatabase } from '../db/connection.ts'
import { MIGRATIONS } from '../db/migrations.ts'
import { finishVisit, openStudio, plannedVisit, type Studio } from '../testing/studio.ts'

let studio: Studio
beforeEach(async () => {
  studio = await openStudio()
})
afterEach(() => studio.close())
const api = () => request(studio.app)
const chin = ZONES.find((z) => z.id === 'chin')!
/** Readings that a test has made; what was felt at the chair comes beside them. */
const made = new Set<string>()
const reading = (deg: number, over: Partial<Reading> = {}): Reading => {
  const id = randomUUID()
  made.add(id)
  const how = { id, method: 'felt' as const, atMs: Date.now() - DAY_MS }
  return { ...readingFromBearing('chin', chin.centre, toRadians(deg), how), ...over }
}
const page = async (id: string) =>
  (await api().get(`/api/visits/${id}`).expect(200)).body as VisitPage
const edit = async (id: string, remove: readonly Reading[], add: readonly Reading[]) =>
  (
    await api()
      .post(`/api/visits/${id}/readings`)
      .send({ remove: remove.map((r) => r.id), add })
      .expect(200)
  ).body as VisitPage
const ids = (p: VisitPage) =>
  p.readings
    .map((r) => r.id)
    .filter((id) => made.has(id))
    .sort()
/** A finished visit with the readings, and the open one after it. */
async function twoVisits(readings: readonly Reading[], notes?: SurfaceNotes) {
  const { client, visit } = await plannedVisit(studio.app, 'face-shave', false)
  await edit(visit.id, [], readings)
  if (notes) await api().put(`/api/visits/${visit.id}/notes`).send(notes).expect(200)
  const planned = (await api().put(`/api/visits/${visit.id}/plan`)).body as VisitPage
  await finishVisit(studio.app, planned, Date.now() - DAY_MS)
  const next = (
    await api()
      .post(`/api/clients/${client.id}/visits`)
      .send({
        id: randomUUID(),
        jobs: [oneJob(randomUUID(), 'face-shave')],
        workerId: visit.workerId,
        slotAtMs: null,
      })
      .expect(201)
  ).body as VisitPage
  return { old: visit.id, next }
}

describe('the map of a visit', () => {
  it('stays as it was when the next visit turns, adds and forgets readings', async () => {
    const [a, b] = [reading(150), reading(160)]
    const { old, next } = await twoVisits([a, b])
    expect(ids(next)).toEqual([a.id, b.id].sort())
    const turned = reading(200)
    await edit(next.id, [a], [turned])
    expect(ids(await page(next.id))).toEqual([b.id, turned.id].sort())
    expect(ids(await page(old))).toEqual([a.id, b.id].sort())
    // Undone: the old reading is back, with the very id it had.
    await edit(next.id, [turned], [a])
    expect(ids(await page(next.id))).toEqual([a.id, b.id].sort())
    expect(ids(await page(old))).toEqual([a.id, b.id].sort())
  })

  it('takes no reading in from a later visit, however early its date', async () => {
    const { old, next } = await twoVisits([reading(150)])
    const brought = reading(90, { atMs: Date.now() - 400 * DAY_MS })
    await edit(next.id, [], [brought])
    expect(ids(await page(next.id))).toContain(brought.id)
    expect(ids(await page(old))).not.toContain(brought.id)
  })

  it('does not change once the service has begun', async () => {
    const { old } = await twoVisits([reading(150)])
    const r = await api()
      .post(`/api/visits/${old}/readings`)
      .send({ remove: [], add: [reading(10)] })
    expect([r.status, r.body.code]).toEqual([409, 'already-started'])
    const n = await api().put(`/api/visits/${old}/notes`).send(NO_NOTES)
    expect([n.status, n.body.code]).toEqual([409, 'already-started'])
  })

  it('keeps the answers of a guided test', async () => {
    const { visit } = await plannedVisit(studio.app, 'face-shave', false)
    const tested = reading(150, {
      method: 'test',
      answers: [
        { strokeDeg: 2.5, catches: true },
        { strokeDeg: 92.5, catches: false },
      ],
    })
    expect((await edit(visit.id, [], [tested])).readings).toEqual([tested])
    const bad = await api()
      .post(`/api/visits/${visit.id}/readings`)
      .send({ remove: [], add: [{ ...tested, id: randomUUID(), answers: [{ strokeDeg: 1 }] }] })
    expect(bad.status).toBe(422)
  })
})

describe('what Read notes besides', () => {
  const line = { ...usual('cheek', 'left'), id: randomUUID(), drawnAtMs: 5 }
  const notes: SurfaceNotes = {
    lines: [line],
    keptZones: ['upper-lip-left'],
    hair: { chin: { kind: 'mixed', density: 'sparse' } },
    strays: [{ id: randomUUID(), zoneId: 'chin', ...chin.centre }],
  }

  it('comes back as it was put in, and goes over to the next visit but for the strays', async () => {
    const { old, next } = await twoVisits([], notes)
    expect((await page(old)).notes).toEqual(notes)
    expect(next.notes).toEqual({ ...notes, strays: [] })
    expect(next.before).toMatchObject({ visitId: old, lines: [line] })
    expect((await page(old)).before).toBeNull()
  })

  it('is kept out of the plan', async () => {
    const { visit } = await plannedVisit(studio.app)
    const cheekOf = (p: VisitPage) => p.plan!.zones.find((z) => z.zoneId === 'cheek-lower-left')!
    await api().put(`/api/visits/${visit.id}/notes`).send(notes).expect(200)
    const planned = (await api().put(`/api/visits/${visit.id}/plan`)).body as VisitPage
    expect(planned.plan!.zones.some((z) => z.zoneId === 'upper-lip-left')).toBe(false)
    expect(planned.plan!.leftOut.map((l) => l.zoneId)).toContain('upper-lip-left')
    expect(cheekOf(planned).areaCm2).toBeLessThan(0.9 * cheekOf(visit).areaCm2)
    expect(planned.plan!.steps.map((x) => x.id)).toContain('prepare:tweeze')
  })

  it.each([
    ['a line of no kind', { ...notes, lines: [{ ...line, kind: 'ear' }] }],
    ['a line without points', { ...notes, lines: [{ ...line, taps: [] }] }],
    ['hair of no kind', { ...notes, hair: { chin: { kind: 'wool' } } }],
    ['hair as a word', { ...notes, hair: { chin: 'thick' } }],
    ['hair with a strange field', { ...notes, hair: { chin: { colour: 'red' } } }],
    ['a zone that is none', { ...notes, keptZones: ['elbow'] }],
    ['a stray nowhere', { ...notes, strays: [{ id: randomUUID(), zoneId: 'chin' }] }],
  ])('refuses %s and changes nothing', async (_, body) => {
    const { visit } = await plannedVisit(studio.app)
    expect((await api().put(`/api/visits/${visit.id}/notes`).send(body)).status).toBe(422)
    expect((await page(visit.id)).notes).toEqual(NO_NOTES)
  })
})

describe('a data file of the first shape', () => {
  it('is brought up to date with nothing lost', async () => {
    const dir = mkdtempSync(join(tmpdir(), 'slow-tide-old-'))
    const run = (sql: string) =>
      new Promise<void>((done, failed) => {
        file.exec(sql, (error) => (error ? failed(error) : done()))
      })
    const file = new sqlite3.Database(join(dir, 'slow-tide.sqlite'))
    for (const statement of MIGRATIONS[0]!.up) await run(statement)
    await run(`
      CREATE TABLE migrations (name TEXT PRIMARY KEY) WITHOUT ROWID;
      INSERT INTO migrations VALUES ('${MIGRATIONS[0]!.name}');
      INSERT INTO workers VALUES ('w', 'Ada Reef', 'barber', 'right');
      INSERT INTO clients VALUES ('c', 'Old Salt', '', '', '', 'face-shave', '{}', 1);
      INSERT INTO visits (id, clientId, workerId, service, state, createdAtMs, asked)
        VALUES ('v', 'c', 'w', 'face-shave', 'open', 1, '{"answers":{},"spots":[]}');
      INSERT INTO visits (id, clientId, workerId, service, state, createdAtMs, endedAtMs, asked, loads, worstRedness)
        VALUES ('f', 'c', 'w', 'face-shave', 'finished', 1, 1000, '{"answers":{},"spots":[]}',
          '{"chin":2,"jaw-left":1}', 2);
      INSERT INTO skin_answers VALUES
        ('f', '24h', 86401000, '[{"zoneId":"chin","redness":2,"bumps":0},{"zoneId":"nape-left","redness":3,"bumps":0}]'),
        ('f', '48h', 172801000, '[{"zoneId":"chin","redness":1,"bumps":0},{"zoneId":"jaw-left","redness":1,"bumps":0}]'),
        ('f', '7d', 604801000, '[{"zoneId":"chin","redness":4,"bumps":0}]');
      INSERT INTO readings VALUES ('r', 'c', 'v', 'chin', '{"point":[0,0,0]}', 'felt', 5);`)
    await new Promise<void>((done) => file.close(() => done()))
    const db = await openDatabase(dir)
    const [row] = await db.select(
      `SELECT notes, (SELECT count(*) FROM readings WHERE goneAtMs IS NULL) AS readings FROM visits WHERE id = 'v'`,
    )
    // What was answered before is summed up as an answer would be now: the worst within 48 h, worked zones only.
    expect(await db.select(`SELECT gradeSum, loadSum FROM visits WHERE id = 'f'`)).toEqual([
      { gradeSum: 3, loadSum: 3 },
    ])
    expect(await db.select(`SELECT source, spots FROM skin_answers LIMIT 1`)).toEqual([
      { source: 'seen', spots: '[]' },
    ])
    expect(JSON.parse(row!['notes'] as string)).toEqual(NO_NOTES)
    expect(row!['readings']).toBe(1)
    await db.close()
    rmSync(dir, { recursive: true, force: true })
  })
})
