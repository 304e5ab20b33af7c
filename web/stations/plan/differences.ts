/** Where the plan chosen differs from the other kinds: which lanes the closest goes over more, the gentlest less. */
import type { Plan, Style } from '../../../core/plan/types.ts'
import type { Planned } from '../../workers/plans.ts'

/** Figures within this are the same load. */
const SAME = 0.05

/** Colour by `zone:letter` of lanes that differ, as red, green, blue and opacity. */
export function differences(
  plan: Plan,
  three: Record<Style, Planned> | undefined,
  chosen: Style,
): ReadonlyMap<string, readonly [number, number, number, number]> {
  const out = new Map<string, readonly [number, number, number, number]>()
  if (!three) return out
  const loads = (p: Plan | undefined) => {
    const sum = new Map<string, number>()
    for (const l of p?.lanes ?? []) {
      const key = `${l.zoneId}:${l.letter}`
      sum.set(key, (sum.get(key) ?? 0) + l.load)
    }
    return sum
  }
  const own = loads(plan)
  const least = loads(three.gentlest.plan)
  const most = loads(three.closest.plan)
  for (const [key, load] of own) {
    if (chosen !== 'closest' && (most.get(key) ?? load) > load + SAME)
      out.set(key, [0.66, 0.48, 0.13, 0.42])
    else if (chosen !== 'gentlest' && (least.get(key) ?? load) < load - SAME)
      out.set(key, [0.75, 0.31, 0.21, 0.4])
  }
  return out
}
