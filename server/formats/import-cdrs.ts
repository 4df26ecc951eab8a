import { createHash } from 'node:crypto';
import Big from 'big.js';
import { billPlaces } from '@/core/formats/bill-place';
import { billedItems, billPayload, cdrRef, recordedAttempts } from '@/core/formats/cdr-bills';
import { type AttemptRef, matchSessions, type SessionMatch } from '@/core/formats/match-sessions';
import { type BillIn, readingCdrs } from '@/core/formats/ocpi-cdrs';
import type { Breach } from '@/core/formats/ocpi-check';
import { type JsonObject, type JsonRefused, readingJson } from '@/core/formats/strict-json';
import { firstBy } from '@/core/units/grouped';
import { attemptsNamed, forCharging } from '@/core/visit/billed';
import type { Visit } from '@/core/visit/derive';
import { allBills } from '@/core/visit/told-bills';
import type { Member } from '../accounts/who';
import { recordsOf } from '../records/record-tables';
import { unhurried } from '../unhurried';
import { billsInto } from './imported-bills';
import { idOf, sendImported } from './imported-events';
import { AROUND_MS, visitsAround } from './visits-around';

/** More at once nobody looks through; a file of more is sent in parts. */
const MOST_BILLS = 5_000;

type Where = { visitId: string; n: number; site: string; at: number; zone: string; stall: string | null };
export type CdrRow = {
  id: string;
  start: number;
  end: number;
  site: string;
  evse: string;
  kWh: string;
  amount: string;
  currency: string;
  taxIn: boolean;
  said: string[];
  /** It stands in the ledger already. */
  there: boolean;
  /** Where, and what it says there where that is another amount. */
  stands: { visitId: string; at: number; zone: string; other: { amount: string; currency: string } | null } | null;
  /** Bills noted for that charge by somebody: this one would tell them again. */
  noted: { amount: string; currency: string }[];
  match:
    | { is: 'paired'; where: Where; offset_s: number | null; kWhDiff: string | null; stallDiffers: boolean | null }
    | { is: 'asked'; why: string; candidates: Where[] }
    | { is: 'unmatched' };
};
export type CdrPreview = { importId: string; rows: CdrRow[]; breaches: Breach[]; notKept: number; unbilled: Where[] };
export type CdrAnswer = { ok: true; preview: CdrPreview; taken?: number } | { ok: false; refused: JsonRefused | { code: 'too_many' } };

type Loaded = { visits: Map<string, Visit>; match: SessionMatch; bills: BillIn[]; records: ReadonlyMap<string, JsonObject>; preview: CdrPreview };

/** Reads CDRs and sets them against the visits that this person sees. Changes nothing. */
async function load(who: Member, bytes: Uint8Array): Promise<Loaded | { refused: JsonRefused | { code: 'too_many' } }> {
  const read = await unhurried(readingJson(bytes));
  if (!read.ok) return { refused: { code: read.code, where: read.where } };
  const { bills, breaches, notKept, records } = await unhurried(readingCdrs(read.value));
  if (bills.length > MOST_BILLS) return { refused: { code: 'too_many' } };
  const importId = idOf(who.householdId, `import ${createHash('sha256').update(bytes).digest('hex')}`);
  const visits = await visitsAround(
    who,
    bills.map((b) => b.start),
  );
  const [sites, stalls] = await Promise.all([recordsOf(who.householdId, 'site'), recordsOf(who.householdId, 'stall')]);
  const siteName = new Map(sites.map((s) => [s.id, s.fields.name]));
  const stallName = new Map(stalls.map((s) => [s.id, s.fields.name]));
  const placeOf = billPlaces(sites, stalls);
  const attempts = [...visits.values()].flatMap((v) =>
    recordedAttempts(v, (v.siteId && siteName.get(v.siteId)) || '', (id) => (id ? (stallName.get(id) ?? null) : null)),
  );
  const match = matchSessions(
    billedItems(bills, (b) => placeOf(b, records.get(b.id))),
    attempts,
  );
  const attemptOf = new Map(attempts.map((a) => [`${a.visitId} ${a.n}`, a]));
  const where = ([visitId, n]: AttemptRef): Where => {
    const v = visits.get(visitId) as Visit;
    const a = attemptOf.get(`${visitId} ${n}`);
    return { visitId, n, site: a?.site ?? '', at: a?.start ?? v.pulledInAt ?? v.lastEventAt, zone: v.zone, stall: a?.stall ?? null };
  };
  const there = standing(who, bills, visits);
  const saidOf = byBill(breaches, bills);
  const [pairs, asks, credits] = [firstBy(match.pairs, (p) => p.item), firstBy(match.asks, (a) => a.item), firstBy(match.credits, (c) => c.item)];
  const rows = bills.map((b): CdrRow => {
    const [pair, ask, credit] = [pairs.get(b.id), asks.get(b.id), credits.get(b.id)];
    const said = (saidOf.get(b.pointer) ?? []).map((x) => `${x.pointer.slice(b.pointer.length)}: ${x.code}`);
    return {
      id: b.id,
      start: b.start,
      end: b.end,
      site: b.site,
      evse: b.evse,
      kWh: b.kWh,
      amount: b.amount,
      currency: b.currency,
      taxIn: b.taxIn,
      said,
      there: there.has(b.id),
      stands: there.get(b.id) ?? null,
      noted: pair ? notedFor(visits.get(pair.visitId), pair.n) : [],
      match: pair
        ? { is: 'paired', where: where([pair.visitId, pair.n]), offset_s: pair.offset_s, kWhDiff: pair.kWhDiff, stallDiffers: pair.stallDiffers }
        : credit?.state === 'paired' && credit.visitId !== null && credit.n !== null
          ? { is: 'paired', where: where([credit.visitId, credit.n]), offset_s: null, kWhDiff: null, stallDiffers: null }
          : ask
            ? { is: 'asked', why: ask.code, candidates: ask.candidates.map(where) }
            : { is: 'unmatched' },
    };
  });
  const starts = bills.map((b) => b.start);
  // A session without a bill is told within the time that the file speaks of.
  const [from, to] = [Math.min(...starts) - AROUND_MS / 2, Math.max(...starts) + AROUND_MS / 2];
  const within = match.unmatchedAttempts.map(where).filter((w) => w.at >= from && w.at <= to);
  return { visits, match, bills, records, preview: { importId, rows, breaches, notKept: notKept.length, unbilled: within } };
}

/** What somebody noted to have been charged for an attempt, or for the whole visit. */
function notedFor(v: Visit | undefined, n: number): CdrRow['noted'] {
  return forCharging(v?.bills ?? []).flatMap(({ origin, payload: { sessions, amount, currency, state } }) => {
    if (!v || origin === 'imported' || state === 'refunded') return [];
    const named = attemptsNamed(sessions, v.attempts, v.line);
    return named.length === 0 || named.includes(n) ? [{ amount, currency }] : [];
  });
}

/** What is said of each bill, by its pointer: a part of a document lies in one bill at most. */
function byBill(breaches: readonly Breach[], bills: readonly BillIn[]): Map<string, Breach[]> {
  const out = new Map(bills.map((b): [string, Breach[]] => [b.pointer, []]));
  for (const x of breaches) {
    if (x.refuses) continue;
    for (let at = x.pointer.indexOf('/'); at >= 0; at = x.pointer.indexOf('/', at + 1)) out.get(x.pointer.slice(0, at))?.push(x);
  }
  return out;
}

/** Where these stand in the ledger, taken in before and not taken back: here, or where the ledger was before it was brought here. */
function standing(who: Member, bills: readonly BillIn[], visits: ReadonlyMap<string, Visit>): Map<string, NonNullable<CdrRow['stands']>> {
  const all = [...visits.values()].flatMap((visit) => allBills(visit).map((bill) => ({ visit, bill })));
  const byId = firstBy(all, ({ bill }) => bill.id);
  const byRef = firstBy(
    all.filter(({ bill }) => 'cdr' in bill.payload && bill.payload.ref !== undefined),
    ({ bill }) => bill.payload.ref as string,
  );
  const out = new Map<string, NonNullable<CdrRow['stands']>>();
  for (const b of bills) {
    const found = byId.get(idOf(who.householdId, `cdr ${b.id}`)) ?? byRef.get(cdrRef(b));
    if (!found) continue;
    const { visit, bill } = found;
    const told = billPayload(b, null, '');
    const other =
      new Big(told.amount).eq(bill.payload.amount) && told.currency === bill.payload.currency
        ? null
        : { amount: bill.payload.amount, currency: bill.payload.currency };
    out.set(b.id, { visitId: visit.id, at: visit.pulledInAt ?? visit.lastEventAt, zone: visit.zone, other });
  }
  return out;
}

export async function previewCdrs(who: Member, bytes: Uint8Array): Promise<CdrAnswer> {
  const found = await load(who, bytes);
  return 'refused' in found ? { ok: false, refused: found.refused } : { ok: true, preview: found.preview };
}

/** `chosen`: for a CDR that was asked about the attempt that somebody picked among its candidates, `visitId n`. */
export async function takeCdrs(who: Member, bytes: Uint8Array, chosen: ReadonlyMap<string, string>): Promise<CdrAnswer> {
  const found = await load(who, bytes);
  if ('refused' in found) return { ok: false, refused: found.refused };
  const { preview, bills, visits, records } = found;
  const billOf = firstBy(bills, (b) => b.id);
  const wanted = preview.rows.flatMap((row) => {
    if (row.there) return [];
    const picked = row.match.is === 'asked' ? row.match.candidates.find((c) => `${c.visitId} ${c.n}` === chosen.get(row.id)) : undefined;
    const at = row.match.is === 'paired' ? row.match.where : picked;
    const bill = billOf.get(row.id);
    const visit = at && visits.get(at.visitId);
    if (!at || !bill || !visit) return [];
    const session = visit.attempts.find((a) => a.n === at.n)?.opened.id ?? null;
    const payload = billPayload(bill, session, preview.importId, records.get(bill.id));
    return [{ name: `cdr ${bill.id}`, visit, payload, at: bill.end }];
  });
  const events = await billsInto(who, wanted, preview.importId);
  return { ok: true, preview, taken: (await sendImported(who, events)).taken };
}
