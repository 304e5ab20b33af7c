/** The best order, exactly: dynamic programming over sets of jobs (Held & Karp 1962, from memory). */
import { DomainError } from '../errors.ts'
import { orderCost, type OrderProblem } from './problem.ts'

/** Most jobs that are solved exactly. */
export const MOST_EXACT = 14

/** @throws DomainError `too-many-jobs` above MOST_EXACT */
export function exactOrder(p: OrderProblem): { order: number[]; cost: number } {
  const { n } = p
  if (n > MOST_EXACT) {
    throw new DomainError(
      'too-many-jobs',
      `Only up to ${MOST_EXACT} jobs are put in order exactly.`,
    )
  }
  if (n === 0) return { order: [], cost: 0 }
  const full = 1 << n
  const best = new Float64Array(full * n).fill(Infinity)
  const from = new Int8Array(full * n).fill(-1)
  const needs = Array.from({ length: n }, (_, j) => {
    let mask = 0
    for (let i = 0; i < n; i++) if (p.before[i * n + j]) mask |= 1 << i
    return mask
  })
  for (let j = 0; j < n; j++) if (needs[j] === 0) best[(1 << j) * n + j] = p.start[j]!
  for (let mask = 1; mask < full; mask++) {
    for (let last = 0; last < n; last++) {
      const here = best[mask * n + last]!
      if (here === Infinity) continue
      for (let j = 0; j < n; j++) {
        if (mask & (1 << j) || (needs[j]! & mask) !== needs[j]) continue
        const at = (mask | (1 << j)) * n + j
        const cost = here + p.cost[last * n + j]!
        if (cost < best[at]!) {
          best[at] = cost
          from[at] = last
        }
      }
    }
  }
  let mask = full - 1
  let last = 0
  for (let j = 1; j < n; j++) {
    if (best[mask * n + j]! + p.end[j]! < best[mask * n + last]! + p.end[last]!) last = j
  }
  const order: number[] = []
  while (last >= 0) {
    order.unshift(last)
    const before = from[mask * n + last]!
    mask ^= 1 << last
    last = before
  }
  return { order, cost: orderCost(p, order) }
}
