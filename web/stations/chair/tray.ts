/** What has been laid on the tray, ticked off on this screen. */
import { create } from 'zustand'

interface Tray {
  /** Names of things laid out, by visit. */
  readonly laid: Readonly<Record<string, readonly string[]>>
  readonly tick: (visitId: string, name: string) => void
}

export const useTray = create<Tray>((set, get) => ({
  laid: {},
  tick: (visitId, name) => {
    const had = get().laid[visitId] ?? []
    const next = had.includes(name) ? had.filter((n) => n !== name) : [...had, name]
    set({ laid: { ...get().laid, [visitId]: next } })
  },
}))
