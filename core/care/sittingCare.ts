/** One care sheet for a sitting of several jobs: the strictest of each. */
import { type SkinAndHair, skinOver } from '../client.ts'
import { DomainError } from '../errors.ts'
import type { Figures, Schools } from '../house/index.ts'
import { jobsWords, jobZones, servicesOf, type Work } from '../services/index.ts'
import { carePlan, type CareFacts, type CarePlan, type Clearance } from './clearances.ts'

/**
 * The aftercare of a sitting: one sheet. What is to be kept off is kept off as long as the job asks that asks longest; what is to
 * be done begins when all of them let it.
 */
export function sittingCare(
  figures: Figures,
  jobs: readonly Work[],
  client: SkinAndHair,
  schools: Schools,
  noFragrance: boolean,
  endedAtMs: number,
  facts: CareFacts = {},
): CarePlan {
  const each = jobs.map((job) => ({
    job,
    care: carePlan(
      figures,
      job.service,
      skinOver(client, jobZones(job)),
      schools,
      noFragrance,
      endedAtMs,
      facts,
    ),
  }))
  const [first] = each
  if (!first) throw new DomainError('no-job', 'Nothing was done, so there is nothing to care for.')
  const strictest = new Map<string, { clearance: Clearance; jobs: Work[] }>()
  for (const { job, care } of each)
    for (const clearance of care.clearances) {
      const had = strictest.get(clearance.id)
      const longer = had ? clearance.untilMs - had.clearance.untilMs : 1
      if (!had || longer > 0) strictest.set(clearance.id, { clearance, jobs: [job] })
      else if (longer === 0) had.jobs.push(job)
      const now = strictest.get(clearance.id)!
      // What is done waits until no job of the sitting forbids it.
      if (had && clearance.kind === 'do' && clearance.fromMs !== now.clearance.fromMs)
        now.clearance = {
          ...now.clearance,
          fromMs: Math.max(had.clearance.fromMs, clearance.fromMs),
        }
    }
  const list = [...strictest.values()].map(({ clearance, jobs: of }) =>
    servicesOf(jobs).length === 1 || clearance.kind !== 'avoid' || of.length === jobs.length
      ? clearance
      : { ...clearance, text: `${clearance.text} (${jobsWords(of)})` },
  )
  return { ...first.care, clearances: list.sort((a, b) => a.untilMs - b.untilMs) }
}
