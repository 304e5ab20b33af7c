/** The jobs that were done for a client, with what each of them left. */
import { byRoot, kindOfWork, type Job } from '../services/index.ts'
import type { SkinAnswer } from '../looks/index.ts'

/** What a job left, as far as the next one hangs on it. */
export type LeftByJob = Job & {
  /** Load given, and hair left standing, mm, by zone; null before it was done. */
  readonly loads: Readonly<Record<string, number>> | null
  readonly leftMm: Readonly<Record<string, number>> | null
  /** Only a trial strip was worked: the rest of each zone still stands. */
  readonly trial?: true | undefined
}

/** Whether hair of a zone, or of no zone in particular, had come out by its root. */
export function cameOutByRoot(jobs: readonly LeftByJob[], zoneId: string | null): boolean {
  const own = jobs.filter((j) => zoneId === null || j.leftMm?.[zoneId] !== undefined)
  // A blade after single strays were tweezed leaves its own hair.
  return own.length > 0 && own.every((j) => byRoot(j.method))
}

/** Loads of all jobs by zone: what was gone over twice bears both. */
export function sumLoads(jobs: readonly Pick<LeftByJob, 'loads'>[]): Record<string, number> {
  const loads: Record<string, number> = {}
  for (const job of jobs)
    for (const [zone, load] of Object.entries(job.loads ?? {}))
      loads[zone] = (loads[zone] ?? 0) + load
  return loads
}

/** A job that was done, with what followed it. */
export type PastJob = LeftByJob & {
  readonly visitId: string
  readonly endedAtMs: number
  readonly answers: readonly SkinAnswer[]
  readonly redAtChair: Readonly<Record<string, number>>
}

/**
 * The last job of the same kind.
 * @param past newest first
 */
export const lastOfKind = <J extends Pick<Job, 'service' | 'method'>>(
  past: readonly J[],
  job: Pick<Job, 'service' | 'method'>,
): J | undefined => past.find((p) => kindOfWork(p) === kindOfWork(job))
