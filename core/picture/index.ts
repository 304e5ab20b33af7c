/** Reading a picture: from where it was taken. */
export {
  degreesApart,
  inCamera,
  lookingFrom,
  onPicture,
  type Pose,
  product,
  type Rotation,
  rotated,
  rotationOf,
} from './camera.ts'
export { fitPose, type PoseFit, type PoseWish, type Tapped, wrongLandmark } from './pose.ts'
export {
  bearingsOf,
  hairAlong,
  type HairFound,
  hairOf,
  type LiftPrior,
  lineOf,
  misfit,
  type SeenLine,
  seenLine,
  type SkinFrame,
} from './hairLine.ts'
export {
  brightness,
  gathered,
  levelled,
  type LineSeen,
  type Plane,
  type Ridges,
  ridgesOf,
} from './ridges.ts'
export {
  encoded,
  type Photograph,
  photograph,
  type PhotoWish,
  type SkinPlace,
  type TrueHair,
  type TrueSkin,
} from './photograph.ts'
