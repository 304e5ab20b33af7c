import { DEFAULTS, DEFAULT_SCHOOLS } from '../house/index.ts'
import { SKIN } from '../testing/client.ts'
import { ALWAYS_OPEN, DAY_MS, HOUR_MS } from '../time/index.ts'
import { EVENT_NEEDS, hairAt, planBack, rednessAt, type EventQuestion } from './backPlan.ts'
import { EVENT_KINDS } from './eventKinds.ts'
import { carePlan } from '../care/index.ts'
import fc from 'fast-check'
import jStat from 'jstat'

const BEARD = { curve: 'terminal' as const, mean: 0.38, sd: 0.08 }
const CALM = { shape: 2, rate: 2 / 0.15 }
const zone = (over: Partial<EventQuestion['zones'][number]> = {}) => ({
  name: 'Chin',
  load: 1,
  leftMm: 0.14,
  sensitivity: CALM,
  growth: BEARD,
  ...over,
})
const FADING = [{ perDay: 0.8, weight: 1 }]
const EVENT = Date.UTC(2026, 5, 20, 10)
const ask = (over: Partial<EventQuestion> = {}): EventQuestion => ({
  kind: 'mask-seal',
  eventAtMs: EVENT,
  nowMs: EVENT - 20 * DAY_MS,
  minutes: 40,
  zones: [zone()],
  fading: FADING,
  clearances: carePlan(DEFAULTS, 'face-shave', SKIN, DEFAULT_SCHOOLS, false, 0).clearances,
  closed: ALWAYS_OPEN,
  offset: () => 120,
  ...over,
})

describe('odds at an event', () => {
  it('of hair follow M10: rate, threshold and scatter, near enough one normal by hand', () => {
    // P(0.14 + g t ≥ 0.5) at t = 1 day: 0.52 against 0.5, spread √(0.08² + 0.1² + 0.15²) = 0.197, a little less as rates are skewed.
    expect(hairAt(DEFAULTS, [zone()], DAY_MS, 'felt')).toBeCloseTo(
      jStat.normal.cdf(0.02 / 0.197, 0, 1),
      1.4,
    )
    expect(hairAt(DEFAULTS, [zone()], 0, 'felt')).toBe(0)
    expect(hairAt(DEFAULTS, [zone({ leftMm: 0.6 })], 0, 'felt')).toBe(1)
  })

  it('of redness are the worst zone’s, negative binomial, fading grade by grade', () => {
    // P(y = 0 … 3), y ~ NB(2, p = b/(b + L)): (y + 1) p² (1 − p)^y.
    const p = 2 / 0.6 / (2 / 0.6 + 2)
    const of = (y: number) => (y + 1) * p * p * (1 - p) ** y
    const red = zone({ sensitivity: { shape: 2, rate: 2 / 0.6 }, load: 2 })
    const top = 1 - of(0) - of(1) - of(2) - of(3)
    expect(rednessAt([zone(), red], FADING, 0)).toBeCloseTo(of(2) + of(3) + top, 9)
    // After a day at 0.8 grades a day: from 2 no step, from 3 at most one, from 4 at most two may have gone.
    const none = Math.exp(-0.8)
    const byHand = of(2) * none + of(3) * none * 1.8 + top * none * (1.8 + 0.32)
    expect(rednessAt([red], FADING, 24 * HOUR_MS)).toBeCloseTo(byHand, 9)
    expect(rednessAt([red], FADING, 14 * DAY_MS)).toBeLessThan(0.001)
  })

  it('only rise for hair and only fall for redness', () => {
    const growth = fc.record({
      curve: fc.constantFrom('terminal' as const, 'fuzz' as const),
      mean: fc.double({ min: 0.02, max: 0.6, noNaN: true }),
      sd: fc.double({ min: 0.005, max: 0.1, noNaN: true }),
    })
    const age = fc.double({ min: 0, max: 40 * DAY_MS, noNaN: true })
    fc.assert(
      fc.property(growth, age, age, (g, a, b) => {
        const [early, late] = [Math.min(a, b), Math.max(a, b)]
        const zones = [zone({ growth: g })]
        expect(hairAt(DEFAULTS, zones, late, 'felt')).toBeGreaterThanOrEqual(
          hairAt(DEFAULTS, zones, early, 'felt'),
        )
        expect(rednessAt(zones, FADING, late)).toBeLessThanOrEqual(rednessAt(zones, FADING, early))
      }),
    )
  })
})

describe('planning back from an event (M15)', () => {
  it('a mask seal check: the evening before, after the mask’s own twelve hours', () => {
    const plan = planBack(DEFAULTS, ask())
    expect(plan.fits).toBe(true)
    // Latest by hand: 12 h clear of masks and 40 min of service before 10:00 UTC.
    expect(plan.latestMs).toBe(EVENT - 12 * HOUR_MS - 40 * 60_000)
    // Earliest: hair felt with 35 %: 0.14 + 0.38 t lies 0.385 spreads below 0.5, √((0.08 t)² + 0.18²), so t = 0.76 days.
    expect((EVENT - plan.earliestMs - 40 * 60_000) / DAY_MS).toBeCloseTo(0.76, 1)
    expect(hairAt(DEFAULTS, [zone()], EVENT - plan.earliestMs - 40 * 60_000, 'felt')).toBeCloseTo(
      0.35,
      2,
    )
    expect(plan.bestMs).toBeGreaterThanOrEqual(plan.earliestMs)
    expect(plan.bestMs).toBeLessThanOrEqual(plan.latestMs)
    expect(plan.atBest.hair).toBeLessThanOrEqual(0.35)
  })

  it('says so where nothing fits, puts skin first, and does not hide what hair will be', () => {
    const plan = planBack(DEFAULTS, ask({ kind: 'dive' }))
    expect(plan.fits).toBe(false)
    expect(plan.bestMs).toBeLessThanOrEqual(plan.latestMs)
    expect(plan.atBest.hair).toBeGreaterThan(0.35)
    expect(plan.reasons.some((r) => r.text.includes('skin comes first'))).toBe(true)
  })

  it('says when it would fit only while the house is closed', () => {
    // In a zone ten hours east the evening of before is the night.
    const plan = planBack(DEFAULTS, ask({ offset: () => 600 }))
    expect(plan).toMatchObject({ fits: false, outOfHours: true })
    expect(plan.reasons.some((r) => r.text.includes('house is closed'))).toBe(true)
    expect(plan.earliestMs).toBeLessThan(plan.latestMs)
  })

  it('says it is too late when the event is tomorrow and the skin needs longer', () => {
    const plan = planBack(DEFAULTS, ask({ kind: 'sun', nowMs: EVENT - 10 * HOUR_MS }))
    expect(plan.fits).toBe(false)
    expect(plan.reasons.some((r) => r.text.includes('too late'))).toBe(true)
  })

  it('waits for the skin of last time', () => {
    const notBeforeMs = EVENT - 14 * HOUR_MS
    const plan = planBack(DEFAULTS, ask({ notBeforeMs, notBeforeWhy: 'Still red.' }))
    expect(plan.earliestMs).toBe(notBeforeMs)
    expect(plan.reasons.map((r) => r.text)).toContain('Still red.')
  })

  it('keeps its word for any event: what fits meets every limit, within working hours', () => {
    const any = fc.record({
      kind: fc.constantFrom(...EVENT_KINDS),
      mean: fc.double({ min: 0.05, max: 0.5, noNaN: true }),
      k: fc.double({ min: 0.05, max: 0.8, noNaN: true }),
      load: fc.double({ min: 0.5, max: 3, noNaN: true }),
      ahead: fc.integer({ min: 1, max: 60 * 24 }),
      offset: fc.integer({ min: -11, max: 13 }),
    })
    fc.assert(
      fc.property(any, ({ kind, mean, k, load, ahead, offset }) => {
        const q = ask({
          kind,
          nowMs: EVENT - ahead * HOUR_MS,
          offset: () => 60 * offset,
          zones: [
            zone({
              load,
              growth: { ...BEARD, mean, sd: mean / 5 },
              sensitivity: { shape: 2, rate: 2 / k },
            }),
          ],
        })
        const plan = planBack(DEFAULTS, q)
        expect(plan.curve.length).toBeGreaterThan(10)
        if (!plan.fits) return
        expect(plan.bestMs).toBeGreaterThanOrEqual(q.nowMs)
        expect(plan.atBest.redness).toBeLessThanOrEqual(0.1 + 1e-9)
        expect(plan.atBest.hair).toBeLessThanOrEqual(0.35 + 1e-9)
        const hour = new Date(plan.bestMs + offset * HOUR_MS).getUTCHours()
        expect(hour).toBeGreaterThanOrEqual(9)
        expect(hour + 40 / 60).toBeLessThanOrEqual(18)
        const ends = plan.bestMs + 40 * 60_000
        for (const c of q.clearances) {
          if (c.kind === 'avoid' && EVENT_NEEDS[kind].clear.includes(c.id))
            expect(ends + c.untilMs).toBeLessThanOrEqual(EVENT)
        }
      }),
    )
  })
})
