/**
 * What can be taken back, and made again: one history for each visit, in the order in which it was done. A step knows to
 * which part of the visit it belongs, so that the Undo of a page never touches what is not in view there.
 */
import { create } from 'zustand'

interface Step {
  readonly part: string
  readonly step: unknown
}

export interface History {
  readonly done: readonly Step[]
  readonly undone: readonly Step[]
}

/** Steps of a visit that can be taken back. */
const MOST = 400
const NONE: History = { done: [], undone: [] }

export const usePasts = create<{ readonly past: Readonly<Record<string, History>> }>(() => ({
  past: {},
}))

const historyOf = (visitId: string) => usePasts.getState().past[visitId] ?? NONE
const put = (visitId: string, history: History) =>
  usePasts.setState((s) => ({ past: { ...s.past, [visitId]: history } }))
const lastOf = (steps: readonly Step[], part: string) => steps.findLastIndex((s) => s.part === part)

/** Remembers a step. What was taken back of the same part before it cannot be made again. */
export const rememberIn = (visitId: string, part: string, step: unknown) => {
  const { done, undone } = historyOf(visitId)
  put(visitId, {
    done: [...done, { part, step }].slice(-MOST),
    undone: undone.filter((s) => s.part !== part),
  })
}

/** The last step of a part, which is taken back. */
export function takeBackFrom(visitId: string, part: string): unknown {
  const { done, undone } = historyOf(visitId)
  const at = lastOf(done, part)
  if (at < 0) return undefined
  put(visitId, { done: done.toSpliced(at, 1), undone: [...undone, done[at]!] })
  return done[at]!.step
}

/** The step of a part that was taken back last, which is made again. */
export function againFrom(visitId: string, part: string): unknown {
  const { done, undone } = historyOf(visitId)
  const at = lastOf(undone, part)
  if (at < 0) return undefined
  put(visitId, { done: [...done, undone[at]!], undone: undone.toSpliced(at, 1) })
  return undone[at]!.step
}

/** The past of one part of a visit. */
export function usePast<T>(visitId: string, part: string) {
  const { done, undone } = usePasts((s) => s.past[visitId] ?? NONE)
  return {
    any: lastOf(done, part) >= 0,
    anyUndone: lastOf(undone, part) >= 0,
    remember: (step: T) => rememberIn(visitId, part, step),
    takeBack: () => takeBackFrom(visitId, part) as T | undefined,
    again: () => againFrom(visitId, part) as T | undefined,
  }
}
