/** What stands behind each figure that is shown, in words. */
export { ESTIMATES, MARK_MEANS, type EstimateId, type EstimateText } from './estimates.ts'
