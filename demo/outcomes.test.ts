/** What follows a service in the demo is the same at any hour: only how much of it has come yet hangs on that. */
import { DEFAULTS } from '../core/house/index.ts'
import { severeSigns, type SkinAnswer } from '../core/looks/index.ts'
import { mulberry32 } from '../core/stats/index.ts'
import { DAY_MS, HOUR_MS } from '../core/time/index.ts'
import { drawTruth, hairReadings, skinAnswers, type GivenService } from './outcomes.ts'
import { PEOPLE, type Person } from './people.ts'

const ENDED = Date.UTC(2026, 9, 1, 11)
const LOADS = { chin: 3, 'neck-upper-left': 4, 'neck-upper-right': 4, 'cheek-lower-left': 2 }
const calm = PEOPLE.find((p) => p.service === 'face-shave' && p.story === undefined)!
let n = 0
const newId = () => `id${++n}`
/** A service of so long ago. */
const service = (hoursAgo: number, over: Partial<GivenService> = {}): GivenService => ({
  ...{ person: calm, truth: drawTruth(calm, mulberry32(7)), endedAtMs: ENDED },
  ...{ nowMs: ENDED + hoursAgo * HOUR_MS, loads: LOADS, clientId: 'c', visitId: 'v' },
  ...{ leftMm: { chin: 0.1, 'cheek-lower-left': 0.1 }, skin: calm.skin, bumpFactor: 1 },
  ...{ silentLately: false, settled: false, nicks: [], ...over },
})
const told = (seed: number, hoursAgo: number, over: Partial<GivenService> = {}) =>
  skinAnswers(service(hoursAgo, over), mulberry32(seed), newId)
const plain = ({ spots: _spots, ...look }: SkinAnswer) => look
const moments = (list: readonly SkinAnswer[]) => list.map((a) => a.moment)

describe('looks after a service', () => {
  it('are the same whenever they are looked at, once they have come', () => {
    for (let seed = 1; seed < 60; seed++) {
      const late = new Map(told(seed, 20 * 24).map((a) => [a.moment, plain(a)]))
      for (const hours of [2, 27, 30, 52, 60, 171, 180, 200])
        for (const look of told(seed, hours)) expect(plain(look)).toEqual(late.get(look.moment))
    }
  })

  it('come one after the other, none before its time', () => {
    for (let seed = 1; seed < 60; seed++) {
      expect(moments(told(seed, 2))).toEqual(['now'])
      for (const hours of [27, 60, 200])
        for (const look of told(seed, hours))
          expect(look.atMs).toBeLessThan(ENDED + hours * HOUR_MS)
    }
    const all = Array.from({ length: 200 }, (_, seed) => moments(told(seed, 200)))
    for (const moment of ['24h', '48h', '7d'] as const) {
      const share = all.filter((m) => m.includes(moment)).length / all.length
      expect(share).toBeGreaterThan(0.65)
      expect(share).toBeLessThan(0.9)
    }
  })

  it('of the one who is silent lately lack day 7, and only while it is lately', () => {
    const share = (days: number) =>
      Array.from({ length: 80 }, (_, seed) => told(seed, days * 24, { silentLately: true })).filter(
        (list) => moments(list).includes('7d'),
      ).length
    expect(share(8)).toBe(0)
    expect(share(12)).toBeGreaterThan(40)
  })

  it('raise no alarm of late but for the one whose story it is', () => {
    const severe = PEOPLE.find((p) => p.story === 'severe')!
    const hard = Object.fromEntries(Object.keys(LOADS).map((z) => [z, 14]))
    let once = 0
    for (let seed = 1; seed < 60; seed++) {
      for (const look of told(seed, 9 * 24, { loads: hard }))
        expect(severeSigns(DEFAULTS, look)).toEqual([])
      once += told(seed, 60 * 24, { loads: hard }).filter(
        (look) => severeSigns(DEFAULTS, look).length > 0,
      ).length
    }
    // Long ago such things happened to others, too.
    expect(once).toBeGreaterThan(0)
    expect(
      told(1, 3 * 24, { person: severe }).some((look) => severeSigns(DEFAULTS, look).length > 0),
    ).toBe(true)
  })
})

describe('hidden truths that learning has to find', () => {
  const person = (of: (p: (typeof PEOPLE)[number]) => boolean) => PEOPLE.find(of)!
  const totals = (over: Partial<GivenService>, hoursAgo = 400 * 24) =>
    Array.from({ length: 300 }, (_, seed) => {
      const look = told(seed, hoursAgo, over).find((a) => a.moment === '24h')
      return look?.zones.reduce((s, z) => s + z.redness, 0)
    }).filter((n) => n !== undefined)
  const mean = (list: readonly number[]) => list.reduce((s, n) => s + n, 0) / list.length

  it('days differ: zones redden together, more than each by its own chance', () => {
    const all = totals({})
    const m = mean(all)
    expect(mean(all.map((n) => (n - m) ** 2)) / m).toBeGreaterThan(1.2)
  })

  it('the skin of one changes, and only of late', () => {
    const changing = person((p) => p.truth.reddens !== undefined)
    const { daysAgo, times } = changing.truth.reddens!
    const truth = drawTruth(changing, mulberry32(7))
    const on = { person: changing, truth, loads: { 'scalp-top': 2, occiput: 2, 'nape-left': 2 } }
    const [before, after] = [
      mean(totals(on, (daysAgo + 30) * 24)),
      mean(totals(on, (daysAgo - 20) * 24)),
    ]
    expect(after / before).toBeGreaterThan(0.75 * times)
  })

  it('one answers late, one anyhow', () => {
    const late = person((p) => p.truth.answers === 'late')
    const hours = (who: Person) =>
      told(3, 400 * 24, { person: who })
        .filter((a) => a.moment !== 'now')
        .map((a) => (a.atMs - ENDED) / HOUR_MS)
    expect(Math.min(...hours(calm))).toBe(24.5)
    expect(Math.min(...hours(late))).toBeGreaterThan(24.6)
    const careless = person((p) => p.truth.answers === 'careless')
    const lengths = Array.from({ length: 400 }, (_, seed) =>
      hairReadings(service(90 * 24, { person: careless }), mulberry32(seed), newId),
    ).flatMap((list) => list.flatMap((r) => r.lengthMm ?? []))
    // Tenths of a millimetre for millimetres.
    expect(Math.max(...lengths)).toBeGreaterThan(5)
  })
})

describe('readings of hair after a service', () => {
  it('are none of a time that has not come', () => {
    let many = 0
    for (let seed = 1; seed < 120; seed++)
      for (const days of [0.5, 2, 30]) {
        const readings = hairReadings(service(days * 24), mulberry32(seed), newId)
        many += readings.length
        for (const r of readings) {
          expect(r.days).toBeGreaterThan(0)
          expect(r.atMs).toBeLessThanOrEqual(ENDED + days * DAY_MS)
          expect(r.kind === 'measured').toBe(r.lengthMm !== null)
        }
      }
    expect(many).toBeGreaterThan(20)
  })
})
