/** What has not been fetched yet, in the order in which it is likely to be wanted. */
const wanted = new Set<() => Promise<unknown>>();

/** Something fetched apart from the Stall's first load. @returns a function that fetches it once, and again after a failure */
export function fetchedLater<T>(load: () => Promise<T>): () => Promise<T> {
  let here: Promise<T> | null = null;
  const get = (): Promise<T> => {
    wanted.delete(get);
    here ??= load().catch((error) => {
      here = null;
      throw error;
    });
    return here;
  };
  wanted.add(get);
  return get;
}

/** A part that comes as fast as this was not fetched. */
const AT_ONCE_MS = 5;

/**
 * Fetches everything that is fetched apart, one after another while nothing else is to be done. With a service worker all
 * of it is on the phone already; without one, as where storage is refused, the network may be gone when it is wanted.
 */
export async function fetchAllNow(): Promise<void> {
  if ('serviceWorker' in navigator && navigator.serviceWorker.controller) return;
  for (let next = [...wanted][0]; next; next = [...wanted][0]) {
    const before = performance.now();
    await next().catch(() => {});
    // Many a part lies in a file that is here already: there is nothing to wait for.
    if (performance.now() - before < AT_ONCE_MS) continue;
    await new Promise((done) => ('requestIdleCallback' in window ? requestIdleCallback(done, { timeout: 500 }) : setTimeout(done, 50)));
  }
}
