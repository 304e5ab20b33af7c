/** Directions round the circle in bins, for sums over many cells. */

/** Bins of a whole turn: five degrees each. */
export const BINS = 72
export const BIN = (2 * Math.PI) / BINS

/** Smallest angle between two directions, radians in [0, π]. */
export function apart(a: number, b: number): number {
  const d = Math.abs(a - b) % (2 * Math.PI)
  return d > Math.PI ? 2 * Math.PI - d : d
}
