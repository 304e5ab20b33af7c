/**
 * Calendar dates as `YYYY-MM-DD` and moments as milliseconds. Days are counted on the calendar, so that summer time
 * changes nothing; the clock's zone is passed in as an offset where a moment becomes a date.
 */

export const HOUR_MS = 3_600_000
export const DAY_MS = 24 * HOUR_MS

/** A calendar date, `YYYY-MM-DD`. */
export type IsoDate = string

/** Date `days` after another (before it when negative). */
export function addDays(date: IsoDate, days: number): IsoDate {
  const [y, m, d] = date.split('-').map(Number) as [number, number, number]
  return new Date(Date.UTC(y, m - 1, d + days)).toISOString().slice(0, 10)
}

/** Whole days from one date to another. */
export function daysBetween(from: IsoDate, to: IsoDate): number {
  return Math.round((Date.parse(`${to}T00:00Z`) - Date.parse(`${from}T00:00Z`)) / DAY_MS)
}

/** The calendar date of a moment, in the zone whose offset from UTC is given in minutes (east is positive). */
export function dateOf(ms: number, offsetMinutes: number): IsoDate {
  return new Date(ms + offsetMinutes * 60_000).toISOString().slice(0, 10)
}

/** Minutes east of UTC: one figure, or by the moment, since summer time changes it. */
export type Offset = number | ((ms: number) => number)

/** The calendar date of a moment where the offset may change with it. */
export const dateAt = (ms: number, offset: Offset): IsoDate =>
  dateOf(ms, typeof offset === 'number' ? offset : offset(ms))

/** Clocks of two machines agree to within this. */
export const CLOCKS_MS = 2 * 60_000

/** Months as they are said. */
export const MONTHS = [
  'Jan',
  'Feb',
  'Mar',
  'Apr',
  'May',
  'Jun',
  'Jul',
  'Aug',
  'Sep',
  'Oct',
  'Nov',
  'Dec',
]

/** "28 Nov", with the year when it is not the one given. */
export function dayWords(date: IsoDate, today?: IsoDate): string {
  const [y, m, d] = date.split('-') as [string, string, string]
  const words = `${Number(d)} ${MONTHS[Number(m) - 1]}`
  return today !== undefined && !today.startsWith(y) ? `${words} ${y}` : words
}
