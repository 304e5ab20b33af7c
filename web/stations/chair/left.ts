/**
 * Taps at the chair that still wait, of services that no page shows any more: a tablet that was without the house for two
 * days sends them by itself when it is back, the oldest first. Each is taken out only once the house has it, so that a
 * chair that is opened meanwhile may send the same without anything overtaking anything.
 */
import { create } from 'zustand'
import { call, isRefused } from '../../api/call.ts'
import { outbox } from '../../outbox/browser.ts'
import type { Refused } from '../../outbox/outbox.ts'
import { keptStore, type LeftEvent, type WaitingStore } from './waiting.ts'

const AGAIN_MS = 15_000

/** How many taps wait on this screen. */
export const useLeft = create<{ readonly count: number }>(() => ({ count: 0 }))

/** Services whose own chair is open in this tab: it sends by itself, and shows what is refused. */
const shown = new Set<string>()
export function sendsByItself(visitId: string): () => void {
  shown.add(visitId)
  return () => shown.delete(visitId)
}

export interface LeftWorld {
  readonly store: Pick<WaitingStore, 'left' | 'remove'>
  readonly send: (event: LeftEvent) => Promise<unknown>
  /** The house's own refusal, in its words; undefined for silence and anything else. */
  readonly refusal: (error: unknown, event: LeftEvent) => { why: string; code: string } | undefined
  readonly keepRefused: (refused: Refused) => Promise<void>
  readonly skips: (visitId: string) => boolean
  readonly tell: (count: number) => void
}

export async function sendLeft(world: LeftWorld): Promise<void> {
  const { store, send, refusal, skips, tell } = world
  for (;;) {
    const all = await store.left()
    tell(all.length)
    const next = all.find((e) => !skips(e.visitId))
    if (!next) return
    try {
      await send(next)
      await store.remove(next.id)
    } catch (error) {
      const no = refusal(error, next)
      if (!no) return
      // The rest of that service builds on it: all of it is kept to be seen, as it was told.
      const own = all.filter((e) => e.visitId === next.visitId)
      await world.keepRefused({
        ...{ id: next.id, n: next.n, route: 'addEvent', params: { id: next.visitId } },
        ...{ body: own, clientId: next.visitId, visitId: next.visitId, atMs: next.atMs, ...no },
        what: `a service at the chair (${own.length} ${own.length === 1 ? 'tap' : 'taps'})`,
      })
      for (const event of own) await store.remove(event.id)
    }
  }
}

/** Sends what is left now, and whenever there is reason to. */
export function keepSendingLeft(): void {
  if (typeof indexedDB === 'undefined') return
  let going = false
  const go = async () => {
    if (going) return
    going = true
    await sendLeft({
      store: keptStore,
      send: ({ visitId, ...event }) =>
        call('addEvent', { params: { id: visitId }, body: event, write: event.id }),
      refusal: (error, event) =>
        isRefused(error, event.id) ? { why: error.message, code: error.code } : undefined,
      keepRefused: (refused) => outbox.keepRefused(refused),
      skips: (visitId) => shown.has(visitId),
      tell: (count) => useLeft.getState().count !== count && useLeft.setState({ count }),
    }).catch(() => undefined)
    going = false
  }
  void go()
  setInterval(() => void go(), AGAIN_MS)
  window.addEventListener('online', () => void go())
}
