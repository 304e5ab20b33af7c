/** What a tap on the head means at the chair just now, and what was tapped so far. */
import { create } from 'zustand'
import type { CellPlace, Tapped } from '../../../core/chair/index.ts'

export const NO_PLACES: readonly CellPlace[] = []

export type TapMode = 'none' | 'one' | 'patches' | 'zones'

interface Taps {
  readonly mode: TapMode
  readonly radiusMm: number
  readonly places: readonly CellPlace[]
  /** Redness of tapped zones; 1 until another is chosen. */
  readonly grades: Readonly<Record<string, number>>
  /** Taps mean this until the function given back is called; then again what they meant before. */
  readonly begin: (
    mode: TapMode,
    radiusMm?: number,
    first?: { places: readonly CellPlace[]; grades: Readonly<Record<string, number>> },
  ) => () => void
  readonly setRadius: (radiusMm: number) => void
  readonly tap: (place: Omit<CellPlace, 'radiusMm'>) => void
  readonly grade: (zoneId: string, grade: number) => void
  readonly clear: () => void
}

export const useTaps = create<Taps>((set, get) => ({
  mode: 'none',
  radiusMm: 8,
  places: [],
  grades: {},
  begin: (mode, radiusMm = 8, first = { places: [], grades: {} }) => {
    const { mode: was, radiusMm: radius, places, grades } = get()
    set({ mode, radiusMm, ...first })
    return () => set({ mode: was, radiusMm: radius, places, grades })
  },
  grade: (zoneId, grade) => set({ grades: { ...get().grades, [zoneId]: grade } }),
  setRadius: (radiusMm) => set({ radiusMm, places: get().places.map((p) => ({ ...p, radiusMm })) }),
  tap: (place) => {
    const { mode, radiusMm, places } = get()
    if (mode === 'none') return
    const one = { ...place, radiusMm }
    // A second tap on a patch takes it away again.
    const on = places.find(
      (p) =>
        p.zoneId === place.zoneId &&
        (mode === 'zones' ||
          Math.hypot(...p.point.map((c, k) => c - place.point[k]!)) < p.radiusMm),
    )
    if (mode === 'one') set({ places: [one] })
    else if (on) set({ places: places.filter((p) => p !== on) })
    else set({ places: [...places, one] })
  },
  clear: () => set({ places: [] }),
}))

/** The first look as it has been tapped so far. */
export const tappedNow = (): Tapped => {
  const { places, grades } = useTaps.getState()
  return { zones: places.map((p) => p.zoneId), grades }
}
