/** How hair grows back, and when to come again. */
export {
  type DayRange,
  daysToLength,
  daysUntil,
  type Growth,
  GROWTH_CONSTANTS,
  hairLengthMm,
  priorGrowth,
  thresholdMm,
  updateGrowth,
} from './growth.ts'
export { INTERVAL_CONSTANTS, nextVisitWindow, skinSettles, type VisitWindow } from './nextVisit.ts'
export {
  clearOdds,
  ODDS_CONSTANTS,
  type OddsInput,
  seenOdds,
  workedZones,
  zoneWindows,
} from './odds.ts'
export {
  compareSides,
  lengthCurve,
  outlookDays,
  shownOdds,
  slowZones,
  zoneOutlook,
  type ZoneOutlook,
} from './outlook.ts'
export { tideCurve, type TideCurve } from './tide.ts'
