/** Directions round the circle in bins, for sums over many cells. */

/** Bins of a whole turn: five degrees each. */
export const BINS = 72
export const BIN = (2 * Math.PI) / BINS
