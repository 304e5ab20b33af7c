/** The service that is under way on this screen: it goes on while the screen is locked. */
import { useEffect } from 'react'
import { create } from 'zustand'
import { holdVersion } from '../offline/version.ts'

interface UnderWay {
  readonly visitId: string | null
  readonly set: (visitId: string | null) => void
}

export const useUnderWay = create<UnderWay>((set) => ({
  visitId: null,
  set: (visitId) => set({ visitId }),
}))

/** Marks a visit as under way while its chair is shown. */
export function useGoesOnLocked(visitId: string | null): void {
  const set = useUnderWay((s) => s.set)
  useEffect(() => {
    set(visitId)
    const end = visitId === null ? undefined : holdVersion()
    return () => {
      set(null)
      end?.()
    }
  }, [visitId, set])
}
