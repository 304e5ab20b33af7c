/** The service worker's comings: a new version waits until no service runs on this browser and everything is saved. */
import { Workbox } from 'workbox-window'
import { create } from 'zustand'
import { outbox } from '../outbox/browser.ts'

/** Held, shared, by every tab in which a service runs. */
const RUNNING = 'slow-tide-service'

interface Version {
  /** Takes the new version; undefined while there is none. */
  readonly take: (() => Promise<void>) | undefined
  /** What it was found to wait for when it was asked for; `work` when only the browser still lets it wait. */
  readonly waits: WaitsFor | 'work' | undefined
}
export const useVersion = create<Version>(() => ({ take: undefined, waits: undefined }))

/** Tells the other tabs of this browser that a service runs here. @returns ends it */
export function holdVersion(): () => void {
  if (!('locks' in navigator)) return () => undefined
  let end: () => void = () => undefined
  const over = new Promise<void>((done) => (end = done))
  void navigator.locks.request(RUNNING, { mode: 'shared' }, () => over)
  return end
}

/** What a new version waits for; undefined when the pages may be loaded anew. */
export type WaitsFor = 'service' | 'unsaved'
async function waitsFor(): Promise<WaitsFor | undefined> {
  if ('locks' in navigator) {
    const { held = [], pending = [] } = await navigator.locks.query()
    if ([...held, ...pending].some((l) => l.name === RUNNING && l.mode === 'shared'))
      return 'service'
  }
  return outbox.look().waiting.length > 0 ? 'unsaved' : undefined
}

/** Resolves when there is reason to look again: the last service of this browser has ended, all is saved. */
async function over(what: WaitsFor): Promise<void> {
  if (what === 'service') return void (await navigator.locks.request(RUNNING, () => undefined))
  await new Promise<void>((saved) => {
    const look = () => outbox.look().waiting.length === 0 && (end(), saved())
    const end = outbox.subscribe(look)
    look()
  })
}

/** So long nothing came over the line: the page that was opened stands. */
const QUIET_MS = 1500

/** Resolves once nothing was fetched for a while. */
async function quiet(ms: number): Promise<void> {
  await new Promise<void>((resolve) => {
    let timer = setTimeout(resolve, ms)
    const watch = new PerformanceObserver(() => {
      clearTimeout(timer)
      timer = setTimeout(() => {
        watch.disconnect()
        resolve()
      }, ms)
    })
    watch.observe({ type: 'resource', buffered: true })
  })
}

export function keepOffline(): void {
  if (!('serviceWorker' in navigator) || import.meta.env.DEV) return
  const own = new Workbox('/sw.js')
  const loadedAt = Date.now()
  own.addEventListener('waiting', () => {
    const take = async () => {
      const waits = await waitsFor()
      useVersion.setState({ waits: waits ?? 'work' })
      // A browser lets the worker of before end what it is at, which can take it a minute.
      if (!waits) return own.messageSkipWaiting()
      await over(waits)
      // What waited for a service is asked for again: somebody may type here by then.
      if (waits === 'unsaved') return take()
      useVersion.setState({ waits: undefined })
    }
    useVersion.setState({ take })
    // Just opened: nothing was typed yet.
    if (Date.now() - loadedAt < 5000) void take()
  })
  // In every tab, also in those that did not ask; the first version takes a page over without a word.
  let controlled = navigator.serviceWorker.controller !== null
  navigator.serviceWorker.addEventListener('controllerchange', () => {
    if (controlled) window.location.reload()
    controlled = true
  })
  // What is kept for later must not take the line from what is waited for now.
  const first = navigator.serviceWorker.controller === null
  void (first ? quiet(QUIET_MS) : Promise.resolve())
    .then(() => own.register())
    .catch(() => undefined)
  void navigator.serviceWorker.ready.then(({ active }) => {
    if (!navigator.serviceWorker.controller) active?.postMessage({ type: 'CLAIM' })
  })
}
