/** How far the field can be trusted, in words: calibrated on hidden fields (see docs/models.md). */
import { constant, type Figures } from '../house/index.ts'

export const CONFIDENCE_CONSTANTS = {
  trustFine: constant(0.6, '', 'From this trust on two of three places are within about 5°', 'H'),
  trustFair: constant(0.15, '', 'From this trust on two of three places are within about 15°', 'H'),
  trustLeast: constant(0.02, '', 'Below this trust skin counts as not read', 'H'),
} as const

/** Degrees within which the direction holds, or undefined where nothing was read near. */
export type Within = 5 | 15 | 40 | undefined

/** The level of a trust. */
export function withinDeg(figures: Figures, trust: number): Within {
  if (trust >= figures(CONFIDENCE_CONSTANTS.trustFine)) return 5
  if (trust >= figures(CONFIDENCE_CONSTANTS.trustFair)) return 15
  return trust >= figures(CONFIDENCE_CONSTANTS.trustLeast) ? 40 : undefined
}

export function withinWords(within: Within): string {
  return within === undefined ? 'not read' : `within about ${within}°`
}

/** Ink of a hair mark, 0 to 1: nothing where nothing was read. */
export function inkOf(figures: Figures, trust: number): number {
  if (trust < figures(CONFIDENCE_CONSTANTS.trustLeast)) return 0
  return 0.3 + 0.7 * Math.min(1, trust / figures(CONFIDENCE_CONSTANTS.trustFine))
}
