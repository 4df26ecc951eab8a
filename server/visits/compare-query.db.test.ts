import { v7 } from 'uuid';
import { readLedgerFilter } from '@/core/compare/ledger-filter';
import { DEFINITION_VERSION } from '@/core/visit/definitions-version';
import { deleteHousehold } from '../accounts/forget';
import type { Member } from '../accounts/who';
import { toBin } from '../db/binary-id';
import { pool } from '../db/pool';
import { addPlace, addSomebody, addVisit, asRecords, describeWithDatabase, newHousehold, type Place, send } from '../fixtures/household';
import { compareRows } from './compare-query';
import { markVisits } from './mark-visits';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));
const everything = readLedgerFilter(() => null);

describeWithDatabase('what a comparison is worked out of', () => {
  let who: Member;
  let place: Place;
  let first: string;
  const rows = (of = who, filter = everything, currency = 'EUR') =>
    compareRows(of, currency, filter, { visit: ['leftOut', 'ended'], attempt: ['outcome', 'n'] });
  beforeEach(async () => {
    who = await newHousehold();
    place = await addPlace(who);
    first = await addVisit(who, place, Date.UTC(2025, 5, 1));
  });

  it('is read once, until something is written', async () => {
    const before = await rows();
    expect(before.map((r) => [r.siteId, r.stallId, r.attempts.map((a) => a.outcome), r.workedAt])).toEqual([
      [place.siteId, place.stalls[0], ['power'], [place.stalls[0]]],
    ]);
    expect(await rows()).toBe(before);
    await addVisit(who, place, Date.UTC(2025, 5, 2));
    expect(await rows()).toHaveLength(2);
    expect(before).toHaveLength(1);
    const [again] = [await rows()];
    // A mark of one visit, a record that visits are derived by.
    await markVisits(who, { ids: [first], as: 'left_out', reason: 'a test' });
    expect((await rows()).map((r) => r.leftOut).sort()).toEqual([false, true]);
    const other = await addPlace(who, { network: 'Lumo', site: 'Vrba' });
    const [taken] = await send(
      who,
      asRecords([{ type: 'site', id: place.siteId, baseRev: 9, fields: { networkId: other.networkId, name: 'Lipa Barn', zone: 'UTC' } }]),
    );
    expect(taken?.status).toBe('taken');
    expect((await rows()).map((r) => r.networkId)).toEqual([other.networkId, other.networkId]);
    expect(again?.map((r) => r.networkId)).toEqual([place.networkId, place.networkId]);
  });
  it('is of one question: filter, figures, household and who asks', async () => {
    const all = await rows();
    const none = await rows(who, { ...everything, until: '2025-05-31' });
    expect([all.length, none.length]).toEqual([1, 0]);
    expect(await compareRows(who, 'EUR', everything, { visit: ['leftOut'], attempt: ['outcome'] })).not.toBe(all);
    expect(await rows(await newHousehold())).toEqual([]);
    const second = await addSomebody(who.householdId, 'driver');
    await markVisits(who, { ids: [first], as: 'private' });
    expect([(await rows()).length, (await rows(second)).length, (await rows()).length]).toEqual([1, 0, 1]);
  });
  it('is read anew after a restore, and of a household that is gone', async () => {
    const before = await rows();
    // Its figures are worked out anew and are the same: nothing was written.
    await pool().execute('UPDATE visit SET stale = TRUE, rev = rev + 1 WHERE household_id = ?', [toBin(who.householdId)]);
    expect(await rows()).toBe(before);
    await pool().execute('UPDATE household SET epoch = ? WHERE id = ?', [toBin(v7()), toBin(who.householdId)]);
    const after = await rows();
    expect(after).not.toBe(before);
    expect(after).toEqual(before);
    expect(await rows()).toBe(after);
    expect(await deleteHousehold(who)).toBeNull();
    expect(await rows()).toEqual([]);
  });
  it('is not kept while one waits for its figures', async () => {
    await rows();
    const put = (sql: string) => pool().execute(`${sql} WHERE household_id = ?`, [toBin(who.householdId)]);
    // Of a newer version, which will write its figures in its own time and tells nobody.
    await put(`UPDATE visit SET definition_version = ${DEFINITION_VERSION + 1}, stale = TRUE`);
    const waiting = await rows();
    expect(await rows()).not.toBe(waiting);
    await put("UPDATE visit_figures SET ended = 'none'");
    expect((await rows()).map((r) => r.ended)).toEqual(['none']);
    await put('UPDATE visit SET stale = FALSE');
    expect(await rows()).toBe(await rows());
  });
});
