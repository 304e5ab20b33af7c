/** From grain, skin and schools to a plan with its reasons. */
export { bodyHair } from './bodyHair.ts'
export { BLADE_FIT_CONSTANTS } from './bladeFit.ts'
export { CLOSENESS_CONSTANTS, stubbleLeftMm } from './closeness.ts'
export {
  type LaneDifference,
  frontLine,
  kindOf,
  offeredKinds,
  placeOn,
  planDifferences,
  planFigures,
  type PlanFigures,
} from './compare.ts'
export { type Cover, laneLetter, packCover, unpackCover } from './cover.ts'
export {
  BODY_FIELD_CONSTANTS,
  bodyFlow,
  bodyGround,
  drawnLines,
  headFlow,
  headGround,
  headRoom,
} from './ground.ts'
export { besideOf, EDGE_CONSTANTS, type EdgeBand, edgeBand } from './edges.ts'
export { bladeRefusal } from './handEdit.ts'
export { HANDLE_CONSTANTS, type Room } from './handle.ts'
export { holdNow, NOTHING_TO_HOLD } from './holds.ts'
export { type Hand, HANDS, poseFor, type Stance, stanceShort } from './hands.ts'
export { asToldNow } from './keptPlan.ts'
export { bladesIn, KIT_CONSTANTS } from './kit.ts'
export { SET_BACK_CONSTANTS } from './passes.ts'
export { MULTI_BLADE_CONSTANTS } from './multiBlade.ts'
export { isTolerant, TOLERANCE_CONSTANTS } from './tolerance.ts'
export { type BareLane, makeLane, PLAN_CONSTANTS } from './laneWork.ts'
export { type LaneShape, laneShapes } from './lanes.ts'
export { laneEdges, laneWash, type LaneWash } from './lanePaint.ts'
export { FRONT_CONSTANTS } from './front.ts'
export { makePlan } from './makePlan.ts'
export {
  NO_PACE,
  type Pace,
  PACE_CONSTANTS,
  PACE_KINDS,
  type PaceKind,
  paceKind,
  paceOf,
  type PaceSeen,
  paceSeen,
  paceWords,
} from './pace.ts'
export { partedOf, zoneQuestion, zoneSkinOf } from './outline.ts'
export type { PlanInput } from './planInput.ts'
export { groupsOf, type LaneGroup, ORDER_CONSTANTS } from './order.ts'
export { PASS_CONSTANTS, type Sequence, slipFor } from './passes.ts'
export { type Parted, PlanMemory } from './question.ts'
export { PRESS_CONSTANTS } from './presses.ts'
export { holdPresses } from './pressWork.ts'
export { planSearch, type SearchState } from './search.ts'
export { SITTING_CONSTANTS } from './sitting.ts'
export {
  type DrawnLine,
  SKIN_CELL_CONSTANTS,
  type SkinFlow,
  type SkinGround,
  type ZoneSkin,
} from './skin.ts'
export { type Band, timetable, type Timetable } from './timetable.ts'
export { bladeLifeStrokes } from './tools.ts'
export {
  FIRST_CHOICE,
  type Hold,
  type KitItem,
  type Lane,
  type LaneEdit,
  type Plan,
  type PlanChoice,
  avoidWords,
  type FrontPoint,
  type HandWork,
  lanesWith,
  largestFirst,
  watchWords,
  type PlanFront,
  type LaneGrain,
  type PlannedPass,
  type PlannedPress,
  type PlanStep,
  type Reason,
  stepLanes,
  stepMinutes,
  stepZones,
  serviceIn,
  STROKE_WAYS,
  type StrokeWay,
  type VisitOdds,
  withJobs,
  type ZonePlan,
  zonesOfPlan,
} from './types.ts'
export { UNIT_CONSTANTS } from './units.ts'
export { groupTitle, laneTitle, partsIn, strokeStep } from './walk.ts'
export { overLimitReason, planZone, zoneWork, type ZoneWork } from './zonePlan.ts'
