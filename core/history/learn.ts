/** What a client's history teaches: their skin, their bumps and their growth, by zone, and how fast redness fades. */
import type { Figures } from '../house/index.ts'
import { hairIn, type SkinAndHair } from '../client.ts'
import { priorGrowth, updateGrowth, type Growth } from '../regrowth/index.ts'
import { serviceZones, type ServiceId } from '../services/index.ts'
import {
  learnBumps,
  learnFading,
  type FadeBelief,
  believe,
  type SkinBelief,
  skinPooling,
  zoneSensitivity,
  zoneSums,
  type StudioSkin,
  expectedMean,
  type Sensitivity,
  type SkinOutcome,
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
  /** Of the last answered services how many had a zone at redness 2 or more. */
  record: { visits: number; reddened: number }
  /** Bumps and ingrown hairs per unit load. */
  bumps: Record<string, Sensitivity>
  growth: Record<string, Growth>
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

/** Learns a client. */
export function learnClient(
  figures: Figures,
  skin: SkinAndHair,
  service: ServiceId,
  past: readonly PastService[],
  hair: readonly (HairReading & { leftMm: number })[],
  studio?: StudioSkin,
): ClientModel {
  const zones = serviceZones(service)
  const outcomes = skinOutcomes(figures, past)
  const bumps = bumpOutcomes(figures, past)
  const mean = studio?.mean[skin.reactivity] ?? expectedMean(figures, skin.reactivity)
  const belief = believe(zoneSums(outcomes.flat()), skinPooling(figures, mean))
  const last = outcomes.slice(-RECORD_VISITS)
  return {
    sensitivity: Object.fromEntries(zones.map((z) => [z, zoneSensitivity(belief, z)])),
    belief,
    record: {
      visits: last.length,
      reddened: last.filter((visit) => visit.some((o) => o.grade >= 2)).length,
    },
    bumps: learnBumps(figures, zones, skin, bumps.flat()),
    growth: learnGrowth(figures, skin, service, hair),
    fading: learnFading(figures, fadeSteps(past)),
    learnedZones: [...new Set(hair.flatMap((h) => (h.zoneId ? [h.zoneId] : [])))],
    answeredServices: outcomes.length,
    bumpServices: bumps.length,
    studioMean: mean,
    studioClients: studio?.clients[skin.reactivity] ?? 0,
  }
}

/** Growth by zone; a reading without a zone speaks for all zones of the service. */
export function learnGrowth(
  figures: Figures,
  skin: SkinAndHair,
  service: ServiceId,
  hair: readonly (HairReading & { leftMm: number })[],
): Record<string, Growth> {
  const growth: Record<string, Growth> = {}
  for (const zone of serviceZones(service)) {
    const readings = hair
      .filter((h) => h.zoneId === null || h.zoneId === zone)
      .map((h) => ({
        kind: h.kind,
        days: h.days,
        leftMm: h.leftMm,
        ...(h.lengthMm !== null && { lengthMm: h.lengthMm }),
        ...(h.method && { method: h.method }),
      }))
    growth[zone] = updateGrowth(
      figures,
      priorGrowth(figures, zone, hairIn(zone, skin.faceHair)),
      readings,
    )
  }
  return growth
}

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
