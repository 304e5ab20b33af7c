/** A finished visit as it is kept, as the gate of the next one looks at it. */
import type { SkinAnswer, PastVisit, AtChair } from '../looks/index.ts'
import { sumLoads, type LeftByJob, type PastJob } from '../history/index.ts'

/** What is kept of a finished visit, as far as the gate looks at it. */
export interface KeptPast {
  readonly visitId: string
  readonly jobs: readonly LeftByJob[]
  readonly endedAtMs: number
  readonly atChair: AtChair | null
  readonly answers: readonly SkinAnswer[]
}

export function pastOf(p: KeptPast): PastVisit {
  const atChair = p.atChair
  const loads = Object.keys(sumLoads(p.jobs))
  return {
    visitId: p.visitId,
    jobs: p.jobs,
    endedAtMs: p.endedAtMs,
    zones: [
      ...new Set([
        ...loads,
        ...Object.keys(atChair?.redness ?? {}),
        ...Object.keys(atChair?.leftOut ?? {}),
      ]),
    ],
    worked: loads.filter((z) => atChair?.leftOut[z] === undefined),
    answers: p.answers,
    redAtChair: atChair?.redness ?? {},
    ...(atChair?.nickMm && { nickMm: atChair.nickMm }),
  }
}

/** The jobs of visits, one by one. */
export const pastJobs = (visits: readonly KeptPast[]): PastJob[] =>
  visits.flatMap(({ jobs, visitId, endedAtMs, answers, atChair }) =>
    jobs.map((job) => ({
      ...job,
      ...{ visitId, endedAtMs, answers, redAtChair: atChair?.redness ?? {} },
    })),
  )
