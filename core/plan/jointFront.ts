/**
 * The front of a sitting: what its services offer, together. Odds of all its skin are worked out anew, since zones share the
 * client and the visit; hours are the mean over the skin; minutes are those of the jobs less what they share.
 */
import type { Figures } from '../house/index.ts'
import { anyOdds, calmCosts, skinNodes, type SkinBelief } from '../skin/index.ts'
import type { ZoneId } from '../zones/index.ts'
import { kindsOf, undominated, type Front } from './front.ts'
import type { FrontPoint } from './types.ts'

/** A plan of the sitting: which plan of each service's front it is. */
export interface JointPlan extends FrontPoint {
  readonly skin: NonNullable<FrontPoint['skin']>
  readonly parts: readonly number[]
}

/** The front of a sitting. */
export interface JointFront extends Omit<Front, 'plans'> {
  readonly plans: readonly JointPlan[]
}

/** A service of the sitting. */
export interface FrontPart {
  readonly front: Front
  /** Its skin, cm². */
  readonly areaCm2: number
}

/**
 * Puts fronts together.
 * @param byHand loads of what is done by hand, by zone
 * @param savedMinutes what the sitting takes less than its jobs apart
 * @returns the front itself where there is one service and nothing by hand
 */
export function jointFront(
  figures: Figures,
  belief: SkinBelief,
  parts: readonly FrontPart[],
  byHand: Readonly<Record<string, number>>,
  savedMinutes: number,
): JointFront {
  const [only] = parts
  if (only && parts.length === 1 && Object.keys(byHand).length === 0) {
    const { plans, ...front } = only.front
    return { ...front, plans: plans.map((p, i) => ({ ...p, parts: [i] })) }
  }
  const nodes = skinNodes(belief)
  const costsOf = (loads: Iterable<readonly [string, number]>) => {
    const sums = new Float64Array(nodes.length)
    for (const [zone, load] of loads)
      calmCosts(belief, nodes, zone, load).forEach((c, i) => (sums[i]! += c))
    return sums
  }
  interface Sum extends JointPlan {
    readonly costs: Float64Array
    readonly areaCm2: number
  }
  const none: Sum = {
    ...{ odds: 0, hours: 0, minutes: 0, skin: [], parts: [], areaCm2: 0 },
    costs: costsOf(Object.entries(byHand)),
  }
  const sums = parts.reduce<readonly Sum[]>(
    (before, { front, areaCm2 }) => {
      const own = front.plans.map((plan) => ({
        plan,
        costs: costsOf(plan.skin.flatMap((s, i) => (s ? [[front.zones[i]!, s[0]] as const] : []))),
      }))
      return undominated(
        before.flatMap((b) =>
          own.map(({ plan, costs }, i): Sum => {
            const all = b.costs.map((c, n) => c + costs[n]!)
            const area = b.areaCm2 + areaCm2
            return {
              odds: anyOdds(nodes, all),
              hours: (b.hours * b.areaCm2 + plan.hours * areaCm2) / area,
              minutes: b.minutes + plan.minutes,
              skin: [...b.skin, ...plan.skin],
              parts: [...b.parts, i],
              costs: all,
              areaCm2: area,
            }
          }),
        ),
      )
    },
    [none],
  )
  const plans = sums.map(({ costs: _costs, areaCm2: _area, ...plan }): JointPlan => ({
    ...plan,
    minutes: plan.minutes - savedMinutes,
  }))
  const zones: ZoneId[] = parts.flatMap((p) => p.front.zones)
  return parts.length === 0
    ? { plans: [], zones, offered: {}, kinds: { gentlest: -1, balanced: -1, closest: -1 } }
    : { plans, zones, ...kindsOf(figures, plans) }
}
