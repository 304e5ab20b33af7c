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
