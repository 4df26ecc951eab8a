import type { RowDataPacket } from 'mysql2/promise';
import { cdrOf } from '@/core/formats/fixtures/cdr';
import type { SheetAnswer } from '@/core/formats/sheet-import';
import { deriveVisit, type Visit } from '@/core/visit/derive';
import { payloadProblem } from '@/core/visit/payloads';
import { allBills } from '@/core/visit/told-bills';
import type { SignedIn } from '../accounts/sessions';
import { fromBin, toBin } from '../db/binary-id';
import { pool } from '../db/pool';
import { addPlace, addVisit, describeWithDatabase, newHousehold, signedIn } from '../fixtures/household';
import { eventsOfVisits } from '../visits/event-rows';
import { joinVisits } from '../visits/join-visits';
import { previewCdrs, takeCdrs } from './import-cdrs';
import { importSheet } from './import-sheet';
import { undoBills } from './imported-bills';
import { undoSheet } from './undo-sheet';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));
jest.setTimeout(180_000);

const AT = Date.UTC(2025, 9, 1, 12);
const DAY = 86_400_000;
const at = (ms: number) => new Date(ms).toISOString().slice(0, 16).replace('T', ' ');
const sheet = (...rows: [ms: number, more: string][]) =>
  new TextEncoder().encode(['Start;Station;Energy (kWh);Cost (EUR);Note', ...rows.map(([ms, more]) => `${at(ms)};Lipa Barn;${more}`)].join('\n'));
const cdr = (id: string, start: number, excl_vat: number) => {
  const charging_periods = [{ start_date_time: new Date(start + 50_000).toISOString(), dimensions: [{ type: 'ENERGY', volume: 12.5 }] }];
  return cdrOf({ start: start + 50_000, end: start + 905_000 }, { id, total_energy: 12.5, charging_periods, total_cost: { excl_vat } });
};
const cdrs = (...all: object[]) => new TextEncoder().encode(JSON.stringify(all));
/** Files that tell of the same charges: mended, in another order, once more, or by another hand. */
const FILES = {
  rows: sheet([AT + 5 * DAY, '41,37;23,10;'], [AT + 6 * DAY, '12,5;6,00;wet'], [AT + 60_000, '12,5;6,00;']),
  'rows with a note': sheet([AT + 5 * DAY, '41,37;23,10;later'], [AT + 6 * DAY, '12,5;6,00;wet'], [AT + 60_000, '12,5;6,00;x']),
  'rows mended': sheet([AT + 6 * DAY, '12,5;6,00;wet'], [AT + 5 * DAY, '41,37;23,50;'], [AT + 7 * DAY, '9,5;6,00;wet']),
  'a row twice': sheet([AT + 6 * DAY, '12,5;6,00;wet'], [AT + 6 * DAY, '12,5;6,00;wet']),
  CDRs: cdrs(cdr('C1', AT, 6), cdr('C2', AT + DAY, 7)),
  'CDRs mended': cdrs(cdr('C1', AT, 6.5), cdr('C2', AT + DAY, 7)),
  'one CDR': cdrs(cdr('C2', AT + DAY, 7)),
};
type File = keyof typeof FILES;
const NAMES = Object.keys(FILES) as File[];
const isCdr = (f: File) => f.includes('CDR');
const answers: SheetAnswer[] = [
  { code: 'near', lines: [2, 3, 4], answer: 'merge' },
  { code: 'duplicate', answer: 'different' },
];

async function household(): Promise<SignedIn> {
  const who = await newHousehold();
  const place = await addPlace(who);
  for (const ms of [AT, AT + DAY]) await addVisit(who, place, ms);
  return { ...signedIn(who), zone: 'UTC' };
}
async function take(who: SignedIn, f: File): Promise<void> {
  const answer = isCdr(f) ? await takeCdrs(who, FILES[f], new Map()) : await importSheet(who, FILES[f], { answers, sites: [] }, true);
  if (!answer.ok) throw new Error(f);
}
async function takeBack(who: SignedIn, f: File): Promise<void> {
  const seen = isCdr(f) ? await previewCdrs(who, FILES[f]) : await importSheet(who, FILES[f], { answers, sites: [] }, false);
  if (!seen.ok) throw new Error(f);
  await (isCdr(f) ? undoBills(who, seen.preview.importId) : undoSheet(who, seen.preview.importId));
}
/** The visits that stand. */
async function visitsOf(who: SignedIn): Promise<Visit[]> {
  const [rows] = await pool().query<RowDataPacket[]>('SELECT id FROM visit WHERE household_id = ?', [toBin(who.householdId)]);
  const ids = rows.map((r) => fromBin(r.id));
  const events = await eventsOfVisits(who.householdId, ids);
  return ids.map((id) => deriveVisit(id, events.get(id) ?? [], payloadProblem)).filter((v) => !v.withdrawn);
}
/** What they say: when, their bills, what is noted. */
async function stands(who: SignedIn): Promise<string[]> {
  return (await visitsOf(who))
    .map((v) => JSON.stringify([v.pulledInAt, allBills(v).map((b) => b.payload.amount), v.line.flatMap((e) => (e.kind === 'note' ? [e.payload.text] : []))]))
    .sort();
}

describeWithDatabase('imports taken back and brought in again, in whatever order', () => {
  it('leave what the last would leave by itself, and nothing when all are taken back', async () => {
    const nothing = await stands(await household());
    const alone = new Map<File, string[]>();
    for (const f of NAMES) {
      const who = await household();
      await take(who, f);
      alone.set(f, await stands(who));
    }
    const who = await household();
    // A fixed walk through the files in which each comes after each.
    const walk = Array.from({ length: 3 * NAMES.length }, (_, i) => NAMES[(i * (1 + Math.floor(i / NAMES.length))) % NAMES.length] as File);
    for (const f of walk) {
      await take(who, f);
      await take(who, f);
      expect([f, await stands(who)]).toEqual([f, alone.get(f)]);
      await takeBack(who, f);
      await takeBack(who, f);
      expect([f, await stands(who)]).toEqual([f, nothing]);
    }
    // One over the other, and back the other way.
    for (const f of NAMES) await take(who, f);
    for (const f of NAMES) await takeBack(who, f);
    expect(await stands(who)).toEqual(nothing);
  });
  it('take no recording with them that was joined with a visit of theirs, whichever way round, and through others', async () => {
    const file = sheet([AT + 3_600_000, '3,5;2,00;one'], [AT + 7_200_000, '4,5;2,50;two']);
    for (const chain of [
      ['recorded', 'one'],
      ['one', 'recorded'],
      ['one', 'two', 'recorded'],
      ['recorded', 'one', 'two'],
      ['one', 'recorded', 'two'],
    ]) {
      const who = await household();
      const before = await stands(who);
      const answer = await importSheet(who, file, { answers: [{ code: 'near', lines: [2, 3], answer: 'new' }], sites: [] }, true);
      if (!answer.ok) throw new Error('not read');
      const withThem = await stands(who);
      const byTime = new Map((await visitsOf(who)).map((v) => [v.pulledInAt, v.id]));
      const ids: Record<string, string | undefined> = { recorded: byTime.get(AT), one: byTime.get(AT + 3_600_000), two: byTime.get(AT + 7_200_000) };
      // Each into the one behind it, from the first on.
      for (const [i, from] of chain.entries()) {
        const into = chain[i + 1];
        if (into) expect(await joinVisits(who, { into: ids[into], from: ids[from] })).toMatchObject({ ok: true });
      }
      const { undone } = await undoSheet(who, answer.preview.importId);
      expect([chain, undone, await stands(who)]).toEqual([chain, 2, before]);
      expect(await undoSheet(who, answer.preview.importId)).toEqual({ undone: 0, next: null });
      await importSheet(who, file, { answers: [], sites: [] }, true);
      expect([chain, await stands(who)]).toEqual([chain, withThem]);
    }
  });
  it('take a bill back once, that stands in a recording and in the one into which that was joined', async () => {
    const who = await household();
    const [recorded, day] = (await visitsOf(who)).sort((a, b) => Number(a.pulledInAt) - Number(b.pulledInAt));
    const file = sheet([AT + 60_000, '12,5;6,00;']);
    const answer = await importSheet(who, file, { answers: [{ code: 'near', lines: [2], answer: 'merge' }], sites: [] }, true);
    if (!answer.ok || !recorded?.siteId || !day) throw new Error('not read');
    const stallId = day.attempts[0]?.stallId ?? '';
    const later = await addVisit(who, { networkId: '', siteId: recorded.siteId, stalls: [stallId, stallId] }, AT + 600_000, []);
    expect(await joinVisits(who, { into: later, from: recorded.id })).toMatchObject({ ok: true });
    const bills = async () => (await visitsOf(who)).flatMap((v) => allBills(v).map((b) => b.payload.amount));
    expect(await bills()).toEqual(['6']);
    expect(await undoSheet(who, answer.preview.importId)).toEqual({ undone: 1, next: null });
    expect(await bills()).toEqual([]);
  });
});
