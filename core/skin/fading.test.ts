import { DEFAULTS } from '../house/index.ts'
import { drawFaded } from '../simulate/index.ts'
import { mulberry32 } from '../stats/index.ts'
import { learnFading, meanFading, fadedOdds } from './fading.ts'

describe('fading redness', () => {
  it('of one grade is exponential, of two the sum of two (by hand)', () => {
    expect(fadedOdds(1, 2, 0.5)).toBeCloseTo(1 - Math.exp(-1), 10)
    expect(fadedOdds(2, 2, 0.5)).toBeCloseTo(1 - 2 * Math.exp(-1), 10)
    expect(fadedOdds(0, 0, 0.5)).toBe(1)
    expect(fadedOdds(3, 0, 0.5)).toBe(0)
  })

  it('learns a client’s own speed from pairs of looks', () => {
    const random = mulberry32(8)
    const learned = (perDay: number) =>
      meanFading(
        learnFading(
          DEFAULTS,
          Array.from({ length: 150 }, () => {
            const grade = 1 + Math.floor(random() * 3)
            return { grade, later: drawFaded(random, grade, 1, perDay), days: 1 }
          }),
        ),
      )
    expect(learned(0.5)).toBeLessThan(0.62)
    expect(learned(0.5)).toBeGreaterThan(0.4)
    expect(learned(1.8)).toBeGreaterThan(1.3)
  })

  it('takes no speed from redness that rose, and keeps its own belief without looks', () => {
    const none = learnFading(DEFAULTS, [])
    expect(learnFading(DEFAULTS, [{ grade: 1, later: 3, days: 1 }])).toEqual(none)
    expect(none.reduce((s, b) => s + b.weight, 0)).toBeCloseTo(1, 10)
  })
})
