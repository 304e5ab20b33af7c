/** Dates and hours. */
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
