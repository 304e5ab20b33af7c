/** Bearings as the hours of a clock seen by a worker who faces the zone; 12 is toward the crown. */
import { toDegrees, wrapTurn } from './circular.ts'

/** The nearest hour, 1 to 12. */
export function clockHour(bearing: number): number {
  const hour = Math.round(toDegrees(wrapTurn(bearing)) / 30) % 12
  return hour === 0 ? 12 : hour
}

/** "5 o'clock". */
export function clockWords(bearing: number): string {
  return `${clockHour(bearing)} o'clock`
}

/** Whole degrees clockwise from 12. */
export function bearingDeg(bearing: number): number {
  return Math.round(toDegrees(wrapTurn(bearing))) % 360
}
