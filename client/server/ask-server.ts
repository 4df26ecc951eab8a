/** What the server said: its status, and its answer as JSON. */
export type ServerAnswer = { status: number; ok: boolean; body: unknown };

/** Until the answer begins: a full batch of words gets through in it at 8 kbit/s. */
const WAIT_MS = 60_000;
/** Without a byte of an answer that has begun. However long it is, it is read to its end while it comes. */
const SILENCE_MS = 30_000;

/**
 * Asks the server, and gives up by a clock of its own: at the edge of a network a request may be taken and never answered,
 * and the browser would wait for minutes while everything behind it stands. What is no JSON (a hotspot's page that wants its
 * terms accepted, a proxy's error) was not said by this server, whatever its status.
 * @param waitMs milliseconds until an answer is to begin
 * @returns `null` when the server was not reached
 */
export async function askServer(path: string, init: RequestInit = {}, waitMs = WAIT_MS): Promise<ServerAnswer | null> {
  const giveUp = new AbortController();
  let timer = setTimeout(() => giveUp.abort(), waitMs);
  const heard = () => {
    clearTimeout(timer);
    timer = setTimeout(() => giveUp.abort(), SILENCE_MS);
  };
  try {
    const response = await fetch(path, { cache: 'no-store', ...init, signal: giveUp.signal });
    heard();
    const { status, ok } = response;
    if (/^application\/json\b/.test(response.headers.get('content-type') ?? '')) return { status, ok, body: JSON.parse(await textOf(response, heard)) };
    // What is too large for a proxy never gets through it, whoever says so.
    return status === 413 ? { status, ok, body: null } : null;
  } catch {
    return null;
  } finally {
    clearTimeout(timer);
  }
}

async function textOf({ body }: Response, onPiece: () => void): Promise<string> {
  const [reader, decoder] = [body?.getReader(), new TextDecoder()];
  let text = '';
  for (let piece = await reader?.read(); piece && !piece.done; piece = await reader?.read()) {
    onPiece();
    text += decoder.decode(piece.value, { stream: true });
  }
  return text + decoder.decode();
}
