/** Plans as they are kept: a plan is long and says much twice, packed it takes a tenth of the room. */
import { gunzipSync, gzipSync } from 'node:zlib'
import { asToldNow, withJobs, type Plan } from '../../core/plan/index.ts'
import type { Job } from '../../core/services/index.ts'

/** A plan as it was kept: of the first version, where a zone was a lane, before visits held jobs, or before paces were learned. */
type KeptPlan = Omit<Plan, 'version' | 'jobs' | 'pace'> & { version: 1 | 2 } & Partial<
    Pick<Plan, 'jobs' | 'pace'>
  >
/** The column that holds it: packed, plain text of the first version, or nothing kept yet. */
export type PlanColumn = Buffer | string | null
const NOTHING_MORE = { lanes: [], kit: [], dropped: [], bladeCount: 1, cost: 0 }

export function packPlan(plan: Plan): Buffer {
  return gzipSync(JSON.stringify(plan), { level: 6 })
}

/** A kept plan of a visit's jobs; those of the first version were kept as plain text and have no lanes. */
export function unpackPlan(kept: PlanColumn, jobs: readonly Job[]): Plan | null {
  if (kept === null) return null
  const text = typeof kept === 'string' ? kept : gunzipSync(kept).toString('utf8')
  const plan = JSON.parse(text) as KeptPlan
  return asToldNow(
    withJobs({ pace: 1, ...(plan.version === 1 && NOTHING_MORE), ...plan } as Plan, jobs),
  )
}
