/** Days and hours in words, as this machine keeps time: for the screen, paper, messages and the answer page. */
import dayjs from 'dayjs'

/** "18:16". */
export const timeWords = (ms: number) => dayjs(ms).format('HH:mm')
/** "26 Nov". */
export const dateWords = (ms: number) => dayjs(ms).format('D MMM')
/** The hour when it was today, else the day and the hour. */
export const atWords = (ms: number, nowMs: number) =>
  dayjs(ms).isSame(nowMs, 'day') ? timeWords(ms) : dayjs(ms).format('D MMM, HH:mm')
/** "24–26 Nov", "28 Nov–1 Dec". */
export function daysWords(fromMs: number, toMs: number): string {
  const from = dayjs(fromMs)
  if (from.isSame(toMs, 'day')) return dateWords(toMs)
  return `${from.format(from.isSame(toMs, 'month') ? 'D' : 'D MMM')}–${dateWords(toMs)}`
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
export const longDate = (ms: number) => dayjs(ms).format('dddd D MMMM')
/** "Thu 26 Nov, 18:16". */
export const whenWords = (ms: number) => dayjs(ms).format('ddd D MMM, HH:mm')
/** "26 November 2026". */
export const fullDate = (ms: number) => dayjs(ms).format('D MMMM YYYY')
/** "26 Nov 26". */
export const shortDate = (ms: number) => dayjs(ms).format('D MMM YY')
/** Minutes east of UTC at a moment. */
export const offsetHere = (ms: number) => 0 - new Date(ms).getTimezoneOffset()
