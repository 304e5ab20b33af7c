/** The curve of a zone's hair and the days it is shown for; bands against simulated rates with a fixed seed. */
import { DEFAULTS } from '../house/index.ts'
import { mulberry32 } from '../stats/index.ts'
import { drawGrowth } from '../simulate/index.ts'
import { hairLengthMm, priorGrowth, shownOdds, thresholdMm, type Growth } from './growth.ts'
import { lengthCurve, outlookDays, zoneOutlook } from './outlook.ts'

const BEARD: Growth = { curve: 'terminal', mean: 0.3, sd: 0.06 }
const FUZZ: Growth = { curve: 'fuzz', mean: 0.03, sd: 0.006 }

describe('the curve of a zone', () => {
  it('begins with what was left, rises, and lies within its band', () => {
    for (const growth of [BEARD, FUZZ]) {
      const curve = lengthCurve(DEFAULTS, { growth, leftMm: 0.2 }, 30, 24)
      expect(curve.days).toHaveLength(25)
      expect(curve.days.at(-1)).toBe(30)
      for (const list of [curve.low, curve.even, curve.high]) {
        expect(list[0]).toBeCloseTo(0.2, 9)
        list.slice(1).forEach((mm, i) => expect(mm).toBeGreaterThan(list[i]!))
      }
      curve.even.slice(1).forEach((mm, i) => {
        expect(mm).toBeGreaterThan(curve.low[i + 1]!)
        expect(mm).toBeLessThan(curve.high[i + 1]!)
      })
    }
  })

  it('holds 80 % of hair that grows at rates spread so (74–86 % of 4 000)', () => {
    const random = mulberry32(11)
    for (const growth of [BEARD, FUZZ]) {
      const curve = lengthCurve(DEFAULTS, { growth, leftMm: 0.1 }, 20, 10)
      const held = curve.days.map(() => 0)
      const many = 4000
      for (let i = 0; i < many; i++) {
        const rate = drawGrowth(random, growth)
        curve.days.forEach((day, d) => {
          const mm = hairLengthMm(DEFAULTS, growth.curve, 0.1, rate, day)
          if (mm >= curve.low[d]! && mm <= curve.high[d]!) held[d]!++
        })
      }
      for (const n of held.slice(1)) {
        expect(n / many).toBeGreaterThan(0.74)
        expect(n / many).toBeLessThan(0.86)
      }
    }
  })

  it('never runs backwards, however little is known of the rate', () => {
    const unknown: Growth = { curve: 'terminal', mean: 0.1, sd: 0.4 }
    const { low } = lengthCurve(DEFAULTS, { growth: unknown, leftMm: 0.1 }, 40, 8)
    low.slice(1).forEach((mm, i) => expect(mm).toBeGreaterThanOrEqual(low[i]!))
  })

  it('agrees with the days that are told: even odds of being seen where it crosses what is seen', () => {
    const zone = zoneOutlook(DEFAULTS, 'chin', BEARD, 0.05)
    const seen = thresholdMm(DEFAULTS, 'terminal', 'seen')
    const { even } = lengthCurve(DEFAULTS, zone, zone.seen.even, 1)
    expect(even[1]).toBeCloseTo(seen, 1)
    expect(shownOdds(DEFAULTS, BEARD, 'seen', 0.05, zone.seen.even)).toBeCloseTo(0.5, 2)
  })
})

describe('the days that are shown', () => {
  it('reach past the day on which it is surely seen, and long enough to be read', () => {
    for (const zoneId of ['chin', 'upper-lip-left', 'neck-lower-right'] as const) {
      const zone = zoneOutlook(DEFAULTS, zoneId, priorGrowth(DEFAULTS, zoneId, 'beard'), 0.05)
      expect(outlookDays(zone)).toBeGreaterThan(zone.seen.late)
      expect(outlookDays(zone)).toBeGreaterThanOrEqual(zone.read!.even)
    }
  })

  it('are at least three and at most a season, also where hair is hardly ever seen', () => {
    const slow = zoneOutlook(DEFAULTS, 'forehead-left', { ...FUZZ, mean: 0.001, sd: 0.0005 }, 0)
    expect(outlookDays(slow)).toBe(120)
    const fast = zoneOutlook(DEFAULTS, 'chin', { ...BEARD, mean: 20, sd: 0.1 }, 0.4)
    expect(outlookDays(fast)).toBe(3)
    expect(slow.read).toBeUndefined()
  })
})
