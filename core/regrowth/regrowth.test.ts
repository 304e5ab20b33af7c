import { DEFAULTS, DEFAULT_SCHOOLS } from '../house/index.ts'
import { normalCdf } from '../stats/index.ts'
import { DAY_MS } from '../time/index.ts'
import {
  daysToLength,
  daysUntil,
  hairLengthMm,
  priorGrowth,
  updateGrowth,
  type Growth,
} from './growth.ts'
import { nextVisitWindow, type WindowInput } from './nextVisit.ts'
import { tideCurve } from './tide.ts'
import fc from 'fast-check'
import { SKIN } from '../testing/client.ts'

const BEARD: Growth = { curve: 'terminal', mean: 0.3, sd: 0.08 }
const FUZZ: Growth = { curve: 'fuzz', mean: 0.03, sd: 0.02 }

describe('regrowth (M10)', () => {
  // Saitoh 1970, Myers & Hamilton 1951, Loussouarn 2001, Blume 1991 (from memory).
  it.each([
    ['chin', 'beard', 0.38],
    ['upper-lip-left', 'beard', 0.38],
    ['cheek-lower-left', 'beard', 0.3],
    ['neck-upper-left', 'beard', 0.3],
    ['scalp-mid', 'scalp', 0.35],
    ['brow-left', 'brow', 0.16],
    ['forehead-left', 'vellus', 0.03],
  ] as const)('of %s (%s) is %d mm a day by the published means', (zone, hair, mean) => {
    expect(priorGrowth(DEFAULTS, zone, hair).mean).toBe(mean)
  })

  it('learns a terminal zone by the normal–normal update, by hand', () => {
    // One reading: 0.5 mm felt after 1 day over 0.1 mm left gives 0.4 mm/day, sd 0.15.
    const after = updateGrowth(DEFAULTS, BEARD, [{ kind: 'felt', days: 1, leftMm: 0.1 }])
    const wPrior = 1 / 0.08 ** 2
    const wReading = 1 / 0.15 ** 2
    expect(after.mean).toBeCloseTo((0.3 * wPrior + 0.4 * wReading) / (wPrior + wReading), 12)
    expect(after.sd).toBeCloseTo(1 / Math.sqrt(wPrior + wReading), 12)
  })

  it('counts a longer wait for more: the spread of a rate falls with the days', () => {
    const short = updateGrowth(DEFAULTS, BEARD, [
      { kind: 'measured', days: 1, lengthMm: 0.5, leftMm: 0.1 },
    ])
    const long = updateGrowth(DEFAULTS, BEARD, [
      { kind: 'measured', days: 6, lengthMm: 2.5, leftMm: 0.1 },
    ])
    expect(long.sd).toBeLessThan(short.sd)
    expect(updateGrowth(DEFAULTS, BEARD, [{ kind: 'felt', days: 0, leftMm: 0.1 }])).toEqual(BEARD)
  })

  it('finds a hidden rate, of beard and of fuzz', () => {
    for (const [prior, truth] of [
      [BEARD, 0.42],
      [FUZZ, 0.05],
    ] as const) {
      const readings = Array.from({ length: 25 }, (_, i) => {
        const days = prior.curve === 'fuzz' ? 8 + i : 1 + i / 5
        return {
          kind: 'measured' as const,
          days,
          lengthMm: hairLengthMm(DEFAULTS, prior.curve, 0.15, truth, days),
          leftMm: 0.15,
        }
      })
      const after = updateGrowth(DEFAULTS, prior, readings)
      expect(Math.abs(after.mean - truth) / truth).toBeLessThan(0.05)
      expect(after.sd).toBeLessThan(prior.sd / 3)
    }
  })

  it('the grid for fuzz agrees with the exact update where fuzz still grows straight', () => {
    // A wide, well-kept-positive prior and early readings: the bend is then negligible.
    const prior: Growth = { curve: 'fuzz', mean: 0.03, sd: 0.004 }
    const reading = { kind: 'measured' as const, days: 0.5, lengthMm: 0.02, leftMm: 0 }
    const grid = updateGrowth(DEFAULTS, prior, [reading])
    const exact = updateGrowth(DEFAULTS, { ...prior, curve: 'terminal' }, [reading])
    expect(grid.mean).toBeCloseTo(exact.mean, 4)
    expect(grid.sd).toBeCloseTo(exact.sd, 4)
  })

  it('length and days undo each other', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('terminal', 'fuzz'),
        fc.double({ min: 0.005, max: 0.6, noNaN: true }),
        fc.double({ min: 0.2, max: 40, noNaN: true }),
        (curve, rate, days) => {
          const length = hairLengthMm(DEFAULTS, curve, 0.1, rate, days)
          fc.pre(curve === 'terminal' || length < 1.98)
          expect(daysToLength(DEFAULTS, curve, 0.1, rate, length)).toBeCloseTo(days, 4)
        },
      ),
    )
    expect(daysToLength(DEFAULTS, 'fuzz', 0.1, 0.03, 2)).toBe(Infinity)
    expect(daysToLength(DEFAULTS, 'terminal', 0.1, 0, 1)).toBe(Infinity)
    expect(daysToLength(DEFAULTS, 'terminal', 0.5, 0.3, 0.4)).toBe(0)
  })

  it('forecasts so that a tenth of the belief lies beyond each end', () => {
    const r = daysUntil(DEFAULTS, BEARD, 'seen', 0.12)
    // P(length ≥ 1 mm after t days) = Φ((mean − needed rate) / sd).
    const p = (days: number) => normalCdf((BEARD.mean - (1 - 0.12) / days) / BEARD.sd)
    expect(p(r.even)).toBeCloseTo(0.5, 6)
    expect(p(r.early)).toBeCloseTo(0.1, 5)
    expect(p(r.late)).toBeCloseTo(0.9, 5)
  })

  it('feels fuzz after about a week or somewhat more (common practice)', () => {
    const felt = daysUntil(DEFAULTS, FUZZ, 'felt', 0.1).even
    expect(felt).toBeGreaterThan(5)
    expect(felt).toBeLessThan(11)
  })
})

describe('the next visit’s window', () => {
  const ask = (over: Partial<WindowInput> = {}) =>
    nextVisitWindow(DEFAULTS, {
      service: 'face-shave',
      client: SKIN,
      schools: DEFAULT_SCHOOLS,
      lastAtMs: 0,
      zones: [
        { zoneId: 'chin', name: 'Chin', leftMm: 0.12 },
        { zoneId: 'jaw-left', name: 'Jaw', leftMm: 0.12 },
      ],
      growth: (z) => priorGrowth(DEFAULTS, z, 'beard'),
      redness: [],
      ...over,
    })!
  const days = (ms: number) => ms / DAY_MS

  it('opens with the least interval and closes when hair is seen on the fastest zone', () => {
    const w = ask()
    expect(days(w.fromMs)).toBe(2)
    expect(w.firstZone).toBe('Chin')
    expect(days(w.toMs)).toBeCloseTo(Math.max(4, (1 - 0.12) / 0.38), 6)
  })

  it('waits longer for reactive and bump-prone skin', () => {
    expect(days(ask({ client: { ...SKIN, reactivity: 'reactive' } }).fromMs)).toBe(4)
    expect(days(ask({ client: { ...SKIN, reactivity: 'reactive', bumpProne: true } }).fromMs)).toBe(
      5,
    )
    expect(days(ask({ client: { ...SKIN, reactivity: 'tough' } }).fromMs)).toBe(1)
  })

  it('waits while redness was seen and not yet seen clear, and no longer once it was', () => {
    const red = { atMs: 2 * DAY_MS, grade: 2 }
    expect(days(ask({ redness: [red] }).fromMs)).toBe(5)
    expect(days(ask({ redness: [red, { atMs: 3 * DAY_MS, grade: 0 }] }).fromMs)).toBe(3)
    expect(ask({ redness: [red] }).reasons.some((r) => r.text.includes('not yet seen clear'))).toBe(
      true,
    )
  })

  it('follows the school for fuzz', () => {
    const fuzz = {
      service: 'dermaplane' as const,
      zones: [{ zoneId: 'chin' as const, name: 'Chin', leftMm: 0.12 }],
      growth: () => FUZZ,
    }
    expect(days(ask(fuzz).fromMs)).toBe(28)
    expect(days(ask({ ...fuzz, schools: { ...DEFAULT_SCHOOLS, fuzzInterval: '2' } }).fromMs)).toBe(
      14,
    )
    expect(ask(fuzz).toMs - ask(fuzz).fromMs).toBeGreaterThanOrEqual(7 * DAY_MS)
  })

  it('is nothing when nothing was worked, and never ends before it begins', () => {
    expect(
      nextVisitWindow(DEFAULTS, {
        service: 'face-shave',
        client: SKIN,
        schools: DEFAULT_SCHOOLS,
        lastAtMs: 0,
        zones: [],
        growth: () => BEARD,
        redness: [],
      }),
    ).toBeUndefined()
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            atMs: fc.integer({ min: 0, max: 20 * DAY_MS }),
            grade: fc.integer({ min: 0, max: 4 }),
          }),
          { maxLength: 6 },
        ),
        (redness) => {
          const w = ask({ redness })
          expect(w.toMs).toBeGreaterThan(w.fromMs)
          expect(w.skinMs).toBeLessThanOrEqual(w.fromMs)
        },
      ),
    )
  })
})

describe('the tide line', () => {
  it('climbs between services, drops at each, and widens ahead', () => {
    const curve = tideCurve(DEFAULTS, [0, 4 * DAY_MS], 0.1, BEARD, 0, 6 * DAY_MS, 9 * DAY_MS)
    expect(curve.past.map((p) => p.mm)).toEqual([
      expect.closeTo(0.1),
      expect.closeTo(1.3),
      expect.closeTo(0.1),
      expect.closeTo(0.7),
    ])
    const width = curve.ahead.map((p) => p.highMm - p.lowMm)
    expect(width.at(-1)!).toBeGreaterThan(width[0]!)
    for (const p of curve.ahead) {
      expect(p.lowMm).toBeLessThanOrEqual(p.mm)
      expect(p.mm).toBeLessThanOrEqual(p.highMm)
    }
  })

  it('has nothing to say before the first service', () => {
    expect(tideCurve(DEFAULTS, [], 0.1, BEARD, 0, DAY_MS, 2 * DAY_MS)).toEqual({
      past: [],
      ahead: [],
    })
    expect(tideCurve(DEFAULTS, [5 * DAY_MS], 0.1, BEARD, 0, DAY_MS, 9 * DAY_MS).past).toEqual([])
  })
})
