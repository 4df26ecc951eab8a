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

/**
 * Fetches everything that is fetched apart, one after another while nothing else is to be done. With a service worker all
 * of it is on the phone already; without one, as where storage is refused, the network may be gone when it is wanted.
 */
export async function fetchAllNow(): Promise<void> {
  if ('serviceWorker' in navigator && navigator.serviceWorker.controller) return;
  for (let next = [...wanted][0]; next; next = [...wanted][0]) {
    await next().catch(() => {});
    await new Promise((done) => ('requestIdleCallback' in window ? requestIdleCallback(done) : setTimeout(done, 50)));
  }
}
