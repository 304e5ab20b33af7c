/** The visit as a whole: the gate, what a plan is made from, what ending it writes, where its stations stand. */
export { eventNotes } from './events.ts'
export {
  afterService,
  type Finished,
  type FinishedJob,
  finishService,
  type JobWindow,
  soonest,
} from './finish.ts'
export { alarmId, type TodayFlag, heldBack, todayFlags } from './flags.ts'
export { checkDecision, gate, heldWords, holding, LEAST_REASON } from './gate.ts'
export { askedInWords, serviceInWords, visitInWords } from './inWords.ts'
export { ANSWER_MANNER, ASKED_MANNER, CLIENT_MANNER, NOTES_MANNER } from './joining.ts'
export { type GateFacts, knownOf, NO_FACTS } from './known.ts'
export { type KeptPast, pastJobs, pastOf } from './past.ts'
export { feltAfter } from './trial.ts'
export {
  groundKey,
  groundOf,
  type HeadSkin,
  planAsk,
  type PlanAsk,
  type PlanGround,
  planInput,
  readingsToday,
} from './planInput.ts'
export { newsAtChair, zoneWords } from './skin.ts'
export { stationStates, STATION_NAMES, STATIONS } from './stations.ts'
export { type About, type Busy, type Decision, type Gate, type VisitFinding } from './types.ts'
