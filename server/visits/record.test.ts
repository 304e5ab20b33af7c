/** A visit as it is kept, read back whole: nothing lost on the way through the one query. */
import { oneJob } from '../../core/services/index.ts'
import { DAY_MS } from '../../core/time/index.ts'
import { randomUUID } from 'node:crypto'
import { newClient, openStudio, type Studio } from '../testing/studio.ts'
import { readHair, readVisit, readVisits } from './record.ts'

const NOW = Date.UTC(2026, 4, 20, 9)
const ZONE_AT = { point: [10.5, -80.25, 90.125], normal: [0.1, 0, 0.99], tangent: [0, -1, 0] }
let studio: Studio
let clientId: string
let workerId: string

beforeAll(async () => {
  studio = await openStudio()
  workerId = (await studio.db.models.Worker.findOne())!.id
})
afterAll(() => studio.close())
beforeEach(async () => {
  clientId = randomUUID()
  await studio.db.models.Client.create({
    ...newClient({ id: clientId }),
    createdAtMs: NOW - 90 * DAY_MS,
  } as never)
})

async function visit(over: { endedAtMs?: number; createdAtMs?: number } = {}): Promise<string> {
  const id = randomUUID()
  await studio.db.models.Visit.create({
    id,
    clientId,
    workerId,
    jobs: [{ ...oneJob('job', 'face-shave'), ...(over.endedAtMs && { leftMm: { chin: 0.117 } }) }],
    state: over.endedAtMs ? 'finished' : 'open',
    slotAtMs: null,
    createdAtMs: over.createdAtMs ?? over.endedAtMs ?? NOW,
    asked: { answers: { infection: { yes: false } }, spots: [] },
    ...(over.endedAtMs && { endedAtMs: over.endedAtMs }),
  })
  return id
}
const reading = (visitId: string, atMs: number) => ({
  id: randomUUID(),
  clientId,
  visitId,
  zoneId: 'chin',
  at: ZONE_AT as never,
  method: 'felt',
  atMs,
})

describe('a visit as it is kept', () => {
  it('is empty where nothing hangs on it yet', async () => {
    const record = await readVisit(studio.db, await visit())
    expect(record).toMatchObject({
      plan: null,
      planMadeAtMs: null,
      events: [],
      answers: [],
      readings: [],
      leftMm: null,
      endedAtMs: null,
      asked: { answers: { infection: { yes: false } }, spots: [] },
      skin: { reactivity: 'average', bumpProne: false },
    })
  })

  it('comes back as it was put in: readings to the last digit, events without empty fields, in order', async () => {
    const id = await visit({ endedAtMs: NOW })
    const put = reading(id, NOW - DAY_MS)
    await studio.db.models.Reading.create(put)
    const event = (seq: number, over: object = {}) => ({
      id: randomUUID(),
      visitId: id,
      seq,
      screen: 'tablet',
      n: seq,
      kind: 'done',
      atMs: NOW + seq,
      stepId: null,
      reason: null,
      ...over,
    })
    const second = event(2, {
      kind: 'skipped',
      stepId: 'chin:1',
      reason: 'said "no", 30 % — ünsure',
    })
    const first = event(1, { kind: 'started' })
    await studio.db.models.Event.bulkCreate([second, first])
    await studio.db.models.SkinAnswer.create({
      visitId: id,
      moment: '24h',
      atMs: NOW + DAY_MS,
      zones: [{ zoneId: 'chin', redness: 2, bumps: 1 }],
    })
    const record = await readVisit(studio.db, id)
    expect(record.readings).toEqual([
      { id: put.id, zoneId: 'chin', method: 'felt', atMs: put.atMs, ...ZONE_AT },
    ])
    expect(record.events).toEqual([
      { id: first.id, seq: 1, screen: 'tablet', n: 1, kind: 'started', atMs: NOW + 1 },
      {
        id: second.id,
        screen: 'tablet',
        n: 2,
        seq: 2,
        kind: 'skipped',
        atMs: NOW + 2,
        stepId: 'chin:1',
        reason: second.reason,
      },
    ])
    expect(record.answers).toEqual([
      {
        moment: '24h',
        atMs: NOW + DAY_MS,
        zones: [{ zoneId: 'chin', redness: 2, bumps: 1 }],
        spots: [],
        feeling: {},
        source: 'seen',
      },
    ])
    expect(record.leftMm).toEqual({ chin: 0.117 })
  })

  it('works from its own readings and those of earlier visits; an open one from all', async () => {
    const old = await visit({ endedAtMs: NOW - 30 * DAY_MS })
    const latest = await visit({ endedAtMs: NOW - 2 * DAY_MS })
    const open = await visit()
    const before = reading(old, NOW - 31 * DAY_MS)
    const between = reading(latest, NOW - 3 * DAY_MS)
    const late = reading(old, NOW - DAY_MS)
    await studio.db.models.Reading.bulkCreate([between, late, before])
    const ids = async (id: string) => (await readVisit(studio.db, id)).readings.map((r) => r.id)
    // What was added to an old visit later still belongs to that visit, and so comes before the later ones.
    expect(await ids(old)).toEqual([before.id, late.id])
    expect(await ids(latest)).toEqual([before.id, between.id, late.id])
    expect(await ids(open)).toEqual([before.id, between.id, late.id])
  })

  it('is read alike alone and among all, oldest first, and never another client’s', async () => {
    const b = await visit({ endedAtMs: NOW - DAY_MS })
    const a = await visit({ endedAtMs: NOW - 9 * DAY_MS })
    const mine = clientId
    clientId = randomUUID()
    const all = await readVisits(studio.db, mine)
    expect(all.map((v) => v.id)).toEqual([a, b])
    expect(all[1]).toEqual(await readVisit(studio.db, b))
    expect(await readVisits(studio.db, clientId)).toEqual([])
  })

  it('that is not there is told so', async () => {
    await expect(readVisit(studio.db, randomUUID())).rejects.toMatchObject({ status: 404 })
  })
})

describe('what was felt and seen of hair', () => {
  it('keeps its days and lengths exactly, in order of time', async () => {
    const id = await visit({ endedAtMs: NOW - 5 * DAY_MS })
    const hair = (days: number, lengthMm: number | null) => ({
      id: randomUUID(),
      clientId,
      visitId: id,
      kind: lengthMm === null ? 'felt' : 'measured',
      days,
      zoneId: null,
      lengthMm,
      leftMm: 0.11719,
      atMs: NOW - 5 * DAY_MS + days * DAY_MS,
    })
    const later = hair(2.9583333333333335, 0.7300000000000001)
    const sooner = hair(1.1, null)
    await studio.db.models.HairReading.bulkCreate([later, sooner])
    const read = await readHair(studio.db, clientId)
    expect(read.map((r) => r.id)).toEqual([sooner.id, later.id])
    expect(read[1]!.days).toBe(later.days)
    expect(read[1]!.lengthMm).toBe(later.lengthMm)
  })
})
