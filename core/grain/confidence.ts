/**
 * Within how far a direction holds, in degrees and words. What a reader's own readings say of one another, each left out in
 * turn, tells how noisy the reader is; trust tells how much of that is averaged away. Calibrated on hidden fields for readers
 * of 5 to 30° (see docs/models.md).
 */
import { constant, type Figures } from '../house/index.ts'

export const CONFIDENCE_CONSTANTS = {
  trustFine: constant(0.6, '', 'Skin of this trust is read as well as it can be', 'H'),
  trustGood: constant(0.25, '', 'Skin of this trust is read well', 'H'),
  trustFair: constant(0.05, '', 'Skin of this trust is read fairly', 'H'),
  trustLeast: constant(0.02, '', 'Below this trust skin counts as not read', 'H'),
  shareFine: constant(
    0.45,
    '',
    'Error of the field over the reader’s own scatter, where it is read as well as it can be',
    'H',
  ),
  shareGood: constant(0.55, '', 'The same where it is read well', 'H'),
  shareFair: constant(0.7, '', 'The same where it is read fairly', 'H'),
  shareLeast: constant(0.9, '', 'The same where it is hardly read', 'H'),
  readerDeg: constant(
    18,
    '°',
    'Two of three readings of a reader of whom nothing is known lie so near what the others say',
    'H',
  ),
  readerReadings: constant(
    4,
    'readings',
    'What is expected of a reader beforehand weighs as many readings',
    'H',
  ),
  knownReadings: constant(
    12,
    'readings',
    'What a reader has shown on other heads weighs as many readings on the next',
    'H',
  ),
  clashDeg: constant(
    60,
    '°',
    'A reading so far from what those beside it say disagrees with them',
    'H',
  ),
} as const

const K = CONFIDENCE_CONSTANTS

/** Degrees within which a direction holds, as they are told. */
export const TOLD_DEG = [5, 10, 15, 20, 30, 40, 60, 90] as const
/** Degrees within which two of three directions hold, or undefined where nothing was read near. */
export type Within = (typeof TOLD_DEG)[number] | undefined

/**
 * Within how far of what their others say two of three of a reader's readings lie, degrees: those of this map, and what was
 * known before as if it were a few readings more.
 * @param residuals radians
 * @param knownDeg what the reader has shown on other heads; the house's figure, which weighs less, when left out
 */
export function readerSpreadDeg(
  figures: Figures,
  residuals: readonly number[],
  knownDeg: number | undefined,
): number {
  const expected = knownDeg ?? figures(K.readerDeg)
  if (residuals.length === 0) return expected
  const seen = Math.max(1, twoOfThreeDeg(residuals))
  const before = figures(knownDeg === undefined ? K.readerReadings : K.knownReadings)
  const n = residuals.length
  return Math.exp((before * Math.log(expected) + n * Math.log(seen)) / (before + n))
}

/** Within how many degrees two of three of these angles lie, radians; at least one. */
export function twoOfThreeDeg(angles: readonly number[]): number {
  const sorted = [...angles].sort((a, b) => a - b)
  const at = TWO_OF_THREE * (sorted.length - 1)
  const low = sorted[Math.floor(at)]!
  const high = sorted[Math.ceil(at)]!
  return ((low + (high - low) * (at % 1)) * 180) / Math.PI
}

const TWO_OF_THREE = 0.68

/** Within how many degrees two of three directions are right, at a place of this trust; NaN where it counts as not read. */
export function errorDeg(figures: Figures, trust: number, readerSpread: number): number {
  if (trust < figures(K.trustLeast)) return NaN
  const share =
    trust >= figures(K.trustFine)
      ? K.shareFine
      : trust >= figures(K.trustGood)
        ? K.shareGood
        : trust >= figures(K.trustFair)
          ? K.shareFair
          : K.shareLeast
  return figures(share) * readerSpread
}

/** The least error round a reading that lies far from what its others say; undefined where it does not. */
export function clashDeg(
  figures: Figures,
  residual: number,
  readerSpread: number,
): number | undefined {
  const apart = (residual * 180) / Math.PI
  if (apart < figures(K.clashDeg) || apart < 3 * readerSpread) return undefined
  return apart / 4
}

/** An error as it is told: the next larger of a few figures. */
export function withinDeg(error: number): Within {
  if (Number.isNaN(error)) return undefined
  return TOLD_DEG.find((deg) => error <= deg) ?? 90
}

export function withinWords(within: Within): string {
  return within === undefined ? 'not read' : `within about ${within}°`
}

/** Whether anything was read near enough to count. */
export const isRead = (figures: Figures, trust: number): boolean => trust >= figures(K.trustLeast)

/** Ink of a hair mark, 0 to 1: nothing where nothing was read. */
export function inkOf(figures: Figures, trust: number): number {
  if (!isRead(figures, trust)) return 0
  return 0.3 + 0.7 * Math.min(1, trust / figures(K.trustFine))
}
