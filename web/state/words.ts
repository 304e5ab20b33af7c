/** Moments and numbers in words, in this screen's own time. */
import dayjs from 'dayjs'

export const timeWords = (ms: number) => dayjs(ms).format('HH:mm')
export const dateWords = (ms: number) => dayjs(ms).format('D MMM')
/** The hour when it was today, else the day and the hour. */
export const atWords = (ms: number, nowMs = Date.now()) =>
  dayjs(ms).isSame(nowMs, 'day') ? timeWords(ms) : dayjs(ms).format('D MMM, HH:mm')
/** "24–26 Nov", "28 Nov–1 Dec". */
export function daysWords(fromMs: number, toMs: number): string {
  const from = dayjs(fromMs)
  if (from.isSame(toMs, 'day')) return dateWords(toMs)
  return `${from.format(from.isSame(toMs, 'month') ? 'D' : 'D MMM')}–${dateWords(toMs)}`
}
export const longDate = (ms: number) => dayjs(ms).format('dddd D MMMM')
export const whenWords = (ms: number) => dayjs(ms).format('ddd D MMM, HH:mm')
export const todayIso = () => dayjs().format('YYYY-MM-DD')
/** Minutes east of UTC here and now. */
export const offsetHere = (ms: number) => -new Date(ms).getTimezoneOffset()
export const hoursWords = (h: number) =>
  h >= 96 ? `${Math.round(h / 24)} days` : `${Math.round(h)} h`
export const newId = () => crypto.randomUUID()

/** "12:05" from milliseconds; negative time is late. */
export function clockText(ms: number): string {
  const s = Math.floor(Math.abs(ms) / 1000)
  return `${ms < 0 ? '−' : ''}${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`
}

/** A telephone number as an address that can be rung. */
export const telephone = (number: string): string => `tel:${number.replace(/[^+0-9]/g, '')}`
