/** The places of head and body: ids, sides, what the trade knows of them. */
export { type Area, areaOf, AREAS_WORKED } from './areas.ts'
export { BODY_AREAS, BODY_ENDS, BODY_STEMS, type BodyStem, bodyZone, type Outline } from './body.ts'
export {
  type HairKind,
  onZone,
  theZone,
  ZONE_FACTS,
  zoneBase,
  zoneInWords,
  zoneName,
} from './facts.ts'
export {
  ALL_ZONE_IDS,
  BODY_IDS,
  bodyStem,
  isBody,
  isSkin,
  mirrorZone,
  ZONE_IDS,
  type ZoneId,
  zoneSide,
  zoneStem,
  type ZoneStem,
} from './zones.ts'
