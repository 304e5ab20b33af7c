/** Lather dries, place by place: what is still wet, what must be lathered again before the blade. */
import type { Figures } from '../house/index.ts'
import type { ZoneId } from '../zones/index.ts'
import { ROUTINE_CONSTANTS } from '../services/index.ts'
import { type PlanStep, stepZones } from '../plan/index.ts'
import type { ChairPlan, Live } from './state.ts'

export interface LatherNow {
  readonly zoneId: ZoneId
  /** Until it is dry; negative since when it is. */
  readonly leftMs: number
}

const laid = ({ plan, state }: Live<ChairPlan>) =>
  plan.steps.slice(0, state.index + 1).findLast((s) => s.lays === 'lather')

/** What lies under the blade now instead of lather, in a zone; undefined where it is lather, null where the skin is dry. */
export function filmNow(live: Live<ChairPlan>, zoneId: ZoneId): PlanStep['film'] | null {
  const step = laid(live)
  const own = step?.films?.[zoneId]
  return own === undefined ? step?.film : own
}

/** Lather on the zones that still get a stroke before the next one is due, the driest first; never fresher than fresh, whatever a clock says. */
export function latherNow(
  figures: Figures,
  { plan, state }: Live<ChairPlan>,
  nowMs: number,
): LatherNow[] {
  const zones = new Set<ZoneId>()
  for (const step of plan.steps.slice(state.index)) {
    // Another pass brings its own lather.
    if (step.lays === 'lather' && !step.renews) break
    if (step.kind !== 'feel') for (const zone of stepZones(step)) zones.add(zone)
  }
  return [...zones]
    .flatMap((zoneId) => {
      const at = state.lathered[zoneId]
      const film = filmNow({ plan, state }, zoneId)
      if (film === null) return []
      const lasts = (film?.lastsMin ?? figures(ROUTINE_CONSTANTS.latherLastsMin)) * 60_000
      return at === undefined ? [] : [{ zoneId, leftMs: Math.min(lasts, at + lasts - nowMs) }]
    })
    .sort((a, b) => a.leftMs - b.leftMs)
}
