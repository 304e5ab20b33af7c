/** The days of Lantern Quay: when it is closed, and when its services were. */
import {
  type ClosedDays,
  DAY_MS,
  nearestOpen,
  offsetHere,
  USUALLY_CLOSED,
} from '../core/time/index.ts'

/** The house is closed on one day of the week, none of those on which its stories happen, and on a few of the year. */
export const closedAt = (nowMs: number): ClosedDays => ({
  ...USUALLY_CLOSED,
  weekdays: [new Date(nowMs + 3 * DAY_MS).getDay()],
})

/** A moment on the half hour of a working day: of an open one, and never of one that is still to come. */
export function workingTime(ms: number, nowMs: number, random: () => number): number {
  const open = nearestOpen(closedAt(nowMs), ms, offsetHere, -Infinity)
  const day = new Date(open > nowMs - DAY_MS / 2 ? ms : open)
  day.setHours(9 + Math.floor(random() * 8), random() < 0.5 ? 0 : 30, 0, 0)
  return day.getTime()
}
