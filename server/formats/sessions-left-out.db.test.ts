import { v7 } from 'uuid';
import { cdrOf } from '@/core/formats/fixtures/cdr';
import type { Step } from '@/core/visit/fixtures/story';
import type { Member } from '../accounts/who';
import { pool } from '../db/pool';
import { addPlace, addSomebody, addVisit, CHARGED, describeWithDatabase, newHousehold, type Place, signedIn } from '../fixtures/household';
import { markVisits } from '../visits/mark-visits';
import { visitPage } from '../visits/visit-page';
import { previewCdrs, takeCdrs } from './import-cdrs';
import { importSheet } from './import-sheet';
import { importedEvent, sendImported } from './imported-events';
import { sessionsLeftOut } from './sessions-left-out';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

const DAY = 86_400_000;
const FIRST = Date.UTC(2025, 9, 1, 12);
/** Power came 50 s after pulling in. */
const began = (at: number) => at + 50_000;
const cdrs = (...days: number[]) =>
  new TextEncoder().encode(
    JSON.stringify(
      days.map((d) => {
        const [start, end] = [began(FIRST + d * DAY), FIRST + d * DAY + 905_000];
        const charging_periods = [{ start_date_time: new Date(start).toISOString(), dimensions: [{ type: 'ENERGY', volume: 12.5 }] }];
        return cdrOf({ start, end }, { id: `C-${d}`, charging_periods, total_energy: 12.5 });
      }),
    ),
  );
const rows = (...days: number[]) =>
  new TextEncoder().encode(
    ['Start;Station;Energy (kWh);Cost (EUR)', ...days.map((d) => `${new Date(began(FIRST + d * DAY)).toISOString()};Lipa Barn;12,5;6,25`)].join('\n'),
  );
const leftOutOfCdrs = async (who: Member, file: Uint8Array) => {
  const told = await previewCdrs(who, file);
  if (!told.ok) throw new Error();
  return told.preview.leftOut;
};
const leftOutOfSheet = async (who: Member, file: Uint8Array, answers: Parameters<typeof importSheet>[2]['answers'] = []) => {
  const told = await importSheet(signedIn(who), file, { answers, sites: [] }, false);
  if (!told.ok) throw new Error();
  return told.preview.leftOut;
};
const imported = (who: Member, visitId: string, kind: 'withdrawal' | 'bill', payload: Record<string, unknown>) =>
  sendImported(who, [importedEvent(who, { id: v7(), visitId, zone: 'UTC', seq: 900, kind, payload, importId: v7() })]);

describeWithDatabase('sessions that a file leaves out', () => {
  let who: Member;
  let place: Place;
  /** On the first, the fifteenth and the last day of a month. */
  let visits: string[];
  beforeEach(async () => {
    who = await newHousehold();
    place = await addPlace(who);
    visits = [];
    for (const d of [0, 14, 30]) visits.push(await addVisit(who, place, FIRST + d * DAY));
  });

  it.each([
    ['CDRs', cdrs, leftOutOfCdrs],
    ['a sheet', rows, leftOutOfSheet],
  ])('of %s: one in the middle of the month is told, with what is noted for it', async (_, file, leftOut) => {
    const middle = visits[1] as string;
    const left = { visitId: middle, n: 1, site: 'Lipa Barn', stall: '1', at: began(FIRST + 14 * DAY), dayOnly: false, zone: 'UTC', paid: [] };
    expect(await leftOut(who, file(0, 30))).toEqual({ shown: [left], more: 0 });
    expect(await leftOut(who, file(0, 14, 30))).toEqual({ shown: [], more: 0 });
    // Nothing is said of what was before the file's time, or after it.
    expect(await leftOut(who, file(14))).toEqual({ shown: [], more: 0 });
    await imported(who, middle, 'bill', { sessions: [], amount: '6.25', currency: 'EUR', state: 'charged' });
    await imported(who, middle, 'bill', { sessions: [], amount: '1', currency: 'EUR', state: 'refunded' });
    expect(await leftOut(who, file(0, 30))).toMatchObject({ shown: [{ visitId: middle, paid: [{ amount: '6.25', currency: 'EUR' }] }] });
  });

  it.each([
    ['CDRs', cdrs, leftOutOfCdrs],
    ['a sheet', rows, leftOutOfSheet],
  ])('of %s: none at another network, withdrawn, without power, or private to somebody else', async (_, file, leftOut) => {
    const elsewhere = await addPlace(who, { network: 'Otterbrook', site: 'Otterbrook Quay' });
    await addVisit(who, elsewhere, FIRST + 3 * DAY);
    await addVisit(who, place, FIRST + 4 * DAY, [[990, 'pulled_out', { reason: 'gave_up' }]]);
    const gone = await addVisit(who, place, FIRST + 5 * DAY);
    await imported(who, gone, 'withdrawal', { target: gone });
    const driver = await addSomebody(who.householdId, 'driver');
    const theirs = await addVisit(driver, place, FIRST + 6 * DAY);
    expect((await leftOut(who, file(0, 14, 30))).shown.map((s) => s.visitId)).toEqual([theirs]);
    expect(await markVisits(driver, { ids: [theirs], as: 'private' })).toMatchObject({ ok: true });
    expect((await leftOut(who, file(0, 14, 30))).shown).toEqual([]);
    expect((await leftOut(driver, file(0, 14, 30))).shown.map((s) => s.visitId)).toEqual([theirs]);
    // Another network's file says nothing of these.
    const [other] = JSON.parse(new TextDecoder().decode(cdrs(3))) as { cdr_location: object }[];
    const named = { ...other, cdr_location: { ...other?.cdr_location, name: 'Otterbrook Quay', evse_id: 'X', evse_uid: 'X' } };
    expect(await leftOutOfCdrs(who, new TextEncoder().encode(JSON.stringify([named])))).toEqual({ shown: [], more: 0 });
  });

  it('a CDR that was taken in tells the session that its bill is for, and no more that it might have been of', async () => {
    // A second visit at once, so that it is asked which it is.
    const twin = await addVisit(who, place, FIRST);
    expect((await leftOutOfCdrs(who, cdrs(0, 14, 30))).shown).toEqual([]);
    expect(await takeCdrs(who, cdrs(0, 14, 30), new Map([['SI*BLU*C-0', `${twin} 1`]]))).toMatchObject({ taken: 3 });
    expect((await leftOutOfCdrs(who, cdrs(0, 14, 30))).shown.map((s) => s.visitId)).toEqual([visits[0]]);
  });

  it('a row that is said to be another visit tells nothing of the one recorded; what came of rows is in the file', async () => {
    const file = rows(0, 14, 30);
    const answers = [{ code: 'near', lines: [2], answer: 'new' }];
    expect((await leftOutOfSheet(who, file, answers)).shown.map((s) => s.visitId)).toEqual([visits[0]]);
    await importSheet(signedIn(who), file, { answers, sites: [] }, true);
    const page = await visitPage(who, visits[0] as string);
    expect(page && 'visit' in page && page.visit.withdrawn).toBe(false);
    expect((await leftOutOfSheet(who, file, answers)).shown.map((s) => s.visitId)).toEqual([visits[0]]);
    // Of sites and networks that nobody knows here nothing is said.
    const unknown = new TextEncoder().encode('Start;Station;Energy (kWh)\n2025-10-01 12:00;Nowhere;9,5\n2025-10-31 12:00;Nowhere;9,5');
    expect(await leftOutOfSheet(who, unknown)).toEqual({ shown: [], more: 0 });
  });

  it('a row or a CDR beside a visit says what somebody noted there', async () => {
    const bill = (amount: string, more: object = {}): Step => [960, 'bill', { sessions: [], amount, currency: 'EUR', state: 'charged', ...more }];
    const steps = [...CHARGED, bill('7.10'), bill('1.50', { what: 'parking' }), bill('2', { state: 'refunded' })];
    const billed = await addVisit(who, place, FIRST + 20 * DAY, steps);
    await imported(who, billed, 'bill', { sessions: [], amount: '6.25', currency: 'EUR', state: 'charged', kWh: '12.5' });
    const noted = [{ amount: '7.10', currency: 'EUR' }];
    expect(await previewCdrs(who, cdrs(20))).toMatchObject({ preview: { rows: [{ match: { is: 'paired', where: { visitId: billed } }, noted }] } });
    const row = async (answers: Parameters<typeof importSheet>[2]['answers']) => {
      const told = await importSheet(signedIn(who), rows(20), { answers, sites: [] }, false);
      return told.ok ? told.preview.rows[0] : null;
    };
    expect(await row([])).toMatchObject({ plan: 'near', visitId: billed, noted });
    expect(await row([{ code: 'near', answer: 'new' }])).toMatchObject({ plan: 'new', noted: [] });
  });

  it('is the same in however small portions a ledger is looked through', async () => {
    await addVisit(who, place, FIRST + DAY);
    const file = { starts: [FIRST, FIRST + 30 * DAY], networks: new Set([place.networkId]), tells: (visitId: string) => visitId === visits[2] };
    const all = await sessionsLeftOut(who, file);
    expect(all.shown).toHaveLength(3);
    for (const portion of [1, 2, 3, 4]) expect(await sessionsLeftOut(who, file, portion)).toEqual(all);
  });

  it('no more are shown than anybody reads; the rest is counted', async () => {
    for (let k = 0; k < 101; k++) await addVisit(who, place, FIRST + DAY + k * 3_600_000);
    expect(await leftOutOfCdrs(who, cdrs(0, 30))).toMatchObject({ shown: { length: 100 }, more: 2 });
  });
});
