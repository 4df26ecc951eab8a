/**
 * Registers the service worker where there may be one. A new version waits until the Stall says that no
 * visit is open (`letNewVersionIn`), so that the page under a running visit is never swapped.
 */
export function registerServiceWorker(): void {
  if (process.env.NODE_ENV !== 'production' || !('serviceWorker' in navigator)) return;
  // A version that takes over brings its own build: the Stall, open but idle, starts anew with it.
  if (navigator.serviceWorker.controller) {
    navigator.serviceWorker.addEventListener('controllerchange', () => {
      if (location.pathname === '/stall') location.reload();
    });
  }
  navigator.serviceWorker.register('/serwist/sw.js', { scope: '/', updateViaCache: 'none' }).catch(() => {
    // Without one the page still works online, and events are kept all the same.
  });
}

/** Tells a waiting version to take over. Called only while no visit is open. */
export async function letNewVersionIn(): Promise<void> {
  if (!('serviceWorker' in navigator)) return;
  const registration = await navigator.serviceWorker.getRegistration();
  registration?.waiting?.postMessage({ type: 'SKIP_WAITING' });
}
