/** A service that nobody ended: it stands open since its last event. */
import { constant, type Figures } from '../house/index.ts'
import { HOUR_MS } from '../time/index.ts'
import type { ChairState } from './state.ts'

export const LEFT_OPEN_CONSTANTS = {
  hours: constant(4, 'h', 'A service in which nothing happened for so long was left open', 'H'),
} as const

/** Since when a service has been left open, ms; undefined while it is not. */
export function leftOpenSince(
  figures: Figures,
  state: Pick<ChairState, 'status' | 'lastAtMs'>,
  nowMs: number,
): number | undefined {
  if (state.status !== 'running' && state.status !== 'paused') return undefined
  const openMs = figures(LEFT_OPEN_CONSTANTS.hours) * HOUR_MS
  return nowMs - state.lastAtMs >= openMs ? state.lastAtMs : undefined
}
