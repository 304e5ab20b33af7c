/** Putting jobs in order: what it costs to go from each to each, and which must come before which (M9). */
import { DomainError } from '../errors.ts'

/** Jobs 0 … n − 1. */
export interface OrderProblem {
  readonly n: number
  /** Cost of going from i to j, at i·n + j. */
  readonly cost: Float64Array
  /** Cost of beginning with a job, and of ending with one. */
  readonly start: Float64Array
  readonly end: Float64Array
  /** 1 at i·n + j where i must come before j, closed over chains. */
  readonly before: Uint8Array
}

/**
 * States a problem.
 * @param pairs [i, j]: i comes before j
 * @throws DomainError `order-circle` when the pairs run in a circle
 */
export function orderProblem(
  n: number,
  cost: (i: number, j: number) => number,
  pairs: Iterable<readonly [number, number]>,
  start: (i: number) => number = () => 0,
  end: (i: number) => number = () => 0,
): OrderProblem {
  const before = new Uint8Array(n * n)
  for (const [i, j] of pairs) before[i * n + j] = 1
  // Warshall 1962: what comes before what comes before.
  for (let k = 0; k < n; k++) {
    for (let i = 0; i < n; i++) {
      if (!before[i * n + k]) continue
      for (let j = 0; j < n; j++) if (before[k * n + j]) before[i * n + j] = 1
    }
  }
  for (let i = 0; i < n; i++) {
    if (before[i * n + i]) {
      throw new DomainError(
        'order-circle',
        'These steps wait for one another in a circle; no order can be found.',
      )
    }
  }
  return {
    n,
    cost: Float64Array.from({ length: n * n }, (_, k) => cost(Math.floor(k / n), k % n)),
    start: Float64Array.from({ length: n }, (_, i) => start(i)),
    end: Float64Array.from({ length: n }, (_, i) => end(i)),
    before,
  }
}

/** Cost of an order. */
export function orderCost(p: OrderProblem, order: ArrayLike<number>): number {
  if (p.n === 0) return 0
  let sum = p.start[order[0]!]! + p.end[order[p.n - 1]!]!
  for (let i = 1; i < p.n; i++) sum += p.cost[order[i - 1]! * p.n + order[i]!]!
  return sum
}

/** True when an order holds every job once and keeps what must come before. */
export function keepsOrder(p: OrderProblem, order: ArrayLike<number>): boolean {
  const at = new Int32Array(p.n).fill(-1)
  for (let i = 0; i < order.length; i++) {
    const job = order[i]!
    if (!(job >= 0 && job < p.n) || at[job]! >= 0) return false
    at[job] = i
  }
  if (order.length !== p.n) return false
  for (let i = 0; i < p.n; i++)
    for (let j = 0; j < p.n; j++) if (p.before[i * p.n + j] && at[i]! > at[j]!) return false
  return true
}
