/** Everything that a plan of a visit depends on, as it is sent to be worked out. */
import { useMemo } from 'react'
import type { PlanChoice } from '../../core/plan/types.ts'
import type { PlanAsk } from '../workers/plans.ts'
import { useScreening } from './useGate.ts'
import { useFieldReadings, useSchools, type StationProps } from './useStation.ts'

/** Everything that a plan of this visit depends on. */
export function usePlanAsk({ page, visit, house }: StationProps, choice: PlanChoice): PlanAsk {
  const readings = useFieldReadings(visit)
  const schools = useSchools(page, house)
  const screening = useScreening({ page, visit, house })
  return useMemo(() => {
    const worker = house.workers.find((w) => w.id === visit.workerId)
    return {
      service: visit.service,
      readings,
      lines: visit.notes.lines,
      client: page.client.skin,
      screening,
      schools,
      hand: worker?.hand ?? 'right',
      level: worker?.level ?? 'practised',
      kit: house.kit,
      sensitivity: page.model.sensitivity,
      growth: page.model.growth,
      notes: {
        keptZones: visit.notes.keptZones,
        hair: visit.notes.hair,
        strays: visit.notes.strays,
      },
      house: { version: house.changes.length, changed: house.figures },
      choice,
    }
  }, [
    readings,
    schools,
    screening,
    page,
    visit.service,
    visit.workerId,
    visit.notes,
    house,
    choice,
  ])
}
