/** "Make it 30 minutes": drops what buys least until a plan fits, and says what. Both sides of an area go together. */
import type { Relation } from '../grain/index.ts'
import { areaOf, zoneStem, type ZoneId } from '../zones/index.ts'
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
    const least = leastWorth(zones, lanes)
    if (!least) break
    const own = new Set(least.zones)
    lanes = lanes.filter((l) => !(own.has(l.zoneId) && l.pass === least.pass))
    zones = zones.map((z) => (own.has(z.zoneId) ? withoutLast(z) : z))
    const next = walkThrough(input, lanes, zones)
    dropped.push({
      relation: least.relation,
      zone: least.name,
      minutes: walked.totalMinutes - next.totalMinutes,
      hours: least.hours,
    })
    walked = next
  }
  return { zones, lanes, walked, dropped }
}

/** A last pass of an area, and what it buys: hours over its skin for each second. */
export interface LastPass {
  readonly zones: readonly ZoneId[]
  readonly name: string
  readonly pass: number
  readonly relation: Relation
  /** Hours of smoothness that go with it, mean over its skin. */
  readonly hours: number
  /** Hours · cm² a second. */
  readonly worth: number
}

/** The last passes of all areas; first passes are never among them. */
export function lastPasses(zones: readonly ZonePlan[], lanes: readonly Lane[]): LastPass[] {
  const groups = new Map<string, ZonePlan[]>()
  for (const zone of zones) {
    if (zone.passes.length < 2) continue
    const key = `${areaOf(zoneStem(zone.zoneId)).name} ${zone.passes.length}`
    groups.set(key, [...(groups.get(key) ?? []), zone])
  }
  return [...groups.values()].map((own) => {
    const last = own[0]!.passes[own[0]!.passes.length - 1]!
    const ids = own.map((z) => z.zoneId)
    const seconds = lanes
      .filter((l) => ids.includes(l.zoneId) && l.pass === last.pass)
      .reduce((s, l) => s + l.seconds, 0)
    const area = own.reduce((s, z) => s + z.areaCm2, 0)
    const gain = own.reduce((s, z) => {
      const [before, after] = z.passes.slice(-2)
      return s + z.areaCm2 * (after!.smoothHours - before!.smoothHours)
    }, 0)
    return {
      zones: ids,
      name: areaOf(zoneStem(ids[0]!)).name,
      pass: last.pass,
      relation: last.relation,
      hours: gain / area,
      worth: gain / Math.max(seconds, 1),
    }
  })
}

const leastWorth = (zones: readonly ZonePlan[], lanes: readonly Lane[]): LastPass | undefined =>
  lastPasses(zones, lanes).reduce<LastPass | undefined>(
    (a, b) => (a && a.worth <= b.worth ? a : b),
    undefined,
  )

function withoutLast(zone: ZonePlan): ZonePlan {
  const passes = zone.passes.slice(0, -1)
  const last = passes[passes.length - 1]!
  return {
    ...zone,
    passes,
    totalLoad: passes.reduce((s, p) => s + p.load, 0),
    smoothHours: last.smoothHours,
    rednessOdds: last.rednessOdds,
    ...(last.bumpOdds !== undefined && { bumpOdds: last.bumpOdds }),
  }
}
