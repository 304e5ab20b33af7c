/** What a client's history teaches: their skin and their growth, by zone. */
import { hairIn, type SkinAndHair } from '../../core/client.ts'
import { priorGrowth, updateGrowth, type Growth } from '../../core/regrowth/growth.ts'
import { serviceZones, type ServiceId } from '../../core/services.ts'
import { SKIN_CONSTANTS, zoneSensitivity, type SkinOutcome } from '../../core/skin/sensitivity.ts'
import { HOUR_MS } from '../../core/time/dates.ts'
import type { ClientModel, HairReading, SkinAnswer } from '../../contract/types.ts'

/** A past service as far as learning needs it. */
export interface PastService {
  readonly endedAtMs: number
  readonly loads: Readonly<Record<string, number>>
  readonly answers: readonly Pick<SkinAnswer, 'atMs' | 'zones'>[]
}

/** Worst grade of each zone among the answers that count toward a service; undefined when nobody answered in time. */
export function worstByZone(past: PastService): Map<string, number> | undefined {
  const limit = past.endedAtMs + SKIN_CONSTANTS.readWithinHours.value * HOUR_MS
  // A little grace: "48 h" is answered on that day, not to the minute.
  const inTime = past.answers.filter((a) => a.atMs <= limit + 12 * HOUR_MS)
  if (inTime.length === 0) return undefined
  const worst = new Map<string, number>()
  for (const answer of inTime) {
    for (const zone of answer.zones) {
      worst.set(zone.zoneId, Math.max(worst.get(zone.zoneId) ?? 0, zone.redness))
    }
  }
  return worst
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
