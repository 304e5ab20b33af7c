import { DEFAULTS } from '../house/index.ts'
import { toRadians } from './circular.ts'
import { isClean, relationToGrain, strokeAngle } from './relation.ts'
import fc from 'fast-check'

describe('relation of a stroke to the grain (M2)', () => {
  it.each([
    [0, 'with'],
    [45, 'with'],
    [45.1, 'across'],
    [90, 'across'],
    [134.9, 'across'],
    [135, 'against'],
    [180, 'against'],
  ])('%d° goes %s', (deg, words) => {
    expect(relationToGrain(DEFAULTS, toRadians(deg))).toBe(words)
  })

  it.each([
    [0, true],
    [19.9, true],
    [20.1, false],
    [70.1, true],
    [69.9, false],
    [110.1, false],
    [160.1, true],
    [159.9, false],
  ])('%d° is clean: %s', (deg, clean) => {
    expect(isClean(DEFAULTS, toRadians(deg))).toBe(clean)
  })

  it('is the same whichever way round and whoever is first', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -20, max: 20, noNaN: true }),
        fc.double({ min: -20, max: 20, noNaN: true }),
        (a, b) => {
          expect(strokeAngle(a, b)).toBeCloseTo(strokeAngle(b, a), 9)
          expect(strokeAngle(a + 2 * Math.PI, b)).toBeCloseTo(strokeAngle(a, b), 9)
          expect(strokeAngle(a, b)).toBeLessThanOrEqual(Math.PI + 1e-12)
        },
      ),
    )
  })
})
