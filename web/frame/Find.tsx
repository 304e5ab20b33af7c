/** Find: clients, the present client's stations, pages and acts. Fetched when it is first wanted. */
import { lazy, Suspense } from 'react'
import { create } from 'zustand'

const Spotlight = lazy(() => import('./Spotlight.tsx').then((m) => ({ default: m.FindSpotlight })))

const useWanted = create<{ readonly times: number }>(() => ({ times: 0 }))
export const openFind = () => useWanted.setState((s) => ({ times: s.times + 1 }))

export function Find() {
  const times = useWanted((s) => s.times)
  if (times === 0) return null
  return (
    <Suspense fallback={null}>
      <Spotlight wanted={times} />
    </Suspense>
  )
}
