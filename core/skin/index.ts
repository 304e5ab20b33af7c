/** Load on the skin and how it takes it. */
export { REDNESS_WORDS } from './anchors.ts'
export { BUMP_CONSTANTS, bumpSeverity, learnBumps } from './bumps.ts'
export {
  clearAfterLook,
  clearAfterService,
  type FadeBelief,
  type FadeStep,
  FADING_CONSTANTS,
  learnFading,
  meanFading,
  stillOdds,
} from './fading.ts'
export { type HairClass, LOAD_CONSTANTS, passLoad, type Slip, type ToolKind } from './load.ts'
export { learnStudio, learnZones, poolZones, skinPooling, type StudioSkin } from './pool.ts'
export { rednessRange, sensitivityRange } from './range.ts'
export {
  expectedMean,
  gradeOdds,
  meanSensitivity,
  priorSensitivity,
  type Reactivity,
  REACTIVITIES,
  rednessOdds,
  type Sensitivity,
  SKIN_CONSTANTS,
  type SkinOutcome,
  updateSensitivity,
} from './sensitivity.ts'
