import fc from 'fast-check'
import jstat from 'jstat'
import { ewma } from './ewma.ts'
import { permutationP } from './permutation.ts'
import { drawPoisson, mulberry32 } from './random.ts'
import { clopperPearson, garwood, holm, rateRatio, zOfT } from './rates.ts'

describe('one rate', () => {
  // Garwood 1936, 95 % limits; widely tabulated (from memory; recomputed independently).
  it.each([
    [0, 0, 3.689],
    [1, 0.0253, 5.572],
    [3, 0.619, 8.767],
    // χ² tables: 3.24697 / 2.
    [5, 1.6235, 11.668],
    [10, 4.795, 18.39],
    [20, 12.217, 30.888],
  ])('of %d lies within Garwood’s limits', (count, low, high) => {
    const found = garwood(count)
    expect(found.low).toBeCloseTo(low, 3)
    expect(found.high).toBeCloseTo(high, 3)
  })

  it('scales with its exposure and refuses none', () => {
    expect(garwood(10, 4).low).toBeCloseTo(garwood(10).low / 4, 10)
    expect(() => garwood(1, 0)).toThrow(RangeError)
    expect(() => garwood(-1)).toThrow('count')
  })

  it('is the inverse of the Poisson tails', () => {
    for (const n of [1, 4, 17, 60]) {
      const { low, high } = garwood(n, 1, 0.9)
      // P(N ≥ n | low) = P(N ≤ n | high) = 5 %, summed term by term.
      const atMost = (k: number, m: number) => {
        let term = Math.exp(-m)
        let sum = term
        for (let i = 1; i <= k; i++) sum += term *= m / i
        return sum
      }
      expect(1 - atMost(n - 1, low)).toBeCloseTo(0.05, 6)
      expect(atMost(n, high)).toBeCloseTo(0.05, 6)
    }
  })
})

describe('a share', () => {
  // R's own example of binom.test: Mendel's peas after Conover 1971, p. 97: 682 of 925, 95 % limits 0.7076683 and
  // 0.7654066 (from memory of the printed output).
  it('is Conover’s worked example', () => {
    const found = clopperPearson(682, 925)
    expect(found.low).toBeCloseTo(0.7076683, 6)
    expect(found.high).toBeCloseTo(0.7654066, 6)
  })

  it('closes at the ends', () => {
    expect(clopperPearson(0, 10)).toEqual({ low: 0, high: expect.closeTo(0.3085, 4) })
    expect(clopperPearson(10, 10).high).toBe(1)
    expect(clopperPearson(0, 0)).toEqual({ low: 0, high: 1 })
    expect(() => clopperPearson(3, 2)).toThrow(RangeError)
  })
})

describe('two rates', () => {
  it('give the binomial’s own tails', () => {
    const found = rateRatio({ count: 21, exposure: 12 }, { count: 4, exposure: 10 })
    const share = 10 / 22
    expect(found.p).toBeCloseTo(2 * jstat.binomial.cdf(4, 25, share), 8)
    expect(found.ratio).toBeCloseTo(4 / 10 / (21 / 12), 12)
    const [a, b] = [clopperPearson(4, 25).low, clopperPearson(4, 25).high]
    expect(found.low).toBeCloseTo((a / (1 - a)) * 1.2, 10)
    expect(found.high).toBeCloseTo((b / (1 - b)) * 1.2, 10)
  })

  it('of nothing say nothing, and the other way round turn over', () => {
    expect(rateRatio({ count: 0, exposure: 3 }, { count: 0, exposure: 3 })).toMatchObject({
      p: 1,
      low: 0,
      high: Infinity,
    })
    fc.assert(
      fc.property(fc.nat(40), fc.nat(40), fc.integer({ min: 1, max: 30 }), (n1, n2, e) => {
        const a = rateRatio({ count: n1, exposure: e }, { count: n2, exposure: 7 })
        const b = rateRatio({ count: n2, exposure: 7 }, { count: n1, exposure: e })
        expect(a.p).toBeCloseTo(b.p, 6)
        // jstat finds tails and quantiles to about six digits.
        if (n1 > 0 && n2 > 0) expect(a.low * b.high).toBeCloseTo(1, 4)
        // The range holds 1 exactly when the test does not speak.
        if (a.p > 0.0501) expect(a.low <= 1 && a.high >= 1).toBe(true)
        if (a.p < 0.0499) expect(a.low > 1 || a.high < 1).toBe(true)
      }),
    )
  })
})

describe('looking more than once', () => {
  it('is Holm’s correction, as R’s p.adjust prints it', () => {
    // p.adjust(c(0.01, 0.04, 0.03, 0.005), "holm") = 0.03 0.06 0.06 0.02 (by hand from Holm 1979).
    expect(holm([0.01, 0.04, 0.03, 0.005]).map((p) => Math.round(p * 1e6) / 1e6)).toEqual([
      0.03, 0.06, 0.06, 0.02,
    ])
    expect(holm([])).toEqual([])
    expect(holm([0.9, 0.8])).toEqual([1, 1])
  })
})

describe('the moving average of the trend watch', () => {
  it('is the example of the NIST/SEMATECH e-Handbook, 6.3.2.4', () => {
    const data = [
      52.0, 47.0, 53.0, 49.3, 50.1, 47.0, 51.0, 50.1, 51.2, 50.5, 49.6, 47.6, 49.9, 51.3, 47.8,
      51.2, 52.6, 52.4, 53.6, 52.1,
    ]
    expect(ewma(data, 50, 0.3).map((v) => v.toFixed(2))).toEqual(
      '50.60 49.52 50.56 50.18 50.16 49.21 49.75 49.85 50.26 50.33 50.11 49.36 49.52 50.05 49.38 49.92 50.73 51.23 51.94 51.99'.split(
        ' ',
      ),
    )
    expect(() => ewma([1], 0, 0)).toThrow(RangeError)
  })
})

describe('a permutation test of counts', () => {
  it('is the share of choices as far out, by hand', () => {
    // 4 6 5 6 against 1 0 2 1: only the two ways that keep the sides whole lie as far out, of C(8, 4) = 70.
    expect(permutationP([4, 6, 5, 6], [1, 0, 2, 1])).toBeCloseTo(2 / 70, 12)
    // 1 2 against 3: of the three singles 1 and 3 lie one from the mean.
    expect(permutationP([1, 2], [3])).toBeCloseTo(2 / 3, 12)
    expect(permutationP([2, 2], [2, 2, 2])).toBe(1)
    expect(permutationP([0, 0], [0])).toBe(1)
    expect(permutationP([], [3])).toBe(1)
    expect(() => permutationP([0.5], [1])).toThrow('whole')
    expect(() => permutationP([-1], [1])).toThrow('whole')
  })

  it('agrees with trying every choice', () => {
    const random = mulberry32(4)
    for (let round = 0; round < 20; round++) {
      const list = Array.from({ length: 9 }, () => drawPoisson(random, 2))
      const size = 2 + (round % 5)
      const off = (s: number) => Math.abs(s - (list.reduce((a, b) => a + b, 0) * size) / 9)
      const seen = off(list.slice(9 - size).reduce((a, b) => a + b, 0))
      let [all, far] = [0, 0]
      for (let bits = 0; bits < 512; bits++) {
        const chosen = list.filter((_, i) => bits & (1 << i))
        if (chosen.length !== size) continue
        all++
        if (off(chosen.reduce((a, b) => a + b, 0)) >= seen - 1e-9) far++
      }
      expect(permutationP(list.slice(0, 9 - size), list.slice(9 - size))).toBeCloseTo(far / all, 10)
    }
  })
})

it('a normal range of this level is as wide as Student’s t range (t of 4 degrees of freedom at 97.5 %: 2.7764)', () => {
  const level = zOfT(0.95, 4)
  expect(jstat.normal.inv((1 + level) / 2, 0, 1)).toBeCloseTo(2.7764, 3)
  expect(zOfT(0.95, 1e6)).toBeCloseTo(0.95, 4)
})
