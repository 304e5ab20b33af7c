/**
 * What is believed of a skin, against the same sums done another way: dense grids and densities of jStat, changes counted out
 * by hand.
 */
import { DEFAULTS } from '../house/index.ts'
import { mulberry32, drawGamma, drawNormal, drawPoisson } from '../stats/index.ts'
import { anyZoneOdds } from './anyZone.ts'
import { learnFading, meanFading } from './fading.ts'
import { believe, expectedOf, learnStudio, zoneSensitivity, type Pooling } from './pool.ts'
import { SkinHistory, type SkinSums } from './seen.ts'
import { gradeOdds, SKIN_CONSTANTS, type Sensitivity } from './sensitivity.ts'
import { VISIT_CONSTANTS } from './visitConstants.ts'
import jstat from 'jstat'

const POOL: Pooling = { mean: 0.3, betweenClients: 4.5, betweenZones: 4.5, unlike: 0.12 }
const SHAPES = [
  [0.15, 0.18],
  [0.5, 0.3],
  [1.5, 0.3],
  [6, 0.22],
] as const

const logGammaPdf = (x: number, shape: number, mean: number) =>
  shape * Math.log(shape / mean) -
  jstat.gammaln(shape) +
  (shape - 1) * Math.log(x) -
  (shape * x) / mean
/** Negative binomial of a zone of this client, without the y!. */
const logZone = (k: number, z: number, { count, exposure }: { count: number; exposure: number }) =>
  jstat.gammaln(z + count) -
  jstat.gammaln(z) +
  count * Math.log((k * exposure) / z) -
  (z + count) * Math.log1p((k * exposure) / z)

/** Keeps the evidence of much that was counted within what a number can hold. */
const FAR = 200

/** The same posterior over a dense grid of rates: mean rate, and mean of a zone. */
function dense(sums: SkinSums, zone: string) {
  let [total, rate, mean] = [0, 0, 0]
  const own = sums.zones.get(zone) ?? { count: 0, exposure: 0 }
  for (const [times, odds] of SHAPES) {
    const z = 4.5 * times
    const cells = Array.from({ length: 4000 }, (_, i) => 1e-4 * Math.exp((i * 12) / 4000)).map(
      (k) => {
        const prior = Math.log(
          0.88 * Math.exp(logGammaPdf(k, 4.5, 0.3)) + 0.12 * Math.exp(logGammaPdf(k, 4.5 / 4, 0.3)),
        )
        const like = [...sums.zones.values()].reduce((s, x) => s + logZone(k, z, x), 0)
        return { k, prior: prior + Math.log(k), like }
      },
    )
    // The shape is told by the whole of what was counted, the level by its share.
    const best = Math.max(...cells.map((c) => c.prior + sums.share * c.like))
    const evidence = cells.reduce((s, c) => s + Math.exp(c.prior + c.like - FAR), 0)
    const tempered = cells.reduce((s, c) => s + Math.exp(c.prior + sums.share * c.like - best), 0)
    for (const c of cells) {
      const w = (odds * evidence * Math.exp(c.prior + sums.share * c.like - best)) / tempered
      total += w
      rate += w * c.k
      mean += (w * (z + own.count)) / (z / c.k + own.exposure)
    }
  }
  return { rate: rate / total, mean: mean / total }
}

const sums = (
  share: number,
  zones: Record<string, [count: number, exposure: number]>,
): SkinSums => ({
  ...{ share, visitSpread: 0.4 },
  zones: new Map(
    Object.entries(zones).map(([z, [count, exposure]]) => [z, { count, exposure }] as const),
  ),
})

describe('the belief in a client', () => {
  it.each([
    ['nothing seen', sums(1, {})],
    ['calm', sums(1, { chin: [1, 20], jaw: [0, 18], neck: [2, 25] })],
    ['one red zone', sums(1, { chin: [24, 20], jaw: [0, 18], neck: [1, 25] })],
    ['far redder than such skin', sums(1, { chin: [40, 20], jaw: [44, 18], neck: [50, 25] })],
    ['far calmer', sums(1, { chin: [0, 90], jaw: [0, 90], neck: [1, 90] })],
    ['days that tell little', sums(0.3, { chin: [30, 20], jaw: [12, 18], neck: [25, 25] })],
  ])('is that of a dense grid: %s', (_name, seen) => {
    const belief = believe(seen, POOL)
    const weights = belief.weights.reduce((s, w) => s + w, 0)
    expect(weights).toBeCloseTo(1, 9)
    const rate = belief.rates.reduce((s, k, i) => s + k * belief.weights[i]!, 0)
    for (const zone of ['chin', 'jaw', 'elsewhere']) {
      const found = zoneSensitivity(belief, zone)
      const truth = dense(seen, zone)
      // Ten cells a shape: within a twentieth.
      expect(Math.abs(rate / truth.rate - 1)).toBeLessThan(0.05)
      expect(Math.abs(found.shape / found.rate / truth.mean - 1)).toBeLessThan(0.05)
    }
  })

  it('leaves zones that got no load out', () => {
    const seen = sums(1, { chin: [2, 5] })
    const with0 = sums(1, { chin: [2, 5], jaw: [0, 0] })
    expect(believe(with0, POOL)).toEqual(believe(seen, POOL))
  })

  it('of any zone takes what was seen of each into account, as draws of it do', () => {
    const seen = sums(1, { chin: [9, 6], jaw: [0, 12] })
    const belief = believe(seen, { ...POOL, betweenZones: 1 })
    const random = mulberry32(12)
    let red = 0
    const draws = 20_000
    for (let i = 0; i < draws; i++) {
      let u = random()
      let n = 0
      while (n < belief.weights.length - 1 && u > belief.weights[n]!) u -= belief.weights[n++]!
      const [k, z] = [belief.rates[n]!, belief.shapes[n]!]
      const day = Math.exp(0.4 * drawNormal(random) - 0.08)
      const zone = (count: number, exposure: number) =>
        drawPoisson(random, (drawGamma(random, z + count) / (z / k + exposure)) * day * 1.5) >= 2
      const [a, b] = [zone(9, 6), zone(0, 12)]
      if (a || b) red++
    }
    expect(anyZoneOdds(belief, { chin: 1.5, jaw: 1.5 })).toBeCloseTo(red / draws, 1.8)
  })
})

describe('what visits come to', () => {
  const M = 0.4
  const usual = Math.expm1(DEFAULTS(VISIT_CONSTANTS.visitSpread) ** 2)
  const visit = (...grades: number[]) =>
    grades.map((grade, i) => ({ zoneId: `z${i}`, load: 2, grade }))

  it('of one visit: how far it strayed and what it is worth, by hand', () => {
    const history = new SkinHistory(DEFAULTS, M)
    history.add(visit(3, 2))
    // Expected 0.4 · 4 = 1.6, counted 5; the house's spread weighs as five visits.
    const E = 1.6
    const variance = ((5 - E) ** 2 - E + 5 * E * E * usual) / (6 * E * E)
    expect(Math.expm1(history.visitSpread ** 2)).toBeCloseTo(variance, 9)
    const { share, zones } = history.sums()
    expect(share).toBeCloseTo(1 / (1 + variance * E), 9)
    // What follows one visit is told of that alone.
    expect(history.weights()).toEqual([expect.closeTo(1, 12)])
    expect(Object.fromEntries(zones)).toEqual({
      z0: { count: expect.closeTo(3, 9), exposure: expect.closeTo(2, 9) },
      z1: { count: expect.closeTo(2, 9), exposure: expect.closeTo(2, 9) },
    })
  })

  it('of two visits: the odds that the skin changed between them, by hand', () => {
    const [first, second] = [1, 9]
    const history = new SkinHistory(DEFAULTS, M)
    history.add(visit(first, 0))
    const spread = history.visitSpread
    history.add(visit(second, 0))
    // Level after the first visit: Gamma(1.5 + share · 1, 1.5/0.4 + share · 4).
    const share = 1 / (1 + usual * 1.6)
    const same = { shape: 1.5 + share * first, rate: 1.5 / M + share * 4 }
    const anew = { shape: 1.5, rate: 1.5 / M }
    const day = Math.expm1(spread ** 2)
    const predictive = ({ shape, rate }: typeof same) => {
      const mean = (shape / rate) * 4
      const s = 1 / ((1 + 1 / shape) * (1 + day) - 1)
      // Negative binomial (jStat counts failures with success odds s/(s + mean)).
      return Math.exp(
        jstat.gammaln(s + second) -
          jstat.gammaln(s) -
          jstat.gammaln(second + 1) +
          s * Math.log(s / (s + mean)) +
          second * Math.log(mean / (s + mean)),
      )
    }
    const change = 1 / DEFAULTS(VISIT_CONSTANTS.changeVisits)
    const [a, b] = [(1 - change) * predictive(same), change * predictive(anew)]
    const kept = 0.5 ** (1 / DEFAULTS(VISIT_CONSTANTS.halfLife))
    expect(history.weights()[0]!).toBeCloseTo((a / (a + b)) * kept, 6)
    expect(history.weights()[1]!).toBeCloseTo(1, 9)
  })

  it('keeps the spread of days within what days can be', () => {
    const wild = new SkinHistory(DEFAULTS, M)
    for (let i = 0; i < 60; i++) wild.add(visit(i % 12 === 0 ? 150 : 0, 0))
    expect(wild.visitSpread).toBe(1.2)
    const alike = new SkinHistory(DEFAULTS, M)
    for (let i = 0; i < 80; i++) alike.add(visit(2, 2))
    expect(alike.visitSpread).toBe(0.05)
  })
})

describe('the studio’s mean', () => {
  const client = (clientId: string, grade: number, load: number) => ({
    ...{ clientId, grade, load },
    reactivity: 'average' as const,
  })

  it('is that of a dense grid over the mean, each client a negative binomial', () => {
    const clients = [client('a', 9, 12), client('b', 2, 8), client('c', 14, 11)]
    const doubt = DEFAULTS(SKIN_CONSTANTS.studioDoubt)
    let [total, sum] = [0, 0]
    for (let x = -5; x <= 5; x += 0.002) {
      const mean = 0.3 * Math.exp(doubt * x)
      let log = -0.5 * x * x
      for (const c of clients)
        log += c.grade * Math.log(mean) - (c.grade + 4.5) * Math.log1p((mean * c.load) / 4.5)
      total += Math.exp(log)
      sum += Math.exp(log) * mean
    }
    expect(learnStudio(DEFAULTS, clients).mean.average).toBeCloseTo(sum / total, 3)
  })

  it('hears nobody for more than a few visits, and nobody who was not looked at', () => {
    const most = DEFAULTS(SKIN_CONSTANTS.studioWeight)
    const often = learnStudio(DEFAULTS, [client('a', 200, 20 * most)])
    const once = learnStudio(DEFAULTS, [client('a', 10, most)])
    expect(often.mean.average).toBeCloseTo(once.mean.average, 9)
    const less = learnStudio(DEFAULTS, [client('a', 5, most / 2)])
    expect(Math.abs(less.mean.average - 0.3)).toBeLessThan(Math.abs(once.mean.average - 0.3))
    const none = learnStudio(DEFAULTS, [client('a', 0, 0)])
    expect(none.mean.average).toBe(0.3)
    expect(none.clients.average).toBe(0)
  })

  it('is learned without each tenth of the clients, and clients fall into all of them', () => {
    const many = Array.from({ length: 200 }, (_, i) => client(`client ${i}`, 12 + (i % 17), 12))
    const studio = learnStudio(DEFAULTS, many)
    expect(studio.without).toHaveLength(10)
    const tenths = new Set<number>()
    for (const c of many) {
      // Their own tenth is the mean that they are not in.
      const own = expectedOf(studio, c)
      tenths.add(studio.without.findIndex((w) => w.average === own))
    }
    expect(tenths.size).toBeGreaterThanOrEqual(6)
    // Alone, one is expected to be as the house says.
    expect(expectedOf(learnStudio(DEFAULTS, [many[0]!]), many[0]!)).toBe(0.3)
  })
})

describe('grades and fading', () => {
  it('grade odds are those of a Gamma of the rate and the day, the rest is grade 4', () => {
    const calm: Sensitivity = { shape: 3, rate: 6, visitSpread: 0 }
    const odds = gradeOdds(calm, 2)
    expect(odds).toHaveLength(5)
    const nb = (y: number) =>
      Math.exp(
        jstat.gammaln(3 + y) -
          jstat.gammaln(3) -
          jstat.gammaln(y + 1) +
          3 * Math.log(6 / 8) +
          y * Math.log(2 / 8),
      )
    for (const y of [0, 1, 2, 3]) expect(odds[y]!).toBeCloseTo(nb(y), 9)
    expect(odds.reduce((s, p) => s + p, 0)).toBeCloseTo(1, 12)
    expect(odds[4]!).toBeGreaterThan(0)
    // Days that differ spread the grades.
    expect(gradeOdds({ ...calm, visitSpread: 0.8 }, 2)[4]!).toBeGreaterThan(odds[4]!)
  })

  it('speeds are log-normal before anything is known', () => {
    const none = learnFading(DEFAULTS, [])
    expect(meanFading(none)).toBeCloseTo(0.8 * Math.exp(0.5 ** 2 / 2), 1.7)
    const logs = none.map((b) => Math.log(b.perDay / 0.8))
    const spread = Math.sqrt(none.reduce((s, b, i) => s + b.weight * logs[i]! ** 2, 0))
    expect(spread).toBeCloseTo(0.5, 1)
    expect(Math.max(...logs)).toBeCloseTo(1.5, 9)
    expect(Math.min(...logs)).toBeCloseTo(-1.5, 9)
  })
})
