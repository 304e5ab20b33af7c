/** Shares and odds in words. */

/** A share of what was counted, in whole percents. */
export const percentWords = (share: number): string => `${Math.round(100 * share)} %`

/**
 * Odds of what is to come, in whole percents: never quite none, never quite all.
 * @param odds 0 to 1
 */
export function oddsWords(odds: number): string {
  if (odds < 0.005) return 'under 1 %'
  if (odds >= 0.995) return 'over 99 %'
  return percentWords(odds)
}
