/** Open formats, in and out. */
export { answersCsv } from './answersCsv.ts'
export { bookCsv, type BookCsvRow } from './bookCsv.ts'
export { busyIn, type BusyIn } from './busyIn.ts'
export { textOfFile } from './fileText.ts'
export {
  type ClientDraft,
  draftClients,
  guessMapping,
  IMPORT_FIELD_IDS,
  IMPORT_FIELDS,
  type ImportField,
  type ImportTable,
  type KnownClient,
  type Mapping,
  readClientsFile,
} from './clientsIn.ts'
export { growthArrows } from './growthArrows.ts'
export {
  headId,
  type ImportReport,
  MOST_BYTES,
  readGrowthMap,
  withoutKnown,
  writeGrowthMap,
} from './growthMap.ts'
export { mapDrawing } from './mapDrawing.ts'
export {
  flatParts,
  type FlatParts,
  type MapArrow,
  type MapDrawing,
  mapSvg,
  ringsPath,
} from './mapSvg.ts'
export {
  placeSpots,
  rednessTint,
  SKIN_SPOT_WORDS,
  skinMapSvg,
  SPOT_SHAPES,
  tintedZones,
} from './skinMap.ts'
