/** Going through a list without holding up others: a service at the chair must not wait for a page. */
const breathe = () => new Promise<void>((go) => setImmediate(go))

/** As `map`, some at a time. */
export async function inTurns<T, R>(
  list: readonly T[],
  each: (item: T) => R,
  atOnce = 6,
): Promise<R[]> {
  const done: R[] = []
  for (const [i, item] of list.entries()) {
    if (i > 0 && i % atOnce === 0) await breathe()
    done.push(each(item))
  }
  return done
}

/**
 * Work of which two at once would do the same. Whoever asks while it runs waits for it and for one run more, which all who
 * ask meanwhile share: what had begun may have looked before they changed something.
 */
export function coalesced<K extends object, Rest extends unknown[]>(
  work: (key: K, ...rest: Rest) => Promise<void>,
): (key: K, ...rest: Rest) => Promise<void> {
  const running = new WeakMap<K, { readonly now: Promise<void>; next?: Promise<void> }>()
  const start = (key: K, rest: Rest): Promise<void> => {
    const now = work(key, ...rest).finally(() => {
      if (running.get(key)?.now === now) running.delete(key)
    })
    running.set(key, { now })
    return now
  }
  return (key, ...rest) => {
    const run = running.get(key)
    if (!run) return start(key, rest)
    return (run.next ??= run.now.catch(() => undefined).then(() => start(key, rest)))
  }
}
