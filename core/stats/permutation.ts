/**
 * Tests that ask nothing of how counts scatter, only that without a change any order of the visits was as likely
 * (permutation tests: Fisher 1935; Pitman 1937; from memory).
 */
import { sum } from './lists.ts'

/**
 * Exact two-sided p of a difference between two runs of whole counts: the share of all ways to choose as many that lie as far
 * from what is expected, by counting the subsets of each size and sum (Pagano & Tritchler 1983, from memory).
 * @throws RangeError when a count is not whole or below 0
 */
export function permutationP(before: readonly number[], after: readonly number[]): number {
  const all = [...before, ...after]
  if (all.some((y) => !(y >= 0) || !Number.isInteger(y))) {
    throw new RangeError('A permutation test of counts needs whole counts of at least 0.')
  }
  const size = after.length
  const most = sum(all)
  if (size === 0 || before.length === 0 || most === 0) return 1
  // ways[k · (most + 1) + s]: subsets of k visits with s counted on them.
  const ways = new Float64Array((size + 1) * (most + 1))
  ways[0] = 1
  let reached = 0
  all.forEach((y, i) => {
    for (let k = Math.min(size, i + 1); k >= 1; k--) {
      const row = k * (most + 1)
      const from = (k - 1) * (most + 1)
      for (let s = reached; s >= 0; s--) ways[row + s + y]! += ways[from + s]!
    }
    reached += y
  })
  const expected = (most * size) / all.length
  const off = Math.abs(sum(after) - expected) - 1e-9
  let [total, far] = [0, 0]
  const row = size * (most + 1)
  for (let s = 0; s <= most; s++) {
    total += ways[row + s]!
    if (Math.abs(s - expected) >= off) far += ways[row + s]!
  }
  return far / total
}
