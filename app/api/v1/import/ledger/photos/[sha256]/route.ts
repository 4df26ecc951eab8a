import { mayRecord } from '@/core/records/roles';
import { answering, noStore } from '@/server/http/answer';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { guardBytes } from '@/server/http/write-guard';
import { MAX_PHOTO_BYTES, restorePhoto } from '@/server/photos/photo-table';

/** A picture of a ledger that was taken along, under the name by which its events and records speak of it. Idempotent. */
export const PUT = answering(async (request: Request, { params }: { params: Promise<{ sha256: string }> }): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  if (!mayRecord(who.role)) return Response.json({ error: 'Only those who record may bring photos in.' }, { status: 403, headers: noStore });
  const { sha256 } = await params;
  if (!/^[0-9a-f]{64}$/.test(sha256)) return Response.json({ error: 'The name of a photo is a SHA-256.' }, { status: 404, headers: noStore });
  const body = await guardBytes(request, ['image/jpeg'], MAX_PHOTO_BYTES, 'The photo is larger than 3 MB.');
  if (!body.ok) return body.response;
  const taken = await restorePhoto(who, sha256, body.bytes);
  return taken.ok ? Response.json({ already: taken.already }, { headers: noStore }) : Response.json({ error: taken.reason }, { status: 422, headers: noStore });
});
