import { type LevelRead, readLevel } from '@/core/formats/receipt-level';
import { type ReceiptField, readReceipt } from '@/core/formats/receipt-text';
import { whereRead } from '@/core/formats/receipt-where';
import { mayRecord } from '@/core/records/roles';
import { now } from '@/server/clock';
import { answering, noStore } from '@/server/http/answer';
import { perMinute } from '@/server/http/rate';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { guardBytes } from '@/server/http/write-guard';
import { MAX_PHOTO_BYTES } from '@/server/photos/photo-table';
import { readText } from '@/server/photos/read-text';
import { recordsOf } from '@/server/records/record-tables';

const limit = perMinute(20);
const levelOf = (read: LevelRead): { from: number | null; to: number } | { why: string } => ('why' in read ? read : { from: read.from, to: read.to });
/** A receipt is no book. */
const MOST_TEXT = 20_000;

/**
 * What the picture or the text of a receipt, or of a stall's last screen, is proposed to say: `{proposal, emptyBecause, siteId, battery, seen}`, for each figure how sure the reader was and where in the
 * picture it stands. Keeps nothing.
 */
export const POST = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const body = await guardBytes(request, ['image/jpeg', 'image/png', 'image/webp', 'text/plain'], MAX_PHOTO_BYTES, 'The picture is larger than 3 MB.');
  if (!body.ok) return body.response;
  const late = limit(who.personId);
  if (late) return late;
  if (!mayRecord(who.role)) return Response.json({ error: 'Only those who record read receipts.' }, { status: 403, headers: noStore });
  const sites = (await recordsOf(who.householdId, 'site')).filter((s) => !s.archived);
  const names = sites.map((s) => s.fields.name);
  // Of two that are called the same it is told which by nobody.
  const idOf = (name: string | null) => {
    const called = sites.filter((s) => s.fields.name === name);
    return called.length === 1 ? (called[0]?.id ?? null) : null;
  };
  if ((request.headers.get('content-type') ?? '').startsWith('text/')) {
    const text = new TextDecoder().decode(body.bytes).slice(0, MOST_TEXT);
    const read = readReceipt(text, names, now());
    return Response.json({ ...read, siteId: idOf(read.proposal.site), battery: levelOf(readLevel(text)), seen: {} }, { headers: noStore });
  }
  const picture = await readText(body.bytes);
  if (!picture.ok) return Response.json({ error: picture.reason }, { status: 422, headers: noStore });
  const read = readReceipt(picture.text.slice(0, MOST_TEXT), names, now());
  // Line by line as the reader saw them: a level is found again where it stands.
  const level = readLevel(picture.lines.map((l) => l.text).join('\n'));
  const at = 'line' in level ? picture.lines[level.line] : undefined;
  const seen = Object.fromEntries(
    (Object.entries(whereRead(read, picture.lines, names, now())) as [ReceiptField, number][]).map(([field, i]) => {
      const { confidence, at } = picture.lines[i] as (typeof picture.lines)[number];
      return [field, { confidence, at }];
    }),
  );
  return Response.json(
    {
      ...read,
      siteId: idOf(read.proposal.site),
      battery: levelOf(level),
      seen: { ...seen, ...(at ? { battery: { confidence: at.confidence, at: at.at } } : {}) },
    },
    { headers: noStore },
  );
});
