/** Every constant of every model, by area: the House page and docs/models.md show this register. */
import { CARE_CONSTANTS } from '../care/clearances.ts'
import { CONFIDENCE_CONSTANTS } from '../grain/confidence.ts'
import { FIELD_CONSTANTS } from '../grain/field.ts'
import { TEST_CONSTANTS } from '../grain/feelTest.ts'
import { READING_CONSTANTS } from '../grain/readings.ts'
import { RELATION_CONSTANTS } from '../grain/relation.ts'
import { WHORL_CONSTANTS } from '../grain/whorls.ts'
import { LINE_CONSTANTS } from '../lines/keepLine.ts'
import { BLADE_FIT_CONSTANTS } from '../plan/bladeFit.ts'
import { BLADE_CONSTANTS } from '../plan/blades.ts'
import { CLOSENESS_CONSTANTS } from '../plan/closeness.ts'
import { PLAN_CONSTANTS } from '../plan/makePlan.ts'
import { ROUTINE_CONSTANTS } from '../plan/routine.ts'
import { GROWTH_CONSTANTS } from '../regrowth/growth.ts'
import { INTERVAL_CONSTANTS } from '../regrowth/nextVisit.ts'
import { SCREENING_CONSTANTS } from '../screening/rules.ts'
import { SERVICE_CONSTANTS } from '../services.ts'
import { LOAD_CONSTANTS } from '../skin/load.ts'
import { SKIN_CONSTANTS } from '../skin/sensitivity.ts'
import type { Constant } from './constants.ts'

/** One area of the register. */
export interface ConstantArea {
  readonly id: string
  readonly title: string
  readonly constants: Readonly<Record<string, Constant>>
}

export const CONSTANT_REGISTER: readonly ConstantArea[] = [
  { id: 'asking', title: 'Asking', constants: SCREENING_CONSTANTS },
  { id: 'reading', title: 'Reading the grain', constants: READING_CONSTANTS },
  {
    id: 'field',
    title: 'The field between the readings',
    constants: { ...FIELD_CONSTANTS, ...CONFIDENCE_CONSTANTS, ...WHORL_CONSTANTS },
  },
  { id: 'test', title: 'Guided test', constants: TEST_CONSTANTS },
  { id: 'lines', title: 'Keep-lines', constants: LINE_CONSTANTS },
  { id: 'relation', title: 'Stroke and grain', constants: RELATION_CONSTANTS },
  { id: 'blades', title: 'Blades', constants: BLADE_CONSTANTS },
  { id: 'blade-fit', title: 'Blade fit', constants: BLADE_FIT_CONSTANTS },
  { id: 'load', title: 'Skin load', constants: LOAD_CONSTANTS },
  { id: 'skin', title: 'Learning the skin', constants: SKIN_CONSTANTS },
  { id: 'closeness', title: 'What a pass buys', constants: CLOSENESS_CONSTANTS },
  {
    id: 'time',
    title: 'Time at the chair',
    constants: { ...PLAN_CONSTANTS, ...ROUTINE_CONSTANTS },
  },
  { id: 'services', title: 'Services', constants: SERVICE_CONSTANTS },
  { id: 'care', title: 'Aftercare', constants: CARE_CONSTANTS },
  { id: 'growth', title: 'Regrowth', constants: GROWTH_CONSTANTS },
  { id: 'interval', title: 'Interval', constants: INTERVAL_CONSTANTS },
]
