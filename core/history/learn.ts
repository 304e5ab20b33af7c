/** What a client's history teaches: their skin and their growth, by zone. */
import { hairIn, type SkinAndHair } from '../client.ts'
import { priorGrowth, updateGrowth, type Growth } from '../regrowth/growth.ts'
import { serviceZones, type ServiceId } from '../services.ts'
import { zoneSensitivity, type Sensitivity, type SkinOutcome } from '../skin/sensitivity.ts'
import { worstByZone, type HairReading, type PastService } from './answers.ts'

/** What the models have learned of a client, by zone. */
export interface ClientModel {
  sensitivity: Record<string, Sensitivity>
  growth: Record<string, Growth>
  /** Services with an answer within 48 h. */
  answeredServices: number
}

/** Learns a client. Zones of the service that were not marked in an answer were clear. */
export function learnClient(
  skin: SkinAndHair,
  service: ServiceId,
  past: readonly PastService[],
  hair: readonly (HairReading & { leftMm: number })[],
): ClientModel {
  const outcomes: SkinOutcome[] = []
  let answeredServices = 0
  for (const visit of past) {
    const worst = worstByZone(visit)
    if (!worst) continue
    answeredServices++
    for (const [zoneId, load] of Object.entries(visit.loads)) {
      outcomes.push({ zoneId, load, grade: worst.get(zoneId) ?? 0 })
    }
  }
  const sensitivity: ClientModel['sensitivity'] = {}
  for (const zone of serviceZones(service)) {
    sensitivity[zone] = zoneSensitivity(zone, skin.reactivity, outcomes)
  }
  return { sensitivity, growth: learnGrowth(skin, service, hair), answeredServices }
}

/** Growth by zone; a reading without a zone speaks for all zones of the service. */
export function learnGrowth(
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
      }))
    growth[zone] = updateGrowth(priorGrowth(zone, hairIn(zone, skin.faceHair)), readings)
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
