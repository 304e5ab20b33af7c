/**
 * The jobs of a visit: people have brows, lip and cheek done in one sitting by different means. Every visit holds a list; a plan
 * is laid for one job so far.
 */
import { DomainError } from '../errors.ts'
import type { ZoneId } from '../zones/index.ts'
import type { ServiceId } from './list.ts'

/** What hair is taken off with. Only a blade is planned stroke by stroke. */
export const METHODS = ['blade', 'guarded', 'trimmer', 'tweezers', 'wax', 'thread'] as const
export type Method = (typeof METHODS)[number]

/** One piece of work of a visit. */
export interface Job {
  readonly id: string
  readonly service: ServiceId
  /** Zones that it works; null is all that the service names. */
  readonly zones: readonly ZoneId[] | null
  readonly method: Method
}

/** A whole service with a blade, as the only job of a visit. */
export const oneJob = (id: string, service: ServiceId): Job => ({
  id,
  service,
  zones: null,
  method: 'blade',
})

/** The job that a visit is known by in lists and on the tide line: the first. */
export function leadJob(jobs: readonly Job[]): Job {
  const [lead] = jobs
  if (!lead) throw new DomainError('no-job', 'A visit needs something that is to be done.')
  return lead
}

/**
 * The job that is planned.
 * @throws DomainError `no-job`, `several-jobs`
 */
export function plannedJob(jobs: readonly Job[]): Job {
  if (jobs.length > 1) {
    throw new DomainError(
      'several-jobs',
      'A visit of several jobs cannot be planned in one yet. What is entered stays; plan them as visits of their own.',
    )
  }
  return leadJob(jobs)
}
