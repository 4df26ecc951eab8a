export type PostAnswer = { ok: true; body: unknown } | { ok: false; fields: Record<string, string>; error: string | null };

/** Posts a form as JSON. What went wrong comes back by field, or as one sentence. */
export async function postJson(url: string, body: unknown, method: 'POST' | 'PUT' | 'DELETE' = 'POST'): Promise<PostAnswer> {
  try {
    const response = await fetch(url, { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });
    if (response.ok) return { ok: true, body: await response.json().catch(() => null) };
    const answer = (await response.json().catch(() => ({}))) as { fields?: Record<string, string>; error?: string };
    return { ok: false, fields: answer.fields ?? {}, error: answer.error ?? (answer.fields ? null : 'The server did not take this. Try again.') };
  } catch {
    return { ok: false, fields: {}, error: 'The server cannot be reached. Nothing was sent.' };
  }
}
