/** A visit with everything its stations show. */
import { carePlan } from '../../core/care/clearances.ts'
import { BEFORE_START, replay } from '../../core/chair/service.ts'
import { learnGrowth } from '../../core/history/learn.ts'
import { windowAfter } from '../../core/history/window.ts'
import type { VisitPage } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { readHouse } from '../house/service.ts'
import { readHair, readVisit } from './record.ts'

export async function visitPage(db: Database, id: string): Promise<VisitPage> {
  const [visit, house] = await Promise.all([readVisit(db, id), readHouse(db)])
  const hair = await readHair(db, visit.clientId)
  const { skin, worstRedness: _worst, bumps: _bumps, leftMm, ...shown } = visit
  const { plan, endedAtMs, service, answers } = shown
  return {
    ...shown,
    chair: plan ? replay(plan, visit.events) : BEFORE_START,
    care:
      endedAtMs !== null && plan
        ? carePlan(service, skin, plan.schools, plan.noFragrance, endedAtMs)
        : null,
    hair: hair.filter((h) => h.visitId === id),
    window:
      endedAtMs === null
        ? null
        : windowAfter(
            { service, endedAtMs, leftMm, answers },
            skin,
            plan?.schools ?? house.schools,
            learnGrowth(skin, service, hair),
          ),
  }
}
