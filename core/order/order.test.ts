/** Orders against exact answers: brute force, dynamic programming, and a published instance. */
import fc from 'fast-check'
import { mulberry32 } from '../stats/index.ts'
import { exactOrder, MOST_EXACT } from './exact.ts'
import { keepsOrder, orderCost, orderProblem } from './problem.ts'
import { descend, findOrder, nearestFirst, OrderSearch } from './search.ts'

/** A random asymmetric problem with random precedences along a hidden order. */
function randomProblem(n: number, seed: number, density = 0.15) {
  const random = mulberry32(seed)
  const hidden = Array.from({ length: n }, (_, i) => i).sort(() => random() - 0.5)
  const costs = Float64Array.from({ length: n * n }, () => Math.round(20 * random()))
  const pairs: [number, number][] = []
  for (let a = 0; a < n; a++)
    for (let b = a + 1; b < n; b++) if (random() < density) pairs.push([hidden[a]!, hidden[b]!])
  return orderProblem(
    n,
    (i, j) => costs[i * n + j]!,
    pairs,
    (i) => i % 3,
    (i) => i % 2,
  )
}

/** The best order by trying them all. */
function bruteForce(p: ReturnType<typeof orderProblem>): number {
  let best = Infinity
  const go = (order: number[], left: number[]) => {
    if (left.length === 0) {
      if (keepsOrder(p, order)) best = Math.min(best, orderCost(p, order))
      return
    }
    for (const x of left)
      go(
        [...order, x],
        left.filter((y) => y !== x),
      )
  }
  go(
    [],
    Array.from({ length: p.n }, (_, i) => i),
  )
  return best
}

// TSPLIB burma14: coordinates in degrees.minutes, GEO distance, published optimum 3323 (Reinelt 1991; from memory).
const BURMA14 = [
  [16.47, 96.1],
  [16.47, 94.44],
  [20.09, 92.54],
  [22.39, 93.37],
  [25.23, 97.24],
  [22.0, 96.05],
  [20.47, 97.02],
  [17.2, 96.29],
  [16.3, 97.38],
  [14.05, 98.12],
  [16.53, 97.38],
  [21.52, 95.59],
  [19.41, 97.13],
  [20.09, 94.55],
] as const

function geo(i: number, j: number): number {
  const rad = (x: number) => {
    const deg = Math.trunc(x)
    return (3.141592 * (deg + (5 * (x - deg)) / 3)) / 180
  }
  const [a, b] = [BURMA14[i]!, BURMA14[j]!].map(([lat, lon]) => ({ lat: rad(lat), lon: rad(lon) }))
  const q1 = Math.cos(a!.lon - b!.lon)
  const q2 = Math.cos(a!.lat - b!.lat)
  const q3 = Math.cos(a!.lat + b!.lat)
  return Math.trunc(6378.388 * Math.acos(0.5 * ((1 + q1) * q2 - (1 - q1) * q3)) + 1)
}

describe('the exact order', () => {
  it('is the best of all, with precedences', () => {
    for (let seed = 1; seed <= 25; seed++) {
      const p = randomProblem(3 + (seed % 5), seed)
      const { order, cost } = exactOrder(p)
      expect(keepsOrder(p, order)).toBe(true)
      expect(cost).toBeCloseTo(orderCost(p, order), 9)
      expect(cost).toBeCloseTo(bruteForce(p), 9)
    }
  })

  it('finds the published shortest tour of burma14: 3323', () => {
    // A round trip from the first city is an order of the other thirteen.
    const p = orderProblem(
      13,
      (i, j) => geo(i + 1, j + 1),
      [],
      (i) => geo(0, i + 1),
      (i) => geo(i + 1, 0),
    )
    expect(exactOrder(p).cost).toBe(3323)
    const search = new OrderSearch(p, 3)
    search.run(60)
    expect(search.cost).toBe(3323)
  })

  it('takes no more than it can, and says so; nothing is an order of nothing', () => {
    expect(() => exactOrder(randomProblem(MOST_EXACT + 1, 1))).toThrow('exactly')
    expect(exactOrder(randomProblem(0, 1))).toEqual({ order: [], cost: 0 })
  })

  it('refuses jobs that wait for one another in a circle', () => {
    const circle = () =>
      orderProblem(3, () => 1, [
        [0, 1],
        [1, 2],
        [2, 0],
      ])
    expect(circle).toThrow('circle')
  })
})

describe('the search', () => {
  it('keeps every precedence and never costs more than where it began', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 24 }), fc.integer({ min: 1, max: 9999 }), (n, seed) => {
        const p = randomProblem(n, seed)
        const first = nearestFirst(p)
        expect(keepsOrder(p, first)).toBe(true)
        const better = descend(p, first)
        expect(keepsOrder(p, better)).toBe(true)
        expect(orderCost(p, better)).toBeLessThanOrEqual(orderCost(p, first) + 1e-9)
        const search = new OrderSearch(p, seed)
        search.run(3)
        expect(keepsOrder(p, search.order)).toBe(true)
        expect(search.cost).toBeCloseTo(orderCost(p, search.order), 9)
        expect(search.cost).toBeLessThanOrEqual(orderCost(p, better) + 1e-9)
      }),
      { numRuns: 60 },
    )
  })

  it('comes within half a percent of the exact order over forty problems of twelve jobs', () => {
    let found = 0
    let best = 0
    for (let seed = 1; seed <= 40; seed++) {
      const p = randomProblem(12, 100 + seed)
      const search = new OrderSearch(p, 5)
      search.run(300)
      found += search.cost
      best += exactOrder(p).cost
    }
    expect(found / best).toBeLessThanOrEqual(1.005)
  })

  it('gives the same order for the same jobs', () => {
    const p = randomProblem(30, 77)
    expect(findOrder(p, 10)).toEqual(findOrder(p, 10))
  })
})
