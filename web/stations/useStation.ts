/** What every station works with: the client, the visit, the house, and what core makes of them. */
import { useMemo } from 'react'
import type { ClientPage, House, VisitPage } from '../../contract/types.ts'
import { grainMap } from '../../core/grain/readings.ts'
import { screen } from '../../core/screening/screen.ts'
import { serviceZones } from '../../core/services.ts'
import { offsetHere, todayIso } from '../state/words.ts'

export interface StationProps {
  readonly page: ClientPage
  readonly visit: VisitPage
  readonly house: House
}

/** The grain from a visit's readings. */
export function useGrain(visit: VisitPage) {
  return useMemo(
    () => grainMap(visit.readings, visit.endedAtMs ?? Date.now()),
    [visit.readings, visit.endedAtMs],
  )
}

export function useServiceZones(visit: VisitPage) {
  return useMemo(() => serviceZones(visit.service), [visit.service])
}

/** Zones that are not part of the service. */
export function useFaintZones(visit: VisitPage): ReadonlySet<string> {
  const own = useServiceZones(visit)
  const all = useGrain(visit)
  return useMemo(() => {
    const mine = new Set<string>(own)
    return new Set(Object.keys(all).filter((id) => !mine.has(id)))
  }, [own, all])
}

export function useScreening(visit: VisitPage, house: House) {
  return useMemo(() => {
    const now = Date.now()
    return screen(visit.service, visit.asked, house.schools, todayIso(), now, offsetHere(now))
  }, [visit.service, visit.asked, house.schools])
}

/** A visit that has begun no longer changes at Ask, Read and Plan. */
export const isFrozen = (visit: VisitPage) => visit.state !== 'open'
