/** Dates and hours. */
export {
  ALWAYS_OPEN,
  type ClosedDays,
  closedDateWords,
  closedWords,
  isClosed,
  isClosedDate,
  nearestOpen,
  openFrom,
  openUntil,
  readClosedDate,
  USUALLY_CLOSED,
  weekdayWords,
} from './closedDays.ts'
export {
  addDays,
  CLOCKS_MS,
  dateAt,
  dateOf,
  DAY_MS,
  daysBetween,
  dayWords,
  HOUR_MS,
  type IsoDate,
  type Offset,
} from './dates.ts'
export {
  atWords,
  dateWords,
  daysWords,
  fullDate,
  longDate,
  offsetHere,
  shortDate,
  timeWords,
  whenWords,
} from './words.ts'
