/** What a service leaves behind: the load it gave and the hair it left standing. */
import { strokeAngle } from '../grain/relation.ts'
import { stubbleLeftMm } from '../plan/closeness.ts'
import type { Lane, Plan, ZonePlan } from '../plan/types.ts'
import type { ZoneId } from '../head/zones.ts'
import type { Nick } from './state.ts'
import type { ChairState } from './service.ts'

type Outcomes = ChairState['outcomes']

/** Lanes of a zone that were done. */
const doneLanes = (plan: Pick<Plan, 'lanes'>, zone: ZonePlan, outcomes: Outcomes) =>
  plan.lanes.filter((l) => l.zoneId === zone.zoneId && outcomes[l.id] === 'done')

/** Plans of the first version had no lanes: a zone was done pass by pass. */
const donePasses = (zone: ZonePlan, outcomes: Outcomes) =>
  zone.passes.filter((p) => outcomes[`${zone.zoneId}:${p.pass}`] === 'done')

/** Load really given to each zone, over its worked area: the lanes that were done. */
export function executedLoads(
  plan: Pick<Plan, 'zones' | 'lanes'>,
  outcomes: Outcomes,
): Record<string, number> {
  const loads: Record<string, number> = {}
  for (const zone of plan.zones) {
    const load =
      plan.lanes.length > 0
        ? doneLanes(plan, zone, outcomes).reduce(
            (s, l) => s + (l.load * l.areaCm2) / zone.areaCm2,
            0,
          )
        : donePasses(zone, outcomes).reduce((s, p) => s + p.load, 0)
    if (load > 0) loads[zone.zoneId] = load
  }
  return loads
}

/** Hair left standing in each zone by the lanes that were done, mm: of each patch the least, over the patches their mean. */
export function leftStanding(
  plan: Pick<Plan, 'zones' | 'lanes'>,
  state: Pick<ChairState, 'outcomes'>,
): Record<string, number> {
  const left: Record<string, number> = {}
  for (const zone of plan.zones) {
    if (plan.lanes.length === 0) {
      const done = donePasses(zone, state.outcomes)
      if (done.length === 0) continue
      left[zone.zoneId] = Math.min(
        ...done.map((p) => stubbleLeftMm(strokeAngle(p.strokeBearing, zone.growthDirection))),
      )
      continue
    }
    const patches = new Map<string, Lane>()
    for (const lane of doneLanes(plan, zone, state.outcomes)) {
      const had = patches.get(lane.letter)
      if (!had || lane.leftMm < had.leftMm) patches.set(lane.letter, lane)
    }
    if (patches.size === 0) continue
    const all = [...patches.values()]
    left[zone.zoneId] =
      all.reduce((s, l) => s + l.leftMm * l.areaCm2, 0) / all.reduce((s, l) => s + l.areaCm2, 0)
  }
  return left
}

/** Zone of a nick: where it was tapped, else where the lane was that was being worked. */
export const nickZone = (
  plan: Pick<Plan, 'lanes' | 'steps'> | null,
  nick: Pick<Nick, 'zoneId' | 'stepId'>,
): ZoneId | undefined =>
  nick.zoneId ??
  plan?.steps.find((s) => s.id === nick.stepId)?.zoneId ??
  plan?.lanes.find((l) => l.id === nick.stepId)?.zoneId
