import { DEFAULTS } from '../house/index.ts'
import { logRate, shownOdds } from './growth.ts'
import { learnGrowths } from './learnGrowth.ts'
import { compareSides, slowZones, zoneOutlook } from './outlook.ts'
import jstat from 'jstat'

const beard = { curve: 'terminal', mean: 0.38, sd: 0.08 } as const

describe('regrowth of a zone (M10)', () => {
  it('gives days by hand: 0.2 mm left at 0.4 mm a day', () => {
    const found = zoneOutlook(DEFAULTS, 'chin', { curve: 'terminal', mean: 0.4, sd: 0.05 }, 0.2)
    // The middle of a log-normal rate lies a little below its mean.
    const middle = 0.4 / Math.sqrt(1 + 0.05 ** 2 / 0.4 ** 2)
    expect(found.felt.even).toBeCloseTo(0.3 / middle, 1)
    expect(found.seen.even).toBeCloseTo(0.8 / middle, 1)
    expect(found.read!.even).toBeCloseTo(1.8 / middle, 9)
    // A quarter inch, common practice.
    expect(found.wax!.even).toBeCloseTo((6.35 - 0.2) / middle, 9)
    expect(found.wax!.early).toBeLessThan(found.wax!.even)
    expect(
      zoneOutlook(DEFAULTS, 'forehead-left', { curve: 'fuzz', mean: 0.03, sd: 0.01 }, 0.1).wax,
    ).toBeUndefined()
  })

  it('has odds that are those of rate, threshold and scatter by brute force, and meet the dates', () => {
    const days = 2
    const { mu, s } = logRate(beard)
    // Over the rate by small steps; threshold and scatter together are one normal (jstat).
    const spread = Math.hypot(0.1, 0.15)
    let [odds, all] = [0, 0]
    for (let z = -5; z <= 5; z += 0.01) {
      const w = jstat.normal.pdf(z, 0, 1)
      const length = 0.2 + Math.exp(mu + s * z) * days
      odds += w * jstat.normal.cdf(length, 1, spread)
      all += w
    }
    expect(shownOdds(DEFAULTS, beard, 'seen', 0.2, days)).toBeCloseTo(odds / all, 3)
    const { seen } = zoneOutlook(DEFAULTS, 'chin', beard, 0.2)
    expect(shownOdds(DEFAULTS, beard, 'seen', 0.2, seen.even)).toBeCloseTo(0.5, 6)
    expect(shownOdds(DEFAULTS, beard, 'seen', 0.2, seen.early)).toBeCloseTo(0.1, 6)
    expect(shownOdds(DEFAULTS, beard, 'seen', 1.2, 0)).toBe(1)
    expect(shownOdds(DEFAULTS, beard, 'seen', 0.2, 0)).toBe(0)
  })

  it('learns less from a guess by eye than from a photograph with a scale', () => {
    const sd = (method: 'photo' | 'ruler' | 'eye') =>
      learnGrowths(DEFAULTS, { chin: beard }, [
        { zoneId: 'chin', kind: 'measured', days: 4, lengthMm: 1.7, leftMm: 0.2, method },
      ])['chin']!.sd
    expect(sd('photo')).toBeLessThan(sd('ruler'))
    expect(sd('ruler')).toBeLessThan(sd('eye'))
  })

  it('compares the sides and names slow zones only when it is likely enough', () => {
    const zones = {
      'cheek-lower-left': { ...beard, mean: 0.42, sd: 0.02 },
      'cheek-lower-right': { ...beard, mean: 0.32, sd: 0.02 },
      'jaw-left': beard,
      'jaw-right': beard,
      chin: { ...beard, mean: 0.2, sd: 0.02 },
    }
    const [first, second] = compareSides(DEFAULTS, zones, () => true)
    expect(first!.words).toBe('Lower cheek: the client’s left grows about 31 % faster.')
    expect(second!.words).toContain('no difference')
    expect(compareSides(DEFAULTS, zones, () => false)).toEqual([])
    expect(slowZones(DEFAULTS, zones).map((z) => z.zoneId)).toEqual(['chin'])
    expect(slowZones(DEFAULTS, { ...zones, chin: { ...beard, mean: 0.2, sd: 0.1 } })).toEqual([])
  })
})
