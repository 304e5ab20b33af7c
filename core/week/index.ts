/** The week: the book, how long visits take, who does not come. */
export {
  type Appointment,
  APPOINTMENT_STATES,
  type AppointmentState,
  BOOK_CONSTANTS,
  type Book,
  type Breach,
  BREACHES,
  breaches,
  capacityOf,
  endMs,
  GRID_MIN,
  type Hour,
  isSettled,
  LEAST_MIN,
  MIN_MS,
  MOST_MIN,
  mostTaken,
  nearestThatWork,
  notLicensed,
  placeOf,
  standsInBook,
  startsOn,
  type Status,
  STATUS_WORDS,
  STATUSES,
  statusOf,
  type Studio,
  towelsOf,
  type Use,
  usesOf,
  USUAL_STUDIO,
  type Wanted,
} from './book.ts'
export {
  bookedMinutes,
  type Coming,
  type Durations,
  DURATION_CONSTANTS,
  learnDurations,
  takes,
  type Takes,
  type Took,
} from './durations.ts'
export {
  type Away,
  awayWords,
  type BookWorker,
  freeOn,
  hourAt,
  hoursOn,
  hoursProblem,
  momentAt,
  MOST_CALENDAR,
  openOn,
  readStretches,
  type Stretch,
  stretchWords,
  weekdayOf,
  weekOf,
  without,
  type WorkerHours,
} from './hours.ts'
export {
  cameFree,
  type Candidate,
  freeAround,
  FREED_CONSTANTS,
  type FreeSlot,
  type Gain,
  rankFreed,
} from './freed.ts'
export { type Late, lateWords, runningLate } from './late.ts'
export {
  bladesOf,
  bladesShort,
  bladeWords,
  type DayLoad,
  dayLoad,
  type Loaded,
  priceOf,
} from './load.ts'
export { HOUR_DRAFTS, type HourKind, type HourTold } from './tell.ts'
export { bothWishes, NO_WISHES, suits, type Wishes, wishesProblem, wishWords } from './wishes.ts'
export { lpOf } from './programme.ts'
export { pack, type PackArrays, type Packed, Packing, unfit } from './packing.ts'
export {
  hourCost,
  dayWorth,
  type Place,
  PROMISED_WORTH,
  PROPOSE_CONSTANTS,
  type WeekProblem,
  weekProblem,
  type Wish,
} from './propose.ts'
export { missedRate, type MissedRate, MISSED_CONSTANTS } from './missed.ts'
