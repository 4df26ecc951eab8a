/** What is not swapped under somebody: a sheet in which something may be typed, the pads of a visit that runs. */
const AT_WORK = '[role="dialog"], [data-resting]';
const LOOK_AGAIN_MS = 1000;
/** Begins the Stall anew with the build that took over, as soon as nobody is at work on it. */
function beginAnew(): void {
  if (location.pathname !== '/stall') return;
  if (document.querySelector(AT_WORK)) setTimeout(beginAnew, LOOK_AGAIN_MS);
  else location.reload();
}

/**
 * Registers the service worker where there may be one. A new version waits until the Stall says that no
 * visit is open (`letNewVersionIn`), so that the page under a running visit is never swapped.
 */
export function registerServiceWorker(): void {
  if (process.env.NODE_ENV !== 'production' || !('serviceWorker' in navigator)) return;
  // A version that takes over brings its own build: the Stall, open but idle, starts anew with it.
  if (navigator.serviceWorker.controller) navigator.serviceWorker.addEventListener('controllerchange', beginAnew);
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
