import * as z from 'zod';
import { inPictureProcess, looksLikePicture } from './picture-process';
import { NOT_A_PICTURE, NOT_READABLE, TOO_MANY_PIXELS } from './shrink';

/** Reading takes as long as a photo has letters. Its program is WebAssembly, whose guard regions are larger than any bound: it goes without them. */
const LIMITS = { space: 3_000_000_000, cpu_s: 60, time_s: 90, flags: ['--max-old-space-size=256', '--disable-wasm-trap-handler'] };

const share = z.number();
const said = z.object({
  text: z.string().max(100_000),
  lines: z.array(z.object({ text: z.string(), confidence: z.number(), at: z.object({ x: share, y: share, w: share, h: share }) })).max(5000),
});
/** A line as it was read: how sure the reader is, 0 to 1, and where it stands, as shares of the picture. */
export type ReadLine = z.infer<typeof said>['lines'][number];
export type TextRead = { ok: true; text: string; lines: ReadLine[] } | { ok: false; reason: string };

/**
 * Reads the text of a picture on this machine: nothing is sent anywhere.
 * @throws TookTooLong when too many wait already
 */
export async function readText(sent: Uint8Array): Promise<TextRead> {
  if (!looksLikePicture(sent)) return { ok: false, reason: NOT_A_PICTURE };
  const { code, out } = await inPictureProcess('read-process.mjs', sent, LIMITS);
  if (code === 3) return { ok: false, reason: TOO_MANY_PIXELS };
  try {
    if (code === 0) return { ok: true, ...said.parse(JSON.parse(out.toString('utf8'))) };
  } catch {
    // What it wrote is nothing that was read.
  }
  return { ok: false, reason: NOT_READABLE };
}
