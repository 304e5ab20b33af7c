/** The service worker's comings: a new version waits until no service runs on this browser and everything is saved. */
import { Workbox } from 'workbox-window'
import { create } from 'zustand'
import { outbox } from '../outbox/browser.ts'

/** Held, shared, by every tab in which a service runs. */
const RUNNING = 'slow-tide-service'

interface Version {
  /** Takes the new version; undefined while there is none. */
  readonly take: (() => void) | undefined
}
export const useVersion = create<Version>(() => ({ take: undefined }))

/** Tells the other tabs of this browser that a service runs here. @returns ends it */
export function holdVersion(): () => void {
  if (!('locks' in navigator)) return () => undefined
  let end: () => void = () => undefined
  const over = new Promise<void>((done) => (end = done))
  void navigator.locks.request(RUNNING, { mode: 'shared' }, () => over)
  return end
}

/** Whether the page may be loaded anew: no service runs in any tab, and nothing waits to be saved. */
export async function mayLoadAnew(): Promise<boolean> {
  if (outbox.look().waiting.length > 0) return false
  if (!('locks' in navigator)) return true
  const { held = [], pending = [] } = await navigator.locks.query()
  return ![...held, ...pending].some((l) => l.name === RUNNING && l.mode === 'shared')
}

/** Resolves when the last service of this browser has ended. */
export async function whenNoServiceRuns(): Promise<void> {
  if ('locks' in navigator) await navigator.locks.request(RUNNING, () => undefined)
}

export function keepOffline(): void {
  if (!('serviceWorker' in navigator) || import.meta.env.DEV) return
  const own = new Workbox('/sw.js')
  const loadedAt = Date.now()
  own.addEventListener('waiting', () => {
    const take = () =>
      void mayLoadAnew().then((may) => {
        if (may) own.messageSkipWaiting()
      })
    useVersion.setState({ take })
    // Just opened: nothing was typed yet.
    if (Date.now() - loadedAt < 5000) take()
  })
  // In every tab, also in those that did not ask; the first version takes a page over without a word.
  let controlled = navigator.serviceWorker.controller !== null
  navigator.serviceWorker.addEventListener('controllerchange', () => {
    if (controlled) window.location.reload()
    controlled = true
  })
  void own.register().catch(() => undefined)
}
