import { DEFAULTS } from '../house/index.ts'
import { drawHistory } from '../simulate/truth.ts'
import { mulberry32 } from '../stats/index.ts'
import { coverage } from '../testing/coverage.ts'
import { bumpSeverity, learnBumps } from './bumps.ts'
import { learnStudio, learnZones, poolZones, zoneSums } from './pool.ts'
import { rednessRange, sensitivityRange } from './range.ts'
import { expectedMean, meanSensitivity, rednessOdds } from './sensitivity.ts'
import jstat from 'jstat'

const ZONES = ['chin', 'jaw-left', 'jaw-right', 'neck-lower-left', 'neck-lower-right', 'cheek-left']

describe('zones and clients leaning on each other (M7)', () => {
  it('knows no more than what was told before anything is seen: Gamma with shape 2', () => {
    const none = learnZones(DEFAULTS, ZONES, 'average', [])['chin']!
    expect(meanSensitivity(none)).toBeCloseTo(0.3, 2)
    // Within the grid's coarseness.
    expect(Math.abs(none.shape - 2)).toBeLessThan(0.1)
  })

  it('leans on the other zones while a zone has little of its own, and less the more it has', () => {
    const red = Array.from({ length: 12 }, () => ({ zoneId: 'chin', load: 1, grade: 2 }))
    const mean = (outcomes: { zoneId: string; load: number; grade: number }[]) =>
      meanSensitivity(learnZones(DEFAULTS, ZONES, 'average', outcomes)['jaw-left']!)
    expect(mean(red)).toBeGreaterThan(2 * mean([]))
    const calm = Array.from({ length: 40 }, () => ({ zoneId: 'jaw-left', load: 1, grade: 0 }))
    expect(mean([...red, ...calm])).toBeLessThan(0.35)
    const much = Array.from({ length: 400 }, () => ({ zoneId: 'jaw-left', load: 1, grade: 0 }))
    expect(mean([...red, ...much])).toBeLessThan(0.04)
  })

  it('of one zone alone is the plain conjugate update where client and zone are one', () => {
    // Zones all alike (shape to infinity): the client's rate is Gamma(c, c/m) and updates by hand.
    const sums = zoneSums([
      { zoneId: 'chin', load: 1, grade: 0 },
      { zoneId: 'chin', load: 2.6, grade: 2 },
      { zoneId: 'jaw-left', load: 1.4, grade: 1 },
    ])
    const [m, c] = [0.3, 3]
    const found = poolZones(['chin', 'jaw-left'], sums, {
      mean: m,
      betweenClients: c,
      betweenZones: 1e7,
    })
    for (const zone of ['chin', 'jaw-left']) {
      expect(found[zone]!.shape).toBeCloseTo(c + 3, 1)
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
    for (let i = 0; i < 20_000; i++) {
      const client = (0.3 * gamma(4.5)) / 4.5
      const [a, b, c] = [0, 1, 2].map(() => (client * gamma(4.5)) / 4.5) as [number, number, number]
      const w = Math.exp(-2 * a) * (2 * a) ** 3 * Math.exp(-3 * b)
      total += w
      chin += w * a
      other += w * c
    }
    const found = learnZones(DEFAULTS, ['chin', 'jaw-left', 'cheek-left'], 'average', seen)
    expect(meanSensitivity(found['chin']!)).toBeCloseTo(chin / total, 1)
    expect(Math.abs(meanSensitivity(found['cheek-left']!) - other / total)).toBeLessThan(0.02)
  })

  it('gives ranges of 80 % that hold the hidden truth 72 to 88 % of the time, over 500 clients and their zones', () => {
    for (const [seed, visits] of [
      [23, 1],
      [24, 4],
      [25, 12],
    ] as const) {
      const { held } = coverage(seed, ZONES, visits)
      expect(held).toBeGreaterThan(0.72)
      expect(held).toBeLessThan(0.88)
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
  })
})

describe('the studio', () => {
  it('moves its mean toward what its clients show, each counted no more than a few services', () => {
    const one = learnStudio(DEFAULTS, [{ reactivity: 'average', grade: 500, load: 1000 }])
    const many = learnStudio(
      DEFAULTS,
      Array.from({ length: 40 }, () => ({ reactivity: 'average' as const, grade: 5, load: 10 })),
    )
    expect(one.mean.average).toBeGreaterThan(0.3)
    expect(one.mean.average).toBeLessThan(0.4)
    expect(many.mean.average).toBeGreaterThan(0.44)
    expect(many.mean.average).toBeLessThan(0.52)
    expect(many.mean.tough).toBe(expectedMean(DEFAULTS, 'tough'))
    expect(many.clients).toEqual({ tough: 0, average: 40, reactive: 0 })
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
