/** Load on the skin and how it takes it. */
export { REDNESS_WORDS } from './anchors.ts'
export {
  anyOdds,
  anyZoneOdds,
  calmCosts,
  type SkinNode,
  skinNodes,
  VISIT_CONSTANTS,
} from './anyZone.ts'
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
export {
  type Coarseness,
  COARSENESSES,
  type HairClass,
  LOAD_CONSTANTS,
  passLoadBy,
  type Slip,
  type ToolKind,
} from './load.ts'
export {
  believe,
  learnStudio,
  learnZones,
  poolZones,
  type SkinBelief,
  skinPooling,
  type StudioSkin,
  zoneSensitivity,
  zoneSums,
} from './pool.ts'
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
