/** What the server said: its status, and its answer as JSON. */
export type ServerAnswer = { status: number; ok: boolean; body: unknown };

/** Nobody waits longer for words: a full batch gets through in it at 8 kbit/s. */
const WAIT_MS = 60_000;

/**
 * Asks the server, and gives up by a clock of its own: at the edge of a network a request may be taken and never answered,
 * and the browser would wait for minutes while everything behind it stands. What is no JSON (a hotspot's page that wants its
 * terms accepted, a proxy's error) was not said by this server, whatever its status.
 * @param waitMs milliseconds until it is given up
 * @returns `null` when the server was not reached
 */
export async function askServer(path: string, init: RequestInit = {}, waitMs = WAIT_MS): Promise<ServerAnswer | null> {
  try {
    const response = await fetch(path, { cache: 'no-store', ...init, signal: AbortSignal.timeout(waitMs) });
    const { status, ok } = response;
    if (/^application\/json\b/.test(response.headers.get('content-type') ?? '')) return { status, ok, body: await response.json() };
    // What is too large for a proxy never gets through it, whoever says so.
    return status === 413 ? { status, ok, body: null } : null;
  } catch {
    return null;
  }
}
