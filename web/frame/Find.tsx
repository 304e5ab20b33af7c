/** Find: clients, the present client's stations, pages and acts. Fetched when it is first wanted. */
import { lazy, Suspense, useEffect } from 'react'
import { useShallow } from 'zustand/react/shallow'
import { catchLetters, FIELD, useFind } from './finding.ts'

const Spotlight = lazy(() => import('./Spotlight.tsx').then((m) => ({ default: m.FindSpotlight })))

export function Find() {
  const { times, wanted } = useFind(useShallow(({ times, wanted }) => ({ times, wanted })))
  useEffect(() => (wanted ? catchLetters() : undefined), [times, wanted])
  if (times === 0) return null
  return (
    <Suspense fallback={null}>
      <Spotlight times={times} field={FIELD} />
    </Suspense>
  )
}
