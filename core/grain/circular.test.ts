import fc from 'fast-check'
import { DomainError } from '../errors.ts'
import {
  angleBetween,
  summariseDirections,
  toDegrees,
  toRadians,
  wrapHalf,
  wrapTurn,
} from './circular.ts'

const angle = fc.double({ min: -50, max: 50, noNaN: true })
const angles = fc.array(angle, { minLength: 1, maxLength: 30 })

describe('summary of directions (M1)', () => {
  // Zar, Biostatistical Analysis, the eight leaning trees (recomputed).
  const trees = [45, 55, 81, 96, 110, 117, 132, 154].map(toRadians)

  it('agrees with the leaning trees', () => {
    const s = summariseDirections(trees)
    expect(toDegrees(s.mean)).toBeCloseTo(98.99, 1)
    expect(s.meanResultantLength).toBeCloseTo(0.8252, 4)
    expect(s.rayleighZ).toBeCloseTo(5.448, 2)
    expect(s.variance).toBeCloseTo(1 - 0.8252, 4)
    expect(s.standardDeviation).toBeCloseTo(Math.sqrt(-2 * Math.log(0.8252)), 3)
  })

  it('takes weights as if a reading were repeated', () => {
    const weighted = summariseDirections([0.2, 1.4], [3, 1])
    const repeated = summariseDirections([0.2, 0.2, 0.2, 1.4])
    expect(weighted.mean).toBeCloseTo(repeated.mean, 12)
    expect(weighted.meanResultantLength).toBeCloseTo(repeated.meanResultantLength, 12)
  })

  it('counts readings for Rayleigh’s z, whatever they weigh', () => {
    const s = summariseDirections([0.2, 1.4], [30, 10])
    expect(s.count).toBe(2)
    expect(s.rayleighZ).toBeCloseTo(2 * s.meanResultantLength ** 2, 12)
  })

  it('has no mean for nothing and for a balanced set', () => {
    expect(() => summariseDirections([])).toThrow(DomainError)
    expect(() => summariseDirections([0, Math.PI])).toThrow('cancel')
    expect(() =>
      summariseDirections([0.5, 0.5 + Math.PI / 2, 0.5 + Math.PI, 0.5 + 1.5 * Math.PI]),
    ).toThrow(DomainError)
    expect(() => summariseDirections([1], [0])).toThrow(DomainError)
  })

  it('turns with its readings', () => {
    fc.assert(
      fc.property(angles, angle, (list, by) => {
        let before
        try {
          before = summariseDirections(list)
        } catch {
          return
        }
        fc.pre(before.meanResultantLength > 1e-3)
        const after = summariseDirections(list.map((a) => a + by))
        expect(Math.abs(wrapHalf(after.mean - before.mean - by))).toBeLessThan(1e-6)
        expect(after.meanResultantLength).toBeCloseTo(before.meanResultantLength, 9)
      }),
    )
  })

  it('mirrors with its readings', () => {
    fc.assert(
      fc.property(angles, (list) => {
        let before
        try {
          before = summariseDirections(list)
        } catch {
          return
        }
        fc.pre(before.meanResultantLength > 1e-3)
        const after = summariseDirections(list.map((a) => -a))
        expect(Math.abs(wrapHalf(after.mean + before.mean))).toBeLessThan(1e-6)
      }),
    )
  })
})

describe('the angle between two directions', () => {
  it('is that of the shorter way, however often either goes round', () => {
    expect(angleBetween(0.3, 1)).toBeCloseTo(0.7, 12)
    expect(angleBetween(6.2, 0.1)).toBeCloseTo(2 * Math.PI - 6.1, 12)
    expect(angleBetween(1, 1 + Math.PI)).toBeCloseTo(Math.PI, 12)
    fc.assert(
      fc.property(angle, angle, (a, b) => {
        expect(angleBetween(a, b)).toBeCloseTo(Math.abs(wrapHalf(a - b)), 9)
      }),
    )
  })
})

describe('wrapping', () => {
  it('brings any angle home and keeps its direction', () => {
    fc.assert(
      fc.property(angle, (a) => {
        expect(wrapTurn(a)).toBeGreaterThanOrEqual(0)
        expect(wrapTurn(a)).toBeLessThan(2 * Math.PI)
        expect(wrapHalf(a)).toBeGreaterThan(-Math.PI - 1e-12)
        expect(wrapHalf(a)).toBeLessThanOrEqual(Math.PI)
        expect(Math.cos(wrapTurn(a))).toBeCloseTo(Math.cos(a), 9)
        expect(Math.sin(wrapHalf(a))).toBeCloseTo(Math.sin(a), 9)
      }),
    )
  })

  it('does not round a hair under zero up to a full turn', () => {
    expect(wrapTurn(-1e-18)).toBe(0)
  })
})
