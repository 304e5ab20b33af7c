/** What the station in front shows on the head. The head itself stays mounted from station to station. */
import { useEffect } from 'react'
import { create } from 'zustand'
import type { HeadStageProps } from '../head/HeadStage.tsx'

interface Layers {
  readonly layers: HeadStageProps
}

export const useLayers = create<Layers>(() => ({ layers: {} }))

/** Shows a station's layers while it is in front. Pass a memoised object. */
export function useHeadLayers(layers: HeadStageProps): void {
  useEffect(() => {
    useLayers.setState({ layers })
  }, [layers])
  useEffect(() => () => useLayers.setState({ layers: {} }), [])
}
