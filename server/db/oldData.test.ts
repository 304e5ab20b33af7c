/** A data folder of the version before the gate opens, stays right, and is held to the gate from then on. */
import { oneJob } from '../../core/services/index.ts'
import { DEFAULTS } from '../../core/house/index.ts'
import { replay, type ChairState, zonesToLookAt } from '../../core/chair/index.ts'
import { gate, knownOf } from '../../core/visit/index.ts'
import { offsetHere } from '../../core/time/index.ts'
import type { SkinAnswer } from '../../core/looks/index.ts'
import type { ClientPage, House, Today, VisitPage } from '../../contract/types.ts'
import { askedAll, chairEvent, openStudio, type Studio } from '../testing/studio.ts'
import { randomUUID } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gunzipSync } from 'node:zlib'
import request from 'supertest'

const BEFORE = 'server/testing/before/0005'
/** What the version of then showed of each of its visits. */
interface Before {
  readonly states: Readonly<Record<string, ChairState>>
  readonly pages: Readonly<
    Record<
      string,
      {
        readonly state: string
        readonly endedAtMs: number | null
        readonly events: number
        readonly answers: readonly SkinAnswer[]
        readonly loads: Record<string, number> | null
        readonly leftMm: Record<string, number> | null
        readonly asked: unknown
      }
    >
  >
}
const before = JSON.parse(gunzipSync(readFileSync(`${BEFORE}.json.gz`)).toString()) as Before

let studio: Studio
const pages = new Map<string, VisitPage>()
beforeAll(async () => {
  const dir = mkdtempSync(join(tmpdir(), 'slow-tide-before-'))
  writeFileSync(join(dir, 'slow-tide.sqlite'), gunzipSync(readFileSync(`${BEFORE}.sqlite.gz`)))
  studio = await openStudio(dir)
  rmSync(dir, { recursive: true })
  for (const id of Object.keys(before.pages)) pages.set(id, await page(id))
})
afterAll(() => studio.close())

const api = () => request(studio.app)
const page = async (id: string) =>
  (await api().get(`/api/visits/${id}`).expect(200)).body as VisitPage
const visitOf = async (name: string) => {
  const {
    rows: [row],
  } = (await api().get('/api/clients').query({ find: name })).body as { rows: { id: string }[] }
  const { visits } = (await api().get(`/api/clients/${row!.id}`)).body as ClientPage
  return { clientId: row!.id, visits }
}

it('replays every stored event to the state of then', () => {
  let events = 0
  for (const [id, state] of Object.entries(before.states)) {
    const visit = pages.get(id)!
    events += visit.events.length
    const again = JSON.parse(JSON.stringify(replay(visit.plan!, visit.events))) as object
    expect(again).toMatchObject(state)
    expect(visit.chair).toMatchObject(state)
  }
  expect(events).toBeGreaterThan(1000)
})

it('shows every visit as it stood: end, answers, loads, what was asked', () => {
  expect(pages.size).toBe(41)
  for (const [id, then] of Object.entries(before.pages)) {
    const now = pages.get(id)!
    const { events, answers, ...same } = then
    expect(now).toMatchObject(same)
    expect(now.events).toHaveLength(events)
    // Each answer as it was, and told when it was given.
    expect(now.answers).toEqual(answers.map((a) => ({ ...a, toldAtMs: a.atMs })))
  }
})

it('finds what happened at the chair in the events, and the worst that anybody saw', async () => {
  let red = 0
  for (const visit of pages.values()) {
    if (visit.state !== 'finished') continue
    const worst: Record<string, number> = {}
    for (const { zoneId, grade } of visit.chair.redness)
      if (zoneId) worst[zoneId] = Math.max(worst[zoneId] ?? 0, grade)
    expect(visit.atChair.redness).toEqual(worst)
    expect(Object.values(visit.atChair.nicks).reduce((s, n) => s + n, 0)).toBe(
      visit.chair.nicks.length,
    )
    expect(visit.lookAt).toEqual(zonesToLookAt(visit.plan, visit.loads, visit.atChair))
    red += Object.keys(worst).length
    // From some hours on: the first look says nothing of what came.
    const looks = visit.answers.filter((a) => a.atMs >= visit.endedAtMs! + 6 * 3_600_000)
    const grades = [
      ...looks.flatMap((a) => [0, ...a.zones.map((z) => z.redness)]),
      ...Object.values(worst),
    ]
    const [row] = await studio.db.select('SELECT worstRedness FROM visits WHERE id = ?', [visit.id])
    expect(row!['worstRedness']).toBe(grades.length > 0 ? Math.max(...grades) : null)
  }
  expect(red).toBeGreaterThan(0)
})

it('a severe answer of then alarms now, shows on the tide line, and holds the next visit', async () => {
  const { clientId, visits } = await visitOf('Old Severe')
  const done = visits.find((v) => v.state === 'finished')!
  expect(done.worstRedness).toBe(4)
  const today = (await api().get('/api/today')).body as Today
  const row = today.rows.find((r) => r.client.id === clientId)!
  expect(row.flags[0]).toMatchObject({ kind: 'alarm', ring: true })
  const id = randomUUID()
  const house = (await api().get('/api/house')).body as House
  const open = visits.find((v) => v.state === 'open')
  if (!open)
    await api()
      .post(`/api/clients/${clientId}/visits`)
      .send({
        id,
        jobs: [oneJob(randomUUID(), 'face-shave')],
        workerId: pages.get(done.id)!.workerId,
        slotAtMs: null,
      })
      .expect(201)
  const next = open?.id ?? id
  await api().put(`/api/visits/${next}/asked`).send(askedAll()).expect(200)
  const visit = await page(next)
  const { findings, screening } = gate(
    knownOf(DEFAULTS, visit, house, {}, visit.facts, Date.now(), offsetHere),
  )
  expect(findings.find((f) => f.about === 'aftermath')).toMatchObject({ visitId: done.id })
  const told = visit.facts.past.find((p) => p.visitId === done.id)!.answers
  const red = told.flatMap((a) => a.zones).filter((z) => z.redness >= 4)
  // As time goes on what it forbids becomes less: first all, then where it was severe.
  if (screening.verdict === 'leave-out')
    expect(screening.leaveOutZones).toEqual(expect.arrayContaining(red.map((z) => z.zoneId)))
  else expect((await api().put(`/api/visits/${next}/plan`)).body.code).toBe('held-back')
})

it('a service of then that nobody ended is left open, and ends as of its last event', async () => {
  const { clientId, visits } = await visitOf('Old Running')
  const { id } = visits.find((v) => v.state === 'running')!
  const last = pages.get(id)!.events.at(-1)!
  const today = (await api().get('/api/today')).body as Today
  const row = today.rows.find((r) => r.client.id === clientId)!
  expect(row.flags.map((f) => f.text).join()).toMatch(/Left open since/)
  await api()
    .post(`/api/visits/${id}/events`)
    .send({ ...chairEvent(1, 'ended-late'), screen: randomUUID() })
    .expect(200)
  const now = await page(id)
  expect(now).toMatchObject({ state: 'finished', endedAtMs: last.atMs })
  expect(Object.keys(now.atChair.redness).length).toBeGreaterThan(0)
  expect(now.care).not.toBeNull()
})

it('marks the visits that were taken badly as writing them anew would', async () => {
  const rows = await studio.db.select("SELECT id, severe FROM visits WHERE state = 'finished'")
  for (const { id, severe } of rows) {
    const visit = pages.get(id as string)!
    if (visit.state !== 'finished') continue
    const grave = visit.answers.some(({ zones, feeling }) => {
      const sum = (of: (z: (typeof zones)[number]) => number) =>
        zones.reduce((s, z) => s + of(z), 0)
      return (
        zones.some((z) => z.redness >= 4) ||
        sum((z) => z.pustules ?? 0) > 0 ||
        sum((z) => z.bumps) >= 12 ||
        (feeling?.stinging ?? 0) >= 7
      )
    })
    expect([id, severe]).toEqual([id, grave ? 1 : 0])
  }
  expect(rows.some((r) => r['severe'] === 1)).toBe(true)
})
