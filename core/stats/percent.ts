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

/** Odds as one says them, "about 1 time in 8". */
export function timesWords(odds: number): string {
  if (odds < 0.01) return 'less than 1 time in 100'
  if (odds > 0.66) return 'more often than not'
  return `about 1 time in ${Math.max(2, Math.round(1 / odds))}`
}
