/** "Make it 30 minutes": drops what buys least until a plan fits, and says what. Both sides of an area go together. */
import type { Figures } from '../house/index.ts'
import type { Relation } from '../grain/index.ts'
import { areaOf, zoneStem, type ZoneId } from '../zones/index.ts'
import type { Dropped, HandWork, Lane, ZonePlan } from './types.ts'
import { type Part, type Sat, walkHand, walkSitting } from './sitting.ts'

/** A plan that fits, as far as dropping can make it. */
export interface Fitted {
  readonly parts: readonly Part[]
  readonly walked: Sat
  readonly dropped: readonly Dropped[]
}

/**
 * Drops last passes, never first ones, until the sitting takes no more than the minutes given.
 * @param alone what a sitting by hand alone is walked with
 */
export function fit(
  given: readonly Part[],
  hand: readonly HandWork[],
  within: number | undefined,
  alone: { readonly figures: Figures; readonly noFragrance: boolean },
): Fitted {
  if (given.length === 0) {
    const walked = walkHand(alone.figures, hand, alone.noFragrance)
    return { parts: given, walked, dropped: [] }
  }
  let parts = given
  let walked = walkSitting(parts, hand)
  const dropped: Dropped[] = []
  while (within !== undefined && walked.totalMinutes > within + 0.05) {
    const least = leastWorth(
      parts.flatMap((p) => p.zones),
      parts.flatMap((p) => p.lanes),
    )
    if (!least) break
    const own = new Set(least.zones)
    parts = parts.map((part) => ({
      ...part,
      lanes: part.lanes.filter((l) => !(own.has(l.zoneId) && l.pass === least.pass)),
      zones: part.zones.map((z) => (own.has(z.zoneId) ? withoutLast(z) : z)),
    }))
    const next = walkSitting(parts, hand)
    dropped.push({
      relation: least.relation,
      zone: least.name,
      minutes: walked.totalMinutes - next.totalMinutes,
      hours: least.hours,
    })
    walked = next
  }
  return { parts, walked, dropped }
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
