import type * as z from 'zod';
import { firstProblem, ownWords } from '@/core/units/own-words';
import { noStore } from './answer';
import { type GuardedBytes, guardBytes } from './write-guard';

/** What is said beside a file: answers for as many rows as a file may have. */
const MOST_ASKED = 1_500_000;
const FORM = 'multipart/form-data';

/** The files that a route takes. `tooLarge`: what is said of a longer one. */
export type FilesTaken = { types: readonly string[]; mostBytes: number; tooLarge: string };
export type FileAndAsked<T> = { ok: true; file: Uint8Array; asked: T } | { ok: false; response: Response };

const refuse = (status: number, error: string) => ({ ok: false as const, response: Response.json({ error }, { status, headers: noStore }) });

/** Lets a file in, alone or in a form, as `guardBytes` lets in any bytes. */
export const guardFile = (request: Request, { types, mostBytes, tooLarge }: FilesTaken): Promise<GuardedBytes> =>
  guardBytes(request, [FORM, ...types], mostBytes + MOST_ASKED, tooLarge);

/**
 * A file and what is asked of it: a form of two parts (RFC 7578), `file` and `asked`, JSON as the schema has it. In an address would be room for a few dozen choices. A file that comes
 * alone, or whose form has no such part, asks nothing: `{}`.
 */
export async function fileAndAsked<T>(request: Request, bytes: Buffer, { mostBytes, tooLarge }: FilesTaken, schema: z.ZodType<T>): Promise<FileAndAsked<T>> {
  const type = request.headers.get('content-type') ?? '';
  const isForm = type.trim().toLowerCase().startsWith(FORM);
  const form = isForm ? await new Response(new Uint8Array(bytes), { headers: { 'content-type': type } }).formData().catch(() => null) : null;
  const [sent, said] = isForm ? [form?.get('file'), form?.get('asked')] : [new Blob([new Uint8Array(bytes)]), null];
  if (!(sent instanceof Blob)) return refuse(422, 'file: is missing');
  if (sent.size > mostBytes) return refuse(413, tooLarge);
  let json: unknown = {};
  try {
    if (typeof said === 'string') json = JSON.parse(said);
  } catch {
    return refuse(422, 'asked: is not JSON');
  }
  const parsed = schema.safeParse(json, { error: ownWords });
  if (parsed.success) return { ok: true, file: new Uint8Array(await sent.arrayBuffer()), asked: parsed.data };
  const { path, reason } = firstProblem(parsed.error, 'asked');
  return refuse(422, `${path}: ${reason}`);
}
