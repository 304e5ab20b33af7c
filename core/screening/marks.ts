/** Marks on the skin: how large they are with their margin, and whether they are still to be asked about. */
import type { Figures } from '../house/index.ts'
import { distance } from '../head/index.ts'
import type { ZoneId } from '../zones/index.ts'
import { SCREENING_CONSTANTS } from './rules.ts'
import type { SkinMark } from './asked.ts'

/** Margin left round a mark, mm: its own, else the house's. */
export function markMargin(figures: Figures, spot: SkinMark): number {
  return spot.marginMm ?? figures(SCREENING_CONSTANTS.spotMarginMm)
}

/**
 * Area that a mark takes from each zone with its margin, cm²: a disc, or the band that the brush swept. The band is shared
 * out by the places of its trail.
 */
export function markAreas(figures: Figures, spot: SkinMark): Partial<Record<ZoneId, number>> {
  const r = spot.radiusMm + markMargin(figures, spot)
  const trail = spot.trail ?? []
  const length = trail.reduce(
    (s, p, i) => (i === 0 ? 0 : s + distance(trail[i - 1]!.point, p.point)),
    0,
  )
  // A brush that goes to and fro covers no more than the disc round all it covered.
  const far = Math.max(0, ...trail.map((p) => distance(p.point, spot.point)))
  const area = Math.min(2 * r * length + Math.PI * r * r, Math.PI * (far + r) ** 2) / 100
  if (trail.length === 0) return { [spot.zoneId]: area }
  const out: Partial<Record<ZoneId, number>> = {}
  for (const p of trail) out[p.zoneId] = (out[p.zoneId] ?? 0) + area / trail.length
  return out
}

/** Zones that a mark touches. */
export function markZones(spot: SkinMark): ZoneId[] {
  return [...new Set([spot.zoneId, ...(spot.trail ?? []).map((p) => p.zoneId)])]
}

/** Marks of the last visit at the next: all stand until somebody says that they are gone. */
export function carriedMarks(spots: readonly SkinMark[]): SkinMark[] {
  return spots.map((s) => ({ ...s, stillThere: 'ask' as const }))
}
