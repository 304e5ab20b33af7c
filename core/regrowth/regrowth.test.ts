import { DEFAULTS, DEFAULT_SCHOOLS } from '../house/index.ts'
import { drawNormal, mulberry32, normalCdf } from '../stats/index.ts'
import { ALWAYS_OPEN, DAY_MS } from '../time/index.ts'
import {
  daysToLength,
  daysUntil,
  hairLengthMm,
  logRate,
  priorGrowth,
  rateAt,
  shownOdds,
  thresholdOf,
  type Growth,
  type GrowthReading,
} from './growth.ts'
import { learnGrowths, type PlacedReading } from './learnGrowth.ts'
import { doubt } from './plausible.ts'
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

  const learned = (prior: Growth, readings: readonly GrowthReading[]): Growth =>
    learnGrowths(
      DEFAULTS,
      { chin: prior },
      readings.map((r) => ({ ...r, zoneId: 'chin' })),
    )['chin']!

  it('learns from a length as the normal–normal update does where growth hardly differs between people', () => {
    // The rate is log-normal; close to its mean that is the normal, and Laplace's fit is exact.
    const prior: Growth = { curve: 'terminal', mean: 0.3, sd: 0.012 }
    const after = learned(prior, [{ kind: 'measured', days: 4, lengthMm: 1.4, leftMm: 0.1 }])
    const wPrior = 1 / 0.012 ** 2
    const wReading = (4 / 0.15) ** 2
    expect(after.mean).toBeCloseTo((0.3 * wPrior + 0.325 * wReading) / (wPrior + wReading), 3)
    expect(after.sd).toBeCloseTo(1 / Math.sqrt(wPrior + wReading), 3)
  })

  it.each([
    ['beard', BEARD, { days: 2, notYetDays: 1 }, 0.5],
    ['fuzz', FUZZ, { days: 9, notYetDays: 7 }, 0.3],
  ] as const)(
    'agrees with brute force over rate, threshold and care for days that were told (interval censoring): %s',
    (_hair, prior, told, feltMm) => {
      // One careful person, one zone, one answer: felt on that day, not before the other.
      const reading = { kind: 'felt', leftMm: 0.1, ...told } as const
      const { mu, s } = logRate(prior)
      const length = (rate: number, t: number) =>
        prior.curve === 'fuzz' ? 2 - 1.9 * Math.exp((-rate * t) / 2) : 0.1 + rate * t
      let [total, first, second] = [0, 0, 0]
      for (let i = -40; i <= 40; i++) {
        for (let k = -30; k <= 30; k++) {
          for (const care of [-1.4, -0.7, 0, 0.7, 1.4]) {
            const theta = mu + (s * i) / 10
            const spread = 0.15 * Math.exp(0.5 * care)
            const at = (t: number) => (length(Math.exp(theta), t) - feltMm - 0.01 * k) / spread
            const seen = normalCdf(at(told.days + 0.5)) - normalCdf(at(told.notYetDays))
            const w =
              (Math.exp(-0.5 * ((i / 10) ** 2 + (k / 10) ** 2 + care ** 2)) * seen) /
              (1 - normalCdf(at(0)))
            total += w
            first += w * theta
            second += w * theta * theta
          }
        }
      }
      const mean = first / total
      const after = logRate(learned(prior, [reading]))
      expect(Math.abs(after.mu - mean)).toBeLessThan(0.15 * s)
      expect(after.s / Math.sqrt(second / total - mean * mean)).toBeGreaterThan(0.9)
      expect(after.s / Math.sqrt(second / total - mean * mean)).toBeLessThan(1.1)
    },
  )

  it('counts a longer wait for more: the spread of a rate falls with the days', () => {
    const short = learned(BEARD, [{ kind: 'measured', days: 1, lengthMm: 0.5, leftMm: 0.1 }])
    const long = learned(BEARD, [{ kind: 'measured', days: 6, lengthMm: 2.5, leftMm: 0.1 }])
    expect(long.sd).toBeLessThan(short.sd)
    expect(learned(BEARD, [{ kind: 'felt', days: 0, leftMm: 0.1 }])).toEqual(BEARD)
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
      const after = learned(prior, readings)
      expect(Math.abs(after.mean - truth) / truth).toBeLessThan(0.05)
      expect(after.sd).toBeLessThan(prior.sd / 3)
    }
  })

  it('what a pass left standing enters: the same day over more stubble is slower growth', () => {
    const felt = (leftMm: number) => learned(BEARD, [{ kind: 'felt', days: 2, leftMm }]).mean
    expect(felt(0.3)).toBeLessThan(felt(0.1))
  })

  it('learns a threshold of the person’s own from zones that agree, and tells it of the others', () => {
    const readings = (['chin', 'jaw-left', 'jaw-right', 'neck-lower-left'] as const).flatMap(
      (zoneId) =>
        Array.from({ length: 8 }, (): PlacedReading[] => [
          { zoneId, kind: 'measured', days: 4, lengthMm: 1.3, leftMm: 0.1 },
          // At 0.3 mm a day hair is 0.7 mm long by then.
          { zoneId, kind: 'felt', days: 2, leftMm: 0.1 },
        ]).flat(),
    )
    const prior = Object.fromEntries(
      ['chin', 'jaw-left', 'jaw-right', 'neck-lower-left', 'cheek-lower-left'].map((z) => [
        z,
        BEARD,
      ]),
    )
    const found = learnGrowths(DEFAULTS, prior, readings)
    expect(thresholdOf(DEFAULTS, BEARD, 'felt')).toEqual({ mm: 0.5, sd: 0.1, withRate: 0 })
    for (const g of Object.values(found)) {
      expect(thresholdOf(DEFAULTS, g, 'felt').mm).toBeGreaterThan(0.57)
      expect(thresholdOf(DEFAULTS, g, 'felt').sd).toBeLessThan(0.07)
      expect(thresholdOf(DEFAULTS, g, 'seen').mm).toBeCloseTo(1, 1)
    }
    // The one that nobody told of moves with the person, but less.
    expect(found['cheek-lower-left']!.sd).toBeGreaterThan(2 * found['chin']!.sd)
  })

  it('"not yet" says that growth is slow, or at least not fast', () => {
    const slow = learned(BEARD, [{ kind: 'not-seen', days: 4, leftMm: 0.1 }])
    expect(slow.mean).toBeLessThan(0.9 * BEARD.mean)
    expect(learned(BEARD, [{ kind: 'not-seen', days: 0.5, leftMm: 0.1 }]).mean).toBeCloseTo(0.3, 2)
  })

  it('what was told of no zone in particular is where hair shows first: no zone shows before it', () => {
    const late = Array.from({ length: 6 }, (): PlacedReading => ({
      ...{ zoneId: null, kind: 'seen', days: 4, leftMm: 0.1 },
    }))
    const prior = { chin: priorGrowth(DEFAULTS, 'chin', 'beard'), 'jaw-left': BEARD }
    const found = learnGrowths(DEFAULTS, prior, late)
    for (const g of Object.values(found)) {
      expect(daysUntil(DEFAULTS, g, 'seen', 0.1).even).toBeGreaterThan(3.5)
      for (const days of [2, 3, 4, 6])
        expect(shownOdds(DEFAULTS, g, 'seen', 0.1, days)).toBeLessThanOrEqual(
          shownOdds(DEFAULTS, g.notBefore!, 'seen', 0.1, days),
        )
    }
  })

  it('asks about what nobody would believe, and does not learn from it', () => {
    const wild = { kind: 'measured', days: 5, lengthMm: 20, leftMm: 0.1 } as const
    expect(doubt(DEFAULTS, BEARD, wild)).toContain('4.0 mm a day')
    expect(learned(BEARD, [wild])).toEqual(BEARD)
    expect(doubt(DEFAULTS, BEARD, { ...wild, lengthMm: 1.6 })).toBeUndefined()
    expect(doubt(DEFAULTS, BEARD, { ...wild, days: 30, lengthMm: 0.2 })).toContain(
      'shaved in between',
    )
    expect(
      doubt(DEFAULTS, { ...FUZZ, sd: 0.006 }, { kind: 'seen', days: 0.5, leftMm: 0.1 }),
    ).toContain('sooner')
    expect(doubt(DEFAULTS, BEARD, { kind: 'felt', days: 30, leftMm: 0.1 })).toContain('later')
    expect(doubt(DEFAULTS, BEARD, { kind: 'felt', days: 1, leftMm: 0.1 })).toBeUndefined()
    expect(doubt(DEFAULTS, BEARD, { kind: 'not-felt', days: 30, leftMm: 0.1 })).toBeUndefined()
    const eye = { ...wild, lengthMm: 5, method: 'eye' } as const
    expect(doubt(DEFAULTS, BEARD, { ...eye, method: 'photo' })).toBeDefined()
    expect(doubt(DEFAULTS, BEARD, eye)).toBeUndefined()
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

  it('forecasts so that a tenth of the belief lies beyond each end, as drawn by chance', () => {
    const random = mulberry32(5)
    const range = daysUntil(DEFAULTS, BEARD, 'seen', 0.12)
    const { mu, s } = logRate(BEARD)
    let [early, late, even] = [0, 0, 0]
    const many = 20_000
    for (let i = 0; i < many; i++) {
      const rate = Math.exp(mu + s * drawNormal(random))
      const wanted = 1 + 0.1 * drawNormal(random) + 0.15 * drawNormal(random)
      const days = (wanted - 0.12) / rate
      if (days < range.early) early++
      if (days > range.late) late++
      if (days < range.even) even++
    }
    expect(early / many).toBeCloseTo(0.1, 1.7)
    expect(late / many).toBeCloseTo(0.1, 1.7)
    expect(even / many).toBeCloseTo(0.5, 1.7)
    expect(shownOdds(DEFAULTS, BEARD, 'seen', 0.12, range.late)).toBeCloseTo(0.9, 6)
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
      method: 'blade',
      client: SKIN,
      schools: DEFAULT_SCHOOLS,
      lastAtMs: 0,
      zones: [
        { zoneId: 'chin', name: 'Chin', leftMm: 0.12 },
        { zoneId: 'jaw-left', name: 'Jaw', leftMm: 0.12 },
      ],
      growth: (z) => priorGrowth(DEFAULTS, z, 'beard'),
      redness: [],
      ...{ readyMs: 0, closed: ALWAYS_OPEN, offset: 0 },
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
        method: 'blade',
        client: SKIN,
        schools: DEFAULT_SCHOOLS,
        lastAtMs: 0,
        zones: [],
        growth: () => BEARD,
        redness: [],
        ...{ readyMs: 0, closed: ALWAYS_OPEN, offset: 0 },
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
      expect.closeTo(0.1 + 4 * rateAt(BEARD, 0)),
      expect.closeTo(0.1),
      expect.closeTo(0.1 + 2 * rateAt(BEARD, 0)),
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
