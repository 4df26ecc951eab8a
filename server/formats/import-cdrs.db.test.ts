import { openLedger } from '@/core/formats/ledger-file';
import { pool } from '../db/pool';
import { addPlace, addVisit, describeWithDatabase, newHousehold } from '../fixtures/household';
import { bringIn } from './bring-in';
import { previewCdrs, takeCdrs } from './import-cdrs';
import { undoBills } from './imported-bills';
import { ledgerZip } from './ledger-out';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

const AT = Date.UTC(2025, 9, 1, 12);
const iso = (ms: number) => new Date(ms).toISOString();
const cdrs = new TextEncoder().encode(
  JSON.stringify([
    {
      country_code: 'SI',
      party_id: 'BLU',
      id: 'C-1',
      start_date_time: iso(AT + 50_000),
      end_date_time: iso(AT + 905_000),
      cdr_token: { uid: 'x', type: 'RFID', contract_id: 'x' },
      auth_method: 'WHITELIST',
      cdr_location: {
        id: 'L',
        name: 'Lipa Barn',
        address: 'Barn 1',
        city: 'Lipa',
        country: 'SVN',
        coordinates: { latitude: '45.90000', longitude: '14.55000' },
        evse_uid: '1',
        evse_id: '1',
        connector_id: '1',
        connector_standard: 'IEC_62196_T2_COMBO',
        connector_format: 'CABLE',
        connector_power_type: 'DC',
      },
      currency: 'EUR',
      charging_periods: [{ start_date_time: iso(AT + 50_000), dimensions: [{ type: 'ENERGY', volume: 12.5 }] }],
      total_cost: { excl_vat: 6.25 },
      total_energy: 12.5,
      total_time: 0.2375,
      last_updated: iso(AT + 905_000),
    },
  ]),
);

describeWithDatabase('CDRs of a network', () => {
  it('that came in before the ledger was brought elsewhere are there already; taken back they come in again', async () => {
    const from = await newHousehold();
    await addVisit(from, await addPlace(from), AT);
    const first = await takeCdrs(from, cdrs, new Map());
    expect(first).toMatchObject({ ok: true, taken: 1 });
    const to = await newHousehold();
    const file = await openLedger(
      new Uint8Array(await new Response(ledgerZip({ ...from, householdName: 'x', currency: 'EUR', zone: 'UTC' }, new Date(0))).arrayBuffer()),
    );
    if (!file.ok) throw new Error();
    await bringIn(to, file.value, { people: { [from.personId]: to.personId }, theirs: [] }, true);
    expect(await takeCdrs(to, cdrs, new Map())).toMatchObject({ ok: true, taken: 0, preview: { rows: [{ there: true }] } });
    const importId = first.ok ? first.preview.importId : '';
    expect(await undoBills(to, importId)).toBe(1);
    expect(await previewCdrs(to, cdrs)).toMatchObject({ preview: { rows: [{ there: false }] } });
    expect(await takeCdrs(to, cdrs, new Map())).toMatchObject({ taken: 1 });
    expect(await takeCdrs(to, cdrs, new Map())).toMatchObject({ taken: 0 });
    // Another household knows nothing of it.
    expect(await previewCdrs(from, cdrs)).toMatchObject({ preview: { rows: [{ there: true }] } });
    expect(await undoBills(from, importId)).toBe(1);
  });
});
