/** The largest body of any write. */
export const MAX_BODY_BYTES = 1_000_000;

export type GuardedBody = { ok: true; json: unknown } | { ok: false; response: Response };

const refuse = (status: number, error: string): GuardedBody => ({ ok: false, response: Response.json({ error }, { status }) });

/**
 * Lets a write in only from the application's own pages, as JSON and within the size limit.
 * The body is counted as it arrives: a false content-length gains nothing.
 */
export async function guardWrite(request: Request): Promise<GuardedBody> {
  const origin = request.headers.get('origin');
  const host = request.headers.get('x-forwarded-host') ?? request.headers.get('host');
  if (!origin || !host || !URL.canParse(origin) || new URL(origin).host !== host)
    return refuse(403, 'This write did not come from the application’s own pages.');
  if (!(request.headers.get('content-type') ?? '').toLowerCase().startsWith('application/json')) return refuse(415, 'Writes are JSON.');
  if (Number(request.headers.get('content-length') ?? 0) > MAX_BODY_BYTES) return refuse(413, 'The batch is larger than 1 MB. Send it in parts.');
  const chunks: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  for (;;) {
    const part = await reader?.read();
    if (!part || part.done) break;
    size += part.value.byteLength;
    if (size > MAX_BODY_BYTES) {
      await reader?.cancel();
      return refuse(413, 'The batch is larger than 1 MB. Send it in parts.');
    }
    chunks.push(part.value);
  }
  try {
    return { ok: true, json: JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(Buffer.concat(chunks))) };
  } catch {
    return refuse(400, 'The body is not JSON.');
  }
}

/** Address a request came from: the TLS front says it, else it is this machine. */
export const addressOf = (request: Request): string =>
  (request.headers.get('x-forwarded-for') ?? '')
    .split(',')[0]
    ?.replace(/[^0-9A-Za-z.:-]/g, '')
    .slice(0, 64) || '127.0.0.1';
