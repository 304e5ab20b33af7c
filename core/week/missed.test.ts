import { DEFAULTS } from '../house/index.ts'
import { drawGamma, mulberry32 } from '../stats/index.ts'
import { missedRate } from './missed.ts'

it('nothing seen is the prior, and each visit moves it', () => {
  expect(missedRate(DEFAULTS, 0, 0).mean).toBeCloseTo(0.08)
  expect(missedRate(DEFAULTS, 2, 4).mean).toBeCloseTo((0.32 + 2) / 8)
  expect(() => missedRate(DEFAULTS, 3, 2)).toThrow(RangeError)
})

it.each([0, 3, 12, 40])('after %i appointments the range holds', (of) => {
  const random = mulberry32(40 + of)
  let inside = 0
  const all = 3000
  for (let i = 0; i < all; i++) {
    const a = drawGamma(random, 0.32)
    const p = a / (a + drawGamma(random, 3.68))
    let missed = 0
    for (let k = 0; k < of; k++) if (random() < p) missed++
    const { low, high } = missedRate(DEFAULTS, missed, of)
    if (p >= low && p <= high) inside++
  }
  expect(inside / all).toBeGreaterThan(0.77)
  expect(inside / all).toBeLessThan(0.83)
})
