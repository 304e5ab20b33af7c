/** Made-up truths for the demo and for measuring. */
export {
  drawBumps,
  drawFaded,
  drawGrades,
  drawGrowth,
  drawLook,
  drawSkin,
  type HiddenSkin,
} from './truth.ts'
