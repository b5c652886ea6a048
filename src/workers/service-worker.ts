/// <reference lib="webworker" />
import { NetworkOnly, type PrecacheEntry, Serwist, type SerwistGlobalConfig, type SerwistPlugin } from "serwist";

declare global {
  interface WorkerGlobalScope extends SerwistGlobalConfig {
    __SW_MANIFEST: (PrecacheEntry | string)[] | undefined;
  }
}
declare const self: ServiceWorkerGlobalScope;

/**
 * What is kept answers as if it had come from where it was asked for: a worker's script reads what it is to do from its own
 * address, and a kept answer would bring the address it was kept under.
 */
const asAsked: SerwistPlugin = {
  cachedResponseWillBeUsed: async ({ cachedResponse }) =>
    cachedResponse && !cachedResponse.redirected
      ? new Response(cachedResponse.body, {
          status: cachedResponse.status,
          statusText: cachedResponse.statusText,
          headers: cachedResponse.headers,
        })
      : cachedResponse,
};

// Kept on the device: the code, the fonts, and the two pages that stand without a network. No record and no answer of the
// server is kept here: what a round takes along lies in the browser's database, by person.
new Serwist({
  ...(self.__SW_MANIFEST ? { precacheEntries: self.__SW_MANIFEST } : {}),
  precacheOptions: { cleanupOutdatedCaches: true, plugins: [asAsked] },
  skipWaiting: true,
  clientsClaim: true,
  navigationPreload: false,
  fallbacks: {
    entries: [{ url: "/offline.html", matcher: ({ request }) => request.destination === "document" }],
  },
  runtimeCaching: [
    {
      matcher: ({ request, sameOrigin }) => sameOrigin && request.mode === "navigate",
      handler: new NetworkOnly(),
    },
  ],
}).addEventListeners();
