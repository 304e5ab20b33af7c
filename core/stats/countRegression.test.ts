import jstat from 'jstat'
import { CountVisits, fitCounts, type Design } from './countRegression.ts'
import { drawGamma, drawPoisson, mulberry32 } from './random.ts'

/** So little spread between visits that counts are Poisson. */
const POISSON = { spreads: [1e-4] }

/** A visit with one member for each count. */
function visit(all: CountVisits, of: readonly (readonly [Design, number])[], level = -1) {
  const members = of.map(([design, y]) => {
    const d = all.explainedBy(design)
    all.counted(d, y)
    return d
  })
  all.add(
    members,
    of.reduce((s, [, y]) => s + y, 0),
    level,
  )
}
const design = (x: readonly (readonly [column: number, value: number])[]): Design => ({
  columns: x.map(([c]) => c),
  values: x.map(([, v]) => v),
})

describe('regression of counts', () => {
  it('without a level of the visit is Dobson’s example (1990, p. 93, the trial in R’s help of glm; output from memory)', () => {
    const all = new CountVisits()
    ;[18, 17, 15, 20, 10, 20, 25, 13, 12].forEach((y, i) => {
      const x: [number, number][] = [[0, 1]]
      if (i % 3 > 0) x.push([i % 3, 1])
      if (i >= 3) x.push([i < 6 ? 3 : 4, 1])
      visit(all, [[design(x), y]])
    })
    const found = fitCounts(all, 5, [0, 0, 0, 0, 0], 0, POISSON)
    ;[3.045, -0.4543, -0.293, 0, 0].forEach((b, i) => expect(found.beta[i]).toBeCloseTo(b, 3))
    ;[0.1709, 0.2022, 0.1927, 0.2, 0.2].forEach((s, i) => expect(found.se[i]).toBeCloseTo(s, 4))
  })

  it('of one column is the rate itself, with the usual error', () => {
    const all = new CountVisits()
    for (const y of [4, 2, 3, 3, 0, 1, 0, 1, 1, 0]) visit(all, [[design([[0, 1]]), y]])
    const found = fitCounts(all, 1, [0], 0, POISSON)
    expect(Math.exp(found.beta[0]!)).toBeCloseTo(1.5, 4)
    expect(found.se[0]).toBeCloseTo(1 / Math.sqrt(15), 4)
  })

  it('weighs a visit as the negative multinomial does, which for one member is the negative binomial (jstat)', () => {
    // Of one column and no prior the evidence hangs on β alone: its mode is where the sum of log probabilities is largest.
    const counts = [0, 5, 1, 0, 9, 2, 0, 3]
    const k = 2
    const level = (mean: number) =>
      counts.reduce((s, y) => s + Math.log(jstat.negbin.pdf(y, k, k / (k + mean))), 0)
    const all = new CountVisits()
    for (const y of counts) visit(all, [[design([[0, 1]]), y]])
    const found = fitCounts(all, 1, [0], 0, { spreads: [1 / Math.sqrt(k)] })
    const mean = Math.exp(found.beta[0]!)
    for (const other of [0.9, 0.99, 1.01, 1.1]) {
      expect(level(mean)).toBeGreaterThan(level(mean * other))
    }
    // The error is that of the curvature, by differences.
    const h = 1e-3
    const curve =
      (level(mean * Math.exp(h)) - 2 * level(mean) + level(mean * Math.exp(-h))) / (h * h)
    expect(found.se[0]).toBeCloseTo(1 / Math.sqrt(-curve), 3)
  })

  it('draws a column toward nothing by its prior, the more the less it saw', () => {
    const of = (n: number) => {
      const all = new CountVisits()
      for (let i = 0; i < 10 * n; i++) visit(all, [[design([[0, 1]]), 1]])
      for (let i = 0; i < n; i++)
        visit(all, [
          [
            design([
              [0, 1],
              [1, 1],
            ]),
            4,
          ],
        ])
      return fitCounts(all, 2, [0, 4], 0, POISSON).beta[1]!
    }
    expect(of(1)).toBeLessThan(of(100))
    expect(of(100)).toBeCloseTo(Math.log(4), 1)
  })

  it('finds what was put in, and how much visits differ', () => {
    const random = mulberry32(11)
    const all = new CountVisits()
    for (let i = 0; i < 800; i++) {
      // A level of variance 0.5² that the four members share.
      const day = drawGamma(random, 4) / 4
      visit(
        all,
        Array.from({ length: 4 }, (_, z) => {
          const on = (i + z) % 2
          return [
            design([
              [0, 1],
              [1, on],
            ]),
            drawPoisson(random, 0.4 * day * (on ? 1.7 : 1)),
          ]
        }),
      )
    }
    const found = fitCounts(all, 2, [0, 0])
    expect(Math.abs(found.beta[1]! - Math.log(1.7)) / found.se[1]!).toBeLessThan(3)
    expect(found.spread).toBeGreaterThan(0.4)
    expect(found.spread).toBeLessThan(0.6)
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
        y: drawPoisson(random, 0.5 + (i % 2)),
      }))
    const precision = (groups: number) => [0.1, 2, 2, ...new Array<number>(groups).fill(1.5)]
    const few = make(20, 12)
    const flat = new CountVisits()
    for (const { x, group, y } of few) visit(flat, [[design([...x, [3 + group, 1]]), y]])
    const whole = fitCounts(flat, 23, precision(20), 0, { spreads: [0.5] })
    const grouped = (rows: ReturnType<typeof make>, groups: number) => {
      const all = new CountVisits()
      for (const { x, y, group } of rows) visit(all, [[design(x), y]], group)
      return fitCounts(all, 3, precision(groups), groups, { spreads: [0.5] })
    }
    const arrow = grouped(few, 20)
    for (const c of [0, 1, 2]) {
      expect(arrow.beta[c]).toBeCloseTo(whole.beta[c]!, 6)
      expect(arrow.se[c]).toBeCloseTo(whole.se[c]!, 6)
    }
    // 5 000 columns at once would be 25 million equations.
    const many = grouped(make(5000, 6), 5000)
    expect(Math.abs(many.beta[1]! - Math.log(3)) / many.se[1]!).toBeLessThan(4)
  })

  it('says when columns cannot be told apart, and refuses what is no visit', () => {
    const twice = new CountVisits()
    visit(twice, [
      [
        design([
          [0, 1],
          [1, 1],
        ]),
        3,
      ],
    ])
    expect(() => fitCounts(twice, 2, [0, 0], 0, POISSON)).toThrow('told apart')
    const { beta } = fitCounts(twice, 2, [1, 1], 0, POISSON)
    expect(beta[0]).toBeCloseTo(beta[1]!, 4)
    const strange = new CountVisits()
    visit(strange, [[design([[5, 1]]), 1]])
    expect(() => fitCounts(strange, 2, [1, 1])).toThrow('column')
    expect(() => new CountVisits().add([], 0.5)).toThrow('whole')
  })
})
