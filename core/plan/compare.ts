/** Plans beside each other: what each comes to over its skin, and where they differ. */
import { STYLES, type Style } from '../services/index.ts'
import { sum } from '../stats/index.ts'
import type { ZoneId } from '../zones/index.ts'
import type { FrontPoint, Lane, Plan, ZonePlan } from './types.ts'

/** A plan in a few figures; means are over its skin, weighed by area. */
export interface PlanFigures {
  readonly minutes: number
  readonly load: number
  readonly smoothHours: number
  /** P(any zone at redness 2 or more); undefined in plans kept before this was told. */
  readonly any?: number
  /** P(many bumps) of the zone with the highest. */
  readonly bumps?: number
  /** The zone with the highest odds of redness; none where nothing is stroked. */
  readonly worst?: ZonePlan
  readonly blades: number
  readonly cost: number
}

/** Sums a plan up. */
export function planFigures(plan: Plan): PlanFigures {
  const area = plan.zones.reduce((s, z) => s + z.areaCm2, 0)
  const mean = (pick: (z: ZonePlan) => number) =>
    area > 0 ? plan.zones.reduce((s, z) => s + z.areaCm2 * pick(z), 0) / area : 0
  const [worst] = [...plan.zones].sort((a, b) => b.rednessOdds - a.rednessOdds)
  return {
    minutes: Math.round(plan.totalMinutes),
    load: mean((z) => z.totalLoad),
    smoothHours: mean((z) => z.smoothHours),
    ...(plan.odds && { any: plan.odds.any }),
    ...(plan.zones[0]?.bumpOdds !== undefined && {
      bumps: Math.max(...plan.zones.map((z) => z.bumpOdds ?? 0)),
    }),
    ...(worst && { worst }),
    blades: plan.bladeCount,
    cost: plan.cost,
  }
}

/** Loads within this are the same. */
const SAME = 0.05

/** How a lane stands among the plans: the closest does more there, or the gentlest less. */
export interface LaneDifference {
  readonly zoneId: ZoneId
  readonly letter: string
  readonly difference: 'closest-more' | 'gentlest-less'
}

type Lanes = Pick<Plan, 'lanes'>

/** Load of a lane over all its passes; undefined where a plan has no such lane. */
function loadOf(
  { lanes }: Lanes,
  { zoneId, letter }: Pick<Lane, 'zoneId' | 'letter'>,
): number | undefined {
  const own = lanes.filter((l) => l.zoneId === zoneId && l.letter === letter)
  return own.length > 0 ? sum(own.map((l) => l.load)) : undefined
}

/** Lanes that a gentler or a closer plan treats otherwise; what is more comes before what is less. */
export function planDifferences(
  plan: Lanes,
  gentlest: Lanes | undefined,
  closest: Lanes | undefined,
): LaneDifference[] {
  return plan.lanes
    .filter(
      (lane, i, all) =>
        all.findIndex((l) => l.zoneId === lane.zoneId && l.letter === lane.letter) === i,
    )
    .flatMap((lane): LaneDifference[] => {
      const { zoneId, letter } = lane
      const load = loadOf(plan, lane)!
      const least = (gentlest && loadOf(gentlest, lane)) ?? load
      const most = (closest && loadOf(closest, lane)) ?? load
      if (most > load + SAME) return [{ zoneId, letter, difference: 'closest-more' }]
      if (least < load - SAME) return [{ zoneId, letter, difference: 'gentlest-less' }]
      return []
    })
}

/** The points of a front from gentlest to closest: each smoother than the one before, for higher odds. */
export function frontLine(points: readonly FrontPoint[]): FrontPoint[] {
  const line: FrontPoint[] = []
  for (const p of [...points].sort((a, b) => a.odds - b.odds || b.hours - a.hours))
    if (line.length === 0 || p.hours > line[line.length - 1]!.hours + 0.05) line.push(p)
  return line
}

/** Kinds of plan that can be told apart; all of them where a plan does not say. */
export const offeredKinds = (plan: Pick<Plan, 'front'> | undefined): readonly Style[] =>
  plan?.front ? STYLES.filter((s) => plan.front!.offered[s] !== undefined) : STYLES

/** The offered kind that a plan is: its own, or the one that its kind comes to; undefined for a plan between them. */
export function kindOf({ front, choice }: Pick<Plan, 'front' | 'choice'>): Style | undefined {
  if (choice.hours !== undefined) return undefined
  if (!front || front.offered[choice.style] !== undefined) return choice.style
  return STYLES.find((s) => front.offered[s] === front.at)
}

/** Where on the line of a front a plan stands: the place nearest in hours. */
export function placeOn(line: readonly FrontPoint[], hours: number): number {
  const off = (i: number) => Math.abs(line[i]!.hours - hours)
  return line.reduce((best, _, i) => (off(i) < off(best) ? i : best), 0)
}
