import { v7 } from 'uuid';
import { openLedger } from '@/core/formats/ledger-file';
import { ARCHIVED } from '@/core/records/record-change';
import { recordItem } from '@/core/records/record-schema';
import { pool } from '../db/pool';
import { addPlace, asRecords, describeWithDatabase, newHousehold, send } from '../fixtures/household';
import { readRecord, recordsOf } from '../records/record-tables';
import { bringIn } from './bring-in';
import { type LedgerAsk, takeLedger } from './ledger-in';
import { ledgerZip } from './ledger-out';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

const named = { householdName: 'Kolar', currency: 'EUR', zone: 'UTC' };

describeWithDatabase('a gift of places', () => {
  it('places and prices of somebody else are added to those of the same name, and never doubled', async () => {
    const giver = await newHousehold();
    const given = await addPlace(giver);
    const price = (networkId: string, perKWh: string) =>
      recordItem('tariff', v7(), { networkId, currency: 'EUR', perKWh, startFee: '0', validFrom: '2025-01-01' });
    const change = (type: 'site' | 'stall', id: string, fields: object) => [{ type: 'record', record: { type, id, baseRev: 99, fields } }];
    await send(giver, asRecords([price(given.networkId, '0.50'), price(given.networkId, '0.60')]));
    await send(giver, change('site', given.siteId, { entrance: 'by the barn', food: 'cafe', direction: 'southbound' }));
    await send(giver, change('stall', given.stalls[1] as string, { name: '3' }));
    const taker = await newHousehold();
    const own = await addPlace(taker, { network: 'BLUEBARN', site: 'lipa barn' });
    await send(taker, asRecords([price(own.networkId, '0.50')]));
    await send(taker, change('site', own.siteId, { food: 'restaurant', helpline: '080 1' }));
    const bytes = new Uint8Array(await new Response(ledgerZip({ ...giver, ...named }, new Date(0), 'places')).arrayBuffer());
    const read = await openLedger(bytes);
    if (!read.ok) throw new Error();
    const bring = (theirs: LedgerAsk['theirs'], take: boolean) => bringIn(taker, read.value, { people: {}, theirs }, take);
    const counts = (b: Awaited<ReturnType<typeof bring>>) => [b.taken.record, b.already, b.differs.map((d) => d.id), b.refused];
    // New: a post, a price, and what the site lacks. Its food differs, so that it is asked; its post 1, the other price and the network are here.
    const looked = await bring({}, false);
    expect(counts(looked)).toEqual([3, 3, [own.siteId], []]);
    expect(looked.twins).toEqual([
      { type: 'network', name: 'Bluebarn' },
      { type: 'site', name: 'Lipa Barn' },
      { type: 'stall', name: '1' },
      { type: 'tariff', name: '' },
    ]);
    expect(counts(await bring({}, true))).toEqual([3, 3, [own.siteId], []]);
    const site = async () => (await readRecord(taker.householdId, 'site', own.siteId))?.fields;
    expect(await site()).toMatchObject({ name: 'lipa barn', entrance: 'by the barn', direction: 'southbound', food: 'restaurant', helpline: '080 1' });
    // Chosen, the file's words stand, and what the file does not say is left.
    expect(counts(await bring({ [own.siteId]: ['food'] }, true))).toEqual([1, 5, [], []]);
    expect(await site()).toMatchObject({ name: 'lipa barn', entrance: 'by the barn', food: 'cafe', direction: 'southbound', helpline: '080 1' });
    const all = async (type: 'network' | 'site' | 'stall' | 'tariff') => (await recordsOf(taker.householdId, type)).length;
    expect([await all('network'), await all('site'), await all('stall'), await all('tariff')]).toEqual([1, 1, 3, 2]);
    expect((await recordsOf(taker.householdId, 'stall')).every((s) => s.fields.siteId === own.siteId)).toBe(true);
    // What only adds is taken without a question.
    await send(giver, change('site', given.siteId, { toilets: 'yes' }));
    const more = await openLedger(new Uint8Array(await new Response(ledgerZip({ ...giver, ...named }, new Date(0), 'places')).arrayBuffer()));
    if (!more.ok) throw new Error();
    expect(counts(await bringIn(taker, more.value, { people: {}, theirs: {} }, true))).toEqual([1, 5, [], []]);
    expect(await site()).toMatchObject({ toilets: 'yes', helpline: '080 1' });
    // Put away here, it is the same one still: it is asked whether it comes into use again.
    await send(taker, [{ type: 'record', record: { type: 'site', id: own.siteId, baseRev: 99, archived: true, fields: {} } }]);
    const again = (theirs: LedgerAsk['theirs']) => bringIn(taker, more.value, { people: {}, theirs }, true);
    expect(counts(await again({}))).toEqual([0, 5, [own.siteId], []]);
    expect(await all('site')).toBe(1);
    expect(counts(await again({ [own.siteId]: [ARCHIVED] }))).toEqual([1, 5, [], []]);
    expect((await readRecord(taker.householdId, 'site', own.siteId))?.archived).toBe(false);
    // Where it is not said that names tell, and in a ledger with visits, only the same id is the same.
    expect(
      await takeLedger(taker, { records: read.value.head.records, events: [], watches: [], views: [], closed: [], people: {}, theirs: {} }, false),
    ).toMatchObject({
      taken: { record: 4 },
      twins: [],
    });
  });
});
