import { v7 } from 'uuid';
import { recordItem } from '@/core/records/record-schema';
import { deleteHousehold } from '../accounts/forget';
import { toBin } from '../db/binary-id';
import { pool } from '../db/pool';
import { addPlace, asRecords, describeWithDatabase, newHousehold, type Place, send } from '../fixtures/household';
import { keptRecords } from '../records/kept-records';
import { readRecord, recordsOf } from '../records/record-tables';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

describeWithDatabase('records that travel', () => {
  let who: Awaited<ReturnType<typeof newHousehold>>;
  let place: Place;
  beforeEach(async () => {
    who = await newHousehold();
    place = await addPlace(who);
  });
  const stall = () => readRecord(who.householdId, 'stall', place.stalls[0]);
  const change = (baseRev: number, fields: object, more: object = {}) =>
    send(who, asRecords([{ type: 'stall', id: place.stalls[0], baseRev, fields, ...more }])).then((r) => r[0]);

  it('two people who change different fields of one stall both succeed; of the same field the second is shown the first', async () => {
    const { rev } = (await stall()) as { rev: number };
    expect(await change(rev, { model: 'Post 9' })).toMatchObject({ status: 'taken' });
    expect(await change(rev, { note: 'windy' })).toMatchObject({ status: 'taken', now: { fields: { model: 'Post 9', note: 'windy' } } });
    expect((await stall())?.fields).toMatchObject({ model: 'Post 9', note: 'windy' });
    expect(await change(rev, { note: 'calm' })).toMatchObject({ status: 'conflict', theirs: { fields: { note: 'windy' } } });
    expect(await change(rev, { note: 'windy' })).toMatchObject({ status: 'already' });
    expect(await change(rev, {}, { archived: true })).toMatchObject({ status: 'taken' });
    expect(await change(rev, { otherName: 'BB-1' })).toMatchObject({ status: 'taken', now: { archived: true } });
  });
  it('sent again are there already, as they were written: decimals, degrees, fields not known here', async () => {
    const tariff = recordItem('tariff', v7(), { networkId: place.networkId, currency: 'EUR', perKWh: '0.50', startFee: '0.00', validFrom: '2025-01-01' });
    const site = recordItem('site', v7(), { networkId: place.networkId, name: 'Vrba', zone: 'UTC', latitude: 46.1234567, longitude: 14.7654321 });
    const newer = { ...recordItem('network', v7(), { name: 'Ferrywell' }), fields: { name: 'Ferrywell', helpline: null, note: null, brandNew: { a: [1] } } };
    const all = asRecords([tariff, site, newer]);
    expect((await send(who, all)).map((r) => r.status)).toEqual(['taken', 'taken', 'taken']);
    expect((await send(who, all)).map((r) => r.status)).toEqual(['already', 'already', 'already']);
    expect((await readRecord(who.householdId, 'tariff', tariff.id))?.fields.perKWh).toBe('0.50');
    expect((await readRecord(who.householdId, 'site', site.id))?.fields.latitude).toBe(46.1234567);
    // A device that does not know the field changes another.
    const older = await send(who, asRecords([{ type: 'network', id: newer.id, baseRev: 99, fields: { name: 'Ferrywell East', helpline: null, note: null } }]));
    expect(older[0]?.status).toBe('taken');
    expect((await readRecord(who.householdId, 'network', newer.id))?.fields).toMatchObject({ name: 'Ferrywell East', brandNew: { a: [1] } });
  });
  it('a change of what is not there asks for all of it; what would break the whole is refused with its path', async () => {
    expect(await send(who, asRecords([{ type: 'stall', id: v7(), baseRev: 4, fields: { note: 'x' } }]))).toMatchObject([
      { status: 'refused', code: 'whole_wanted' },
    ]);
    expect(await change(99, { sharing: 'shared', cabinet: null })).toMatchObject({ status: 'refused', path: 'fields.cabinet' });
    expect(await change(99, { siteId: v7() })).toMatchObject({ status: 'refused', reason: 'refers to something that is not known here' });
  });
  it('all of a type: what is written between two readings is there, by whichever process, also after a restore; nothing of a household that is gone', async () => {
    const names = async () => (await recordsOf(who.householdId, 'stall')).map((r) => [r.fields.name, r.fields.note, r.archived]);
    const household = toBin(who.householdId);
    expect(await names()).toEqual([
      ['1', null, false],
      ['2', null, false],
    ]);
    const { rev } = (await stall()) as { rev: number };
    await change(rev, { note: 'windy' }, { archived: true });
    expect(await names()).toEqual([
      ['2', null, false],
      ['1', 'windy', true],
    ]);
    // Another process of the same ledger.
    await pool().execute("UPDATE stall SET rev = rev + 5, fields = JSON_SET(fields, '$.note', 'calm') WHERE household_id = ? AND id = ?", [
      household,
      toBin(place.stalls[1]),
    ]);
    expect(await names()).toEqual([
      ['1', 'windy', true],
      ['2', 'calm', false],
    ]);
    // A backup from before either.
    await pool().execute("UPDATE stall SET rev = 1, archived_at = NULL, fields = JSON_SET(fields, '$.note', 'as it was') WHERE household_id = ?", [household]);
    await pool().execute('UPDATE household SET epoch = ? WHERE id = ?', [toBin(v7()), household]);
    expect(new Set((await names()).map(([, note, archived]) => `${note} ${archived}`))).toEqual(new Set(['as it was false']));
    expect(await recordsOf(v7(), 'stall')).toEqual([]);
    expect(await deleteHousehold(who)).toBeNull();
    expect(keptRecords(who.householdId, 'stall')).toBeUndefined();
    expect(await names()).toEqual([]);
  });
});
