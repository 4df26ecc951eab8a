/// <reference lib="webworker" />
import { NetworkOnly, type PrecacheEntry, Serwist, type SerwistGlobalConfig } from 'serwist';

declare global {
  interface WorkerGlobalScope extends SerwistGlobalConfig {
    __SW_MANIFEST: (PrecacheEntry | string)[] | undefined;
  }
}
declare const self: ServiceWorkerGlobalScope;

// Build assets and static shells only. Pages with data and their payloads are never kept here: data live in
// the store of the person they belong to.
const serwist = new Serwist({
  precacheEntries: self.__SW_MANIFEST,
  skipWaiting: false,
  clientsClaim: true,
  navigationPreload: false,
  disableDevLogs: true,
  precacheOptions: { cleanupOutdatedCaches: true, ignoreURLParametersMatching: [/^(site|visit)$/] },
  runtimeCaching: [
    // The Stall is at hand instead: nobody waits there for a network that takes a request and does not answer.
    { matcher: ({ request, url }) => request.destination === 'document' && url.pathname === '/', handler: new NetworkOnly({ networkTimeoutSeconds: 8 }) },
    { matcher: ({ request }) => request.destination === 'document', handler: new NetworkOnly() },
  ],
  fallbacks: {
    entries: [
      // Where the application opens without a network.
      { url: '/stall', matcher: ({ request }) => request.destination === 'document' && new URL(request.url).pathname === '/' },
      { url: '/offline', matcher: ({ request }) => request.destination === 'document' },
    ],
  },
});
serwist.addEventListeners();
