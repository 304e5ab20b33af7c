/** Makes the plan of a visit from what is stored. */
import type { Figures } from '../../core/house/constants.ts'
import { GrainField } from '../../core/grain/field.ts'
import { toFieldReading } from '../../core/grain/readings.ts'
import type { ZonedReading } from '../../core/grain/whorls.ts'
import { bodyFlow, bodyGround, drawnLines, headFlow } from '../../core/plan/ground.ts'
import { makePlan } from '../../core/plan/makePlan.ts'
import type { SkinFlow } from '../../core/plan/skin.ts'
import { figuresOf, houseVersion } from '../../core/register/register.ts'
import type { Plan, PlanChoice } from '../../core/plan/types.ts'
import { PlanMemory } from '../../core/plan/question.ts'
import type { Screening } from '../../core/screening/screen.ts'
import { isBodyService, type ServiceId } from '../../core/services/index.ts'
import { DAY_MS } from '../../core/time/dates.ts'
import type { House } from '../../contract/types.ts'
import { atlas } from '../atlas.ts'
import { modelFrom, type History } from '../clients/model.ts'
import { HttpProblem } from '../http/problem.ts'
import type { VisitRecord } from './record.ts'

/** The current of growth over the skin of a service, as its readings tell it. */
export function flowFrom(
  figures: Figures,
  service: ServiceId,
  readings: readonly ZonedReading[],
): SkinFlow {
  if (isBodyService(service)) return bodyFlow(figures, readings)
  const head = atlas(figures)
  const field = new GrainField(figures, head.field)
  field.setAll(readings)
  return headFlow(
    figures,
    head.field,
    field.answer(),
    readings,
    head.packed.display,
    head.packed.solve.zones,
    head.display,
  )
}

/** Minutes east of UTC at a moment, as this machine keeps time. */
export const offsetMinutes = (ms: number) => -new Date(ms).getTimezoneOffset()

export function planOf(
  visit: VisitRecord,
  house: House,
  history: History,
  choice: PlanChoice,
  screening: Screening,
): Plan {
  const { service, skin, notes } = visit
  const now = Date.now()
  const figures = figuresOf(house.figures)
  const schools = { ...house.schools, ...visit.schools }
  const model = modelFrom(figures, history, skin, service)
  const worker = house.workers.find((w) => w.id === visit.workerId)
  if (!worker)
    throw new HttpProblem(
      422,
      'no-such-worker',
      'That worker is not of this house. Choose one at Ask.',
    )
  // Readings age by the day, as on the screen.
  const asOf = Math.ceil(now / DAY_MS) * DAY_MS
  const readings = visit.readings.map((r) => toFieldReading(figures, r, asOf))
  const head = isBodyService(service) ? undefined : atlas(figures)
  return makePlan({
    figures,
    service,
    ground: head?.ground ?? bodyGround(),
    flow: flowFrom(figures, service, readings),
    room: head?.room,
    lines: head ? drawnLines(head.surface, notes.lines) : [],
    client: skin,
    screening,
    schools,
    hand: worker.hand,
    level: worker.level,
    kit: house.kit,
    sensitivity: (zone) => model.sensitivity[zone]!,
    growth: (zone) => model.growth[zone]!,
    notes,
    house: houseVersion(house.changes.length, house.figures),
    choice,
    memory: new PlanMemory(),
  })
}
