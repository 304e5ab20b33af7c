/** Made-up truths for the demo and for measuring. */
export {
  drawBumps,
  drawDay,
  drawFaded,
  drawGrades,
  drawGrowth,
  drawLook,
  drawSkin,
  type HiddenSkin,
} from './truth.ts'
