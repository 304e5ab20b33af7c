/** Undo and redo of edits to the map, for the visit at hand. */
import { create } from 'zustand'
import type { ReadingEdit } from '../api/queries.ts'

interface Undo {
  readonly visitId: string | null
  readonly done: readonly ReadingEdit[]
  readonly undone: readonly ReadingEdit[]
  /** Remembers an edit that was made. */
  readonly remember: (visitId: string, edit: ReadingEdit) => void
  /** The edit that takes the last one back, moved to the redo side. */
  readonly takeBack: (visitId: string) => ReadingEdit | undefined
  /** The edit to make again. */
  readonly again: (visitId: string) => ReadingEdit | undefined
}

export const inverse = (edit: ReadingEdit): ReadingEdit => ({ remove: edit.add, add: edit.remove })

export const useUndo = create<Undo>((set, get) => ({
  visitId: null,
  done: [],
  undone: [],
  remember: (visitId, edit) =>
    set((s) => ({
      visitId,
      done: [...(s.visitId === visitId ? s.done : []), edit],
      undone: [],
    })),
  takeBack: (visitId) => {
    const { done, undone } = get()
    const edit = get().visitId === visitId ? done[done.length - 1] : undefined
    if (!edit) return undefined
    set({ done: done.slice(0, -1), undone: [...undone, edit] })
    return inverse(edit)
  },
  again: (visitId) => {
    const { done, undone } = get()
    const edit = get().visitId === visitId ? undone[undone.length - 1] : undefined
    if (!edit) return undefined
    set({ done: [...done, edit], undone: undone.slice(0, -1) })
    return edit
  },
}))
