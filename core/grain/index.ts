/** Readings of growth, the field between them, and which test to make next. */
export { carry, type Carry, carryTold, displayCarry, displayVectors, sampleCarry } from './carry.ts'
export { angleBetween, toDegrees, toRadians, wrapHalf, wrapTurn } from './circular.ts'
export {
  CONFIDENCE_CONSTANTS,
  inkOf,
  isRead,
  readerSpreadDeg,
  withinDeg,
  withinWords,
} from './confidence.ts'
export {
  answerTest,
  beginTest,
  type FeelTest,
  nextStroke,
  takeBackAnswer,
  TEST_CONSTANTS,
  testResult,
  wrongShare,
} from './feelTest.ts'
export {
  FIELD_CONSTANTS,
  type FieldAnswer,
  fieldGround,
  type FieldGround,
  type FieldReading,
  type FieldTold,
  GrainField,
} from './field.ts'
export {
  editedReadings,
  inverseEdit,
  type Making,
  type MapEdit,
  mirrorOfSide,
  mirrorOfZone,
  movedReading,
  turnReadings,
} from './editMap.ts'
export { guessReadings } from './guesses.ts'
export {
  ALL_METHODS,
  grainMap,
  type Reading,
  READING_CONSTANTS,
  READING_METHODS,
  readingBearing,
  readingFromBearing,
  readingFromStroke,
  type ReadingMethod,
  readingsFromComb,
  type StrokePoint,
  type TestAnswer,
  toFieldReading,
  type ZoneGrain,
} from './readings.ts'
export {
  type MapUse,
  type Relation,
  RELATION_CONSTANTS,
  RELATION_WORDS,
  relationToGrain,
  strokeAngle,
  usedBearing,
} from './relation.ts'
export { fieldAt } from './sample.ts'
export { startingGuess } from './startingGuess.ts'
export { STREAMLET_POINTS, streamlets, type Streamlets } from './streamlets.ts'
export { type NextReading, whereNext } from './whereNext.ts'
export {
  findTurning,
  type Turning,
  type Whorl,
  WHORL_CONSTANTS,
  whorlWords,
  type ZonedReading,
} from './whorls.ts'
export { type ZoneFlow, zoneFlows } from './zoneFlow.ts'
export { type MapSign, mapSigns } from './mapSigns.ts'
export { HeadMap, type FlowAsk, type FlowDifference, type FlowSummary } from './headMap.ts'
export {
  type ReadBy,
  readerHere,
  readerOf,
  type ReaderSeen,
  readerSeen,
  readersOf,
  readerWords,
} from './readers.ts'
