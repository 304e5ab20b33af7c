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
