import { DEFAULTS } from '../house/index.ts'
import { toRadians } from './circular.ts'
import { isClean, relationToGrain, strokeAngle, usedBearing } from './relation.ts'
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

  it.each([
    [1, 0.25, 0.75],
    [0.25, 1, 0.75],
    [0.2, 6.1, 0.2 + 2 * Math.PI - 6.1],
    [4, 1, 3],
    [5, 1, 2 * Math.PI - 4],
  ])('of a stroke toward %d over growth toward %d is %d rad', (stroke, growth, angle) => {
    expect(strokeAngle(stroke, growth)).toBeCloseTo(angle, 9)
  })

  it('a first pass goes along the growth, rubbing against it', () => {
    expect([usedBearing(1, 'growth'), usedBearing(1, 'first-pass')]).toEqual([1, 1])
    expect(usedBearing(1, 'exfoliate')).toBeCloseTo(1 + Math.PI, 12)
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
