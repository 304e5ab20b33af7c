/** What is counted after a visit, and how much more it scatters than chance alone. */
import type { VisitFacts } from './facts.ts'
import { sum } from '../stats/index.ts'

export type Counted = 'bumps' | 'redness' | 'dark' | 'blackhead'

export const COUNTED_NAMES: Readonly<Record<Counted, string>> = {
  bumps: 'Bumps',
  redness: 'Grades of redness',
  dark: 'Dark marks',
  blackhead: 'Blackheads',
}

/** With as many digits as it bears. */
export const figure = (x: number) => (x >= 10 ? x.toFixed(0) : x >= 1 ? x.toFixed(1) : x.toFixed(2))

/** Counts of an outcome over the visits on which somebody looked. */
export const countsOf = (visits: readonly VisitFacts[], outcome: Counted): number[] =>
  visits.flatMap((v) => {
    const zones = outcome === 'redness' ? v.worst : v[outcome]
    return zones ? [sum(Object.values(zones))] : []
  })

/**
 * How much more counts scatter than Poisson: Pearson's chi-square over its degrees of freedom about each side's mean, at
 * least 1. A side without any count tells nothing.
 */
export function scatterOf(sides: readonly (readonly number[])[]): {
  scatter: number
  free: number
} {
  let square = 0
  let free = 0
  for (const side of sides) {
    const mean = sum(side) / side.length
    if (!(mean > 0)) continue
    square += side.reduce((s, y) => s + (y - mean) ** 2 / mean, 0)
    free += side.length - 1
  }
  return { scatter: free > 0 ? Math.max(1, square / free) : 1, free }
}
