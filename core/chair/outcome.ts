/** What a service leaves behind: the load it gave and the hair it left standing. */
import { strokeAngle } from '../grain/relation.ts'
import { stubbleLeftMm } from '../plan/closeness.ts'
import type { Plan } from '../plan/types.ts'
import type { ChairState } from './service.ts'

/** Load really given to each zone: the planned passes that were done. */
export function executedLoads(
  plan: Pick<Plan, 'zones'>,
  outcomes: ChairState['outcomes'],
): Record<string, number> {
  const loads: Record<string, number> = {}
  for (const zone of plan.zones) {
    for (const pass of zone.passes) {
      if (outcomes[`${zone.zoneId}:${pass.pass}`] !== 'done') continue
      loads[zone.zoneId] = (loads[zone.zoneId] ?? 0) + pass.load
    }
  }
  return loads
}

/** Hair left standing in each zone by the passes that were done, mm. */
export function leftStanding(
  plan: Plan,
  state: Pick<ChairState, 'outcomes'>,
): Record<string, number> {
  const left: Record<string, number> = {}
  for (const zone of plan.zones) {
    const done = zone.passes.filter((p) => state.outcomes[`${zone.zoneId}:${p.pass}`] === 'done')
    if (done.length === 0) continue
    left[zone.zoneId] = Math.min(
      ...done.map((p) => stubbleLeftMm(strokeAngle(p.strokeBearing, zone.growthDirection))),
    )
  }
  return left
}
