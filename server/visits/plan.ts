/** Makes the plan of a visit from what is stored. */
import { figuresOf } from '../../core/register/index.ts'
import { makePlan, type Plan, type PlanChoice } from '../../core/plan/index.ts'
import type { Screening } from '../../core/screening/index.ts'
import { groundOf, planAsk, planInput } from '../../core/visit/index.ts'
import type { House } from '../../contract/types.ts'
import { headSkin } from '../atlas.ts'
import { modelFrom, type History } from '../clients/model.ts'
import type { VisitRecord } from './record.ts'

export function planOf(
  visit: VisitRecord,
  house: House,
  history: History,
  choice: PlanChoice,
  screening: Screening,
): Plan {
  const { skin, schools, service } = visit
  const figures = figuresOf(house.figures)
  const client = { skin, schools, model: modelFrom(figures, history, skin, service) }
  const ask = planAsk(figures, visit, client, house, screening, choice, Date.now())
  return makePlan(planInput(figures, ask, groundOf(figures, ask, headSkin(figures))))
}
