import { inPictureProcess, looksLikePicture } from './picture-process';

export type Picture = { data: Buffer; width: number; height: number };
export type Shrunk = { ok: true; picture: Picture } | { ok: false; reason: string };

export const NOT_A_PICTURE = 'This is not a picture that is taken here: JPEG, PNG or WebP.';
export const TOO_MANY_PIXELS = 'This picture has more than 40 million pixels.';
export const NOT_READABLE = 'This is not a picture that can be read.';
const LIMITS = { space: 2_000_000_000, cpu_s: 15, time_s: 20, flags: ['--max-old-space-size=64'] };

/**
 * Decodes a picture and writes it anew as JPEG of at most 1600 pixels a side. Whatever came beside the picture (position, camera, a program in
 * disguise) is gone.
 * @throws TookTooLong when too many wait already
 */
export async function shrink(sent: Buffer): Promise<Shrunk> {
  if (!looksLikePicture(sent)) return { ok: false, reason: NOT_A_PICTURE };
  const { code, out, said } = await inPictureProcess('shrink-process.mjs', sent, LIMITS);
  if (code === 3) return { ok: false, reason: TOO_MANY_PIXELS };
  try {
    if (code === 0) return { ok: true, picture: { data: out, ...(JSON.parse(said) as { width: number; height: number }) } };
  } catch {
    // What it said is no size: as if it had not been read.
  }
  return { ok: false, reason: NOT_READABLE };
}
