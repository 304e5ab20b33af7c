/** What every station works with: the client, the visit, the house, and what core makes of them. */
import { useFigures } from '../state/figures.ts'
import { useMemo } from 'react'
import type { ClientPage, House, VisitPage } from '../../contract/types.ts'
import { grainMap } from '../../core/grain/index.ts'
import { readingsToday } from '../../core/visit/index.ts'
import type { Schools } from '../../core/house/index.ts'
import { isSkin, ZONE_IDS } from '../../core/zones/index.ts'
import { strokedZones, zonesOfJobs } from '../../core/services/index.ts'
import type { HeadFlow } from '../head/shared.ts'

export interface StationProps {
  readonly page: ClientPage
  readonly visit: VisitPage
  readonly house: House
}

/** The grain from a visit's readings. */
export function useGrain(visit: VisitPage) {
  const figures = useFigures()
  return useMemo(
    () => grainMap(figures, visit.readings, visit.endedAtMs ?? Date.now()),
    [figures, visit.readings, visit.endedAtMs],
  )
}

/** A visit's readings as the field takes them. */
export function useFieldReadings(visit: VisitPage) {
  const figures = useFigures()
  return useMemo(() => readingsToday(figures, visit, Date.now()), [figures, visit])
}

/** The field as the head shows it, with what does not belong to the service drawn faintly. */
export function useFlowLayer(visit: VisitPage): HeadFlow {
  const readings = useFieldReadings(visit)
  const faint = useFaintZones(visit)
  return useMemo(() => ({ readings, faint }), [readings, faint])
}

export function useServiceZones(visit: VisitPage) {
  return useMemo(() => zonesOfJobs(visit.jobs), [visit.jobs])
}

/** Zones that a blade is to go over: those whose grain is read. */
export function useStrokedZones(visit: VisitPage) {
  return useMemo(() => strokedZones(visit.jobs), [visit.jobs])
}

/** Zones of skin that are not part of the service. */
export function useFaintZones(visit: VisitPage): ReadonlySet<string> {
  const own = useServiceZones(visit)
  return useMemo(() => {
    const mine = new Set<string>(own)
    return new Set(ZONE_IDS.filter((id) => isSkin(id) && !mine.has(id)))
  }, [own])
}

/** The schools that count for a client: the house's, and what differs for them. */
export function useSchools(page: ClientPage, house: House): Schools {
  return useMemo(
    () => ({ ...house.schools, ...page.client.schools }),
    [house.schools, page.client.schools],
  )
}

/** A visit that has begun no longer changes at Ask, Read and Plan. */
export const isFrozen = (visit: VisitPage) => visit.state !== 'open'
