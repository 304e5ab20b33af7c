import { DEFAULTS } from '../house/index.ts'
import { drawHistory } from '../simulate/truth.ts'
import { mulberry32 } from '../stats/index.ts'
import { coverage } from '../testing/coverage.ts'
import { bumpSeverity, learnBumps } from './bumps.ts'
import { expectedOf, learnStudio, learnZones, poolZones, skinPooling } from './pool.ts'
import { nothingSeen } from './seen.ts'
import { rednessRange, sensitivityRange } from './range.ts'
import { expectedMean, meanSensitivity, oddsAtRate, rednessOdds } from './sensitivity.ts'
import jstat from 'jstat'

const ZONES = ['chin', 'jaw-left', 'jaw-right', 'neck-lower-left', 'neck-lower-right', 'cheek-left']

describe('zones and clients leaning on each other (M7)', () => {
  it('knows no more than what was told before anything is seen: a wide Gamma about it', () => {
    const none = learnZones(DEFAULTS, ZONES, 'average', [])['chin']!
    expect(meanSensitivity(none)).toBeCloseTo(0.3, 2)
    // M7's shape of 2, and wider for clients and zones that may be unlike the others.
    expect(none.shape).toBeGreaterThan(1)
    expect(none.shape).toBeLessThan(2)
  })

  it('leans on the other zones while a zone has little of its own, and less the more it has', () => {
    const red = ['chin', 'jaw-right', 'cheek-left'].flatMap((zoneId) =>
      Array.from({ length: 4 }, () => ({ zoneId, load: 1, grade: 2 })),
    )
    const mean = (outcomes: { zoneId: string; load: number; grade: number }[]) =>
      meanSensitivity(
        learnZones(
          DEFAULTS,
          ZONES,
          'average',
          outcomes.map((o) => [o]),
        )['jaw-left']!,
      )
    expect(mean(red)).toBeGreaterThan(1.5 * mean([]))
    const calm = Array.from({ length: 40 }, () => ({ zoneId: 'jaw-left', load: 1, grade: 0 }))
    expect(mean([...red, ...calm])).toBeLessThan(0.35)
    const much = Array.from({ length: 400 }, () => ({ zoneId: 'jaw-left', load: 1, grade: 0 }))
    expect(mean([...red, ...much])).toBeLessThan(0.06)
  })

  it('of one zone alone is the plain conjugate update where client and zone are one', () => {
    // Zones all alike (shape to infinity): the client's rate is Gamma(c, c/m) and updates by hand.
    const sums = {
      ...nothingSeen(DEFAULTS),
      zones: new Map([
        ['chin', { count: 2, exposure: 3.6 }],
        ['jaw-left', { count: 1, exposure: 1.4 }],
      ]),
    }
    const [m, c] = [0.3, 3]
    const found = poolZones(['chin', 'jaw-left'], sums, {
      mean: m,
      betweenClients: c,
      betweenZones: 1e9,
      unlike: 0,
    })
    for (const zone of ['chin', 'jaw-left']) {
      // Within the grid's coarseness.
      expect(Math.abs(found[zone]!.shape - c - 3)).toBeLessThan(0.15)
      expect(meanSensitivity(found[zone]!)).toBeCloseTo((c + 3) / (c / m + 5), 3)
    }
  })

  it('agrees with a simulation of the very same beliefs', () => {
    // Importance sampling: clients and zones drawn from the prior, weighted by the Poisson odds of what was seen.
    const random = mulberry32(17)
    const gamma = (shape: number) => jstat.gamma.inv(random(), shape, 1)
    const seen = [
      { zoneId: 'chin', load: 2, grade: 3 },
      { zoneId: 'jaw-left', load: 3, grade: 0 },
    ]
    let [total, chin, other] = [0, 0, 0]
    for (let i = 0; i < 60_000; i++) {
      // One client in eight is unlike the others; zones differ by one of four shapes.
      const c = random() < 0.12 ? 4.5 / 4 : 4.5
      const client = (0.3 * gamma(c)) / c
      const u = random()
      const z = 4.5 * (u < 0.18 ? 0.15 : u < 0.48 ? 0.5 : u < 0.78 ? 1.5 : 6)
      const [a, b, d] = [0, 1, 2].map(() => (client * gamma(z)) / z) as [number, number, number]
      const w = Math.exp(-2 * a) * (2 * a) ** 3 * Math.exp(-3 * b)
      total += w
      chin += w * a
      other += w * d
    }
    const sums = {
      ...{ share: 1, visitSpread: 0 },
      zones: new Map(seen.map((o) => [o.zoneId, { count: o.grade, exposure: o.load }])),
    }
    const zones = ['chin', 'jaw-left', 'cheek-left']
    const found = poolZones(zones, sums, skinPooling(DEFAULTS, 0.3))
    expect(Math.abs(meanSensitivity(found['chin']!) - chin / total)).toBeLessThan(0.03)
    expect(Math.abs(meanSensitivity(found['cheek-left']!) - other / total)).toBeLessThan(0.02)
  })

  it('gives ranges of 80 % that hold the hidden truth, the first a little more often than they say, over 500 clients and their zones', () => {
    for (const [seed, visits] of [
      [23, 1],
      [24, 4],
      [25, 12],
    ] as const) {
      const { held } = coverage(seed, ZONES, visits)
      expect(held).toBeGreaterThan(0.72)
      expect(held).toBeLessThan(0.9)
    }
  })
})

describe('ranges', () => {
  it('hold the middle of the belief (jstat), and the odds lie within theirs', () => {
    const s = { shape: 4, rate: 10 }
    const { low, high } = sensitivityRange(s)
    expect(jstat.gamma.cdf(high, 4, 0.1) - jstat.gamma.cdf(low, 4, 0.1)).toBeCloseTo(0.8, 6)
    const odds = rednessRange(s, 2)
    expect(odds.low).toBeLessThan(rednessOdds(s, 2))
    expect(odds.high).toBeGreaterThan(rednessOdds(s, 2))
    // Of a rate of 0.4 and load 2 without days that differ: 1 − e^−0.8 (1 + 0.8), by hand.
    expect(oddsAtRate(s, 0.4, 2)).toBeCloseTo(1 - Math.exp(-0.8) * 1.8, 4)
    // Where days differ the ends scatter by the day too, as the odds between them do.
    const days = { ...s, visitSpread: 0.7 }
    expect(rednessRange(days, 2).low).toBeGreaterThan(odds.low)
    expect(rednessRange(days, 2).low).toBeLessThan(rednessOdds(days, 2))
    expect(rednessRange(days, 2).high).toBeGreaterThan(rednessOdds(days, 2))
  })
})

it('bears counts that have faded to next to nothing, and zones as unlike as they come', () => {
  for (const count of [0, 1e-6, 0.03, 0.4, 1.2, 80]) {
    for (const exposure of [0.01, 3, 400]) {
      const sums = {
        ...{ share: 0.3, visitSpread: 0.4 },
        zones: new Map([
          ['chin', { count, exposure }],
          ['jaw-left', { count: 0.2, exposure: 20 }],
        ]),
      }
      const found = poolZones(['chin', 'cheek-left'], sums, {
        ...{ mean: 0.06, betweenClients: 1.5, betweenZones: 2, unlike: 0.12 },
      })
      for (const s of Object.values(found)) {
        expect(s.shape).toBeGreaterThan(0.05)
        expect(s.shape).toBeLessThan(1000)
        expect(s.rate).toBeGreaterThan(0)
        expect(rednessOdds(s, 2)).toBeLessThanOrEqual(1)
      }
    }
  }
})

describe('the studio', () => {
  it('moves its mean toward what its clients show, each counted no more than a few services', () => {
    const one = learnStudio(DEFAULTS, [
      { clientId: 'a', reactivity: 'average', grade: 500, load: 1000 },
    ])
    const many = learnStudio(
      DEFAULTS,
      Array.from({ length: 40 }, (_, i) => ({
        clientId: `c${i}`,
        reactivity: 'average' as const,
        grade: 5,
        load: 10,
      })),
    )
    expect(one.mean.average).toBeGreaterThan(0.3)
    expect(one.mean.average).toBeLessThan(0.4)
    expect(many.mean.average).toBeGreaterThan(0.44)
    expect(many.mean.average).toBeLessThan(0.52)
    expect(many.mean.tough).toBe(expectedMean(DEFAULTS, 'tough'))
    expect(many.clients).toEqual({ tough: 0, average: 40, reactive: 0 })
  })

  it('expects of a client what others showed, never what they showed themselves', () => {
    const calm = Array.from({ length: 30 }, (_, i) => ({
      clientId: `c${i}`,
      reactivity: 'average' as const,
      grade: 1,
      load: 10,
    }))
    const red = { clientId: 'red', reactivity: 'average' as const, grade: 40, load: 10 }
    const studio = learnStudio(DEFAULTS, [...calm, red])
    expect(expectedOf(studio, red)).toBeLessThan(studio.mean.average)
    // Who has the client among the others expects more.
    const other = calm.find((c) => expectedOf(studio, c) !== expectedOf(studio, red))!
    expect(expectedOf(studio, other)).toBeGreaterThan(expectedOf(studio, red))
    expect(expectedOf(studio, red)).toBe(expectedOf(studio, { ...red }))
  })

  it('finds a hidden mean from 120 clients with few visits each', () => {
    const found = [1, 2, 3, 4, 5, 6].map((seed) => {
      const random = mulberry32(77 * seed)
      const clients = Array.from({ length: 120 }, () => {
        const all = drawHistory(
          DEFAULTS,
          random,
          ZONES,
          'average',
          3,
          () => 1.5,
          0.42,
        ).visits.flat()
        return {
          clientId: 'c',
          reactivity: 'average' as const,
          grade: all.reduce((s, o) => s + o.grade, 0),
          load: all.reduce((s, o) => s + o.load, 0),
        }
      })
      return learnStudio(DEFAULTS, clients).mean.average
    })
    expect(Math.abs(found.reduce((s, m) => s + m, 0) / 6 - 0.42)).toBeLessThan(0.03)
  })
})

describe('bumps', () => {
  it('are expected more on bump-prone and tightly curled hair', () => {
    const mean = (bumpProne: boolean, curl: string) =>
      meanSensitivity(learnBumps(DEFAULTS, ['chin'], { bumpProne, curl }, [])['chin']!)
    expect(mean(false, 'straight')).toBeCloseTo(0.06, 2)
    expect(mean(true, 'tight')).toBeCloseTo(0.45, 1)
  })

  it('are graded as published: mild under 12, moderate to 100, severe over', () => {
    // Perry et al. 2002 (from memory).
    expect([0, 1, 11, 12, 100, 101].map((n) => bumpSeverity(DEFAULTS, n))).toEqual([
      'none',
      'mild',
      'mild',
      'moderate',
      'moderate',
      'severe',
    ])
  })
})
