/** Load on the skin and how it takes it. */
export { REDNESS_WORDS } from './anchors.ts'
export { anyOdds, anyZoneOdds, calmCosts, type SkinNode, skinNodes } from './anyZone.ts'
export { nothingSeen, SkinHistory, type SkinSums, sumVisits } from './seen.ts'
export { VISIT_CONSTANTS } from './visitConstants.ts'
export { BUMP_CONSTANTS, bumpPooling, bumpSeverity, learnBumps } from './bumps.ts'
export {
  fadedOdds,
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
  expectedOf,
  learnStudio,
  learnZones,
  type Pooling,
  poolZones,
  type SkinBelief,
  skinPooling,
  type StudioSkin,
  zoneSensitivity,
} from './pool.ts'
export { rednessRange, sensitivityRange } from './range.ts'
export {
  expectedMean,
  gradeOdds,
  meanSensitivity,
  priorSensitivity,
  type Reactivity,
  REACTIVITIES,
  oddsAtRate,
  rednessOdds,
  type Sensitivity,
  SKIN_CONSTANTS,
  type SkinOutcome,
  updateSensitivity,
} from './sensitivity.ts'
export { type SkinRecord } from './record.ts'
