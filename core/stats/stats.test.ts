import { digamma, gammaShape, logGamma, risingLog, trigamma } from './gamma.ts'
import jstat from 'jstat'
import { cumulativeStdNormalProbability } from 'simple-statistics'
import { normalCdf, Z_90 } from './normal.ts'
import { drawNormal, drawPoisson, mulberry32 } from './random.ts'

describe('the normal distribution', () => {
  it('agrees with reference libraries (jstat, simple-statistics)', () => {
    for (let x = -5; x <= 5; x += 0.37) {
      expect(normalCdf(x)).toBeCloseTo(jstat.normal.cdf(x, 0, 1), 6)
      // simple-statistics reads a printed table, so it stops at three figures.
      expect(Math.abs(normalCdf(x) - cumulativeStdNormalProbability(x))).toBeLessThan(0.0015)
    }
    expect(normalCdf(Z_90)).toBeCloseTo(0.9, 6)
  })
})

describe('drawing by chance', () => {
  it('is the same for the same seed and even over its range', () => {
    const a = mulberry32(7)
    const b = mulberry32(7)
    const list = Array.from({ length: 20_000 }, () => a())
    expect(Array.from({ length: 5 }, () => b())).toEqual(list.slice(0, 5))
    expect(list.every((v) => v >= 0 && v < 1)).toBe(true)
    expect(list.reduce((s, v) => s + v, 0) / list.length).toBeCloseTo(0.5, 1)
  })

  it('has the mean and the spread it should', () => {
    const random = mulberry32(11)
    const n = 20_000
    const normals = Array.from({ length: n }, () => drawNormal(random))
    const mean = (list: number[]) => list.reduce((s, v) => s + v, 0) / list.length
    expect(Math.abs(mean(normals))).toBeLessThan(0.04)
    expect(mean(normals.map((v) => v * v))).toBeCloseTo(1, 1)
    expect(mean(Array.from({ length: n }, () => drawPoisson(random, 1.7)))).toBeCloseTo(1.7, 1)
  })
})

describe('functions of the Gamma distribution', () => {
  it('are the tabulated ones (Abramowitz & Stegun 1964, tables 6.1 and 6.2, from memory)', () => {
    expect(digamma(1)).toBeCloseTo(-0.5772156649, 9)
    expect(digamma(2)).toBeCloseTo(0.4227843351, 9)
    expect(digamma(0.5)).toBeCloseTo(-1.963510026, 8)
    expect(trigamma(1)).toBeCloseTo(Math.PI ** 2 / 6, 8)
    expect(logGamma(0.5)).toBeCloseTo(Math.log(Math.sqrt(Math.PI)), 9)
    expect(logGamma(5)).toBeCloseTo(Math.log(24), 9)
    expect(risingLog(2.5, 3)).toBeCloseTo(Math.log(2.5 * 3.5 * 4.5), 12)
    for (const z of [0.1, 1.4])
      for (const y of [0.02, 0.3, 1.7, 6.5])
        expect(risingLog(z, y)).toBeCloseTo(logGamma(z + y) - logGamma(z), 9)
  })

  it('undo one another: a shape gives its gap, and the gap the shape', () => {
    for (const shape of [0.2, 0.9, 2, 7, 150])
      expect(gammaShape(Math.log(shape) - digamma(shape))).toBeCloseTo(shape, 3)
  })
})
