/** Edits of what a sitting is to do, as the screen makes them. */
import { areaOf, AREAS_WORKED, zoneStem, type Area, type ZoneId } from '../zones/index.ts'
import { jobZones, type Job } from './job.ts'
import { serviceZones, type ServiceId, zonesToChoose } from './list.ts'
import type { Method } from './method.ts'

/** The areas that a service works, from above to below, each with its zones. */
export const areasOf = (
  service: ServiceId,
): readonly { readonly area: Area; readonly zones: readonly ZoneId[] }[] =>
  AREAS_WORKED.flatMap((area) => {
    const zones = zonesToChoose(service).filter((z) => areaOf(zoneStem(z)) === area)
    return zones.length > 0 ? [{ area, zones }] : []
  })

/** Zones as a job keeps them: null where they are all that the service names. */
const kept = (service: ServiceId, zones: readonly ZoneId[]): readonly ZoneId[] | null => {
  const own = zonesToChoose(service).filter((z) => zones.includes(z))
  const usual = serviceZones(service)
  return own.length === usual.length && own.every((z) => usual.includes(z)) ? null : own
}

/** A job with some zones more or less; its last place cannot be taken from it. */
export function withZones(job: Job, zones: readonly ZoneId[], on: boolean): Job {
  const now = jobZones(job)
  const next = on ? [...now, ...zones] : now.filter((z) => !zones.includes(z))
  return next.length === 0 ? job : { ...job, zones: kept(job.service, next) }
}

/** A job of another service: its places are those of the new one that it had before, or all of them. */
export function ofService(job: Job, service: ServiceId): Job {
  const same =
    job.zones === null ? [] : zonesToChoose(service).filter((z) => job.zones!.includes(z))
  const { everyDays: _own, ...rest } = job
  return { ...rest, service, zones: same.length > 0 ? kept(service, same) : null }
}

/** A job by another method. */
export const byMethod = (job: Job, method: Method): Job => ({ ...job, method })

/** A job with a rhythm of its own, or with the usual one. */
export function everyDays(job: Job, days: number | undefined): Job {
  const { everyDays: _own, ...rest } = job
  return days === undefined ? rest : { ...rest, everyDays: days }
}
