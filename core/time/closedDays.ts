/** Days on which a house is closed: days of the week, days of every year, and single days. */
import { addDays, dateAt, DAY_MS, dayWords, type IsoDate, MONTHS, type Offset } from './dates.ts'

export interface ClosedDays {
  /** Days of the week: 0 is Sunday. */
  readonly weekdays: readonly number[]
  /** `MM-DD` for a day of every year, `YYYY-MM-DD` for a single one. */
  readonly dates: readonly string[]
  /** Hours from which until which the house is open, by day of the week; those that are not named are as usual. */
  readonly hours?: Readonly<Record<string, readonly number[]>>
}

/** Open from nine to six unless the house says otherwise (common practice). */
export const USUAL_HOURS = [9, 18] as const

/** Sundays, and the days on which most shops are closed (common practice; a house says its own). */
export const USUALLY_CLOSED: ClosedDays = { weekdays: [0], dates: ['01-01', '12-25', '12-26'] }

export const ALWAYS_OPEN: ClosedDays = { weekdays: [], dates: [] }

const weekday = (date: IsoDate) => new Date(`${date}T00:00Z`).getUTCDay()

export const isClosed = (closed: ClosedDays, date: IsoDate): boolean =>
  closed.weekdays.includes(weekday(date)) ||
  closed.dates.some((d) => d === date || d === date.slice(5))

const pairOf = (hours: readonly number[] | undefined): readonly [number, number] | undefined =>
  hours?.length === 2 ? [hours[0]!, hours[1]!] : undefined

/** From which hour until which the house is open on a day, in hours of its own clock. */
export const openHours = (closed: ClosedDays, date: IsoDate): readonly [number, number] =>
  pairOf(closed.hours?.[weekday(date)]) ?? USUAL_HOURS

/** Nobody is written to before or after these hours. */
const HUMANE = [9, 20] as const

/** A moment, or the next one at which a message does not wake anybody. */
export function humaneMs(ms: number, offset: Offset): number {
  const minutes = typeof offset === 'number' ? offset : offset(ms)
  const local = ms + minutes * 60_000
  const midnight = local - (((local % DAY_MS) + DAY_MS) % DAY_MS)
  const hour = (local - midnight) / (DAY_MS / 24)
  if (hour >= HUMANE[0] && hour < HUMANE[1]) return ms
  const next = midnight + (hour < HUMANE[0] ? 0 : DAY_MS) + HUMANE[0] * (DAY_MS / 24)
  return next - minutes * 60_000
}

/** A house that is closed for longer than this is taken to be open: nothing is put off for ever. */
const LOOK_DAYS = 60

function openDay(closed: ClosedDays, date: IsoDate, step: 1 | -1): IsoDate {
  let at = date
  for (let i = 0; i < LOOK_DAYS; i++, at = addDays(at, step)) if (!isClosed(closed, at)) return at
  return date
}

/** Start of a calendar day as a moment. */
function startOf(date: IsoDate, offset: Offset): number {
  const asUtc = Date.parse(`${date}T00:00Z`)
  const minutes = typeof offset === 'number' ? offset : offset(asUtc)
  return asUtc - minutes * 60_000
}

/** A moment, or the start of the next open day where its own is closed. */
export function openFrom(closed: ClosedDays, ms: number, offset: Offset): number {
  const date = dateAt(ms, offset)
  const open = openDay(closed, date, 1)
  return open === date ? ms : startOf(open, offset)
}

/** A moment, or the end of the last open day before it where its own is closed. */
export function openUntil(closed: ClosedDays, ms: number, offset: Offset): number {
  const date = dateAt(ms, offset)
  const open = openDay(closed, date, -1)
  return open === date ? ms : startOf(addDays(open, 1), offset) - 60_000
}

/**
 * The moment on an open day that is nearest, at the same hour: later where two are as near, and never before `notBeforeMs`.
 */
export function nearestOpen(
  closed: ClosedDays,
  ms: number,
  offset: Offset,
  notBeforeMs: number,
): number {
  const open = (at: number) => at >= notBeforeMs && !isClosed(closed, dateAt(at, offset))
  for (let days = 0; days < LOOK_DAYS; days++) {
    if (open(ms + days * DAY_MS)) return ms + days * DAY_MS
    if (open(ms - days * DAY_MS)) return ms - days * DAY_MS
  }
  return ms
}

const WEEKDAYS = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday']

/** "Sunday", for choosing and for saying why. */
export const weekdayWords = (day: number): string => WEEKDAYS[day]!

/** A leap year: every day of any year is one of it. */
const ANY_YEAR = '2000'

/** A closed date as it is said: "24 Dec", "24 Dec 2026". */
export const closedDateWords = (date: string): string =>
  date.length === 5 ? dayWords(`${ANY_YEAR}-${date}`) : dayWords(date, ANY_YEAR)

const SAID = /^(\d{1,2})\.?\s+([a-z]{3})[a-z]*\.?(?:\s+(\d{4}))?$/i

/** Reads "24 Dec", "24 December 2026", "2026-12-24" or "12-24"; undefined for what is no day. */
export function readClosedDate(text: string): string | undefined {
  const said = SAID.exec(text.trim())
  const month = said ? MONTHS.findIndex((m) => m.toLowerCase() === said[2]!.toLowerCase()) + 1 : 0
  const two = (n: number | string) => String(n).padStart(2, '0')
  const date = said ? `${said[3] ? `${said[3]}-` : ''}${two(month)}-${two(said[1]!)}` : text.trim()
  return isClosedDate(date) ? date : undefined
}

/** Whether a text is a date as it is kept: of a day that there is. */
export function isClosedDate(date: string): boolean {
  if (!/^(\d{4}-)?\d{2}-\d{2}$/.test(date)) return false
  const whole = date.length === 5 ? `${ANY_YEAR}-${date}` : date
  const ms = Date.parse(`${whole}T00:00Z`)
  return !Number.isNaN(ms) && new Date(ms).toISOString().startsWith(whole)
}

/** Days of the week and dates in words, for what is written down of a change. */
export const closedWords = (closed: ClosedDays): string =>
  [...closed.weekdays.map(weekdayWords), ...closed.dates.map(closedDateWords)].join(', ') || 'never'
