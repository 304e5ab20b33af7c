/** A live service as events and state. */
export { type CellPlace } from './cells.ts'
export {
  BLADE_ENDS,
  type ChairDetail,
  type ChairEvent,
  type Draft,
  NICK_CARE,
  type NickCare,
  type ToldEvent,
} from './events.ts'
export {
  FEEL_CONSTANTS,
  feltByStroke,
  feltFromGuess,
  feltTurns,
  notFelt,
  stepNotFelt,
  toFeel,
  type ToFeel,
  turnedFelt,
} from './feel.ts'
export { freeHandNow } from './freeHand.ts'
export { CHAIR_EVENT_KINDS, KINDS } from './kinds.ts'
export { isHotTowel, LEFT_OPEN } from './kinds/flow.ts'
export { bladeInHand } from './kinds/kind.ts'
export { type KitEvent, kitEvents } from './kit.ts'
export { filmNow, latherNow } from './lather.ts'
export { LEFT_OPEN_CONSTANTS, leftOpenSince } from './leftOpen.ts'
export { pressNow, spokenWords, type Tapped, withTold } from './mainKey.ts'
export { meanwhile, MEANWHILE_CONSTANTS, soakLeftMs, type Task } from './meanwhile.ts'
export { type Replanned } from './newRest.ts'
export { foresee, inOrder, numbered } from './outbox.ts'
export {
  atChairOf,
  handDone,
  leftStanding,
  loadsGiven,
  nickZone,
  redAtChair,
  zonesToLookAt,
} from './outcome.ts'
export { play } from './play.ts'
export { calibrateProbe, corrected, PROBE_CONSTANTS, type ProbeCalibration } from './probe.ts'
export { COMB_STEP } from './otherSide.ts'
export { AGAIN, type Cause, replan } from './replan.ts'
export { admit, nextPress, type Press, resume } from './rules.ts'
export { advance, elapsedMs, replay, replayLive } from './service.ts'
export { yourSide } from './sides.ts'
export { BEFORE_START, begin, type ChairState, type Live } from './state.ts'
export { cooled, TOWEL_CONSTANTS, towelNow, towelPlan } from './towel.ts'
