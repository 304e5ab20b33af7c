/** Looks at the skin after a service: what they hold, when they come, what they tell. */
export {
  type Aftermath,
  AFTERMATH_CONSTANTS,
  aftermathOf,
  bumpWords,
  type PastVisit,
  severeSigns,
  zonesOf,
} from './aftermath.ts'
export {
  ANSWER_SOURCES,
  type AnswerSource,
  DRYNESS_WORDS,
  type Feeling,
  HAIR_TOLD,
  type HairKindTold,
  type HairReading,
  LENGTH_METHODS,
  type LengthMethod,
  NICK_STATES,
  type NickState,
  type SkinAnswer,
  type SkinSpot,
  FOLLOWED,
  type Followed,
  isFollowed,
  SPOT_KINDS,
  type SpotKind,
  type ZoneAnswer,
} from './answers.ts'
export { type AtChair, NOTHING_AT_CHAIR } from './atChair.ts'
export {
  answerByZone,
  AREA_IDS,
  type AreaId,
  AREAS,
  zonesOfArea,
  areasWorked,
  type ClientAnswer,
  FOLLOW_CONSTANTS,
  hairToldOf,
} from './clientAnswer.ts'
export { isMarked, type Look, NOTHING_SEEN, withoutSpot, withSpot, withZone } from './editLook.ts'
export {
  askedMoments,
  checkMoment,
  type Moment,
  MOMENT_CONSTANTS,
  momentAfter,
  momentAt,
  momentHasCome,
  momentHours,
  momentOpensMs,
  momentsAhead,
  momentWords,
  owedAnswer,
  nextSettledMs,
  owedStretches,
  settledMoments,
  SPEAKS_FROM_HOURS,
  USUAL_MOMENTS,
  type UsualMoment,
} from './moments.ts'
export { sameSpot, type SpotTrail, spotTrails } from './spots.ts'
export {
  type AnswerSummary,
  bumpsByZone,
  followedByZone,
  fadeSteps,
  type PastService,
  summariseAnswers,
  worstByZone,
} from './summary.ts'
