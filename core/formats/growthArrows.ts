/** How hair grows as one arrow for each zone that was read, for flat pictures. */
import type { Figures } from '../house/index.ts'
import { grainMap, type Reading } from '../grain/index.ts'
import { directionOf, type ZoneRecord } from '../head/index.ts'
import { isSkin } from '../zones/index.ts'
import type { MapArrow } from './mapSvg.ts'

/** @param nowMs readings count by their age then */
export function growthArrows(
  figures: Figures,
  readings: readonly Reading[],
  nowMs: number,
  zones: Iterable<ZoneRecord>,
): MapArrow[] {
  const grain = grainMap(figures, readings, nowMs)
  return [...zones].flatMap((zone): MapArrow[] => {
    const g = grain[zone.id]
    if (!g || g.source !== 'read' || !isSkin(zone.id)) return []
    const { point, normal } = zone.centre
    return [
      {
        zoneId: zone.id,
        point,
        normal,
        direction: directionOf(zone.id, point, normal, g.growthDirection),
        lengthMm: Math.min(24, Math.max(8, Math.sqrt(zone.areaCm2) * 5)),
      },
    ]
  })
}
