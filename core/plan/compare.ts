/** Plans beside each other: what each comes to over its skin, and where they differ. */
import type { Plan, ZonePlan } from './types.ts'

/** A plan in a few figures; means are over its skin, weighed by area. */
export interface PlanFigures {
  readonly minutes: number
  readonly load: number
  readonly smoothHours: number
  /** The zone with the highest odds of redness. */
  readonly worst: ZonePlan
  readonly blades: number
  readonly cost: number
}

/** Sums a plan up. */
export function planFigures(plan: Plan): PlanFigures {
  const area = plan.zones.reduce((s, z) => s + z.areaCm2, 0)
  const mean = (pick: (z: ZonePlan) => number) =>
    plan.zones.reduce((s, z) => s + z.areaCm2 * pick(z), 0) / area
  return {
    minutes: Math.round(plan.totalMinutes),
    load: mean((z) => z.totalLoad),
    smoothHours: mean((z) => z.smoothHours),
    worst: plan.zones.reduce((a, b) => (b.rednessOdds > a.rednessOdds ? b : a)),
    blades: plan.bladeCount,
    cost: plan.cost,
  }
}

/** Loads within this are the same. */
const SAME = 0.05

/** How a lane stands among the plans: the closest does more there, or the gentlest less. */
export type LaneDifference = 'closest-more' | 'gentlest-less'

/** Lanes (`zone:letter`) that a gentler or a closer plan treats otherwise; what is more comes before what is less. */
export function planDifferences(
  plan: Pick<Plan, 'lanes'>,
  gentlest: Pick<Plan, 'lanes'> | undefined,
  closest: Pick<Plan, 'lanes'> | undefined,
): ReadonlyMap<string, LaneDifference> {
  const loads = (p: Pick<Plan, 'lanes'> | undefined) => {
    const sum = new Map<string, number>()
    for (const l of p?.lanes ?? []) {
      const key = `${l.zoneId}:${l.letter}`
      sum.set(key, (sum.get(key) ?? 0) + l.load)
    }
    return sum
  }
  const least = loads(gentlest)
  const most = loads(closest)
  const out = new Map<string, LaneDifference>()
  for (const [key, load] of loads(plan)) {
    if ((most.get(key) ?? load) > load + SAME) out.set(key, 'closest-more')
    else if ((least.get(key) ?? load) < load - SAME) out.set(key, 'gentlest-less')
  }
  return out
}
