/** The map on the head: its marks, what turns and disagrees in it, and the readings that can be taken hold of. */
import { useMemo, useState } from 'react'
import { mapSigns, type MapSign } from '../../../core/grain/index.ts'
import { isSkin } from '../../../core/zones/index.ts'
import type { Hit } from '../../head/loadHead.ts'
import type { HeadHandle } from '../../head/shared.ts'
import { markSpots } from '../../marks/MarksPanel.tsx'
import { useFigures } from '../../state/figures.ts'
import { useHeadLayers } from '../../state/layers.ts'
import { useFlowLayer } from '../useStation.ts'
import type { GrainEditing } from './useGrainEditing.ts'
import { useLatest } from './useMap.ts'
import { mapUse } from './words.ts'

export function useGrainLayers(editing: GrainEditing): void {
  const { visit, map, zone, use, guesses, feel, ring, picked, setPicked } = editing
  const figures = useFigures()
  const flow = useFlowLayer(visit)
  const signs = useSigns(editing)
  const handles = useMemo<HeadHandle[]>(
    () =>
      (map.frozen ? [] : visit.readings)
        .filter((r) => r.zoneId === zone || r.id === picked)
        .map((r) => ({
          ...{ id: r.id, point: r.point, normal: r.normal, direction: r.tangent },
          ...{ chosen: r.id === picked, grips: r.id === picked },
        })),
    [visit.readings, zone, picked, map.frozen],
  )
  const [dragged, setDragged] = useState<{ id: string; hit: Hit }>()
  const onStroke = useLatest(map.stroke)
  const whileDrawing = useLatest(map.whileDrawing)
  const onTap = useLatest((hit: Hit) => {
    setPicked(undefined)
    if (feel) editing.beginTest(hit)
  })
  const onHandle = useLatest((id: string, hit: Hit, done: boolean) => {
    const reading = map.reading(id)
    if (!reading) return
    if (!done) {
      setDragged({ id, hit })
      return
    }
    setDragged(undefined)
    setPicked(map.move(reading, hit))
    if (isSkin(hit.zoneId)) editing.choose(hit.zoneId)
  })
  const shown = useMemo(
    () => ({ ...flow, tone: mapUse(use).tone, reversed: use === 'exfoliate', guesses }),
    [flow, use, guesses],
  )
  const { spots } = visit.asked
  useHeadLayers(
    useMemo(
      () => ({
        flow: shown,
        signs,
        spots: markSpots(figures, spots),
        handles: feel
          ? []
          : handles.map((h) => (dragged?.id === h.id ? { ...h, ...dragged.hit, id: h.id } : h)),
        onTap,
        onPickHandle: setPicked,
        ...(ring && { ring }),
        ...(!map.frozen && !feel && { onStroke, whileDrawing, onHandle }),
      }),
      [
        figures,
        shown,
        signs,
        spots,
        handles,
        dragged,
        ring,
        feel,
        map.frozen,
        onStroke,
        whileDrawing,
        onTap,
        onHandle,
        setPicked,
      ],
    ),
  )
}

const NOTHING_FOUND = { whorls: [], disagreements: [] }

/** Whorls, readings that disagree, and where a reading would tell most. */
function useSigns({ summary, byId, next, feel }: GrainEditing): MapSign[] {
  return useMemo(
    () => mapSigns(summary ?? NOTHING_FOUND, byId, feel ? undefined : next),
    [summary, byId, next, feel],
  )
}
