import { mayLookOn } from '@/core/records/roles';
import { answering } from '@/server/http/answer';
import { notForRole } from '@/server/http/not-for-role';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { guardBytes } from '@/server/http/write-guard';
import { keepPhoto, MAX_PHOTO_BYTES, readPhoto } from '@/server/photos/photo-table';

type Context = { params: Promise<{ sha256: string }> };
const SHA256 = /^[0-9a-f]{64}$/;
const noPhoto = () => Response.json({ error: 'There is no such photo.' }, { status: 404 });

/** Takes a photo under the SHA-256 of its bytes. Idempotent. */
export const PUT = answering(async (request: Request, { params }: Context): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const refused = mayLookOn(who.role) ? null : notForRole(who.role);
  if (refused) return refused;
  const { sha256 } = await params;
  if (!SHA256.test(sha256)) return noPhoto();
  const body = await guardBytes(request, ['image/jpeg', 'image/png', 'image/webp'], MAX_PHOTO_BYTES, 'The photo is larger than 3 MB.');
  if (!body.ok) return body.response;
  const taken = await keepPhoto(who, sha256, body.bytes);
  return taken.ok ? Response.json({ already: taken.already }, { status: taken.already ? 200 : 201 }) : Response.json({ error: taken.reason }, { status: 422 });
});

/** A photo of the household. It never changes, so a browser may keep it for its person. */
export const GET = answering(async (_request: Request, { params }: Context): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const { sha256 } = await params;
  const bytes = SHA256.test(sha256) ? await readPhoto(who.householdId, sha256) : null;
  if (!bytes) return noPhoto();
  return new Response(new Uint8Array(bytes), {
    headers: { 'content-type': 'image/jpeg', 'cache-control': 'private, max-age=31536000, immutable', 'content-disposition': 'inline', vary: 'cookie' },
  });
});
