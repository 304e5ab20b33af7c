/** The map on the flat views: what the SVG file and the cards draw. */
import {
  flatParts,
  mapDrawing,
  mapSvg,
  type FlatParts,
  type MapDrawing,
} from '../../../core/formats/index.ts'
import { viewAxes, VIEWS, type FlatView, type ViewId } from '../../../core/head/index.ts'
import type { LoadedHead } from '../../head/loadHead.ts'
import type { FlowSummary } from '../../../core/grain/index.ts'

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
  return mapSvg(
    drawOn(
      head,
      views,
      mapDrawing((id) => head.zoneById.get(id), summary),
      ids,
    ),
    'Growth map',
  )
}
