/** Which backups are kept: the newest of each of seven days, four weeks and twelve months that have one. */
import { DAY_MS } from '../../core/time/index.ts'

export const KEPT = { days: 7, weeks: 4, months: 12 } as const

/** The first Monday of the epoch, so that weeks begin on Mondays. */
const MONDAY_MS = 4 * DAY_MS

/**
 * @param madeAtMs when each backup was made
 * @param offsetMs what local time is ahead of UTC by
 * @returns of each whether it is kept
 */
export function keptBackups(madeAtMs: readonly number[], offsetMs: number): boolean[] {
  const local = (atMs: number) => new Date(atMs + offsetMs)
  const spans: readonly (readonly [number, (atMs: number) => string])[] = [
    [KEPT.days, (t) => local(t).toISOString().slice(0, 10)],
    [KEPT.weeks, (t) => String(Math.floor((t + offsetMs - MONDAY_MS) / (7 * DAY_MS)))],
    [KEPT.months, (t) => local(t).toISOString().slice(0, 7)],
  ]
  const newestFirst = madeAtMs.map((t, i) => ({ t, i })).sort((a, b) => b.t - a.t)
  const kept = new Set<number>()
  for (const [most, spanOf] of spans) {
    const seen = new Set<string>()
    for (const { t, i } of newestFirst) {
      const span = spanOf(t)
      if (seen.has(span) || seen.size === most) continue
      seen.add(span)
      kept.add(i)
    }
  }
  return madeAtMs.map((_, i) => kept.has(i))
}
