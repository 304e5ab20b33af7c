/** Makes the plan of a visit from what is stored. */
import { figuresOf } from '../../core/register/index.ts'
import { makePlan, type Plan, type PlanChoice } from '../../core/plan/index.ts'
import type { Screening } from '../../core/screening/index.ts'
import { readerHere, type ReaderSeen, readersOf } from '../../core/grain/index.ts'
import { groundOf, planAsk, planInput } from '../../core/visit/index.ts'
import type { House } from '../../contract/types.ts'
import { headSkin } from '../atlas.ts'
import { modelNow, type History } from '../clients/model.ts'
import type { VisitRecord } from './record.ts'

export function planOf(
  visit: VisitRecord,
  house: House,
  history: History,
  choice: PlanChoice,
  screening: Screening,
): { plan: Plan; reader: ReaderSeen | undefined } {
  const { skin, schools } = visit
  const figures = figuresOf(house.figures)
  const client = { skin, schools, model: modelNow(figures, history, skin) }
  const planned = { ...visit, readerDeg: readersOf(figures, house.readers, visit.readBy) }
  const nowMs = Date.now()
  const ask = planAsk(figures, planned, client, house, screening, choice, nowMs)
  const ground = groundOf(figures, ask, headSkin(figures))
  return {
    plan: makePlan(planInput(figures, ask, ground)),
    reader: readerHere(visit.readings, ground.flow.apart, nowMs),
  }
}
