import { DEFAULTS } from '../house/index.ts'
import { drawHistory } from '../simulate/truth.ts'
import { mulberry32 } from '../stats/index.ts'
import { expectedMean, type Reactivity } from '../skin/index.ts'
import { type ForecastHistory, checkForecast, forecastOf, forecastSums } from './calibration.ts'
import { rateSums, studioView } from './studio.ts'
import type { VisitFacts } from './facts.ts'
import { DAY_MS } from '../time/index.ts'

const ZONES = ['chin', 'jaw-left', 'jaw-right', 'neck-lower-left', 'neck-lower-right', 'cheek-left']

function histories(n: number, visits: number, factor = 1, seed = 31): ForecastHistory[] {
  const random = mulberry32(seed)
  return Array.from({ length: n }, (_, i) => {
    const reactivity = (['tough', 'average', 'reactive'] as const)[i % 3]!
    const mean = expectedMean(DEFAULTS, reactivity) * factor
    return {
      reactivity,
      visits: drawHistory(DEFAULTS, random, ZONES, reactivity, visits, () => 1 + 2 * random(), mean)
        .visits,
    }
  })
}

const expected = (reactivity: Reactivity) => expectedMean(DEFAULTS, reactivity)

describe('the forecast against what came', () => {
  it('holds on clients drawn from its own beliefs, and is better than the prior and than last time', () => {
    const found = checkForecast(DEFAULTS, histories(120, 12), expected)
    expect(found.p).toBeGreaterThan(0.01)
    expect(found.words).toContain('The forecast holds')
    expect(found.brier).toBeLessThan(found.brierPrior)
    expect(found.brier / found.brierLast).toBeLessThan(0.9)
    expect(found.visits).toBe(120 * 11)
    expect(found.forecasts).toBe(120 * 11 * ZONES.length)
    for (const bin of found.bins.filter((b) => b.forecasts > 200)) {
      expect(Math.abs(bin.said - bin.came)).toBeLessThan(0.06)
    }
  })

  it('says that it is off when skin reddens far more than was believed', () => {
    const twice = (r: Reactivity) => expectedMean(DEFAULTS, r) / 6
    const found = checkForecast(DEFAULTS, histories(120, 3), twice)
    expect(found.words).toContain('The forecast is off')
    expect(found.words).toContain('too little')
    expect(found.z).toBeGreaterThan(2.6)
  })

  it('with few visits says so', () => {
    expect(checkForecast(DEFAULTS, histories(2, 3), expected).words).toContain('Too few forecasts')
    expect(checkForecast(DEFAULTS, [], expected)).toMatchObject({ forecasts: 0, brier: 0 })
  })

  it('rings for about 5 of 100 studios whose forecast holds, though zones of a visit redden together', () => {
    let rang = 0
    for (let seed = 0; seed < 40; seed++) {
      if (checkForecast(DEFAULTS, histories(45, 8, 1, 100 + seed), expected).p < 0.05) rang++
    }
    expect(rang).toBeLessThanOrEqual(5)
  })

  it('is judged by client and by number of visits too, and beside the client’s own average', () => {
    const found = checkForecast(DEFAULTS, histories(120, 16), expected)
    expect(found.byVisits.map((b) => [b.from, b.to])).toEqual([
      [1, 3],
      [4, 11],
      [12, null],
    ])
    for (const b of found.byVisits) {
      expect(b.range.low).toBeLessThanOrEqual(b.came)
      expect(Math.abs(b.said - b.came)).toBeLessThan(0.04)
    }
    expect(found.byVisits.reduce((s, b) => s + b.forecasts, 0)).toBe(found.forecasts)
    expect(found.judged).toBe(120)
    expect(found.strayed).toBeLessThanOrEqual(14)
    // Who only counts how often this client reddened knows nothing of zones and loads.
    expect(found.skill).toBeGreaterThan(0.03)
    expect(found.skillRange.low).toBeLessThan(found.skill)
    expect(found.skillRange.low).toBeGreaterThan(0)
    expect(found.skill).toBeCloseTo(1 - found.brier / found.brierAverage, 12)
  })

  it('tells Spiegelhalter’s z over clients (by hand)', () => {
    // Two clients, one forecast each after a first visit: Σ (y − p)(1 − 2p) over the root of the sum of squares.
    const sums = forecastSums(
      DEFAULTS,
      {
        reactivity: 'average',
        visits: [[{ zoneId: 'chin', load: 1, grade: 0 }], [{ zoneId: 'chin', load: 2, grade: 3 }]],
      },
      0.3,
    )
    const p = sums.bins.reduce((s, b) => s + b[2], 0)
    expect(sums.up).toBeCloseTo((1 - p) * (1 - 2 * p), 12)
    expect(sums.off).toBeCloseTo(1 - p, 12)
    const other = { ...sums, up: -0.3 }
    expect(forecastOf(DEFAULTS, [sums, other]).z).toBeCloseTo(
      (sums.up - 0.3) / Math.hypot(sums.up, 0.3),
      12,
    )
  })

  it('scores by Brier’s own sum (by hand)', () => {
    // One client, one zone, prior Gamma(2, 2/0.3): P(y ≥ 2) at load 1 is 1 − p²(1 + 2q), p = b/(b+1), q = 1 − p.
    const found = checkForecast(
      DEFAULTS,
      [
        {
          reactivity: 'average',
          visits: [
            [{ zoneId: 'chin', load: 1, grade: 2 }],
            [{ zoneId: 'jaw-left', load: 1, grade: 2 }],
          ],
        },
      ],
      expected,
    )
    const p = 2 / 0.3 / (2 / 0.3 + 1)
    const odds = 1 - p * p * (1 + 2 * (1 - p))
    expect(found.brierPrior).toBeCloseTo((1 - odds) ** 2, 9)
    expect(found.brierLast).toBe(1)
  })
})

describe('the studio as a whole', () => {
  const visit = (i: number, over: Partial<VisitFacts> = {}): VisitFacts => ({
    visitId: `v${i}`,
    service: 'face-shave',
    workerId: 'ines',
    endedAtMs: i * 7 * DAY_MS,
    loads: { chin: 1 },
    worst: { chin: i % 2 === 0 ? 2 : 1 },
    bumps: null,
    choices: {
      zones: {
        chin: {
          relation: 'with',
          passes: 1,
          tool: 'single-edge',
          wear: 0,
          lanes: 10,
          nicks: i === 0 ? 1 : 0,
        },
      },
      slip: 'full',
      blade: 'shavette',
      exfoliate: 'acid',
    },
    products: [],
    routine: '',
    answered: ['24h'],
    due: { fromMs: (i * 7 + 4) * DAY_MS, toMs: (i * 7 + 8) * DAY_MS },
    ...over,
  })

  it('counts, with exact ranges, and ranks nobody', () => {
    const visits = Array.from({ length: 5 }, (_, i) =>
      visit(i, i === 4 ? { workerId: 'joren' } : {}),
    )
    const view = studioView(DEFAULTS, [{ clientId: 'a', visits }], 400 * DAY_MS)
    expect(view.red).toMatchObject({ hits: 3, of: 5 })
    // Clopper–Pearson for 3 of 5 (tables): 0.1466 to 0.9473.
    expect(view.red.low).toBeCloseTo(0.1466, 4)
    expect(view.red.high).toBeCloseTo(0.9473, 4)
    expect(view.answered).toMatchObject({ hits: 5, of: 15 })
    expect(view.onTime).toMatchObject({ hits: 4, of: 4 })
    expect(view.nicks).toMatchObject({ count: 1, lanes: 50, rate: 20 })
    // Joren did ten lanes: under thirty, so no figure of his own.
    expect(view.byWorker.map((w) => w.id)).toEqual(['ines'])
    expect(view.tooFew).toBe(1)
  })

  it('does not count an answer as missing while it may still come, and tells early and late returns', () => {
    const visits = [visit(0, { answered: [] }), visit(1, { answered: [] })]
    expect(studioView(DEFAULTS, [{ clientId: 'a', visits }], 7.5 * DAY_MS).answered).toMatchObject({
      of: 2,
    })
    const apart = [visit(0), visit(0, { endedAtMs: DAY_MS }), visit(0, { endedAtMs: 60 * DAY_MS })]
    const view = studioView(DEFAULTS, [{ clientId: 'a', visits: apart }], 400 * DAY_MS)
    expect([view.tooEarly, view.tooLate]).toEqual([1, 1])
    expect(studioView(DEFAULTS, [], 0)).toMatchObject({ visits: 0, nicks: { lanes: 0 } })
  })

  it('says when time alone will change what a client adds', () => {
    const one = [visit(0, { endedAtMs: 0, answered: ['48h'] })]
    // Day 1 is owed until hour 96, day 7 until hour 336; day 2 came.
    const at = (hours: number) => rateSums(DEFAULTS, one, hours * 3_600_000)
    expect(at(50)).toMatchObject({ asked: 1, given: 1, changesAtMs: 96 * 3_600_000 })
    expect(at(96)).toMatchObject({ asked: 2, given: 1, changesAtMs: 336 * 3_600_000 })
    expect(at(400)).toMatchObject({ asked: 3, given: 1, changesAtMs: null })
  })
})
