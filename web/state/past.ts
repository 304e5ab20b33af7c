/**
 * What can be taken back, and made again: for each thing a list of steps. A step of the map is the edit that was made; of
 * something that is saved whole it is what was there before.
 */
import { create } from 'zustand'

interface Steps {
  readonly done: readonly unknown[]
  readonly undone: readonly unknown[]
}

/** Steps that can be taken back. */
const MOST = 200
const NONE: Steps = { done: [], undone: [] }

export const usePasts = create<{ readonly past: Readonly<Record<string, Steps>> }>(() => ({
  past: {},
}))

const put = (key: string, steps: Steps) =>
  usePasts.setState((s) => ({ past: { ...s.past, [key]: steps } }))
const stepsOf = (key: string) => usePasts.getState().past[key] ?? NONE

/** Remembers a step. What was taken back before it cannot be made again. */
export const rememberIn = (key: string, step: unknown) =>
  put(key, { done: [...stepsOf(key).done, step].slice(-MOST), undone: [] })

/** The last step, which is taken back. */
export function takeBackFrom(key: string): unknown {
  const { done, undone } = stepsOf(key)
  if (done.length === 0) return undefined
  const step = done.at(-1)
  put(key, { done: done.slice(0, -1), undone: [...undone, step] })
  return step
}

/** The step that was taken back last, which is made again. */
export function againFrom(key: string): unknown {
  const { done, undone } = stepsOf(key)
  if (undone.length === 0) return undefined
  const step = undone.at(-1)
  put(key, { done: [...done, step], undone: undone.slice(0, -1) })
  return step
}

/** The past of one thing, by its key. */
export function usePast<T>(key: string) {
  const { done, undone } = usePasts((s) => s.past[key] ?? NONE)
  return {
    any: done.length > 0,
    anyUndone: undone.length > 0,
    remember: (step: T) => rememberIn(key, step),
    takeBack: () => takeBackFrom(key) as T | undefined,
    again: () => againFrom(key) as T | undefined,
  }
}
