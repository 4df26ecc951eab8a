import { v7 } from 'uuid';
import { recordItem } from '@/core/records/record-schema';
import { pool } from '../db/pool';
import { addPlace, asRecords, describeWithDatabase, newHousehold, type Place, send } from '../fixtures/household';
import { readRecord } from '../records/record-tables';

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
});
