import { readLedgerFilter } from '@/core/compare/ledger-filter';
import { isInstant, LAST_INSTANT } from '@/core/units/instant';
import { answering } from '@/server/http/answer';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { ledgerPage, placeAfter } from '@/server/visits/ledger-query';

export const dynamic = 'force-dynamic';

const LAST = 20;

const NEAR_MS = 12 * 3600 * 1000;

/** The household's last visits as rows of the ledger, open ones too: what a phone has at hand. `near`: those around an instant instead. */
export const GET = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const asked = new URL(request.url).searchParams.get('near');
  const near = asked === null ? null : Number(asked);
  if (near !== null && !isInstant(near)) return Response.json({ error: 'near: must be a time in UTC milliseconds between 1990 and 2100' }, { status: 422 });
  const everything = readLedgerFilter(() => null);
  // The list is read from a place on: half a day later than asked, as it runs backwards.
  const page = await ledgerPage(who, who.currency, everything, near === null ? undefined : placeAfter(Math.min(near + NEAR_MS, LAST_INSTANT)));
  // One that is private to somebody else can be neither opened nor joined.
  const shown = page.rows.filter((r) => !r.isPrivate);
  const rows = near === null ? shown.slice(0, LAST) : shown.filter((r) => Math.abs(r.at - near) <= NEAR_MS);
  return Response.json({ rows }, { headers: { 'cache-control': 'no-store' } });
});
