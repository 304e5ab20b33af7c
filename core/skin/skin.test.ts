import { DEFAULTS } from '../house/index.ts'
import { toRadians } from '../grain/index.ts'
import { gammaPoissonAtLeast, gammaPoissonPmf, drawPoisson, mulberry32 } from '../stats/index.ts'
import { directionFactor, passLoad, type PassLoad } from './load.ts'
import { meanSensitivity, priorSensitivity, rednessOdds, updateSensitivity } from './sensitivity.ts'
import fc from 'fast-check'
import jstat from 'jstat'

const pass = (over: Partial<PassLoad> = {}): PassLoad => ({
  angle: 0,
  tool: 'single-edge',
  slip: 'full',
  hair: 'terminal',
  wear: 0,
  again: false,
  ...over,
})

describe('load of a pass (M7)', () => {
  it('is 1 with, 1.6 across, 2.5 against, and straight between', () => {
    expect([0, 45, 90, 135, 180].map((d) => directionFactor(DEFAULTS)(toRadians(d)))).toEqual([
      1,
      expect.closeTo(1.3, 9),
      expect.closeTo(1.6, 9),
      expect.closeTo(2.05, 9),
      expect.closeTo(2.5, 9),
    ])
  })

  it.each([
    [{}, 1],
    [{ tool: 'guarded' as const }, 0.8],
    [{ tool: 'trimmer' as const }, 0.4],
    [{ slip: 'damp' as const }, 1.15],
    [{ slip: 'dry' as const }, 1.5],
    [{ slip: 'dry' as const, hair: 'fuzz' as const }, 1.1],
    [{ wear: 1 }, 1.5],
    [{ again: true }, 1.5],
    [{ tool: 'cartridge' as const }, 1.1],
    [{ tool: 'cartridge' as const, angle: Math.PI / 2 }, 1.6 * 1.4],
    [{ tool: 'cartridge' as const, angle: Math.PI }, 2.5 * 2.4],
    [
      { angle: Math.PI / 2, slip: 'damp' as const, wear: 0.5, again: true },
      1.6 * 1.15 * 1.25 * 1.5,
    ],
  ])('multiplies its factors: %j', (over, load) => {
    expect(passLoad(DEFAULTS, pass(over))).toBeCloseTo(load, 9)
  })
})

describe('learning a skin (M7)', () => {
  it('starts from what was told, with shape 2', () => {
    expect(meanSensitivity(priorSensitivity(DEFAULTS, 'tough'))).toBeCloseTo(0.15)
    expect(meanSensitivity(priorSensitivity(DEFAULTS, 'average'))).toBeCloseTo(0.3)
    expect(meanSensitivity(priorSensitivity(DEFAULTS, 'reactive'))).toBeCloseTo(0.6)
    expect(priorSensitivity(DEFAULTS, 'average').shape).toBe(2)
  })

  it('updates by hand: shape + grades, rate + loads', () => {
    // Prior Gamma(2, 6.667); three services of load 1, 2.6, 1 with grades 0, 2, 1.
    const after = updateSensitivity(priorSensitivity(DEFAULTS, 'average'), [
      { load: 1, grade: 0 },
      { load: 2.6, grade: 2 },
      { load: 1, grade: 1 },
    ])
    expect(after.shape).toBe(5)
    expect(after.rate).toBeCloseTo(2 / 0.3 + 4.6, 12)
  })

  it('gives an unrelated order of outcomes the same answer', () => {
    const outcome = fc.record({
      load: fc.double({ min: 0.1, max: 6, noNaN: true }),
      grade: fc.integer({ min: 0, max: 4 }),
    })
    fc.assert(
      fc.property(fc.array(outcome, { maxLength: 12 }), (list) => {
        const a = updateSensitivity(priorSensitivity(DEFAULTS, 'average'), list)
        const b = updateSensitivity(priorSensitivity(DEFAULTS, 'average'), [...list].reverse())
        expect(a.shape).toBe(b.shape)
        expect(a.rate).toBeCloseTo(b.rate, 9)
      }),
    )
  })
})

describe('the forecast', () => {
  it('sums to one', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.3, max: 30, noNaN: true }),
        fc.double({ min: 0.5, max: 60, noNaN: true }),
        fc.double({ min: 0.01, max: 8, noNaN: true }),
        (a, b, load) => {
          const sum = gammaPoissonPmf(a, b, load, 4000).reduce((s, p) => s + p, 0)
          expect(sum).toBeCloseTo(1, 6)
        },
      ),
      { numRuns: 60 },
    )
  })

  it('is the negative binomial of a reference library (jstat)', () => {
    for (const [a, b, load] of [
      [2, 6.667, 1],
      [5, 3, 2.6],
      [9, 20, 4.1],
    ] as const) {
      const p = b / (b + load)
      gammaPoissonPmf(a, b, load, 6).forEach((mass, y) => {
        expect(mass).toBeCloseTo(jstat.negbin.pdf(y, a, p), 6)
      })
    }
  })

  it('equals simulation within Monte-Carlo error', () => {
    const random = mulberry32(3)
    const [a, b, load] = [2, 2 / 0.3, 2.6]
    const n = 60_000
    let hits = 0
    for (let i = 0; i < n; i++) {
      // Gamma with whole shape: a sum of exponentials.
      const k = (-Math.log(1 - random()) - Math.log(1 - random())) / b
      if (drawPoisson(random, k * load) >= 2) hits++
    }
    const p = gammaPoissonAtLeast(a, b, load, 2)
    expect(Math.abs(hits / n - p)).toBeLessThan(4 * Math.sqrt((p * (1 - p)) / n))
  })

  it('rises with load and reaches certainty for "at least none"', () => {
    const s = priorSensitivity(DEFAULTS, 'reactive')
    expect(rednessOdds(s, 1)).toBeLessThan(rednessOdds(s, 2.6))
    expect(rednessOdds(s, 1, 0)).toBe(1)
  })
})
