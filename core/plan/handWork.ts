/** What of a sitting is done by hand: which skin of it is open, how long it takes, what it does to the skin. */
import { HAND_METHODS, handJobs, jobName, jobZones } from '../services/index.ts'
import { zoneName } from '../zones/index.ts'
import { staysWhole } from './outline.ts'
import type { PlanInput } from './planInput.ts'
import type { HandWork, LeftOut } from './types.ts'

/** The jobs that are done by hand, without the zones that stay. */
export function handWork(input: Pick<PlanInput, 'figures' | 'jobs' | 'screening' | 'notes'>): {
  readonly hand: readonly HandWork[]
  readonly leftOut: readonly LeftOut[]
} {
  const { figures } = input
  const leftOut: LeftOut[] = []
  const hand = handJobs(input.jobs).flatMap((job): HandWork[] => {
    const facts = HAND_METHODS[job.method]
    const zones = jobZones(job).filter((zoneId) => {
      const why = staysWhole(input, zoneId)
      if (why !== undefined)
        leftOut.push({ zoneId, name: zoneName(zoneId), reason: `${jobName(job)}. ${why}` })
      return why === undefined
    })
    if (zones.length === 0) return []
    return [
      {
        ...{ jobId: job.id, service: job.service, method: job.method, zones },
        name: jobName({ ...job, zones }),
        minutes: figures(facts.minutes) * zones.length,
        load: figures(facts.load),
        leftMm: facts.left ? figures(facts.left) : 0,
      },
    ]
  })
  return { hand, leftOut }
}
