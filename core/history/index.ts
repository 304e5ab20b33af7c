/** What a client's past visits teach. */
export { CALIBRATION_CONSTANTS, type CalibrationBin, type ForecastCheck } from './calibration.ts'
export { CHANGE_CONSTANTS } from './changeConstants.ts'
export { type ChangeEffect, changeEffects } from './changes.ts'
export { choicesOf, type VisitChoices } from './choices.ts'
export {
  bumps,
  type ComparedVisit,
  differences,
  differenceWords,
  FULL_COLOUR_AT,
  type Layer,
  LAYERS,
  type Two,
  worst,
} from './compareVisits.ts'
export { choiceEffects, EFFECT_CONSTANTS, type Effects } from './effects.ts'
export {
  type Course,
  COURSE_CONSTANTS,
  courseNow,
  courseOf,
  type CourseSession,
  THINGS,
  type ThingToChange,
  newcomerFactor,
  rangeWords,
  VERDICT_WORDS,
} from './course.ts'
export { type VisitFacts } from './facts.ts'
export {
  feelFirst,
  MISS_CONSTANTS,
  missHair,
  type MissSeen,
  missWords,
  secondLook,
  type SecondLook,
} from './misses.ts'
export { productLooks } from './productLooks.ts'
export { findChanges, separabilityWords } from './findChanges.ts'
export {
  type ClientModel,
  growthReadings,
  hairDoubt,
  type KeptHair,
  learnClient,
  learnSkin,
  learnGrowth,
  meanGrowth,
  meanLeft,
} from './learn.ts'
export { type PerThousand, type Share, STUDIO_CONSTANTS } from './studio.ts'
export {
  type ClientSums,
  learnFromSums,
  learnOverStudio,
  type StudioClient,
  type StudioLearned,
  sumClient,
} from './studioLearn.ts'
export { type Trend, trendWatch } from './trend.ts'
export {
  type ComesAgain,
  type LoadedService,
  clearAfter,
  readyAfter,
  rednessSeen,
  skinAfter,
  skinSince,
  hairSince,
  windowAfter,
} from './window.ts'
export { cameOutByRoot, lastOfKind, type LeftByJob, type PastJob, sumLoads } from './jobsDone.ts'
export {
  afterHome,
  cutsAtHome,
  hiddenByHome,
  HOME_CONSTANTS,
  homeLeftMm,
  homeLoad,
  homeSince,
  HOME_TOOLS,
  HOME_TOOL_WORDS,
  type HomeTool,
  type HomeWork,
  homeWords,
  notCutAtHome,
  razorUses,
} from './homeWork.ts'
export {
  type AskMethod,
  type MethodOdds,
  methodOdds,
  type RangedOdds,
  TRY_CONSTANTS,
} from './methodTries.ts'
