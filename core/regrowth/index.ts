/** How hair grows back, and when to come again. */
export {
  type DayRange,
  daysToLength,
  daysUntil,
  daysUntilLength,
  type Growth,
  growthAfter,
  type GrowthReading,
  lengthAfter,
  logRate,
  type Rest,
  rateAt,
  shownOdds,
  thresholdOf,
  GROWTH_CONSTANTS,
  hairLengthMm,
  priorGrowth,
  seenTimes,
  thresholdMm,
} from './growth.ts'
export { fastest, learnGrowths, type PlacedReading } from './learnGrowth.ts'
export { doubt } from './plausible.ts'
export { INTERVAL_CONSTANTS, nextVisitWindow, skinSettles, type VisitWindow } from './nextVisit.ts'
export {
  type OddsInput,
  seenOdds,
  visitOdds,
  type VisitOdds,
  workedZones,
  type ZoneOdds,
} from './odds.ts'
export {
  CLEAR_CONSTANTS,
  clearOddsOf,
  type ClearOdds,
  clearOddsOfAll,
  lastLook,
  seenClearMs,
  type SkinAfter,
  type SkinOf,
  skinReadyMs,
} from './skinClear.ts'
export {
  compareSides,
  lengthCurve,
  outlookDays,
  slowZones,
  zoneOutlook,
  type ZoneOutlook,
} from './outlook.ts'
export { type PartCut, tideCurve, type TideCurve } from './tide.ts'
