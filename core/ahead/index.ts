/** What lies ahead of a client: visits through a date, and planning back from an event. */
export { EVENT_CONSTANTS, EVENT_NEEDS, type EventPlan, bestPlanFor, planBack } from './backPlan.ts'
export { clientSeries } from './clientSeries.ts'
export { EVENT_KINDS, type EventKind } from './eventKinds.ts'
export { type EventFacts, eventQuestion, pointsToTry } from './eventQuestion.ts'
export { type ComesBack, comesBack, LEFT_OUT_CONSTANTS } from './leftOut.ts'
export { type Arrival, arrivalBy } from './arrival.ts'
export { HABIT_WORDS, QUIET_CONSTANTS, type QuietHour, quietHours } from './quietHours.ts'
export { type ClientEvent, SERIES_CONSTANTS, type SeriesVisit, usualGapDays } from './series.ts'
export {
  DUE_CONSTANTS,
  dueToday,
  dueWords,
  lineOf,
  usualWork,
  type DueWork,
  type UpkeepOutlook,
} from './due.ts'
export { UPKEEP_CONSTANTS, type Upkeep, upkeepLast, upkeepsOf } from './upkeep.ts'
export {
  type CoarseBy,
  coarseGrowth,
  either,
  SUPPOSED,
  type Supposed,
  SUPPOSED_CONSTANTS,
  type Together,
} from './methodsUnder.ts'
export {
  type HereInput,
  type MethodHere,
  type MethodYear,
  YEAR_CONSTANTS,
  type ZoneHere,
  zoneHere,
} from './methodsHere.ts'
