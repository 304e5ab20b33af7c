/** Everything that a plan of this visit depends on, as it is sent to be worked out. */
import { useMemo } from 'react'
import type { PlanChoice } from '../../core/plan/index.ts'
import { planAsk, type PlanAsk } from '../../core/visit/index.ts'
import { useFigures } from '../state/figures.ts'
import { useScreening } from './useGate.ts'
import type { StationProps } from './useStation.ts'

export function usePlanAsk({ page, visit, house }: StationProps, choice: PlanChoice): PlanAsk {
  const figures = useFigures()
  const screening = useScreening({ page, visit, house })
  return useMemo(
    () =>
      planAsk(
        figures,
        visit,
        { ...page.client, model: page.model },
        house,
        screening,
        choice,
        Date.now(),
      ),
    [figures, page, visit, house, screening, choice],
  )
}
