import { v7 } from 'uuid';
import { recordItem } from '@/core/records/record-schema';
import { pool } from '../db/pool';
import { addPlace, asRecords, describeWithDatabase, newHousehold, send } from '../fixtures/household';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

describeWithDatabase('households that write at once', () => {
  it('do not wait for each other where both add to what is still empty', async () => {
    const results = await Promise.all(
      Array.from({ length: 10 }, async () => {
        const who = await newHousehold();
        const { networkId } = await addPlace(who);
        const records = Array.from({ length: 9 }, (_, i) => {
          const siteId = v7();
          const price = { networkId, siteId, currency: 'EUR', perKWh: '0.50', startFee: '0', validFrom: '2020-01-01' };
          return [recordItem('site', siteId, { networkId, name: `Lipa Barn ${i}`, zone: 'UTC' }), recordItem('tariff', v7(), price)];
        });
        return send(who, asRecords(records.flat()));
      }),
    );
    expect(results.flat().filter((r) => r.status !== 'taken')).toEqual([]);
    expect(results.flat()).toHaveLength(180);
  });
});
