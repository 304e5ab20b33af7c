/** What was left out of a service comes back: when its skin is healed, and how long a short visit for it alone would take. */
import { constant, type Figures } from '../house/index.ts'
import type { AtChair } from '../looks/index.ts'
import type { Plan } from '../plan/index.ts'
import type { Job } from '../services/index.ts'
import { sum } from '../stats/index.ts'
import { DAY_MS, type IsoDate } from '../time/index.ts'
import { mirrorZone, type ZoneId } from '../zones/index.ts'

export const LEFT_OUT_CONSTANTS = {
  healDays: constant(
    7,
    'days',
    'What was left out for the sake of its skin is looked at again after this',
    'H',
  ),
  aroundMin: constant(6, 'min', 'A short visit takes so long before and after its strokes', 'H'),
} as const

/** What comes back. */
export interface ComesBack {
  readonly job: Omit<Job, 'id'>
  readonly zones: readonly ZoneId[]
  /** Why each was left out, without repeats. */
  readonly reasons: readonly string[]
  /** When its skin is likely healed; a look decides. */
  readonly fromMs: number
  readonly minutes: number
}

/** What a finished service gives to go by. */
export interface LeftOutFacts {
  readonly plan: Pick<Plan, 'jobs' | 'zones' | 'lanes' | 'leftOut' | 'screening'>
  readonly atChair: Pick<AtChair, 'leftOut'>
  readonly endedAtMs: number
  /** Noon of a day here. */
  readonly noonOf: (day: IsoDate) => number
}

/**
 * Zones that were left out at the chair, or at asking for their skin's sake; what is kept, or has no hair, is not left out. Nothing
 * where everything was done.
 */
export function comesBack(
  figures: Figures,
  { plan, atChair, endedAtMs, noonOf }: LeftOutFacts,
): ComesBack | undefined {
  const { screening } = plan
  const asked = plan.leftOut.filter(
    (z) => z.skipped === undefined && screening.leaveOutZones.includes(z.zoneId),
  )
  const reasons = new Map<ZoneId, string>([
    ...asked.map((z) => [z.zoneId, z.reason] as const),
    ...Object.entries(atChair.leftOut).map(([zone, why]) => [zone as ZoneId, why] as const),
  ])
  if (reasons.size === 0) return undefined
  const zones = [...reasons.keys()]
  const job = plan.jobs.find((j) => plan.zones.some((z) => z.jobId === j.id)) ?? plan.jobs[0]!
  const { service, method } = job
  const healed = endedAtMs + figures(LEFT_OUT_CONSTANTS.healDays) * DAY_MS
  const fromMs = Math.max(healed, screening.wholeFrom ? noonOf(screening.wholeFrom) : 0)
  return {
    job: { service, method, zones },
    zones,
    reasons: [...new Set(reasons.values())],
    fromMs,
    minutes: Math.round(figures(LEFT_OUT_CONSTANTS.aroundMin) + strokeMinutes(plan, zones)),
  }
}

/** Strokes over zones that were not planned: at the pace and size of those that were, the same place of the other side first. */
function strokeMinutes(
  { zones: planned, lanes }: Pick<Plan, 'zones' | 'lanes'>,
  zones: readonly ZoneId[],
): number {
  const area = sum(planned.map((z) => z.areaCm2))
  if (area === 0) return 0
  const perCm2 = sum(lanes.map((l) => l.seconds)) / 60 / area
  const mean = area / planned.length
  const areaOf = (zone: ZoneId) =>
    (planned.find((z) => z.zoneId === zone) ?? planned.find((z) => z.zoneId === mirrorZone(zone)))
      ?.areaCm2 ?? mean
  return perCm2 * sum(zones.map(areaOf))
}
