/**
 * What is entered at a visit part by part: a change builds on what is shown, shows at once, is sent in its order, one at a
 * time, and can be taken back and made again.
 */
import { useMutation, useQueryClient } from '@tanstack/react-query'
import type { VisitPage } from '../../contract/types.ts'
import type { About } from '../outbox/browser.ts'
import { usePast } from '../state/past.ts'
import { about, useVisitRefresh } from './queries.ts'
import { rowOf, showTapped, type TappedPart } from './tapped.ts'

/** How a part of a visit is shown and sent. `V` is what is shown of it, `S` a step that changes it. */
export interface SavedPart<V, S> {
  readonly part: TappedPart
  /** Its name in the history of the visit, where it differs from the part's own. */
  readonly past?: string
  /** In words, for the list of what is not saved. */
  readonly what: string
  /** The row of the outbox in which a newer entry takes the place of one that waits; none where every one counts. */
  readonly row?: string
  readonly of: (page: VisitPage) => V
  readonly put: (page: VisitPage, value: V) => VisitPage
  readonly apply: (value: V, step: S) => V
  /** The step that takes a step back. */
  readonly back: (step: S) => S
  readonly send: (page: VisitPage, step: S, whose: About) => Promise<VisitPage>
  /** What else has to be asked anew once it is kept. */
  readonly also?: (page: VisitPage) => readonly (readonly unknown[])[]
}

/** A step of what is saved whole. */
export interface Whole<V> {
  readonly from: V
  readonly to: V
}

/** The way of a part that is saved whole. */
export const whole = <V>() => ({
  apply: (_value: V, step: Whole<V>) => step.to,
  back: (step: Whole<V>): Whole<V> => ({ from: step.to, to: step.from }),
})

/** A part of a visit, saved as it is tapped. */
export function useOptimisticSave<V, S>(id: string, way: SavedPart<V, S>) {
  const cache = useQueryClient()
  const refresh = useVisitRefresh()
  const past = usePast<S>(id, way.past ?? way.part)
  const shown = () => cache.getQueryData<VisitPage>(['visit', id])
  const mutation = useMutation({
    mutationFn: ({ page, step }: { page: VisitPage; step: S }) =>
      way.send(page, step, about(id, way.what, way.row)),
    meta: { row: rowOf(way.part, id) },
    onSuccess: (page) => {
      refresh(page, way.part)
      for (const queryKey of way.also?.(page) ?? []) void cache.invalidateQueries({ queryKey })
    },
    onError: () => void cache.invalidateQueries({ queryKey: ['visit', id] }),
  })
  const take = (step: S | undefined) => {
    const page = shown()
    if (!page || step === undefined) return
    showTapped(cache, way.put(page, way.apply(way.of(page), step)))
    mutation.mutate({ page, step })
  }
  return {
    error: mutation.error,
    isPending: mutation.isPending,
    /** What is shown of it now: taps may follow each other faster than the screen is drawn anew. */
    now: (): V | undefined => {
      const page = shown()
      return page && way.of(page)
    },
    /** Takes a step that is not for Undo. */
    send: take,
    /** Takes a step and remembers it. */
    step: (step: S) => {
      if (!shown()) return
      past.remember(step)
      take(step)
    },
    canUndo: past.any,
    canRedo: past.anyUndone,
    undo: () => {
      const step = past.takeBack()
      if (step !== undefined) take(way.back(step))
    },
    redo: () => take(past.again()),
  }
}

/** A part that is saved whole: a change is told by what it makes of what is shown. */
export function useWholeSave<V>(id: string, way: SavedPart<V, Whole<V>>) {
  const save = useOptimisticSave(id, way)
  return {
    ...save,
    change: (change: (before: V) => V) => {
      const from = save.now()
      if (from !== undefined) save.step({ from, to: change(from) })
    },
  }
}
