/** The outbox of this browser: one for all its tabs. */
import { v4 as uuid } from 'uuid'
import { useSyncExternalStore } from 'react'
import type { JoinedRoute } from '../../contract/joined.ts'
import type { AnswerOf, ParamsOf, RouteName, ToldBody } from '../../contract/routes.ts'
import { call, CallProblem, isRefused } from '../api/call.ts'
import { Outbox, type News, type Write } from './outbox.ts'
import { hereNow } from '../state/here.ts'
import { keptOutbox, passingOutbox } from './stores.ts'

/** Which tabs of the same browser know of each other; none where the browser has no such thing. */
const channel =
  typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('slow-tide-outbox')

/** Somebody else is signed in: it waits for whoever entered it. */
class NotTheirs extends Error {}

/** A picture waits as it is; it is sent as a form. */
function formOf(body: Record<string, string | Blob>): FormData {
  const form = new FormData()
  for (const [name, value] of Object.entries(body)) form.append(name, value)
  return form
}

export const outbox = new Outbox({
  store: typeof indexedDB === 'undefined' ? passingOutbox() : keptOutbox(),
  send: ({ route, params, body, was, atMs, id, by }) => {
    if (by != null && by !== hereNow()) return Promise.reject(new NotTheirs())
    return send(
      route as RouteName,
      params,
      route === 'addPhoto'
        ? formOf(body as Record<string, string | Blob>)
        : was === undefined
          ? body
          : { ...(body as object), basis: { was, atMs } },
      id,
    )
  },
  refusal: (error, write) =>
    isRefused(error, write.id) ? { why: error.message, code: error.code } : undefined,
  heard: (error, write) =>
    error instanceof NotTheirs || (error instanceof CallProblem && error.write === write.id),
  later: (work, ms) => {
    const timer = setTimeout(work, ms)
    return () => clearTimeout(timer)
  },
  // Only pages that came safely have locks; elsewhere the server takes the same write twice as once.
  alone: async (work) => {
    if ('locks' in navigator) await navigator.locks.request('slow-tide-outbox', work)
    else await work()
  },
  tell: (news) => channel?.postMessage(news),
})
channel?.addEventListener('message', (e: MessageEvent<News>) => outbox.heard(e.data))

const send = (route: RouteName, params: unknown, body: unknown, write: string) =>
  call(route, { params, body, write } as never)

let opened: () => void
/** Resolves once what waits on this screen is known. */
export const outboxOpened = new Promise<void>((resolve) => (opened = resolve))

/** Takes up what waited; tries again as soon as there is reason to. */
export function openOutbox(): void {
  void outbox.open().finally(() => opened())
  window.addEventListener('online', () => outbox.wake())
  document.addEventListener(
    'visibilitychange',
    () => document.visibilityState === 'visible' && outbox.wake(),
  )
}

export interface About {
  readonly clientId: string
  readonly visitId?: string | undefined
  readonly row?: string | undefined
  /** In words, for the list of what is not saved. */
  readonly what: string
}

/**
 * Writes by way of the outbox: kept on this screen before anything else.
 * @throws WriteRefused when the house refuses it
 */
export function write<N extends RouteName>(
  route: N,
  {
    params,
    body,
    was,
  }: {
    params?: ParamsOf<N>
    body?: ToldBody<N>
    /** What was there before, where another screen may enter something else meanwhile; null for nothing. */
    was?: N extends JoinedRoute ? object | null : undefined
  },
  about: About,
): Promise<AnswerOf<N>> {
  const kept = {
    id: uuid(),
    route,
    params: params ?? {},
    body,
    was,
    by: hereNow(),
    atMs: Date.now(),
    ...about,
  }
  return outbox.add(kept) as Promise<AnswerOf<N>>
}

export const useOutbox = () => useSyncExternalStore(outbox.subscribe, outbox.look)

/** What of a client, or of one visit, the server does not have yet. */
export function useUnsaved(of: { clientId?: string; visitId?: string }): readonly Write[] {
  const { waiting } = useOutbox()
  return waiting.filter(
    (w) =>
      (of.visitId !== undefined && w.visitId === of.visitId) ||
      (of.clientId !== undefined && w.clientId === of.clientId),
  )
}
