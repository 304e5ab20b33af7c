/** What of a map is drawn on the flat views and on cards: an arrow for each zone that is known well enough, and what turns. */
import { usedBearing, type FlowSummary, type MapUse } from '../grain/index.ts'
import { directionOf, type SurfacePoint, type ZoneRecord } from '../head/index.ts'
import { isSkin, zoneStem, type ZoneId } from '../zones/index.ts'
import type { MapArrow, MapDrawing } from './mapSvg.ts'

/** Beyond this spread, degrees, a direction is drawn as unsure. */
const SURE_DEG = 15
/** An arrow's length: shares of its zone's side, and bounds, mm; on a card that hangs on a wall they are larger. */
const ON_PAPER = { share: 0.5, leastMm: 8, mostMm: 24 }
const ON_A_CARD = { share: 0.75, leastMm: 8, mostMm: 34 }

/**
 * @param zoneOf the zones of the head that it is drawn on
 * @param large for a card that hangs on a wall: nothing that is unsure and was not read is on it, it would claim too much
 * @param read zones with a reading of their own
 */
export function mapDrawing(
  zoneOf: (id: ZoneId) => Pick<ZoneRecord, 'centre' | 'areaCm2'> | undefined,
  summary: Pick<FlowSummary, 'zones' | 'whorls'>,
  use: MapUse = 'growth',
  lines: readonly (readonly SurfacePoint[])[] = [],
  large = false,
  read: ReadonlySet<ZoneId> = new Set(),
): MapDrawing {
  const { share, leastMm, mostMm } = large ? ON_A_CARD : ON_PAPER
  const arrows = summary.zones.flatMap(({ zoneId, within, growthDirection }): MapArrow[] => {
    const zone = zoneOf(zoneId)
    if (!zone || !isSkin(zoneId) || zoneStem(zoneId) === 'brow') return []
    if (growthDirection === undefined) return []
    // A zone that was read in one place has its arrow, unsure: its reader would look for it.
    const here = read.has(zoneId)
    if (within === undefined && !here) return []
    const unsure = within === undefined || within > SURE_DEG
    if (large && unsure && !here) return []
    const { point, normal } = zone.centre
    const direction = directionOf(zoneId, point, normal, usedBearing(growthDirection, use))
    const sideMm = Math.sqrt(zone.areaCm2) * 10
    const lengthMm = Math.min(mostMm, Math.max(leastMm, sideMm * share))
    return [{ zoneId, point, normal, direction, lengthMm, unsure }]
  })
  return {
    arrows,
    signs: summary.whorls
      .filter((w) => w.kind === 'whorl')
      .map(({ point, normal, turn }) => ({ point, normal, turn })),
    lines,
  }
}
