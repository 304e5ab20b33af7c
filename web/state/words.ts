/** Moments and numbers in words, in this screen's own time. */
import { v4 as uuid } from 'uuid'
import dayjs from 'dayjs'
import { atWords as wordsAt } from '../../core/time/index.ts'

/** The hour when it was today, else the day and the hour. */
export const atWords = (ms: number, nowMs = Date.now()) => wordsAt(ms, nowMs)
export const todayIso = () => dayjs().format('YYYY-MM-DD')
export const hoursWords = (h: number) =>
  h >= 96 ? `${Math.round(h / 24)} days` : `${Math.round(h)} h`
/** Made here, so that a repeated request changes nothing; also where the page came by plain HTTP. */
export const newId = (): string => uuid()

/** "12:05" from milliseconds; negative time is late. */
export function clockText(ms: number): string {
  const s = Math.floor(Math.abs(ms) / 1000)
  return `${ms < 0 ? '−' : ''}${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`
}

/** A telephone number as an address that can be rung. */
export const telephone = (number: string): string => `tel:${number.replace(/[^+0-9]/g, '')}`
