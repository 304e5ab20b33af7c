/**
 * Good orders of many jobs: nearest job first, then segments moved and turned round while that helps (Or-opt, 2-opt), then
 * blocks exchanged at random and mended again (iterated local search). Deterministic for a seed.
 */
import { mulberry32 } from '../stats/index.ts'
import { exactOrder, MOST_EXACT } from './exact.ts'
import { orderCost, type OrderProblem } from './problem.ts'

const BETTER = 1e-9
/** Blocks exchanged in one shake, at most. */
const MOST_EXCHANGES = 4
/** Segments moved while mending, at most so long. */
const LONGEST = 8
/** Share of the cost by which a worse order may be taken. */
const WORSE = 0.08
/** Rounds without a better order before it goes back to the best. */
const PATIENCE = 60

/** The nearest job that may come next, again and again. */
export function nearestFirst(p: OrderProblem): number[] {
  const { n } = p
  const waits = new Int32Array(n)
  for (let k = 0; k < n * n; k++) if (p.before[k]) waits[k % n]!++
  const done = new Uint8Array(n)
  const order: number[] = []
  let last = -1
  while (order.length < n) {
    let next = -1
    let least = Infinity
    for (let j = 0; j < n; j++) {
      if (done[j] || waits[j]! > 0) continue
      const c = last < 0 ? p.start[j]! : p.cost[last * n + j]!
      if (c < least) {
        least = c
        next = j
      }
    }
    done[next] = 1
    order.push(next)
    for (let j = 0; j < n; j++) if (p.before[next * n + j]) waits[j]!--
    last = next
  }
  return order
}

/** The best single change of an order; undefined when none helps. */
function bestChange(p: OrderProblem, o: readonly number[], longest: number) {
  const { n, cost, before } = p
  const go = (a: number, b: number) =>
    a < 0 ? (b < 0 ? 0 : p.start[b]!) : b < 0 ? p.end[a]! : cost[a * n + b]!
  const at = (i: number) => (i < 0 || i >= n ? -1 : o[i]!)
  let gain = BETTER
  let change: { kind: 'move' | 'turn'; i: number; j: number; k: number } | undefined
  for (let i = 0; i < n; i++) {
    for (let j = i; j < Math.min(n, i + longest); j++) {
      const out = go(at(i - 1), o[i]!) + go(o[j]!, at(j + 1)) - go(at(i - 1), at(j + 1))
      // Later: nothing passed over may have to come after any of the segment.
      later: for (let k = j + 1; k < n; k++) {
        for (let s = i; s <= j; s++) if (before[o[s]! * n + o[k]!]) break later
        const into = go(o[k]!, o[i]!) + go(o[j]!, at(k + 1)) - go(o[k]!, at(k + 1))
        if (out - into > gain) {
          gain = out - into
          change = { kind: 'move', i, j, k }
        }
      }
    }
    // Turned round: nothing within may have to come before what follows it there.
    let way = 0
    turn: for (let j = i + 1; j < n; j++) {
      for (let s = i; s < j; s++) if (before[o[s]! * n + o[j]!]) break turn
      way += go(o[j]!, o[j - 1]!) - go(o[j - 1]!, o[j]!)
      const more =
        way +
        go(at(i - 1), o[j]!) +
        go(o[i]!, at(j + 1)) -
        go(at(i - 1), o[i]!) -
        go(o[j]!, at(j + 1))
      if (-more > gain) {
        gain = -more
        change = { kind: 'turn', i, j, k: 0 }
      }
    }
  }
  return change
}

/**
 * Changes an order while a single change helps. A segment moved earlier is the one before it moved later, so moving later
 * is enough.
 */
export function descend(p: OrderProblem, order: readonly number[], longest = p.n): number[] {
  let o = [...order]
  for (;;) {
    const c = bestChange(p, o, longest)
    if (!c) return o
    o =
      c.kind === 'move'
        ? [
            ...o.slice(0, c.i),
            ...o.slice(c.j + 1, c.k + 1),
            ...o.slice(c.i, c.j + 1),
            ...o.slice(c.k + 1),
          ]
        : [...o.slice(0, c.i), ...o.slice(c.i, c.j + 1).reverse(), ...o.slice(c.j + 1)]
  }
}

/** Two neighbouring blocks exchanged at random; the same order when that is not allowed. */
function exchange(p: OrderProblem, o: readonly number[], random: () => number): number[] {
  const { n } = p
  for (let trial = 0; trial < 20; trial++) {
    const i = Math.floor(random() * (n - 1))
    const most = Math.min(n - i - 1, 12)
    const j = i + Math.floor(random() * most)
    const k = j + 1 + Math.floor(random() * Math.min(n - j - 1, 12))
    if (k >= n) continue
    let allowed = true
    for (let s = i; s <= j && allowed; s++)
      for (let t = j + 1; t <= k && allowed; t++) if (p.before[o[s]! * n + o[t]!]) allowed = false
    if (!allowed) continue
    return [...o.slice(0, i), ...o.slice(j + 1, k + 1), ...o.slice(i, j + 1), ...o.slice(k + 1)]
  }
  return [...o]
}

/** A search that can be carried on, looked at and stopped. */
export class OrderSearch {
  private readonly problem: OrderProblem
  private readonly random: () => number
  private here: number[]
  private hereCost: number
  private since = 0
  order: number[]
  cost: number

  constructor(problem: OrderProblem, seed = 1, from?: readonly number[]) {
    this.problem = problem
    this.random = mulberry32(seed)
    this.here = descend(problem, from ?? nearestFirst(problem))
    this.hereCost = orderCost(problem, this.here)
    this.order = this.here
    this.cost = this.hereCost
  }

  /** So many rounds of exchanging and mending. */
  run(rounds: number): void {
    if (this.problem.n < 3) return
    for (let r = 0; r < rounds; r++) {
      let shaken = this.here
      const times = 1 + Math.floor(MOST_EXCHANGES * this.random() ** 2)
      for (let t = 0; t < times; t++) shaken = exchange(this.problem, shaken, this.random)
      const next = descend(this.problem, shaken, LONGEST)
      const cost = orderCost(this.problem, next)
      // A little worse is taken now and then, so that the search gets out of a hollow; it comes back to the best.
      const slack = WORSE * Math.abs(this.cost) * this.random() ** 3
      if (cost <= this.hereCost + slack) {
        this.here = next
        this.hereCost = cost
      }
      if (++this.since > PATIENCE) {
        this.since = 0
        this.here = this.order
        this.hereCost = this.cost
      }
      if (cost < this.cost - BETTER) {
        this.order = next
        this.cost = cost
        this.since = 0
      }
    }
  }
}

/** The order: exact for few jobs, else by a search of a fixed number of rounds, so that the same jobs give the same order. */
export function findOrder(p: OrderProblem, rounds: number): { order: number[]; cost: number } {
  if (p.n <= MOST_EXACT) return exactOrder(p)
  const search = new OrderSearch(p)
  search.run(rounds)
  return { order: search.order, cost: search.cost }
}
