/// <reference lib="webworker" />
import { ExpirationPlugin } from 'workbox-expiration'
import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'
import { NetworkFirst } from 'workbox-strategies'

/**
 * Opens the program on a telephone that has no connection: its pages as they were built, and the answers that it had before.
 * What is changed meanwhile waits in the outbox of the page; nothing is sent from here.
 */
declare const self: ServiceWorkerGlobalScope & {
  readonly BUILT_FILES: { url: string; revision: string | null }[]
}

const ANSWERS = 'tidy-answers'
/** What plays, streams, is the owner's alone or is worked out for one moment is not kept. */
const NEVER =
  /\/(news|sound|still\.jpg|waves|heard)|\.(wav|pdf|csv|ics|txt|edl|otio|zip)$|^\/api\/(copies|everything|guests|me|openapi)/
const PATIENCE_S = 4
const MOST_ANSWERS = 300

void self.skipWaiting()
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()))
cleanupOutdatedCaches()
precacheAndRoute(self.BUILT_FILES)
// The entrance is no page of the program.
registerRoute(new NavigationRoute(createHandlerBoundToURL('/'), { denylist: [/^\/api\//, /^\/enter/] }))

registerRoute(
  ({ url, request }) =>
    request.method === 'GET' && url.pathname.startsWith('/api/') && !NEVER.test(url.pathname),
  new NetworkFirst({
    cacheName: ANSWERS,
    networkTimeoutSeconds: PATIENCE_S,
    plugins: [
      new ExpirationPlugin({ maxEntries: MOST_ANSWERS }),
      {
        fetchDidSucceed: async ({ response }) => {
          // The key was revoked: nothing of what it opened stays here.
          if (response.status === 403) await caches.delete(ANSWERS)
          return response
        },
        cacheWillUpdate: async ({ response }) => (response.status === 200 ? response : null),
        cachedResponseWillBeUsed: async ({ cachedResponse }) => {
          if (!cachedResponse) return cachedResponse
          const headers = new Headers(cachedResponse.headers)
          headers.set(__KEPT_HEADER__, '1')
          return new Response(cachedResponse.body, { status: cachedResponse.status, headers })
        },
      },
    ],
  }),
)
