/** Every constant of every model, by area: the House page and docs/models.md show this register. */
import {
  DUE_CONSTANTS,
  EVENT_CONSTANTS,
  SERIES_CONSTANTS,
  UPKEEP_CONSTANTS,
  LEFT_OUT_CONSTANTS,
  QUIET_CONSTANTS,
  SUPPOSED_CONSTANTS,
  YEAR_CONSTANTS,
} from '../ahead/index.ts'
import {
  BOOK_CONSTANTS,
  DURATION_CONSTANTS,
  FREED_CONSTANTS,
  MISSED_CONSTANTS,
  PROPOSE_CONSTANTS,
} from '../week/index.ts'
import { CARE_CONSTANTS, RANK_CONSTANTS } from '../care/index.ts'
import {
  FEEL_CONSTANTS,
  LEFT_OPEN_CONSTANTS,
  MEANWHILE_CONSTANTS,
  PROBE_CONSTANTS,
  TOWEL_CONSTANTS,
} from '../chair/index.ts'
import {
  CONFIDENCE_CONSTANTS,
  FIELD_CONSTANTS,
  TEST_CONSTANTS,
  READING_CONSTANTS,
  RELATION_CONSTANTS,
  WHORL_CONSTANTS,
} from '../grain/index.ts'
import { LINE_CONSTANTS, MOVE_CONSTANTS, OUTLINE_CONSTANTS } from '../lines/index.ts'
import {
  BLADE_FIT_CONSTANTS,
  FRONT_CONSTANTS,
  PRESS_CONSTANTS,
  UNIT_CONSTANTS,
  EDGE_CONSTANTS,
  BODY_FIELD_CONSTANTS,
  HANDLE_CONSTANTS,
  KIT_CONSTANTS,
  ORDER_CONSTANTS,
  PASS_CONSTANTS,
  SKIN_CELL_CONSTANTS,
  CLOSENESS_CONSTANTS,
  PACE_CONSTANTS,
  MULTI_BLADE_CONSTANTS,
  TOLERANCE_CONSTANTS,
  SET_BACK_CONSTANTS,
  PLAN_CONSTANTS,
  SITTING_CONSTANTS,
} from '../plan/index.ts'
import { BLADE_CONSTANTS } from '../kit/index.ts'
import { GROWTH_CONSTANTS, INTERVAL_CONSTANTS, CLEAR_CONSTANTS } from '../regrowth/index.ts'
import { SCREENING_CONSTANTS } from '../screening/index.ts'
import {
  BETWEEN_CONSTANTS,
  METHOD_CONSTANTS,
  PRICE_CONSTANTS,
  SLOT_CONSTANTS,
  FILM_CONSTANTS,
  ROUTINE_CONSTANTS,
  TOWEL_COUNTS,
} from '../services/index.ts'
import {
  LOAD_CONSTANTS,
  SKIN_CONSTANTS,
  BUMP_CONSTANTS,
  FADING_CONSTANTS,
  VISIT_CONSTANTS,
} from '../skin/index.ts'
import {
  CALIBRATION_CONSTANTS,
  CHANGE_CONSTANTS,
  EFFECT_CONSTANTS,
  HOME_CONSTANTS,
  STUDIO_CONSTANTS,
  COURSE_CONSTANTS,
  MISS_CONSTANTS,
  TRY_CONSTANTS,
} from '../history/index.ts'
import { FOLLOW_CONSTANTS, MOMENT_CONSTANTS, AFTERMATH_CONSTANTS } from '../looks/index.ts'
import { DomainError } from '../errors.ts'
import { DEFAULTS, type ChangedFigures, type Constant, type Figures } from '../house/index.ts'

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
  {
    id: 'lines',
    title: 'Keep-lines and areas',
    constants: { ...LINE_CONSTANTS, ...OUTLINE_CONSTANTS, ...MOVE_CONSTANTS },
  },
  { id: 'relation', title: 'Stroke and grain', constants: RELATION_CONSTANTS },
  { id: 'blades', title: 'Blades', constants: BLADE_CONSTANTS },
  { id: 'blade-fit', title: 'Blade fit', constants: BLADE_FIT_CONSTANTS },
  {
    id: 'lanes',
    title: 'Lanes',
    constants: { ...PRESS_CONSTANTS, ...SKIN_CELL_CONSTANTS, ...BODY_FIELD_CONSTANTS },
  },
  { id: 'hands', title: 'Hands and handles', constants: HANDLE_CONSTANTS },
  {
    id: 'load',
    title: 'Skin load',
    constants: { ...LOAD_CONSTANTS, ...PASS_CONSTANTS, ...HOME_CONSTANTS },
  },
  {
    id: 'front',
    title: 'Plans to choose from',
    constants: { ...UNIT_CONSTANTS, ...FRONT_CONSTANTS, ...EDGE_CONSTANTS },
  },
  {
    id: 'skin',
    title: 'Learning the skin',
    constants: { ...SKIN_CONSTANTS, ...FADING_CONSTANTS, ...VISIT_CONSTANTS },
  },
  { id: 'bumps', title: 'Bumps and ingrown hairs', constants: BUMP_CONSTANTS },
  { id: 'closeness', title: 'What a pass buys', constants: CLOSENESS_CONSTANTS },
  {
    id: 'time',
    title: 'Time at the chair',
    constants: {
      ...PLAN_CONSTANTS,
      ...MULTI_BLADE_CONSTANTS,
      ...TOLERANCE_CONSTANTS,
      ...SET_BACK_CONSTANTS,
      ...PACE_CONSTANTS,
      ...ORDER_CONSTANTS,
      ...ROUTINE_CONSTANTS,
      ...FILM_CONSTANTS,
      ...SITTING_CONSTANTS,
    },
  },
  { id: 'kit', title: 'What lies ready', constants: { ...KIT_CONSTANTS, ...TOWEL_COUNTS } },
  { id: 'services', title: 'Services', constants: { ...SLOT_CONSTANTS, ...PRICE_CONSTANTS } },
  {
    id: 'book',
    title: 'The book',
    constants: {
      ...BOOK_CONSTANTS,
      ...DURATION_CONSTANTS,
      ...FREED_CONSTANTS,
      ...MISSED_CONSTANTS,
      ...PROPOSE_CONSTANTS,
    },
  },
  { id: 'course', title: 'First sessions', constants: COURSE_CONSTANTS },
  { id: 'misses', title: 'Where one misses', constants: MISS_CONSTANTS },
  { id: 'left-out', title: 'What was left out', constants: LEFT_OUT_CONSTANTS },
  { id: 'quiet', title: 'Quiet hours', constants: QUIET_CONSTANTS },
  { id: 'products', title: 'Products', constants: RANK_CONSTANTS },
  {
    id: 'methods',
    title: 'By other means than a blade',
    constants: { ...METHOD_CONSTANTS, ...TRY_CONSTANTS, ...YEAR_CONSTANTS, ...SUPPOSED_CONSTANTS },
  },
  {
    id: 'towel',
    title: 'Towels, probe and disinfectant',
    constants: { ...TOWEL_CONSTANTS, ...PROBE_CONSTANTS, ...MEANWHILE_CONSTANTS },
  },
  {
    id: 'chair',
    title: 'At the chair',
    constants: { ...FEEL_CONSTANTS, ...LEFT_OPEN_CONSTANTS },
  },
  {
    id: 'care',
    title: 'Aftercare',
    constants: { ...CARE_CONSTANTS, ...FOLLOW_CONSTANTS, ...MOMENT_CONSTANTS },
  },
  { id: 'aftermath', title: 'Skin that took it badly', constants: AFTERMATH_CONSTANTS },
  { id: 'event', title: 'Before an event', constants: EVENT_CONSTANTS },
  { id: 'growth', title: 'Regrowth', constants: GROWTH_CONSTANTS },
  {
    id: 'interval',
    title: 'Interval',
    constants: {
      ...INTERVAL_CONSTANTS,
      ...CLEAR_CONSTANTS,
      ...BETWEEN_CONSTANTS,
      ...SERIES_CONSTANTS,
      ...UPKEEP_CONSTANTS,
      ...DUE_CONSTANTS,
    },
  },
  {
    id: 'changes',
    title: 'Changes, choices and the forecast',
    constants: {
      ...CHANGE_CONSTANTS,
      ...EFFECT_CONSTANTS,
      ...CALIBRATION_CONSTANTS,
      ...STUDIO_CONSTANTS,
    },
  },
]

const BY_ID: ReadonlyMap<string, Constant> = new Map(
  CONSTANT_REGISTER.flatMap((area) =>
    Object.entries(area.constants).map(([key, c]) => [`${area.id}.${key}`, c] as const),
  ),
)

/**
 * A constant by its id, `area.key`.
 * @throws DomainError `no-such-figure`
 */
export function constantOf(id: string): Constant {
  const found = BY_ID.get(id)
  if (!found) throw new DomainError('no-such-figure', `There is no figure "${id}".`)
  return found
}

/** Figures that the structure of a model hangs on: shown, not changed. */
export const FIXED_FIGURES: ReadonlySet<string> = new Set(['test.bins'])

/** A figure may be a twentieth to twenty times its default: beyond that it is a slip of the hand. */
const MOST_TIMES = 20

/**
 * Looks whether a figure may have a value (null is its default).
 * @throws DomainError `no-such-figure`, `fixed-figure`, `figure-out-of-range`
 */
export function checkFigure(id: string, value: number | null): Constant {
  const found = constantOf(id)
  if (FIXED_FIGURES.has(id)) {
    throw new DomainError(
      'fixed-figure',
      `${found.text}: this one is built in and cannot be changed.`,
    )
  }
  if (value === null) return found
  const [low, high] =
    found.unit === 'probability'
      ? [0.01, 0.99]
      : found.byDefault === 0
        ? [0, 90]
        : [found.byDefault / MOST_TIMES, found.byDefault * MOST_TIMES]
  if (!Number.isFinite(value) || value < low || value > high) {
    throw new DomainError(
      'figure-out-of-range',
      `${found.text}: ${value} is not between ${low} and ${high}. It stays as it is.`,
    )
  }
  return found
}

let latest: { readonly key: string; readonly figures: Figures } | undefined

/**
 * The figures of a house: its own where it has changed one, else the defaults. Names that are not known are passed over.
 * Asked again with the same changes it answers with the same function, so that what was worked out from it can be kept.
 */
export function figuresOf(changed: ChangedFigures): Figures {
  const key = JSON.stringify(changed)
  if (latest?.key !== key) latest = { key, figures: ownFigures(changed) }
  return latest.figures
}

function ownFigures(changed: ChangedFigures): Figures {
  const own = new Map<Constant, number>()
  for (const [id, value] of Object.entries(changed)) {
    const c = BY_ID.get(id)
    if (c) own.set(c, value)
  }
  return own.size === 0 ? DEFAULTS : (of) => own.get(of) ?? of.byDefault
}
