/** Days and hours in words, as this machine keeps time: for the screen, paper, messages and the answer page. */
import dayjs from 'dayjs'

/** How days and hours are written: the house says it once, for the screen, paper, calendars and messages alike. */
export interface TimeShape {
  readonly dates: 'dmy' | 'mdy' | 'ymd'
  readonly clock: 12 | 24
}
let shape: TimeShape = { dates: 'dmy', clock: 24 }

/** Writes days and hours so from here on, in this process. One process serves one house. */
export function writeTimesAs({ dates, clock }: TimeShape): void {
  shape = { dates, clock }
}

const FORMATS = {
  dmy: { day: 'D MMM', long: 'dddd D MMMM', full: 'D MMMM YYYY', short: 'D MMM YY' },
  mdy: { day: 'MMM D', long: 'dddd, MMMM D', full: 'MMMM D, YYYY', short: 'MMM D, YY' },
  ymd: { day: 'MMM D', long: 'dddd MMMM D', full: 'YYYY-MM-DD', short: 'YY-MM-DD' },
} as const
const dayFormat = () => FORMATS[shape.dates].day
const hourFormat = () => (shape.clock === 24 ? 'HH:mm' : 'h:mm A')

/** "18:16", or "6:16 PM". */
export const timeWords = (ms: number) => dayjs(ms).format(hourFormat())
/** "26 Nov", or "Nov 26". */
export const dateWords = (ms: number) => dayjs(ms).format(dayFormat())
/** The hour when it was today, else the day and the hour. */
export const atWords = (ms: number, nowMs: number) =>
  dayjs(ms).isSame(nowMs, 'day') ? timeWords(ms) : `${dateWords(ms)}, ${timeWords(ms)}`
/** "24–26 Nov", "28 Nov–1 Dec". */
export function daysWords(fromMs: number, toMs: number): string {
  const from = dayjs(fromMs)
  if (from.isSame(toMs, 'day')) return dateWords(toMs)
  if (!from.isSame(toMs, 'month')) return `${dateWords(fromMs)}–${dateWords(toMs)}`
  return shape.dates === 'dmy'
    ? `${from.format('D')}–${dateWords(toMs)}`
    : `${dateWords(fromMs)}–${dayjs(toMs).format('D')}`
}
/** "in 3 days", "tomorrow", "due today", "1 day late": where a day lies against a window of good days. */
export function dueWords(fromMs: number, toMs: number, nowMs: number): string {
  const days = (ms: number) => dayjs(ms).startOf('day').diff(dayjs(nowMs).startOf('day'), 'day')
  const late = -days(toMs)
  if (late > 0) return `${late} ${late === 1 ? 'day' : 'days'} late`
  const until = days(fromMs)
  if (until <= 0) return late === 0 ? 'due today, the last good day' : 'due now'
  return until === 1 ? 'tomorrow' : `in ${until} days`
}
/** "today", "yesterday", "3 days ago". */
export function agoWords(ms: number, nowMs: number): string {
  const days = dayjs(nowMs).startOf('day').diff(dayjs(ms).startOf('day'), 'day')
  return days <= 0 ? 'today' : days === 1 ? 'yesterday' : `${days} days ago`
}
/** "Thursday 26 November". */
export const longDate = (ms: number) => dayjs(ms).format(FORMATS[shape.dates].long)
/** "Thu 26 Nov, 18:16". */
export const whenWords = (ms: number) =>
  `${dayjs(ms).format('ddd')} ${dateWords(ms)}, ${timeWords(ms)}`
/** "26 November 2026". */
export const fullDate = (ms: number) => dayjs(ms).format(FORMATS[shape.dates].full)
/** "26 Nov 26". */
export const shortDate = (ms: number) => dayjs(ms).format(FORMATS[shape.dates].short)
/** Minutes east of UTC at a moment. */
export const offsetHere = (ms: number) => 0 - new Date(ms).getTimezoneOffset()
