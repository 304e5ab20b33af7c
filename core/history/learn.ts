/** What a client's history teaches: their skin, their bumps and their growth, by zone, and how fast redness fades. */
import type { Figures, Units } from '../house/index.ts'
import type { ZoneId } from '../zones/index.ts'
import { bumpProneIn, hairIn, type SkinAndHair } from '../client.ts'
import {
  doubt,
  fastest,
  learnGrowths,
  priorGrowth,
  seenTimes,
  type Growth,
  type PlacedReading,
  type SkinOf,
} from '../regrowth/index.ts'
import {
  learnBumps,
  learnFading,
  type FadeBelief,
  believe,
  type SkinBelief,
  skinPooling,
  zoneSensitivity,
  sumVisits,
  expectedMean,
  type Sensitivity,
  type SkinOutcome,
  type SkinRecord,
} from '../skin/index.ts'
import {
  bumpsByZone,
  fadeSteps,
  worstByZone,
  type PastService,
  type HairReading,
} from '../looks/index.ts'

/** What the models have learned of a client, by zone. */
export interface ClientModel {
  sensitivity: Record<string, Sensitivity>
  /** What is believed of the client's skin as a whole; the zones' sensitivities come from it. */
  belief: SkinBelief
  /** What was seen of the last answered services. */
  record: SkinRecord
  /** Bumps and ingrown hairs per unit load. */
  bumps: Record<string, Sensitivity>
  growth: Readonly<Record<string, Growth>>
  fading: FadeBelief
  /** Zones with a reading of hair of their own. */
  learnedZones: string[]
  /** Services with an answer within 48 h. */
  answeredServices: number
  /** Services with bumps counted on days 2 to 14. */
  bumpServices: number
  /** Grade per unit load that is expected of such skin: the house's estimate moved by the studio's clients. */
  studioMean: number
  /** Clients behind the studio's mean. */
  studioClients: number
}

/** Outcomes of past services, zone by zone. Zones of the service that were not marked in an answer were clear. */
export function skinOutcomes(figures: Figures, past: readonly PastService[]): SkinOutcome[][] {
  return past.flatMap((visit) => {
    const worst = worstByZone(figures, visit)
    const red = visit.redAtChair ?? {}
    // Without an answer only what reddened at the chair is known.
    const known = Object.entries(visit.loads).filter(([zoneId]) => worst || zoneId in red)
    if (known.length === 0 && !worst) return []
    return [
      known.map(([zoneId, load]) => ({
        zoneId,
        load,
        grade: worst?.get(zoneId) ?? red[zoneId] ?? 0,
      })),
    ]
  })
}

/** Bumps of past services, zone by zone. */
export function bumpOutcomes(
  figures: Figures,
  past: readonly PastService[],
): { zoneId: string; load: number; count: number }[][] {
  return past.flatMap((visit) => {
    const most = bumpsByZone(figures, visit)
    return most
      ? [
          Object.entries(visit.loads).map(([zoneId, load]) => ({
            zoneId,
            load,
            count: most.get(zoneId) ?? 0,
          })),
        ]
      : []
  })
}

/** A client's own record looks back over so many answered services. */
const RECORD_VISITS = 8

/** What the studio's other clients showed of such skin, and how many they are. */
export interface Others {
  readonly mean: number
  readonly clients: number
}

/** Oldest first, in whatever order they come: what is learned fades with age. */
const byAge = (past: readonly PastService[]): PastService[] =>
  [...past].sort((a, b) => a.endedAtMs - b.endedAtMs)

/**
 * What the looks of past services teach of a client's skin as a whole.
 * @param past in any order
 * @returns with the outcomes, oldest first
 */
export function learnSkin(
  figures: Figures,
  skin: SkinAndHair,
  past: readonly PastService[],
  others?: Others,
): SkinOf & { readonly outcomes: SkinOutcome[][]; readonly mean: number } {
  const outcomes = skinOutcomes(figures, byAge(past))
  const mean = others?.mean ?? expectedMean(figures, skin.reactivity)
  return {
    outcomes,
    mean,
    belief: believe(sumVisits(figures, outcomes, mean), skinPooling(figures, mean)),
    fading: learnFading(figures, fadeSteps(past)),
  }
}

/**
 * Learns a client.
 * @param past in any order
 * @param others what the studio's other clients showed of such skin, and how many they are; the house's estimate when left out
 */
export function learnClient(
  figures: Figures,
  skin: SkinAndHair,
  zones: readonly ZoneId[],
  past: readonly PastService[],
  hair: readonly KeptHair[],
  others?: Others,
): ClientModel {
  const { outcomes, mean, belief, fading } = learnSkin(figures, skin, past, others)
  const bumps = bumpOutcomes(figures, byAge(past))
  const each = outcomes.slice(-RECORD_VISITS).map((visit) => visit.some((o) => o.grade >= 2))
  return {
    sensitivity: Object.fromEntries(zones.map((z) => [z, zoneSensitivity(belief, z)])),
    belief,
    record: {
      visits: each.length,
      reddened: each.filter((red) => red).length,
      each,
    },
    bumps: bumpsByPart(figures, skin, zones, bumps),
    growth: learnGrowth(figures, skin, zones, hair),
    fading,
    learnedZones: [...new Set(hair.flatMap((h) => (h.zoneId ? [h.zoneId] : [])))],
    answeredServices: outcomes.length,
    bumpServices: bumps.length,
    studioMean: mean,
    studioClients: others?.clients ?? 0,
  }
}

/** Bumps of parts that are prone to them, and of those that are not, each from its own visits: legs do not govern the face. */
function bumpsByPart(
  figures: Figures,
  skin: SkinAndHair,
  zones: readonly ZoneId[],
  visits: ReturnType<typeof bumpOutcomes>,
): ClientModel['bumps'] {
  if (!skin.bumpProne || skin.bumpAreas === undefined)
    return learnBumps(figures, zones, skin, visits)
  const part = (prone: boolean) => {
    const own = (zone: string) => bumpProneIn(skin, zone as ZoneId) === prone
    return learnBumps(
      figures,
      zones.filter(own),
      { ...skin, bumpProne: prone },
      visits.map((v) => v.filter((z) => own(z.zoneId))).filter((v) => v.length > 0),
    )
  }
  return { ...part(false), ...part(true) }
}

/** A reading of hair as it is kept, with what the service left standing. */
export type KeptHair = HairReading & {
  readonly leftMm: number
  /** The hair had come out by its root: how long it rested is not how fast it grows. */
  readonly byRoot?: boolean | undefined
}

const NOT_YET = { 'not-felt': 'felt', 'not-seen': 'seen' } as const

/** Readings as learning takes them: each "yes" with the latest "not yet" of its visit before it. */
export function growthReadings(all: readonly KeptHair[]): PlacedReading[] {
  const hair = all.filter((h) => !h.byRoot)
  const notYet = hair.flatMap((h) =>
    h.kind === 'not-felt' || h.kind === 'not-seen' ? [{ ...h, of: NOT_YET[h.kind] }] : [],
  )
  const followed = new Set<KeptHair['id']>()
  const told = hair.map((h): PlacedReading => {
    const before = notYet.filter(
      (n) =>
        n.of === h.kind &&
        n.visitId === h.visitId &&
        (n.zoneId === null || n.zoneId === h.zoneId) &&
        n.days < h.days,
    )
    // Held by the "yes" that came after it.
    for (const n of before) if (n.zoneId === h.zoneId) followed.add(n.id)
    return {
      zoneId: h.zoneId,
      kind: h.kind,
      days: h.days,
      leftMm: h.leftMm,
      ...(before.length > 0 && { notYetDays: Math.max(...before.map((n) => n.days)) }),
      ...(h.lengthMm !== null && { lengthMm: h.lengthMm }),
      ...(h.method && { method: h.method }),
    }
  })
  return told.filter((_, i) => !followed.has(hair[i]!.id))
}

/** What is expected of each zone's growth before anything is told. */
export const expectedGrowth = (
  figures: Figures,
  skin: SkinAndHair,
  zones: readonly ZoneId[],
): Record<string, Growth> =>
  Object.fromEntries(
    zones.map((zone) => [
      zone,
      {
        ...priorGrowth(figures, zone, hairIn(zone, skin.faceHair)),
        ...(skin.contrast && { seenTimes: seenTimes(figures, skin.contrast) }),
      },
    ]),
  )

/** Why a reading of hair is asked about and not learned from, in words with lengths in `unit`; undefined when it may be. */
export function hairDoubt(
  figures: Figures,
  skin: SkinAndHair,
  zones: readonly ZoneId[],
  reading: PlacedReading,
  unit?: Units['length'],
): string | undefined {
  const expected = expectedGrowth(figures, skin, zones)
  const zone = reading.zoneId === null ? fastest(expected) : expected[reading.zoneId]
  return zone && doubt(figures, zone, reading, unit)
}

/** Growth by zone. */
export const learnGrowth = (
  figures: Figures,
  skin: SkinAndHair,
  zones: readonly ZoneId[],
  hair: readonly KeptHair[],
): Readonly<Record<string, Growth>> =>
  learnGrowths(figures, expectedGrowth(figures, skin, zones), growthReadings(hair))

/** The growth that stands for a whole service on the tide line: the mean over its zones. */
export function meanGrowth(growth: Readonly<Record<string, Growth>>): Growth | undefined {
  const all = Object.values(growth)
  const main = all.filter(
    (g) => g.curve === (all.some((x) => x.curve === 'terminal') ? 'terminal' : 'fuzz'),
  )
  if (main.length === 0) return undefined
  const mean = (pick: (g: Growth) => number) => main.reduce((s, g) => s + pick(g), 0) / main.length
  return { curve: main[0]!.curve, mean: mean((g) => g.mean), sd: mean((g) => g.sd) }
}

/** Least hair left by a service, mm; what a usual pass leaves when nothing was kept. */
export function meanLeft(leftMm: Readonly<Record<string, number>> | null): number {
  const all = Object.values(leftMm ?? {})
  return all.length === 0 ? 0.15 : all.reduce((s, v) => s + v, 0) / all.length
}
