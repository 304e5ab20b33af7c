/** Whether what is shown comes from the house, or from what this screen kept of it. */
import { create } from 'zustand'

interface Away {
  /** When the house gave what is shown; null while it answers itself. */
  readonly keptAtMs: number | null
}
export const useAway = create<Away>(() => ({ keptAtMs: null }))

/** @param keptAt what stands beside a kept answer; null beside one of the house */
export function answered(keptAt: string | null): void {
  const keptAtMs = keptAt === null ? null : Date.parse(keptAt) || null
  const was = useAway.getState().keptAtMs
  if (keptAtMs === was) return
  // Of several kept pages the oldest is told.
  useAway.setState({
    keptAtMs: keptAtMs !== null && was !== null ? Math.min(keptAtMs, was) : keptAtMs,
  })
}
