import { v7 } from 'uuid';
import { END_MARKS, type LedgerFilter } from '@/core/compare/ledger-filter';
import { CARD, KW } from '@/core/visit/fixtures/story';
import { pool } from '../db/pool';
import { addPlace, addVisit, CHARGED, describeWithDatabase, newHousehold, send } from '../fixtures/household';
import { eventsOfVisits } from './event-rows';
import { ledgerPage } from './ledger-query';

const DAY = Date.parse('2025-10-14T12:00:00Z');
const at = (days: number) => DAY + days * 86_400_000;
const bill = (amount: string) => ['bill', { sessions: [], amount, currency: 'EUR', state: 'charged' }] as const;

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

describeWithDatabase('the ledger, narrowed', () => {
  const all: LedgerFilter = { time: 'handshake', mark: END_MARKS[0] };
  it('shows exactly the visits that pass, and what they come to', async () => {
    const who = await newHousehold();
    const here = await addPlace(who, { network: 'Bluebarn', site: 'Lipa Barn' });
    const there = await addPlace(who, { network: 'Otter_brook', site: 'Drava Osier' });
    const paid = await addVisit(who, here, at(0), [...CHARGED, [970, 'pulled_out', { reason: 'enough' }], [980, ...bill('6.25')]]);
    const noBill = await addVisit(who, there, at(1), [...CHARGED, [970, 'note', { text: 'rain, 100% wet' }], [980, 'pulled_out', { reason: 'enough' }]]);
    const open = await addVisit(who, here, at(2), [
      [10, 'plugged'],
      [20, 'means_shown', { meansKind: 'rfid' }],
      [50, 'power_seen', KW],
    ]);
    const gaveUp = await addVisit(who, here, at(3), [
      [10, 'plugged'],
      [20, 'means_shown', CARD],
      [90, 'fault', { code: 'start_error', side: 'network' }],
      [100, 'pulled_out', { reason: 'gave_up' }],
      [200, 'mark', { as: 'business' }],
      [210, 'mark', { as: 'left_out', reason: 'a trial' }],
    ]);
    const shown = async (more: Partial<LedgerFilter>) => (await ledgerPage(who, 'EUR', { ...all, ...more })).rows.map((r) => r.id);
    expect(await shown({})).toEqual([gaveUp, open, noBill, paid]);
    expect(await shown({ since: '2025-10-15' })).toEqual([gaveUp, open, noBill]);
    expect(await shown({ until: '2025-10-15' })).toEqual([noBill, paid]);
    expect(await shown({ since: '2025-10-15', until: '2025-10-15' })).toEqual([noBill]);
    expect(await shown({ means: 'rfid' })).toEqual([open]);
    expect(await shown({ only: 'no_bill' })).toEqual([noBill]);
    expect(await shown({ only: 'open' })).toEqual([open]);
    expect(await shown({ only: 'business' })).toEqual([gaveUp]);
    expect(await shown({ only: 'private' })).toEqual([]);
    expect(await shown({ only: 'left_out' })).toEqual([gaveUp]);
    expect(await shown({ only: 'flagged' })).toEqual([]);
    const odd = await addVisit(who, here, at(4), [...CHARGED, [1000, 'bill', { sessions: [], amount: '5', currency: 'EUR', kWh: '2', state: 'charged' }]]);
    expect(await shown({ only: 'flagged' })).toEqual([odd]);
    expect(await shown({ text: 'drava' })).toEqual([noBill]);
    expect(await shown({ text: 'r_b' })).toEqual([noBill]);
    expect(await shown({ text: '0% w' })).toEqual([noBill]);
    expect(await shown({ text: 'RAIN' })).toEqual([noBill]);
    expect(await shown({ text: 'a%n' })).toEqual([]);
    expect(await shown({ text: "' OR 1=1 -- " })).toEqual([]);
    const note = (await eventsOfVisits(who.householdId, [noBill])).get(noBill)?.find((e) => e.kind === 'note');
    const corrected = { ...note, id: v7(), seq: 100, kind: 'correction', payload: { target: note?.id, set: { text: 'hail' } } };
    expect(await send(who, [{ type: 'event', event: corrected }])).toMatchObject([{ status: 'taken' }]);
    expect([await shown({ text: 'Hail' }), await shown({ text: 'rain' })]).toEqual([[noBill], [noBill]]);
    const { total } = await ledgerPage(who, 'EUR', { ...all, until: '2025-10-15' });
    expect(total).toEqual({ visits: 2, kWh: '25', kWhAtLeast: false, paid: [{ amount: '6.250000', currency: 'EUR' }] });
    const nobody = await newHousehold();
    expect((await ledgerPage(nobody, 'EUR', { ...all, text: 'lipa' })).rows).toEqual([]);
  });
});
