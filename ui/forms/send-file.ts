/** What a route says of a file: as it is typed there, or `error` and `refused`. */
// biome-ignore lint/suspicious/noExplicitAny: each route says its own, and each page knows which it asked
export type SaidOfFile = { ok: boolean; body: any };

/** Sends a file, and beside it what is asked of it, where something is. @throws where the server cannot be reached, or the file cannot be read any more */
export async function sendFile(path: string, file: File, asked: object = {}): Promise<SaidOfFile> {
  const form = new FormData();
  // Before the file: whoever reads it knows what it is for.
  form.set('asked', JSON.stringify(asked));
  form.set('file', file);
  const answer = await fetch(path, { method: 'POST', body: form });
  return { ok: answer.ok, body: await answer.json() };
}
