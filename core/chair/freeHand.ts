/** Where the free hand holds now: another place than planned, once what was planned was nicked or has reddened. */
import type { Vec3 } from '../head/index.ts'
import { holdNow, NOTHING_TO_HOLD, type Hold, type Lane, type Plan } from '../plan/index.ts'
import type { ZoneId } from '../zones/index.ts'
import { nickZone } from './outcome.ts'
import type { ChairState } from './state.ts'

/** The hold of a lane and its words; plans kept before holds were told have words alone. */
export function freeHandNow(
  plan: Pick<Plan, 'steps' | 'lanes'>,
  lane: Pick<Lane, 'holds' | 'freeHand'>,
  state: Pick<ChairState, 'nicks' | 'redness' | 'felt'>,
): { readonly text: string; readonly hold?: Hold } {
  if (!lane.holds) return { text: lane.freeHand }
  const points: Vec3[] = []
  const zones = new Set<ZoneId>()
  for (const nick of state.nicks) {
    const zone = nickZone(plan, nick)
    if (nick.point) points.push(nick.point)
    else if (zone) zones.add(zone)
  }
  for (const { zoneId } of state.redness) zones.add(zoneId)
  // What nobody has read or felt yet is not leant on.
  for (const l of plan.lanes) if (l.grain === 'guess' && !state.felt[l.zoneId]) zones.add(l.zoneId)
  const hold = holdNow(lane.holds, { points, zones })
  return hold ? { text: hold.text, hold } : { text: NOTHING_TO_HOLD }
}
