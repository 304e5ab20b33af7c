/**
 * What a client comes for, as their visits show it: each kind of work with the skin that it last took, until another kind takes
 * that skin over or nobody has asked for it for long.
 */
import { constant, type Figures } from '../house/index.ts'
import { isPlanned, kindOfWork, SERVICES, type Service, type ServiceId } from '../services/index.ts'
import { DAY_MS } from '../time/index.ts'
import type { ZoneId } from '../zones/index.ts'
import type { PastJob } from '../history/index.ts'

export const UPKEEP_CONSTANTS = {
  lapsesDays: constant(
    200,
    'days',
    'Work that nobody has asked for so long is no longer laid out beside the usual service',
    'H',
  ),
} as const

/** One kind of work that comes again. */
export interface Upkeep {
  /** The last of its kind. */
  readonly job: PastJob
  /** What of its skin is still its own. */
  readonly zones: readonly ZoneId[]
}

/** True for work that takes the hair of its skin whole: single strays and a line along the edge leave the rest. */
function takesWhole({ service, method }: Pick<PastJob, 'service' | 'method'>): boolean {
  const { alongLines }: Service = SERVICES[service]
  return method !== 'tweezers' && method !== 'trimmer' && !(isPlanned(method) && alongLines)
}

/**
 * The kinds of work of a client that come again, the usual service first.
 * @param past jobs of finished visits, newest first
 * @param usual the service that the client comes for
 */
export function upkeepsOf(
  figures: Figures,
  past: readonly PastJob[],
  usual: ServiceId,
  nowMs: number,
): Upkeep[] {
  const kinds = new Map<string, PastJob>()
  for (const job of past) if (!kinds.has(kindOfWork(job))) kinds.set(kindOfWork(job), job)
  const isUsual = (job: PastJob) => job.service === usual && isPlanned(job.method)
  return [...kinds.values()]
    .flatMap((job): Upkeep[] => {
      const done = Object.keys(job.leftMm ?? {}) as ZoneId[]
      if (isUsual(job)) return [{ job, zones: done }]
      if (nowMs - job.endedAtMs > figures(UPKEEP_CONSTANTS.lapsesDays) * DAY_MS) return []
      const taken = new Set(
        past
          .filter((p) => p.endedAtMs > job.endedAtMs && takesWhole(p) && takesWhole(job))
          .flatMap((p) => Object.keys(p.leftMm ?? {})),
      )
      const zones = done.filter((z) => !taken.has(z))
      return zones.length > 0 ? [{ job, zones }] : []
    })
    .sort((a, b) => Number(isUsual(b.job)) - Number(isUsual(a.job)))
}

/** The same job as if it had worked only the skin that is still its own. */
export const upkeepLast = ({ job, zones }: Upkeep): PastJob => ({
  ...job,
  leftMm: Object.fromEntries(zones.map((z) => [z, job.leftMm![z]!])),
})
