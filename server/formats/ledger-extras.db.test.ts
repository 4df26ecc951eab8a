import { v7 } from 'uuid';
import { closedMonths, closeMonth } from '../compare/closed-months';
import { savedViews, saveView } from '../compare/saved-views';
import { putOnWatch, watchesOf } from '../compare/watches';
import { pool } from '../db/pool';
import { addPlace, addSomebody, addVisit, CHARGED, describeWithDatabase, newHousehold } from '../fixtures/household';
import { type LedgerAsk, takeLedger } from './ledger-in';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

const NOTHING = { people: {}, theirs: {}, records: [], events: [], watches: [], views: [], closed: [] };
const DAY = Date.UTC(2025, 9, 1, 12);
const view = (name: string, address: string, id = v7()) => ({ id, name, address, savedAt: DAY });
/** Looked at and taken in: what is told is the same, and what is told the second time of taking in. */
async function brought(who: Awaited<ReturnType<typeof newHousehold>>, some: Partial<LedgerAsk>) {
  const [seen, taken] = [await takeLedger(who, { ...NOTHING, ...some }, false), await takeLedger(who, { ...NOTHING, ...some }, true)];
  expect(seen).toEqual(taken);
  return taken;
}

describeWithDatabase('comparisons, pairs on watch and closed months of a ledger', () => {
  it('a comparison of one name or id that asks something else is told, stays, and is the file’s once that is chosen', async () => {
    const who = await newHousehold();
    const id = v7();
    await saveView(who, { id, name: 'Café', address: '?by=site' });
    const other = view('Cafe', '?by=hour');
    const renamed = view('Coffee', '?by=site', id);
    const told = await brought(who, { views: [other, renamed, view('café', '?by=means'), { ...view('Café', '?by=site'), id: v7() }] });
    const here = { name: 'Café', address: '?by=site' };
    expect([told.taken.view, told.already, told.differs]).toEqual([
      0,
      1,
      [
        { kind: 'view', id: other.id, what: 'Café', here, file: { name: 'Cafe', address: '?by=hour' } },
        { kind: 'view', id, what: 'Café', here, file: { name: 'Coffee', address: '?by=site' } },
        expect.objectContaining({ kind: 'view', file: { name: 'café', address: '?by=means' } }),
      ],
    ]);
    expect(await savedViews(who.householdId)).toEqual([{ id, ...here }]);
    expect((await takeLedger(who, { ...NOTHING, views: [renamed], theirs: { [id]: ['whole'] } }, true)).taken.view).toBe(1);
    expect(await savedViews(who.householdId)).toEqual([{ id, name: 'Coffee', address: '?by=site' }]);
  });
  it('one that is odd costs no other: half a character, a zero, the same twice', async () => {
    const who = await newHousehold();
    const pair = { by: 'model', b: 'Twin 300', figure: 'waiting', since: DAY, endedAt: null };
    const watches = ['\ud800', 'a\u0000b', '😀'.repeat(40)].map((a) => ({ id: v7(), ...pair, a }));
    const views = ['\ud800', 'a\u0000b', '😀'.repeat(30), 'plain', 'plain', 'plain '].map((name) => view(name, '?by=site'));
    const told = await brought(who, { views, watches });
    expect([told.refused, await savedViews(who.householdId).then((all) => all.some((v) => v.name === 'plain'))]).toEqual([[], true]);
    const again = await takeLedger(who, { ...NOTHING, views, watches }, true);
    expect([again.taken.view, again.taken.watch, again.refused]).toEqual([0, 0, []]);
  });
  it('what finds no room is told before it comes in', async () => {
    const who = await newHousehold();
    const many = Array.from({ length: 43 }, (_, i) => view(`No ${i}`, '?by=site'));
    const pairs = Array.from({ length: 8 }, (_, i) => ({
      id: v7(),
      by: 'site',
      a: v7(),
      b: v7(),
      figure: 'waiting',
      since: DAY,
      endedAt: i === 0 ? DAY : null,
    }));
    const seen = await takeLedger(who, { ...NOTHING, views: many, watches: pairs }, false);
    expect([seen.taken.view, seen.taken.watch, seen.refused.length]).toEqual([40, 7, 4]);
    expect(await savedViews(who.householdId)).toEqual([]);
    expect(await takeLedger(who, { ...NOTHING, views: many, watches: pairs }, true)).toEqual(seen);
    expect(await watchesOf(who.householdId)).toHaveLength(6);
  });
  it('a pair is on watch once, and one that ended elsewhere ends here where that is chosen', async () => {
    const who = await newHousehold();
    const pair = { by: 'site' as const, a: '0199aaaa-0000-7000-8000-000000000001', b: '0199aaaa-0000-7000-8000-000000000002', figure: 'waiting' as const };
    const id = v7();
    await putOnWatch(who, { id, ...pair });
    const open = { id, ...pair, since: DAY, endedAt: null };
    expect((await brought(who, { watches: [open, { ...open, id: v7() }] })).already).toBe(2);
    const ended = { ...open, endedAt: DAY + 5 };
    expect((await brought(who, { watches: [ended] })).differs).toEqual([
      { kind: 'watch', id, what: 'Two sites on watch for who gives power sooner', here: { endedAt: null }, file: { endedAt: DAY + 5 } },
    ]);
    expect(await watchesOf(who.householdId)).toHaveLength(1);
    expect((await takeLedger(who, { ...NOTHING, watches: [ended], theirs: { [id]: ['whole'] } }, true)).taken.watch).toBe(1);
    expect(await watchesOf(who.householdId)).toEqual([]);
  });
  it('people are those of here: in a pair of drivers, in a comparison of one of them; of whom it was not said, that is refused', async () => {
    const who = await newHousehold();
    const tone = await addSomebody(who.householdId, 'driver');
    const [a, b, stranger] = [v7(), v7(), v7()];
    const people = { [a]: who.personId, [b]: tone.personId };
    const watch = { id: v7(), by: 'driver', a, b, figure: 'first_try', since: DAY, endedAt: null };
    const told = await takeLedger(
      who,
      {
        ...NOTHING,
        people,
        watches: [watch, { ...watch, id: v7(), b: stranger }],
        views: [view('Tone', `?driver=${b}`), view('A stranger', `?driver=${stranger}`)],
      },
      true,
    );
    expect([told.taken.watch, told.taken.view, told.refused.map((r) => [r.kind, r.path])]).toEqual([
      1,
      1,
      [
        ['watch', 'a'],
        ['view', 'address'],
      ],
    ]);
    const [put] = await watchesOf(who.householdId);
    expect([put?.a, put?.b]).toEqual([who.personId, tone.personId].sort());
    expect((await savedViews(who.householdId))[0]?.address).toBe(`?driver=${tone.personId}`);
  });
  it('a month that is not over is not closed by a file; one that was closed with other figures is told and stays', async () => {
    const who = await newHousehold();
    const visitId = await addVisit(who, await addPlace(who), DAY, [
      ...CHARGED,
      [400, 'bill', { amount: '12.50', currency: 'EUR', state: 'charged', sessions: [] }],
    ]);
    expect(await closeMonth({ ...who, zone: 'UTC' }, '2025-10')).toBeNull();
    const [month] = await closedMonths(who);
    if (!month) throw new Error('no month');
    const otherwise = { ...month, rows: month.rows.map((r) => ({ ...r, bills: r.bills.map((x) => ({ ...x, amount: '13.50' })) })) };
    expect(month.rows.map((r) => [r.visitId, r.bills.length])).toEqual([[visitId, 1]]);
    const told = await brought(who, { closed: [{ ...month, month: '2099-01' }, { ...month, closedAt: DAY }, otherwise], theirs: { '2025-10': ['whole'] } });
    expect([told.taken.closed, told.already, told.refused.map((r) => [r.id, r.path, r.reason]), told.differs]).toEqual([
      0,
      1,
      [['2099-01', 'month', 'is not over yet']],
      [{ kind: 'closed', id: '2025-10', what: '2025-10', here: { closedAt: month.closedAt }, file: { closedAt: month.closedAt, differ: 1 } }],
    ]);
    expect(await closedMonths(who)).toEqual([month]);
  });
});
