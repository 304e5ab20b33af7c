/**
 * The service worker: the application, and the pages of the day's clients as they were last seen, kept on this screen for
 * when the house does not answer. Nothing is answered from here while it does.
 */
import { clientsClaim } from 'workbox-core'
import { ExpirationPlugin } from 'workbox-expiration'
import {
  cleanupOutdatedCaches,
  createHandlerBoundToURL,
  precacheAndRoute,
  type PrecacheEntry,
} from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'
import { NetworkFirst } from 'workbox-strategies'
import { KEPT_AT, KEPT_PAGES, isKept } from './kept.ts'

/** The part of a service worker's own world that is used here. */
declare const self: {
  readonly __WB_MANIFEST: (PrecacheEntry | string)[]
  readonly skipWaiting: () => Promise<void>
  readonly clients: { readonly claim: () => Promise<void> }
  readonly addEventListener: (kind: 'message', heard: (e: MessageEvent) => void) => void
}

/** A house that takes longer does not answer. */
const ANSWERS_WITHIN_S = 8
const KEPT_DAYS = 4

// The first page that is opened is kept too.
clientsClaim()
precacheAndRoute(self.__WB_MANIFEST)
cleanupOutdatedCaches()
registerRoute(
  new NavigationRoute(createHandlerBoundToURL('/index.html'), {
    denylist: [/^\/(api|answer|hour|feed)/],
  }),
)
registerRoute(
  ({ url, request }) => request.method === 'GET' && isKept(url.pathname),
  new NetworkFirst({
    cacheName: KEPT_PAGES,
    networkTimeoutSeconds: ANSWERS_WITHIN_S,
    plugins: [
      new ExpirationPlugin({
        maxEntries: 500,
        maxAgeSeconds: KEPT_DAYS * 86_400,
        purgeOnQuotaError: true,
      }) as object,
      {
        // What the house no longer gives out (erased, not allowed) does not stay here either.
        fetchDidSucceed: async ({ request, response }) => {
          if ([401, 403, 404].includes(response.status))
            await (await caches.open(KEPT_PAGES)).delete(request)
          return response
        },
        cacheWillUpdate: ({ response }) =>
          Promise.resolve(response.status === 200 ? response : null),
        cachedResponseWillBeUsed: ({ cachedResponse }) => {
          if (!cachedResponse) return Promise.resolve(undefined)
          const headers = new Headers(cachedResponse.headers)
          headers.set(KEPT_AT, cachedResponse.headers.get('Date') ?? '')
          const { status, body } = cachedResponse
          return Promise.resolve(new Response(body, { status, headers }))
        },
      },
    ],
  }),
)

self.addEventListener('message', (e: MessageEvent<{ type?: string }>) => {
  // A new version takes over when it is told to, which is when no service runs.
  if (e.data?.type === 'SKIP_WAITING') void self.skipWaiting()
  // A page that was on its way while this worker took over the others.
  if (e.data?.type === 'CLAIM') void self.clients.claim()
})
