import { readLedgerFilter } from '@/core/compare/ledger-filter';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { ledgerPage, placeAfter } from '@/server/visits/ledger-query';

export const dynamic = 'force-dynamic';

const LAST = 20;

const NEAR_MS = 12 * 3600 * 1000;

/** The household's last visits as rows of the ledger, open ones too: what a phone has at hand. `near`: those around an instant instead. */
export async function GET(request: Request): Promise<Response> {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const near = Number(new URL(request.url).searchParams.get('near') ?? Number.NaN);
  const everything = readLedgerFilter(() => null);
  // The list is read from a place on: half a day later than asked, as it runs backwards.
  const page = await ledgerPage(who.householdId, everything, Number.isSafeInteger(near) ? placeAfter(near + NEAR_MS) : undefined);
  const rows = Number.isSafeInteger(near) ? page.rows.filter((r) => Math.abs(r.at - near) <= NEAR_MS) : page.rows.slice(0, LAST);
  return Response.json({ rows }, { headers: { 'cache-control': 'no-store' } });
}
