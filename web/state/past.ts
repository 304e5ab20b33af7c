/** What was before the last changes of something that is saved whole, so that they can be taken back. */
import { create } from 'zustand'

interface Past {
  readonly past: Readonly<Record<string, readonly unknown[]>>
}

/** Steps that can be taken back. */
const MOST = 50

export const usePasts = create<Past>(() => ({ past: {} }))

const put = (key: string, list: readonly unknown[]) =>
  usePasts.setState((s) => ({ past: { ...s.past, [key]: list } }))
const listOf = (key: string) => usePasts.getState().past[key] ?? []

/** Remembers what was before a change. */
export const rememberIn = (key: string, before: unknown) =>
  put(key, [...listOf(key), before].slice(-MOST))

/** What was before the last change, which is then forgotten. */
export function takeBackFrom(key: string): unknown {
  const list = listOf(key)
  put(key, list.slice(0, -1))
  return list[list.length - 1]
}

/** The past of one thing, by its key. */
export function usePast<T>(key: string) {
  const any = usePasts((s) => (s.past[key]?.length ?? 0) > 0)
  return {
    any,
    remember: (before: T) => rememberIn(key, before),
    takeBack: () => takeBackFrom(key) as T | undefined,
  }
}
