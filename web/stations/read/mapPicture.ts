/** The map on the flat views: what the SVG file and the cards draw. */
import {
  flatParts,
  mapSvg,
  type FlatParts,
  type MapArrow,
  type MapDrawing,
} from '../../../core/formats/index.ts'
import {
  directionOf,
  type SurfacePoint,
  viewAxes,
  VIEWS,
  type FlatView,
  type ViewId,
} from '../../../core/head/index.ts'
import { isSkin, type ZoneId } from '../../../core/zones/index.ts'
import type { LoadedHead } from '../../head/loadHead.ts'
import type { FlowSummary } from '../../../core/grain/index.ts'
import { usedBearing, type MapUse } from './words.ts'

/** Arrows of all zones that are known. */
export function mapDrawing(
  head: LoadedHead,
  summary: FlowSummary,
  use: MapUse = 'growth',
  lines: readonly (readonly SurfacePoint[])[] = [],
  large = false,
  read: ReadonlySet<ZoneId> = new Set(),
): MapDrawing {
  const arrows = summary.zones.flatMap((z): MapArrow[] => {
    const record = head.zoneById.get(z.zoneId)
    if (!record || !isSkin(z.zoneId) || z.within === undefined || z.growthDirection === undefined)
      return []
    if (z.zoneId.startsWith('brow')) return []
    const { point, normal } = record.centre
    // Where nothing is read near enough an arrow on paper would claim too much.
    if (large && z.within > 15 && !read.has(z.zoneId)) return []
    const side = Math.sqrt(record.areaCm2) * 10
    return [
      {
        zoneId: z.zoneId,
        point,
        normal,
        direction: directionOf(z.zoneId, point, normal, usedBearing(z.growthDirection, use)),
        lengthMm: Math.min(large ? 34 : 24, Math.max(8, side * (large ? 0.75 : 0.5))),
        unsure: z.within > 15,
      },
    ]
  })
  return {
    arrows,
    signs: summary.whorls
      .filter((w) => w.kind === 'whorl')
      .map((w) => ({ point: w.point, normal: w.normal, turn: w.turn })),
    lines,
  }
}

/** True when nothing of the head stands before a place in a named view. */
export function visibleOn(head: LoadedHead) {
  return (view: ViewId, point: readonly [number, number, number]) =>
    head.inSight(viewAxes(VIEWS[view].yawDeg, VIEWS[view].pitchDeg), point)
}

export async function flatViews(): Promise<readonly FlatView[]> {
  return (await import('../../../generated/flat-views.json'))
    .default as unknown as readonly FlatView[]
}

/** The flat views with a drawing on them. */
export function drawOn(
  head: LoadedHead,
  views: readonly FlatView[],
  drawing: MapDrawing,
  ids: readonly ViewId[],
): { id: ViewId; name: string; parts: FlatParts }[] {
  return ids.map((id) => ({
    id,
    name: VIEWS[id].name,
    parts: flatParts(
      views.find((v) => v.id === id)!,
      drawing,
      visibleOn(head),
    ),
  }))
}

export async function mapPicture(head: LoadedHead, summary: FlowSummary): Promise<string> {
  const views = await flatViews()
  const ids: ViewId[] = ['front', 'left', 'right', 'underChin', 'crown', 'nape']
  return mapSvg(drawOn(head, views, mapDrawing(head, summary), ids), 'Growth map')
}
