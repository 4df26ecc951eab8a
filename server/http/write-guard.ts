/** The largest body of any write. */
export const MAX_BODY_BYTES = 1_000_000;

export type GuardedBody = { ok: true; json: unknown } | { ok: false; response: Response };
export type GuardedBytes = { ok: true; bytes: Buffer } | { ok: false; response: Response };

const refuse = (status: number, error: string) => ({ ok: false as const, response: Response.json({ error }, { status }) });

/**
 * Lets bytes of these types in only from the application's own pages and within a size limit.
 * The body is counted as it arrives: a false content-length gains nothing.
 */
export async function guardBytes(request: Request, types: readonly string[], most: number, tooLarge: string): Promise<GuardedBytes> {
  const origin = request.headers.get('origin');
  const host = request.headers.get('host');
  if (!origin || !host || !URL.canParse(origin) || new URL(origin).host !== host)
    return refuse(403, 'This write did not come from the application’s own pages.');
  const type = (request.headers.get('content-type') ?? '').split(';')[0]?.trim().toLowerCase() ?? '';
  if (!types.includes(type)) return refuse(415, `This takes ${types.join(', ')} only.`);
  if (Number(request.headers.get('content-length') ?? 0) > most) return refuse(413, tooLarge);
  const chunks: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  for (;;) {
    const part = await reader?.read();
    if (!part || part.done) break;
    size += part.value.byteLength;
    if (size > most) {
      await reader?.cancel();
      return refuse(413, tooLarge);
    }
    chunks.push(part.value);
  }
  return { ok: true, bytes: Buffer.concat(chunks) };
}

/** The same for JSON, which every other write is. */
export async function guardWrite(request: Request): Promise<GuardedBody> {
  const body = await guardBytes(request, ['application/json'], MAX_BODY_BYTES, 'The batch is larger than 1 MB. Send it in parts.');
  if (!body.ok) return body;
  try {
    return { ok: true, json: JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(body.bytes)) };
  } catch {
    return refuse(400, 'The body is not JSON.');
  }
}
