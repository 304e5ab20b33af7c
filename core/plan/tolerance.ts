/** Whether a client's own visits have shown that the skin bears much: it opens a third pass and lighter rules for thin hair. */
import { constant, type Figures } from '../house/index.ts'
import {
  meanSensitivity,
  SKIN_CONSTANTS,
  type Sensitivity,
  type SkinRecord,
} from '../skin/index.ts'

export const TOLERANCE_CONSTANTS = {
  visits: constant(
    5,
    'visits',
    'Skin is taken as tolerant from so many answered visits on, none of them red',
    'H',
  ),
} as const

/** What was told does not count, only what was seen: enough answered visits, none red, and a rate no higher than that of tough skin. */
export const isTolerant = (
  figures: Figures,
  sensitivity: Sensitivity,
  record: SkinRecord | undefined,
): boolean =>
  record !== undefined &&
  record.visits >= figures(TOLERANCE_CONSTANTS.visits) &&
  record.reddened === 0 &&
  meanSensitivity(sensitivity) <= figures(SKIN_CONSTANTS.toughSkin)
