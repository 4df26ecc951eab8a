import { createHash } from 'node:crypto';
import { fold } from '@/core/formats/match-sessions';
import type { SheetRefused } from '@/core/formats/sheet-bytes';
import { readingSheet, type SheetAnswer, type SheetImport, type SheetSkip } from '@/core/formats/sheet-import';
import { planRows, type RowPlan } from '@/core/formats/sheet-plan';
import type { SheetRow } from '@/core/formats/sheet-row';
import { rowBill, rowBills, rowEvents } from '@/core/formats/sheet-visit';
import { blankFields } from '@/core/records/record-schema';
import { grouped } from '@/core/units/grouped';
import { localInstant } from '@/core/units/local-time';
import { localDay } from '@/core/units/zoned';
import type { Visit } from '@/core/visit/derive';
import type { StoredEvent } from '@/core/visit/event';
import { allBills } from '@/core/visit/told-bills';
import type { TypedEvent } from '@/core/visit/typed-visit';
import type { SignedIn } from '../accounts/sessions';
import { now } from '../clock';
import { takeBatch } from '../outbox/take-batch';
import { recordsOf } from '../records/record-tables';
import { unhurried } from '../unhurried';
import { eventsOfVisits } from '../visits/event-rows';
import { HeldReads } from './held-reads';
import { type BillBeside, billsInto } from './imported-bills';
import { idOf, importedEvent, sendVisits } from './imported-events';
import { nearVisits } from './near-visits';
import { NetworksByName, type PlaceItem } from './networks-by-name';
import { type Paid, paidFor } from './paid-for';
import { type RowStands, rowEventId, rowVisits } from './row-visits';
import { type SessionsLeftOut, sessionsLeftOut } from './sessions-left-out';
import { answersAsked, habitOf, keepHabit } from './sheet-habits';
import { type KnownHere, worldOf } from './sheet-world';
import { restored } from './visits-back';

/** Rows that one request takes in: the page asks on until none is left, and can stop in between. Of the first fewer, so that one sees early that it goes on; fewer too where visits come back. */
const ROWS_AT_ONCE = { first: 1_000, next: 4_000 };
/** So few are derived at once: who looks at the ledger next sees them. */
const FEW = 200;
const SHOWN = { rows: 200, refused: 1000 };

export type SheetLine = Pick<SheetRow, 'line' | 'start' | 'startPrecision' | 'site' | 'stall' | 'kWh' | 'amount' | 'currency' | 'warnings'> & {
  zone: string;
  plan: RowPlan;
  /** The visit that it came in as, or that it may be. */
  visitId: string | null;
  /** It says what was paid, and can stand beside that visit as a bill. */
  bills: boolean;
  /** What somebody noted to have been paid for that visit. */
  noted: Paid[];
};
export type SheetPreview = Pick<SheetImport, 'dialect' | 'columns' | 'refused' | 'asks' | 'proposed' | 'first'> & {
  importId: string;
  /** What was said: here, or of a sheet of the same headings before. */
  answers: readonly SheetAnswer[];
  remembered: boolean;
  /** Names of the networks here. */
  networks: readonly string[];
  /** The first of the rows that can be read, those before that ask for a word; and how many there are. */
  rows: SheetLine[];
  accepted: number;
  /** How many rows may be a visit recorded here and can stand beside it as a bill. */
  nearBills: number;
  /** How many lines are no rows, by why. */
  skipped: Partial<Record<SheetSkip, number>>;
  /** Recorded here, and not in the file. */
  leftOut: SessionsLeftOut;
  counts: Record<RowPlan | 'refused' | 'waiting', number>;
};
/** A site to be made as the file names it, in a network as it is named there or by the person. */
export type SheetSite = { name: string; network: string };
/** `answers`: `null` where nothing was said yet, and what was said of such a sheet before holds. `allRefused`: every row that is refused is told, not only the first. */
export type SheetAsked = { answers: readonly SheetAnswer[] | null; sites: readonly SheetSite[]; allRefused?: boolean };
export type SheetTold =
  | { ok: true; preview: SheetPreview; taken?: number /** Rows that are still to be taken. */; left?: number }
  | { ok: false; refused: SheetRefused | { code: 'too_many_visits'; where: null } };

/**
 * Reads a spreadsheet and sets it against the ledger. Changes nothing but, with `take`, what is taken: sites that were asked for, and the next rows. What was read is held for the
 * parts that follow: a file of a hundred thousand rows is read once.
 */
export async function importSheet(who: SignedIn, bytes: Uint8Array, asked: SheetAsked, take: boolean): Promise<SheetTold> {
  if (take) await makeSites(who, asked.sites);
  const importId = idOf(who.householdId, `sheet ${createHash('sha256').update(bytes).digest('hex')}`);
  const key = `${importId} ${JSON.stringify(asked.answers)}`;
  const kept = take && asked.sites.length === 0 ? held.of(who.personId, key) : null;
  const made = kept ?? (await prepare(who, bytes, asked, importId));
  if ('refused' in made) return { ok: false, refused: made.refused };
  // Answers that were remembered are sent back as said: the same file then.
  held.keep(who.personId, [key, `${importId} ${JSON.stringify(made.answers)}`], made);
  const refused = asked.allRefused ? made.read.refused.length : SHOWN.refused;
  if (!take) return { ok: true, preview: previewOf(who, made, refused) };
  if (made.read.dialect.headingLine !== null && !made.begun) {
    const headings = made.read.columns.map((c) => c.heading);
    await keepHabit(who, headings, made.answers);
  }
  const ready = made.read.accepted.filter((r) => ['new', 'merge'].includes(made.plan.get(r.line) as string));
  // Whether a visit stands again is asked of its figures as it is written.
  const comesBack = ready.some((r) => made.stands.get(made.visitOf.get(r.line) as string) === 'withdrawn');
  const taken = await takeRows(who, made, ready.slice(0, ROWS_AT_ONCE[made.begun && !comesBack ? 'next' : 'first']));
  made.begun = true;
  return { ok: true, preview: previewOf(who, made, refused), taken, left: ready.length - taken };
}

/** A sheet as it was read and set against the ledger. */
type Prepared = {
  importId: string;
  read: SheetImport;
  answers: readonly SheetAnswer[];
  remembered: boolean;
  /** Its first part was taken in: what was said of it is remembered. */
  begun: boolean;
  known: KnownHere;
  visitOf: ReadonlyMap<number, string>;
  stands: ReadonlyMap<string, RowStands>;
  near: ReadonlyMap<number, { visitId: string; n: number }>;
  visits: ReadonlyMap<string, Visit>;
  plan: Map<number, RowPlan>;
  leftOut: SessionsLeftOut;
};
const held = new HeldReads<Prepared>();

async function prepare(
  who: SignedIn,
  bytes: Uint8Array,
  asked: SheetAsked,
  importId: string,
): Promise<Prepared | { refused: SheetRefused | { code: 'too_many_visits'; where: null } }> {
  const known = await worldOf(who);
  const settings = { zone: who.zone, now: now(), currency: who.currency };
  const reading = (given: readonly SheetAnswer[]) => unhurried(readingSheet(bytes, known.world, settings, given));
  const plain = await reading(asked.answers ?? []);
  if (!plain.ok) return { refused: { code: plain.code, where: plain.where } };
  const headings = plain.columns.map((c) => c.heading);
  const before = asked.answers === null && plain.dialect.headingLine !== null ? await habitOf(who, headings) : [];
  const asksWith = async (given: readonly SheetAnswer[]) => {
    const again = await reading(given);
    return again.ok ? again.asks : [];
  };
  const remembered = before.length > 0 ? await answersAsked(before, asksWith) : [];
  const answers = asked.answers ?? remembered;
  const read = remembered.length > 0 ? await reading(remembered) : plain;
  if (!read.ok) return { refused: { code: read.code, where: read.where } };
  const { visitOf, stands } = await rowVisits(who, read.accepted, (row) => eventsOfRow(known, row, importId)?.events ?? null);
  const there = new Set(read.accepted.flatMap((r) => (['there', 'hidden'].includes(stands.get(visitOf.get(r.line) as string) ?? '') ? [r.line] : [])));
  const own = new Set(visitOf.values());
  const recorded = await nearVisits(
    who,
    read.accepted.filter((r) => !there.has(r.line)),
    own,
  );
  if (!recorded) return { refused: { code: 'too_many_visits', where: null } };
  const { near, may, visits } = recorded;
  const times = new Map<string, number>();
  for (const r of read.accepted) {
    const beside = near.get(r.line);
    const visit = beside && visits.get(beside.visitId);
    if (!visit) continue;
    // Of rows that say the same each is one bill.
    const said = saidOfBill(rowBill(r, null, importId));
    const n = (times.get(`${visit.id} ${said}`) ?? 0) + 1;
    times.set(`${visit.id} ${said}`, n);
    const before = idOf(who.householdId, besideName(visitOf.get(r.line) as string));
    const bills = allBills(visit);
    if (bills.some((b) => b.id === before) || bills.filter((b) => saidOfBill(b.payload) === said).length >= n) there.add(r.line);
  }
  const written = read.columns.some((c) => c.field === 'network');
  const site = (row: SheetRow) => {
    const all = known.sitesOf(row.site);
    const open = all.filter((s) => !s.archived);
    if (all.length === 0) return null;
    return open.length > 1 && !(written && open.some((s) => row.network !== null && fold(s.network) === fold(row.network))) ? 'several' : 'here';
  };
  const plan = await unhurried(planRows(read.accepted, read.asks, answers, { site, there, near: new Set(near.keys()) }));
  // A row that somebody said to be another visit tells nothing of the one recorded.
  const told = new Set([...may].flatMap(([line, refs]) => (plan.get(line) === 'new' ? [] : refs.map(([visitId, n]) => `${visitId} ${n}`))));
  const leftOut = await sessionsLeftOut(who, {
    starts: read.accepted.map((r) => r.start),
    networks: known.networksOf(read.accepted),
    tells: (visitId, n) => own.has(visitId) || told.has(`${visitId} ${n}`),
  });
  return { importId, read, answers, remembered: remembered.length > 0, begun: false, known, visitOf, stands, near, visits, plan, leftOut };
}

/** What the bill of a row is called by, beside a recorded visit. */
const besideName = (visitId: string): string => `beside ${visitId}`;
/** What tells one bill of a row from another, in whichever file it stood. */
const saidOfBill = (payload: object): string => {
  const { sheet, amount, currency, kWh = null } = payload as { sheet?: { start?: number; end?: number | null } } & Record<string, unknown>;
  return sheet ? JSON.stringify([amount, currency, kWh, sheet.start, sheet.end]) : '';
};

/** What a row is written as, and in which zone; `null` while its site is not known. */
function eventsOfRow(known: Prepared['known'], row: SheetRow, importId: string): { zone: string; events: TypedEvent[] } | null {
  const site = known.siteOf(row.site, row.network);
  if (!site) return null;
  // Only a row that tells no time stands at its day's noon.
  const noon = row.startPrecision === 'day' ? localInstant(localDay(row.start, site.zone), '12:00', site.zone) : null;
  const refs = { siteId: site.id, stallId: known.stallOf(site.id, row.stall), carId: known.carOf(row.car) };
  return { zone: site.zone, events: rowEvents(row, refs, noon ?? row.start, importId) };
}

/** Writes rows of a sheet: visits of their own, bills beside recorded ones. @returns how many came in */
async function takeRows(who: SignedIn, p: Prepared, part: readonly SheetRow[]): Promise<number> {
  const { importId, plan, near, visits, visitOf, stands, known } = p;
  const back = part.filter((r) => stands.get(visitOf.get(r.line) as string) === 'withdrawn').map((r) => visitOf.get(r.line) as string);
  const standingBefore = back.length > 0 ? await eventsOfVisits(who.householdId, back) : new Map<string, StoredEvent[]>();
  const beside: BillBeside[] = [];
  const own: SheetRow[] = [];
  for (const row of part) {
    const merged = plan.get(row.line) === 'merge' ? near.get(row.line) : undefined;
    const visit = merged && visits.get(merged.visitId);
    if (!visit) {
      own.push(row);
      continue;
    }
    const session = visit.attempts.find((a) => a.n === merged.n)?.opened.id ?? null;
    beside.push({ name: besideName(visitOf.get(row.line) as string), visit, payload: rowBill(row, session, importId), at: row.end ?? row.start });
  }
  const bills = await billsInto(who, beside, importId);
  // Of thousands of rows each is written out as its turn comes.
  function* written(): Generator<StoredEvent[]> {
    for (const row of own) {
      const visitId = visitOf.get(row.line) as string;
      const before = standingBefore.get(visitId);
      if (before) {
        yield restored(who, visitId, before, importId);
        continue;
      }
      const made = eventsOfRow(known, row, importId);
      if (!made) continue;
      yield made.events.map(({ kind, at, precision, payload }, i) => {
        const id = rowEventId(visitId, i, kind);
        return importedEvent(who, { id, visitId, zone: made.zone, seq: i + 1, kind, payload: payload as Record<string, unknown>, importId, at, precision });
      });
    }
    yield* grouped(bills, (e) => e.visitId).values();
  }
  // Whether a visit stands again is asked of its figures at once; those of new ones wait until somebody reads them.
  const { refused } = await sendVisits(who, written(), back.length > 0 || part.length <= FEW ? 'now' : 'later');
  let taken = 0;
  for (const row of part) {
    const into = plan.get(row.line) === 'merge' ? near.get(row.line)?.visitId : visitOf.get(row.line);
    if (refused.has(into as string)) continue;
    plan.set(row.line, 'there');
    taken += 1;
  }
  return taken;
}

function previewOf(who: SignedIn, p: Prepared, mostRefused: number): SheetPreview {
  const { read, plan, near, stands, visits, visitOf } = p;
  const counts = {
    new: 0,
    there: 0,
    near: 0,
    merge: 0,
    twice: 0,
    same: 0,
    place: 0,
    which: 0,
    refund: 0,
    nothing: 0,
    too_long: 0,
    refused: read.refused.length,
    waiting: read.waiting.length,
  };
  for (const is of plan.values()) counts[is] += 1;
  // What asks for a word comes first.
  const rank = (r: SheetRow) => {
    const is = plan.get(r.line) as RowPlan;
    return is === 'near' || is === 'twice' || is === 'merge' ? 0 : is === 'new' ? 2 : 1;
  };
  // Rows stand as they do in the file. Of a hundred thousand, asked a hundred times, no more are looked at than are shown.
  const shown: SheetRow[] = [];
  for (const n of [0, 1, 2])
    for (const r of read.accepted) {
      if (shown.length === SHOWN.rows) break;
      if (rank(r) === n) shown.push(r);
    }
  const rows = shown.map((r): SheetLine => {
    const { line, start, startPrecision, site, stall, kWh, amount, currency, warnings } = r;
    const is = plan.get(line) as RowPlan;
    const own = visitOf.get(line) as string;
    const beside = near.get(line);
    const visit = beside && visits.get(beside.visitId);
    const noted = visit && is !== 'new' ? paidFor(visit, beside.n, 'person') : [];
    const visitId = beside?.visitId ?? (is !== 'there' || stands.get(own) === 'hidden' ? null : own);
    const zone = p.known.siteOf(r.site, r.network)?.zone ?? who.zone;
    return { line, start, startPrecision, site, stall, kWh, amount, currency, warnings, zone, plan: is, visitId, bills: rowBills(r), noted };
  });
  const { dialect, columns, skipped, refused, asks, proposed, first } = read;
  return {
    importId: p.importId,
    answers: p.answers,
    remembered: p.remembered,
    dialect,
    columns,
    skipped: Object.fromEntries([...grouped(skipped, (s) => s.code)].map(([code, all]) => [code, all.length])),
    refused: refused.slice(0, mostRefused),
    asks,
    proposed,
    first,
    networks: p.known.world.networks,
    rows,
    accepted: read.accepted.length,
    nearBills: read.accepted.filter((r) => plan.get(r.line) === 'near' && rowBills(r)).length,
    leftOut: p.leftOut,
    counts,
  };
}

/** What was read of sheets is forgotten: what was taken back can come in again. */
export const forgetSheets = (): void => held.forget();

/** Makes the sites that a person asked for, and their networks where these are not known. */
async function makeSites(who: SignedIn, sites: readonly SheetSite[]): Promise<void> {
  if (sites.length === 0) return;
  const { sitesOf, siteIds } = await worldOf(who);
  const networks = new NetworksByName(who, await recordsOf(who.householdId, 'network'));
  const records: PlaceItem[] = [];
  for (const { name, network } of sites) {
    if (sitesOf(name).some((s) => s.networkId === networks.idOf(network))) continue;
    const { id: networkId, items } = networks.of(network);
    const own = idOf(who.householdId, `site ${networkId} ${fold(name)}`);
    // What was made of that name and is called otherwise by now is another place.
    const id = siteIds.has(own) ? idOf(who.householdId, `site ${networkId} ${fold(name)} ${siteIds.size}`) : own;
    records.push(...items, { type: 'site', id, baseRev: 0, archived: false, fields: { ...blankFields('site'), networkId, name, zone: who.zone } });
  }
  if (records.length > 0) await takeBatch(who, { items: records.map((record) => ({ type: 'record', record })) });
}
