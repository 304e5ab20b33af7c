/** "Saved 14:02", said quietly. */
import { create } from 'zustand'

interface Saved {
  readonly atMs: number | null
  readonly mark: () => void
}

export const useSaved = create<Saved>((set) => ({
  atMs: null,
  mark: () => set({ atMs: Date.now() }),
}))
