/** What kind of hair grows where. */
export { COARSENESSES } from '../skin/index.ts'
export { hairShows } from './shows.ts'
export { sideDensity, sideWords } from './sides.ts'
export {
  CURLS,
  DENSITIES,
  GREYS,
  HAIR_KINDS,
  HEAVIER_SIDES,
  type HeavierSide,
  type HairLayer,
  hairWords,
  NO_NOTES,
  plannedHair,
  slipIn,
  SLIPS_HERE,
  type Stray,
  type SurfaceNotes,
  type ZoneHair,
} from './layer.ts'
