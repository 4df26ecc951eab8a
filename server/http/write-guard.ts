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
  return bytesOf(request, types, most, tooLarge);
}

/** The body of a request, counted as it arrives. */
async function bytesOf(request: Request, types: readonly string[], most: number, tooLarge: string): Promise<GuardedBytes> {
  const type = (request.headers.get('content-type') ?? '').split(';')[0]?.trim().toLowerCase() ?? '';
  if (!types.includes(type)) return refuse(415, `This takes ${types.join(', ')} only.`);
  const announced = Number(request.headers.get('content-length') ?? 0);
  if (announced > most) return refuse(413, tooLarge);
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
  // Somebody on the way kept the end of it.
  if (size < announced) return refuse(400, 'Only a part of this arrived. Send it again.');
  return { ok: true, bytes: Buffer.concat(chunks) };
}

const TOO_LARGE = 'The batch is larger than 1 MB. Send it in parts.';

/** The same for JSON, which every other write is. */
export const guardWrite = async (request: Request): Promise<GuardedBody> => jsonOf(await guardBytes(request, ['application/json'], MAX_BODY_BYTES, TOO_LARGE));

/**
 * The JSON of a question, which changes nothing: from the application's own pages, or from a program that says no origin at all. A page of somebody else's, which a
 * browser always tells by its origin or by what it may send without one, is let in no more than to a write.
 */
export async function readQuestion(request: Request): Promise<GuardedBody> {
  if (request.headers.get('origin') !== null) return guardWrite(request);
  const type = (request.headers.get('content-type') ?? '').split(';')[0]?.trim().toLowerCase();
  if (type !== 'application/json') return refuse(403, 'This takes application/json from programs only.');
  return jsonOf(await bytesOf(request, ['application/json'], MAX_BODY_BYTES, TOO_LARGE));
}

function jsonOf(body: GuardedBytes): GuardedBody {
  if (!body.ok) return body;
  try {
    return { ok: true, json: JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(body.bytes)) };
  } catch {
    return refuse(400, 'The body is not JSON.');
  }
}
