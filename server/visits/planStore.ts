/** Plans as they are kept: a plan is long and says much twice, packed it takes a tenth of the room. */
import { gunzipSync, gzipSync } from 'node:zlib'
import type { Plan } from '../../core/plan/types.ts'

/** A plan of the first version: a zone was a lane, and its steps said all. */
interface OldPlan {
  readonly version: 1
}
const NOTHING_MORE = { lanes: [], kit: [], dropped: [], bladeCount: 1, cost: 0 }

export function packPlan(plan: Plan): Buffer {
  return gzipSync(JSON.stringify(plan), { level: 6 })
}

/** A kept plan; those of the first version were kept as plain text and have no lanes. */
export function unpackPlan(kept: unknown): Plan | null {
  if (kept === null || kept === undefined) return null
  const text = typeof kept === 'string' ? kept : gunzipSync(kept as Buffer).toString('utf8')
  const plan = JSON.parse(text) as Plan | OldPlan
  return plan.version === 2 ? plan : ({ ...NOTHING_MORE, ...plan } as unknown as Plan)
}
