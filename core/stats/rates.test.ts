import fc from 'fast-check'
import jstat from 'jstat'
import { ewma } from './ewma.ts'
import { clopperPearson, garwood, holm, rateRatio } from './rates.ts'
import { CountRows, fitPoisson } from './poissonRegression.ts'
import { drawPoisson, mulberry32 } from './random.ts'

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

describe('the trend watch', () => {
  it('is the example of the NIST/SEMATECH e-Handbook, 6.3.2.4', () => {
    const data = [
      52.0, 47.0, 53.0, 49.3, 50.1, 47.0, 51.0, 50.1, 51.2, 50.5, 49.6, 47.6, 49.9, 51.3, 47.8,
      51.2, 52.6, 52.4, 53.6, 52.1,
    ]
    const points = ewma(data, 50, 2.0539, 0.3)
    expect(points.map((p) => p.value.toFixed(2))).toEqual(
      '50.60 49.52 50.56 50.18 50.16 49.21 49.75 49.85 50.26 50.33 50.11 49.36 49.52 50.05 49.38 49.92 50.73 51.23 51.94 51.99'.split(
        ' ',
      ),
    )
    expect(points[0]!.high).toBeCloseTo(52.588, 3)
    expect(points[0]!.low).toBeCloseTo(47.412, 3)
    expect(points.some((p) => p.out)).toBe(false)
  })

  it('has narrower limits at first, and tells when they are passed', () => {
    const points = ewma([3, 3, 3], 0, 1, 0.3, 2.5, false)
    expect(points[0]!.high).toBeCloseTo(2.5 * 0.3, 10)
    expect(points[2]!.high).toBeGreaterThan(points[0]!.high)
    expect(points.map((p) => p.out)).toEqual([true, true, true])
    expect(() => ewma([1], 0, 1, 0)).toThrow(RangeError)
  })
})

describe('Poisson regression', () => {
  interface Paired {
    readonly x: readonly (readonly [column: number, value: number])[]
    readonly y: number
    readonly exposure: number
  }
  const fit = (rows: readonly Paired[], columns: number, precision?: readonly number[]) =>
    fitPoisson(
      rows.map(({ x, ...rest }) => ({
        columns: x.map(([c]) => c),
        values: x.map(([, v]) => v),
        ...rest,
      })),
      columns,
      precision,
    )
  // Dobson 1990, p. 93, the randomised trial printed in R's help of glm (output from memory).
  const counts = [18, 17, 15, 20, 10, 20, 25, 13, 12]
  const dobson = counts.map((y, i) => ({
    y,
    exposure: 1,
    x: [
      [0, 1],
      ...(i % 3 === 1 ? [[1, 1]] : []),
      ...(i % 3 === 2 ? [[2, 1]] : []),
      ...(i >= 3 && i < 6 ? [[3, 1]] : []),
      ...(i >= 6 ? [[4, 1]] : []),
    ] as [number, number][],
  }))

  it('is Dobson’s example', () => {
    const found = fit(dobson, 5)
    const want = [3.045, -0.4543, -0.293, 0, 0]
    const se = [0.1709, 0.2022, 0.1927, 0.2, 0.2]
    found.beta.forEach((b, i) => expect(b).toBeCloseTo(want[i]!, 3))
    se.forEach((s, i) => expect(found.seOf(i)).toBeCloseTo(s, 4))
    expect(found.deviance).toBeCloseTo(5.1291, 4)
  })

  it('of one column is the rate itself, with the usual error', () => {
    const found = fit(
      [
        { x: [[0, 1]], y: 12, exposure: 4 },
        { x: [[0, 1]], y: 3, exposure: 6 },
      ],
      1,
    )
    expect(Math.exp(found.beta[0]!)).toBeCloseTo(1.5, 9)
    expect(found.seOf(0)).toBeCloseTo(1 / Math.sqrt(15), 9)
  })

  it('draws a column toward nothing by its prior, the more the less it saw', () => {
    const rows = (n: number) => [
      { x: [[0, 1]] as [number, number][], y: 10 * n, exposure: 10 * n },
      {
        x: [
          [0, 1],
          [1, 1],
        ] as [number, number][],
        y: 4 * n,
        exposure: n,
      },
    ]
    const few = fit(rows(1), 2, [0, 4]).beta[1]!
    const many = fit(rows(100), 2, [0, 4]).beta[1]!
    expect(few).toBeLessThan(many)
    expect(many).toBeCloseTo(Math.log(4), 1)
  })

  it('finds what was put in', () => {
    const random = mulberry32(11)
    const rows = Array.from({ length: 3000 }, (_, i) => {
      const on = i % 2
      return {
        x: [
          [0, 1],
          [1, on],
        ] as [number, number][],
        y: drawPoisson(random, 0.4 * (on ? 1.7 : 1)),
        exposure: 1,
      }
    })
    const found = fit(rows, 2)
    expect(Math.abs(found.beta[1]! - Math.log(1.7)) / found.seOf(1)).toBeLessThan(3)
    expect(found.dispersion).toBeCloseTo(1, 1)
  })

  it('takes levels out exactly: the same as with all columns at once, and thousands cost no more than their number', () => {
    const random = mulberry32(11)
    const make = (groups: number, each: number) =>
      Array.from({ length: groups * each }, (_, i) => ({
        x: [[0, 1], ...(i % 2 ? [[1, 1]] : []), ...(i % 3 === 0 ? [[2, 0.5]] : [])] as [
          number,
          number,
        ][],
        group: Math.floor(i / each),
        y: drawPoisson(random, (0.5 + (i % 2)) * (1 + (i % 4))),
        exposure: 1 + (i % 4),
      }))
    const grouped = (rows: ReturnType<typeof make>, groups: number) => {
      const all = new CountRows()
      for (const { x, y, exposure, group } of rows) {
        const design = { columns: x.map(([c]) => c), values: x.map(([, v]) => v) }
        all.add(all.explainedBy(design), y, exposure, group)
      }
      return fitPoisson(all, 3, precision(groups), groups)
    }
    const precision = (groups: number) => [0, 2, 2, ...new Array<number>(groups).fill(1.5)]
    const few = make(20, 12)
    const whole = fit(
      few.map(({ x, group, ...r }) => ({ ...r, x: [...x, [3 + group, 1]] as [number, number][] })),
      23,
      precision(20),
    )
    const arrow = grouped(few, 20)
    arrow.beta.forEach((b, c) => expect(b).toBeCloseTo(whole.beta[c]!, 8))
    for (const c of [0, 1, 2, 3, 22]) expect(arrow.seOf(c)).toBeCloseTo(whole.seOf(c), 8)
    expect(arrow.deviance).toBeCloseTo(whole.deviance, 6)
    // 5 000 columns at once would be 25 million equations.
    const many = grouped(make(5000, 6), 5000)
    expect(Math.abs(many.beta[1]! - Math.log(3)) / many.seOf(1)).toBeLessThan(4)
  })

  it('says when columns cannot be told apart, and refuses what is no row', () => {
    const twice = [
      {
        x: [
          [0, 1],
          [1, 1],
        ] as [number, number][],
        y: 3,
        exposure: 1,
      },
    ]
    expect(() => fit(twice, 2)).toThrow('told apart')
    expect(fit(twice, 2, [1, 1]).beta[0]).toBeCloseTo(fit(twice, 2, [1, 1]).beta[1]!, 9)
    expect(() => fit([{ x: [[5, 1]], y: 1, exposure: 1 }], 2)).toThrow('column')
    expect(() => fit([{ x: [], y: 1, exposure: 0 }], 1)).toThrow('exposure')
  })
})
