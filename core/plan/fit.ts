/** "Make it 30 minutes": drops what buys least until a plan fits, and says what. */
import type { Relation } from '../grain/index.ts'
import type { ZoneId } from '../zones/index.ts'
import type { Dropped, Lane, ZonePlan } from './types.ts'
import { type Walked, type WalkInput, walkThrough } from './walk.ts'

/** A plan that fits, as far as dropping can make it. */
export interface Fitted {
  readonly zones: readonly ZonePlan[]
  readonly lanes: readonly Lane[]
  readonly walked: Walked
  readonly dropped: readonly Dropped[]
}

/** Drops last passes, never first ones, until the lanes take no more than the minutes given. */
export function fit(
  input: WalkInput,
  allZones: readonly ZonePlan[],
  ordered: readonly Lane[],
  within: number | undefined,
): Fitted {
  let zones = allZones
  let lanes = ordered
  let walked = walkThrough(input, lanes, zones)
  const dropped: Dropped[] = []
  while (within !== undefined && walked.totalMinutes > within + 0.05) {
    const least = cheapest(zones, lanes)
    if (!least) break
    lanes = lanes.filter((l) => !(l.zoneId === least.zoneId && l.pass === least.pass))
    zones = zones.map((z) => (z.zoneId === least.zoneId ? withoutLast(z) : z))
    const next = walkThrough(input, lanes, zones)
    dropped.push({
      relation: least.relation,
      zone: least.zone,
      minutes: walked.totalMinutes - next.totalMinutes,
      hours: least.hours,
    })
    walked = next
  }
  return { zones, lanes, walked, dropped }
}

/** The last pass of a zone that buys the least smoothness over its area for its time; first passes are never dropped. */
function cheapest(zones: readonly ZonePlan[], lanes: readonly Lane[]) {
  let least:
    | {
        zoneId: ZoneId
        zone: string
        pass: number
        relation: Relation
        hours: number
        worth: number
      }
    | undefined
  for (const zone of zones) {
    const last = zone.passes[zone.passes.length - 1]!
    const before = zone.passes[zone.passes.length - 2]
    if (!before) continue
    const own = lanes.filter((l) => l.zoneId === zone.zoneId && l.pass === last.pass)
    const seconds = own.reduce((s, l) => s + l.seconds, 0)
    const hours = last.smoothHours - before.smoothHours
    const worth = (hours * zone.areaCm2) / Math.max(seconds, 1)
    if (!least || worth < least.worth) {
      const { zoneId, name } = zone
      least = { zoneId, zone: name, pass: last.pass, relation: last.relation, hours, worth }
    }
  }
  return least
}

function withoutLast(zone: ZonePlan): ZonePlan {
  const passes = zone.passes.slice(0, -1)
  const last = passes[passes.length - 1]!
  return {
    ...zone,
    passes,
    totalLoad: passes.reduce((s, p) => s + p.load, 0),
    smoothHours: last.smoothHours,
    rednessOdds: last.rednessOdds,
  }
}
