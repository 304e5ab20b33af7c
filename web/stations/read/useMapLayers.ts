/** What every tab of Read shows on the head beside its own: the whorls and meetings of the map. */
import { useMemo } from 'react'
import type { VisitPage } from '../../../contract/types.ts'
import { mapSigns } from '../../../core/grain/index.ts'
import { isBodySitting } from '../../../core/services/index.ts'
import type { HeadStageProps } from '../../head/HeadStage.tsx'
import { useHeadLayers } from '../../state/layers.ts'
import { useFieldReadings } from '../useStation.ts'
import { useFieldSummary } from './useMap.ts'

const NOTHING_READ: never[] = []
const NOBODY = new Map<string, never>()

/** Pass memoised layers. */
export function useMapLayers(visit: VisitPage, layers: HeadStageProps): void {
  const readings = useFieldReadings(visit)
  const summary = useFieldSummary(isBodySitting(visit.jobs) ? NOTHING_READ : readings)
  const whorls = summary?.whorls
  const signs = useMemo(
    () => mapSigns({ whorls: whorls ?? [], disagreements: [] }, NOBODY),
    [whorls],
  )
  useHeadLayers(useMemo(() => ({ ...layers, signs }), [layers, signs]))
}
