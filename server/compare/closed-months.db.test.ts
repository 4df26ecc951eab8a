import { v7 } from 'uuid';
import type { Member } from '../accounts/who';
import { pool } from '../db/pool';
import { addPlace, addSomebody, addVisit, asRecords, CHARGED, describeWithDatabase, newHousehold, type Place, send } from '../fixtures/household';
import { markVisits } from '../visits/mark-visits';
import { closedMonths, closeMonth } from './closed-months';
import { openList } from './open-list';
import { statementPage } from './statement-page';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

const bill = (amount: string, currency = 'EUR') => [1000, 'bill', { sessions: [], amount, currency, state: 'charged', payee: 'Saltmarsh' }] as const;
const as = (who: Member) => ({ ...who, zone: 'UTC', currency: 'EUR' }) as unknown as Parameters<typeof statementPage>[0];

describeWithDatabase('the books of a month', () => {
  let ines: Member;
  let tone: Member;
  let place: Place;
  let first: string;
  let his: string;
  beforeEach(async () => {
    ines = await newHousehold();
    tone = await addSomebody(ines.householdId, 'driver');
    place = await addPlace(ines);
    first = await addVisit(ines, place, Date.UTC(2025, 8, 2, 12), [...CHARGED, [...bill('5.00')]]);
    his = await addVisit(tone, place, Date.UTC(2025, 8, 20, 12), [...CHARGED, [...bill('7.00')]]);
    await markVisits(tone, { ids: [his], as: 'private' });
  }, 30_000);
  const page = (who: Member, of = '2025-09') => statementPage(as(who), of);

  it('are closed by the owner alone, once the month is over, once and for good', async () => {
    expect((await page(ines)).canClose).toBe('2025-09');
    expect((await page(tone)).canClose).toBeNull();
    expect(await closeMonth({ ...tone, zone: 'UTC' }, '2025-09')).toBe('Only the owner closes the books.');
    expect(await closeMonth({ ...ines, zone: 'UTC' }, '2999-01')).toBe('A month is closed once it is over.');
    const both = await Promise.all([closeMonth({ ...ines, zone: 'UTC' }, '2025-09'), closeMonth({ ...ines, zone: 'UTC' }, '2025-09')]);
    expect(both).toEqual([null, null]);
    const [kept] = await closedMonths(ines);
    await addVisit(ines, place, Date.UTC(2025, 8, 25), [...CHARGED, [...bill('9.00')]]);
    expect(await closeMonth({ ...ines, zone: 'UTC' }, '2025-09')).toBeNull();
    expect(await closedMonths(ines)).toEqual([kept]);
    expect(await page(ines)).toMatchObject({ canClose: null, closed: [{ month: '2025-09', by: 'test' }] });
    // Of an empty month there is nothing to close.
    expect((await page(ines, '2025-08')).canClose).toBeNull();
  });
  it('stay as they were closed; what came, went or was corrected since is told as a change', async () => {
    await closeMonth({ ...ines, zone: 'UTC' }, '2025-09');
    expect((await page(ines)).changes).toEqual([]);
    const later = await addVisit(ines, place, Date.UTC(2025, 8, 25), [...CHARGED, [...bill('9.00')]]);
    await addVisit(ines, place, Date.UTC(2025, 9, 1), [...CHARGED, [...bill('3.00')]]);
    await markVisits(ines, { ids: [first], as: 'business' });
    const p = await page(ines);
    expect(p.statement.sums).toMatchObject([{ paid: '12', bills: 2 }]);
    expect(p.changes.map((c) => [c.visitId, c.what, c.by])).toEqual([
      [first, ['use business, was not said'], []],
      [later, ['came later: €9.00'], [{ currency: 'EUR', amount: '9' }]],
    ]);
    // The year has the closed month as it was closed, and the open one as it is.
    const year = await page(ines, '2025');
    expect(year.statement.sums).toMatchObject([{ paid: '15', bills: 3 }]);
    expect([year.closed.length, year.changes.length, year.canClose]).toEqual([1, 2, null]);
  });
  it('tell of what is private car, kWh and money alone, made so before or after; its driver reads all of it', async () => {
    await closeMonth({ ...ines, zone: 'UTC' }, '2025-09');
    await markVisits(ines, { ids: [first], as: 'private' });
    const told = async (who: Member) => (await page(who)).statement.rows.map((r) => [r.visitId, r.place, r.bills[0]?.payee, r.bills[0]?.amount]);
    expect(await told(ines)).toEqual([
      [first, 'Lipa Barn', 'Saltmarsh', '5.00'],
      [his, 'private', null, '7.00'],
    ]);
    expect(await told(tone)).toEqual([
      [first, 'private', null, '5.00'],
      [his, 'Lipa Barn', null, '7.00'],
    ]);
    const out = JSON.stringify(await closedMonths(tone));
    expect(out).not.toContain('Lipa Barn');
    expect((await page(ines)).changes.map((c) => c.what)).toEqual([['use private, was not said']]);
    expect((await page(tone)).changes.map((c) => [c.place, c.hidden])).toEqual([['private', true]]);
  });
  it('of another household are not known here', async () => {
    await closeMonth({ ...ines, zone: 'UTC' }, '2025-09');
    expect(await closedMonths(await newHousehold())).toEqual([]);
  });
  it('come to one sum in the household’s currency where rates are noted for every day, and to none where one is missing', async () => {
    expect((await page(ines)).inOne).toBeNull();
    await addVisit(ines, place, Date.UTC(2025, 8, 25), [...CHARGED, [...bill('10.00', 'CHF')]]);
    expect((await page(ines)).inOne).toEqual({ sum: null, missing: { currency: 'CHF', day: '2025-09-25' }, into: 'EUR' });
    const fields = { currency: 'CHF', into: 'EUR', rate: '0.95', on: '2025-09-24' };
    await send(ines, asRecords([{ type: 'rate', id: v7(), baseRev: 0, fields }]));
    expect((await page(ines)).inOne).toMatchObject({ sum: '21.50', rates: [fields], into: 'EUR' });
  });
  it('what is open is one list over all time, without what is private to others', async () => {
    const none = await addVisit(ines, place, Date.UTC(2024, 3, 1), CHARGED);
    await addVisit(tone, place, Date.UTC(2024, 3, 2), CHARGED);
    const [older] = (await openList(as(ines))).items;
    expect(older).toMatchObject({ visitId: none, kind: 'no_bill', since: '2024-04-01', place: 'Lipa Barn' });
    expect((await openList(as(ines))).items).toHaveLength(2);
    await markVisits(ines, { ids: [none], as: 'private' });
    expect((await openList(as(tone))).items).toHaveLength(1);
    // A price that makes another sum opens the bill that it does not make.
    const price = { type: 'tariff', id: v7(), baseRev: 0, fields: { networkId: place.networkId, currency: 'EUR', perKWh: '0.4', validFrom: '2025-01-01' } };
    await send(ines, asRecords([price]));
    expect((await openList(as(tone))).items.map((i) => [i.kind, i.what])).toContainEqual(['off', '€2.00 over the price on file, not looked into']);
    expect((await openList(as(await newHousehold()))).items).toEqual([]);
  });
});
