/** The gate of a visit on this screen: the same question that the server asks, with what is tapped here already in it. */
import { useFigures } from '../state/figures.ts'
import { useEffect, useMemo, useState } from 'react'
import { gate, heldWords, knownOf, type Gate } from '../../core/visit/index.ts'
import { offsetHere } from '../../core/time/index.ts'
import type { StationProps } from './useStation.ts'

const MINUTE_MS = 60_000

/** Now, to the minute: what may be read or has healed depends on it. */
function useMinute(): number {
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), MINUTE_MS)
    return () => clearInterval(timer)
  }, [])
  return now
}

export function useGate({ page, visit, house }: StationProps): Gate {
  const figures = useFigures()
  const now = useMinute()
  // As it stands on this screen now.
  const { schools, bornOn } = page.client
  return useMemo(
    () =>
      gate(
        knownOf(
          figures,
          visit,
          house,
          schools,
          { ...visit.facts, bornOn },
          Math.max(now, Date.now()),
          offsetHere,
        ),
      ),
    [figures, visit, house, schools, bornOn, now],
  )
}

/** Why nothing may be kept or begun yet, in a sentence. */
export function useHeld(props: StationProps, what: 'plan' | 'start'): string | undefined {
  const { findings } = useGate(props)
  return props.visit.state === 'open' ? heldWords(findings, what) : undefined
}

/** What asking comes to with everything that is known: plans go by it. */
export const useScreening = (props: StationProps) => useGate(props).screening
