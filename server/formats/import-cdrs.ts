import { createHash } from 'node:crypto';
import { billPlaces } from '@/core/formats/bill-place';
import { BREACH_WORDS } from '@/core/formats/breach-words';
import { billedItems, billPayload, billProblem, cdrRef } from '@/core/formats/cdr-bills';
import { type AttemptRef, fold, matchingSessions } from '@/core/formats/match-sessions';
import { type BillIn, readingCdrs } from '@/core/formats/ocpi-cdrs';
import { BREACHES_LISTED, type Breach } from '@/core/formats/ocpi-check';
import { type JsonObject, type JsonRefused, readingJson } from '@/core/formats/strict-json';
import { firstBy } from '@/core/units/grouped';
import { isSameMoney } from '@/core/units/money';
import { attemptsNamed } from '@/core/visit/billed';
import type { Visit } from '@/core/visit/derive';
import type { EventOf } from '@/core/visit/event';
import { NO_ATTEMPT } from '@/core/visit/receipt-alone';
import { allBills } from '@/core/visit/told-bills';
import type { Member } from '../accounts/who';
import { unhurried } from '../unhurried';
import { billsInto } from './imported-bills';
import { idOf, sendImported } from './imported-events';
import { type Paid, paidFor } from './paid-for';
import { type SessionsLeftOut, sessionsLeftOut } from './sessions-left-out';
import { sessionsAround } from './visits-around';

/** More at once nobody looks through; a file of more is sent in parts. */
const MOST_BILLS = 5_000;

/** `dayOnly`: its time stands for order, and is none to show. */
type Where = { visitId: string; n: number; site: string; at: number; dayOnly: boolean; zone: string; stall: string | null };
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
  /** Why it cannot be kept. */
  unkept: string | null;
  /** It stands in the ledger already. */
  there: boolean;
  /** Where, and what it says there where that is another amount. */
  stands: { visitId: string; at: number; dayOnly: boolean; zone: string; other: Paid | null } | null;
  /** Bills noted for that charge by somebody: this one would tell them again. */
  noted: Paid[];
  match:
    | { is: 'paired'; where: Where; offset_s: number | null; kWhDiff: string | null; stallDiffers: boolean | null }
    | { is: 'asked'; why: string; candidates: Where[] }
    | { is: 'unmatched' };
};
/** `breaches`: the first of them, those that refuse before the others; `unlisted`: how many refuse besides. */
export type CdrPreview = { importId: string; rows: CdrRow[]; breaches: Breach[]; unlisted: number; notKept: number; leftOut: SessionsLeftOut };
export type CdrAnswer = { ok: true; preview: CdrPreview; taken?: number } | { ok: false; refused: JsonRefused | { code: 'too_many' | 'too_many_visits' } };

type Loaded = { visits: Map<string, Visit>; bills: BillIn[]; records: ReadonlyMap<string, JsonObject>; preview: CdrPreview };

function listed(breaches: readonly Breach[]): { breaches: Breach[]; unlisted: number } {
  const refusing = breaches.filter((b) => b.refuses);
  const first = [...refusing, ...breaches.filter((b) => !b.refuses)].slice(0, BREACHES_LISTED);
  return { breaches: first, unlisted: Math.max(0, refusing.length - BREACHES_LISTED) };
}

/** Reads CDRs and sets them against the visits that this person sees. Changes nothing. */
async function load(who: Member, bytes: Uint8Array): Promise<Loaded | { refused: JsonRefused | { code: 'too_many' | 'too_many_visits' } }> {
  const read = await unhurried(readingJson(bytes));
  if (!read.ok) return { refused: { code: read.code, where: read.where } };
  const { bills, breaches, notKept, records } = await unhurried(readingCdrs(read.value));
  if (bills.length > MOST_BILLS) return { refused: { code: 'too_many' } };
  const importId = idOf(who.householdId, `import ${createHash('sha256').update(bytes).digest('hex')}`);
  const around = await sessionsAround(
    who,
    bills.map((b) => b.start),
  );
  if (!around) return { refused: { code: 'too_many_visits' } };
  const { visits, attempts, sites, stalls } = around;
  const placeOf = billPlaces(sites, stalls);
  const placed = new Map(bills.map((b) => [b.id, placeOf(b, records.get(b.id))] as const));
  const items = billedItems(bills, (b) => placed.get(b.id) ?? { site: b.site, stall: null });
  const match = await unhurried(matchingSessions(items, attempts));
  const attemptOf = new Map(attempts.map((a) => [`${a.visitId} ${a.n}`, a]));
  const where = ([visitId, n]: AttemptRef): Where => {
    const v = visits.get(visitId) as Visit;
    const a = attemptOf.get(`${visitId} ${n}`);
    return {
      visitId,
      n,
      site: a?.site ?? '',
      at: a?.start ?? v.pulledInAt ?? v.lastEventAt,
      dayOnly: a?.start == null && v.dayOnly,
      zone: v.zone,
      stall: a?.stall ?? null,
    };
  };
  const there = standing(who, bills, visits);
  const saidOf = byBill(breaches, bills);
  const [pairs, asks, credits] = [firstBy(match.pairs, (p) => p.item), firstBy(match.asks, (a) => a.item), firstBy(match.credits, (c) => c.item)];
  const rows = bills.map((b): CdrRow => {
    const [pair, ask, credit] = [pairs.get(b.id), asks.get(b.id), credits.get(b.id)];
    const said = (saidOf.get(b.pointer) ?? []).map((x) => `${x.pointer.slice(b.pointer.length)} ${BREACH_WORDS[x.code]}`);
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
      unkept: billProblem(b),
      there: there.has(b.id),
      stands: standsAs(b, there.get(b.id)),
      noted: pair ? paidFor(visits.get(pair.visitId) as Visit, pair.n, 'person') : [],
      match: pair
        ? { is: 'paired', where: where([pair.visitId, pair.n]), offset_s: pair.offset_s, kWhDiff: pair.kWhDiff, stallDiffers: pair.stallDiffers }
        : credit?.state === 'paired' && credit.visitId !== null && credit.n !== null
          ? { is: 'paired', where: where([credit.visitId, credit.n]), offset_s: null, kWhDiff: null, stallDiffers: null }
          : ask
            ? { is: 'asked', why: ask.code, candidates: ask.candidates.map(where) }
            : { is: 'unmatched' },
    };
  });
  const told = new Set(rows.flatMap((r) => toldBy(r, there.get(r.id))));
  // Of which networks the file is: by the names of its places, and by the visits beside which its bills stand.
  const named = new Set([...placed.values()].map((p) => fold(p.site)));
  const beside = new Set(rows.flatMap((r) => visits.get((r.match.is === 'paired' ? r.match.where.visitId : r.stands?.visitId) ?? '')?.siteId ?? []));
  const leftOut = await sessionsLeftOut(who, {
    starts: bills.map((b) => b.start),
    networks: new Set(sites.flatMap((s) => (named.has(fold(s.fields.name)) || beside.has(s.id) ? [s.fields.networkId] : []))),
    tells: (visitId, n) => told.has(`${visitId} ${n}`),
  });
  return { visits, bills, records, preview: { importId, rows, ...listed(breaches), notKept: notKept.length, leftOut } };
}

/** The sessions that a CDR tells, as `visitId n`: those that its bill in the ledger is for, else the one that it is of, or those that it may be of. */
function toldBy({ match }: CdrRow, there: Stands | undefined): string[] {
  if (there) {
    const { visit, bill } = there;
    const named = attemptsNamed(bill.payload.sessions, visit.attempts, visit.line);
    const all = visit.attempts.length > 0 ? visit.attempts.map((a) => a.n) : [NO_ATTEMPT];
    return (named.length > 0 ? named : all).map((n) => `${visit.id} ${n}`);
  }
  const where = match.is === 'paired' ? [match.where] : match.is === 'asked' ? match.candidates : [];
  return where.map((w) => `${w.visitId} ${w.n}`);
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

type Stands = { visit: Visit; bill: EventOf<'bill'> };
/** Where these stand in the ledger, taken in before and not taken back: here, or where the ledger was before it was brought here. */
function standing(who: Member, bills: readonly BillIn[], visits: ReadonlyMap<string, Visit>): Map<string, Stands> {
  const all = [...visits.values()].flatMap((visit) => allBills(visit).map((bill) => ({ visit, bill })));
  const byId = firstBy(all, ({ bill }) => bill.id);
  const byRef = firstBy(
    all.filter(({ bill }) => 'cdr' in bill.payload && bill.payload.ref !== undefined),
    ({ bill }) => bill.payload.ref as string,
  );
  return new Map(
    bills.flatMap((b) => {
      const found = byId.get(idOf(who.householdId, `cdr ${b.id}`)) ?? byRef.get(cdrRef(b));
      return found ? [[b.id, found] as const] : [];
    }),
  );
}

function standsAs(b: BillIn, found: Stands | undefined): CdrRow['stands'] {
  if (!found) return null;
  const { visit, bill } = found;
  const { amount, currency } = bill.payload;
  const other = isSameMoney(billPayload(b, null, ''), bill.payload) ? null : { amount, currency };
  return { visitId: visit.id, at: visit.pulledInAt ?? visit.lastEventAt, dayOnly: visit.dayOnly, zone: visit.zone, other };
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
    if (row.there || row.unkept !== null) return [];
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
