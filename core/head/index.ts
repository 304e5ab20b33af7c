/** The surface of the head: shape, mesh, frames, ways along it, views. */
export {
  bearingOf,
  clockFrame,
  cross,
  directionOf,
  distance,
  dot,
  minus,
  plus,
  tangentPart,
  turnedIn,
  unit,
  type Vec3,
} from './frames.ts'
export { browCentre, browHalfHeight, hairlineHeight } from './classify.ts'
export { makeSurface, pathLength, type PathPoint, shortestPath, type Surface } from './geodesic.ts'
export {
  buildHead,
  SEED_SPACING_MM,
  surfacePoint,
  type SurfacePoint,
  triangleArea,
  type ZonedMesh,
  type ZoneRecord,
} from './head.ts'
export { type Landmark, Landmarks, type LandmarkWay, marchLandmarks } from './landmarks.ts'
export { Locator } from './locate.ts'
export { type Mesh } from './mesh.ts'
export { type PackedHead, packHead, unpackHead } from './pack.ts'
export {
  FLAT_HALF,
  flatView,
  type FlatView,
  nearestView,
  projectPoint,
  VIEW_CENTRE,
  VIEW_IDS,
  viewAxes,
  viewOf,
  type ViewAxes,
  type ViewId,
  VIEWS,
} from './projection.ts'
export { triangleNeighbours } from './walk.ts'
