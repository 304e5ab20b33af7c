/** The stream of this browser. */
import { v4 as uuid } from 'uuid'
import type { ChairEvent } from '../../core/chair/index.ts'
import { ADDRESSES } from '../../contract/addresses.ts'
import { Stream, type Message } from './stream.ts'

const NAME = 'slow-tide-stream'
let made: Stream | undefined

/** Made when the first service is followed. */
export function stream(): Stream {
  if (made) return made
  const channel = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel(NAME)
  const it = new Stream({
    tab: uuid(),
    say: (message) => channel?.postMessage(message),
    lead: (leads) => {
      // Without locks (a page that came by plain HTTP) each tab has a stream of its own.
      if (!channel || !('locks' in navigator)) return leads()
      void navigator.locks.request(NAME, () => {
        leads()
        return new Promise(() => undefined)
      })
    },
    open: (from, heard, broken) => {
      const of = Object.entries(from)
        .map(([id, after]) => `${id}:${after}`)
        .join(',')
      const source = new EventSource(`${ADDRESSES.followAll.path}?of=${of}`)
      const data = <T>(e: Event) => JSON.parse((e as MessageEvent<string>).data) as T
      source.onopen = () => heard({ kind: 'here', here: true })
      source.addEventListener('chair', (e) =>
        heard({ kind: 'chair', ...data<{ visitId: string; event: ChairEvent }>(e) }),
      )
      source.addEventListener('changed', (e) =>
        heard({ kind: 'changed', ...data<{ visitId: string }>(e) }),
      )
      source.addEventListener('clock', (e) =>
        heard({ kind: 'clock', ...data<{ nowMs: number }>(e) }),
      )
      source.onerror = broken
      return () => source.close()
    },
    later: (work, ms) => {
      const timer = setTimeout(work, ms)
      return () => clearTimeout(timer)
    },
  })
  channel?.addEventListener('message', (e: MessageEvent<Message>) => it.hears(e.data))
  const wake = () => document.visibilityState === 'visible' && it.wake()
  document.addEventListener('visibilitychange', wake)
  window.addEventListener('online', wake)
  return (made = it)
}
