import { v7 } from 'uuid';
import { documentOf } from '@/core/formats/cdr-bills';
import { cdrOf } from '@/core/formats/fixtures/cdr';
import { openLedger } from '@/core/formats/ledger-file';
import type { EventOf } from '@/core/visit/event';
import type { Member } from '../accounts/who';
import { pool } from '../db/pool';
import { addPlace, addVisit, asRecords, describeWithDatabase, newHousehold, send } from '../fixtures/household';
import { visitPage } from '../visits/visit-page';
import { bringIn } from './bring-in';
import { previewCdrs, takeCdrs } from './import-cdrs';
import { undoBills } from './imported-bills';
import { importedEvent, sendImported } from './imported-events';
import { ledgerZip } from './ledger-out';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

const AT = Date.UTC(2025, 9, 1, 12);
const cdrs = new TextEncoder().encode(
  JSON.stringify([
    cdrOf(
      { start: AT + 50_000, end: AT + 905_000 },
      {
        charging_periods: [{ start_date_time: new Date(AT + 50_000).toISOString(), dimensions: [{ type: 'ENERGY', volume: 12.5 }] }],
        total_cost: { excl_vat: 6.25 },
        total_energy: 12.5,
        total_time: 0.5,
        signed_data: { encoding_method: 'OCMF', signed_values: [{ nature: 'End', plain_data: 'p', signed_data: 'OCMF|{"MS":"7"}|{"SD":"00"}' }] },
        remark: 'Paid by 4111 1111 1111 1111',
        x_unknown: { note: 'kept', list: ['SI-BLU-C12345678'] },
      },
    ),
  ]),
);

const importOf = async (who: Member, bytes: Uint8Array): Promise<string> => {
  const answer = await previewCdrs(who, bytes);
  return answer.ok ? answer.preview.importId : '';
};
const amounts = async (who: Member, visitId: string): Promise<string[]> => {
  const page = await visitPage(who, visitId);
  return page && 'visit' in page ? page.visit.bills.map((b) => b.payload.amount) : [];
};

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
    await bringIn(to, file.value, { people: { [from.personId]: to.personId }, theirs: {} }, true);
    // The record itself came along: what the standard does not know too, no number of a card or contract.
    const [visitId] = first.ok ? first.preview.rows.flatMap((r) => (r.match.is === 'paired' ? [r.match.where.visitId] : [])) : [];
    const page = await visitPage(to, visitId as string);
    if (!page || !('visit' in page)) throw new Error();
    expect(page.networkRecords).toMatchObject([
      {
        id: 'SI*BLU*C-1',
        figures: [{ what: 'Start', network: '12:00:50' }, { what: 'End' }, { what: 'Energy', network: '12.5 kWh' }, { what: 'Time', network: '30:00' }],
        periods: [{ kWh: '12.5' }],
        said: ['total_time: does not add up'],
        told: { values: [{ nature: 'End', verdict: 'no_key', meter: '7' }], kWh: null },
      },
    ]);
    const document = documentOf((page.visit.bills[0] as EventOf<'bill'>).payload) as string;
    expect(document).toContain('"remark":"not kept","x_unknown":{"note":"kept","list":["not kept"]}');
    expect(document).toContain('OCMF|');
    expect(document).not.toMatch(/NUMBER|4111|C12345678/);
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

  it('are matched where the network calls the place otherwise, by the post or the position that it gives', async () => {
    const who = await newHousehold();
    const place = await addPlace(who, { network: 'Bluebarn', site: 'Our barn' });
    await addVisit(who, place, AT);
    const match = async () => {
      const answer = await previewCdrs(who, cdrs);
      return answer.ok ? answer.preview.rows.map((r) => r.match.is) : [];
    };
    expect(await match()).toEqual(['asked']);
    const say = async (type: string, id: string, fields: object) =>
      expect(await send(who, asRecords([{ type, id, baseRev: 1000, fields }]))).toMatchObject([{ status: 'taken' }]);
    await say('stall', place.stalls[0], { evseUids: ['SI*BLU*1'] });
    expect(await match()).toEqual(['paired']);
    await say('stall', place.stalls[0], { evseUids: [] });
    await say('site', place.siteId, { latitude: 45.9, longitude: 14.55 });
    expect(await match()).toEqual(['paired']);
  });

  it('taken back from one visit can come to stand beside another, and one that the network mended says what it says by now', async () => {
    const who = await newHousehold();
    const place = await addPlace(who);
    const first = await addVisit(who, place, AT);
    const importId = await importOf(who, cdrs);
    await takeCdrs(who, cdrs, new Map());
    expect(await undoBills(who, importId)).toBe(1);
    const [usual] = JSON.parse(new TextDecoder().decode(cdrs)) as object[];
    const mended = new TextEncoder().encode(JSON.stringify([{ ...usual, total_cost: { excl_vat: 7.5 } }]));
    expect(await takeCdrs(who, mended, new Map())).toMatchObject({ taken: 1 });
    expect(await amounts(who, first)).toEqual(['7.5']);
    expect(await takeCdrs(who, mended, new Map())).toMatchObject({ taken: 0, preview: { rows: [{ there: true, stands: { visitId: first, other: null } }] } });
    expect(await previewCdrs(who, cdrs)).toMatchObject({ preview: { rows: [{ there: true, stands: { other: { amount: '7.5', currency: 'EUR' } } }] } });
    expect(await undoBills(who, await importOf(who, mended))).toBe(1);
    expect(await takeCdrs(who, cdrs, new Map())).toMatchObject({ taken: 1 });
    expect(await amounts(who, first)).toEqual(['6.25']);
    expect(await undoBills(who, importId)).toBe(1);
    // The visit was another's, or recorded twice.
    await sendImported(who, [
      importedEvent(who, { id: v7(), visitId: first, zone: 'UTC', seq: 900, kind: 'withdrawal', payload: { target: first }, importId }),
    ]);
    const second = await addVisit(who, place, AT);
    expect(await takeCdrs(who, cdrs, new Map())).toMatchObject({ taken: 1 });
    expect([await amounts(who, first), await amounts(who, second)]).toEqual([[], ['6.25']]);
  });

  it.each(['0000-01-01T00:00:00Z', '9999-12-31T23:00:00Z'])('one that tells of %s costs the others nothing', async (start_date_time) => {
    const who = await newHousehold();
    await addVisit(who, await addPlace(who), AT);
    const [usual] = JSON.parse(new TextDecoder().decode(cdrs)) as { charging_periods: object[] }[];
    const charging_periods = [{ ...usual?.charging_periods[0], start_date_time }];
    const odd = { ...usual, id: 'ODD', start_date_time, end_date_time: '9999-12-31T23:30:00Z', charging_periods };
    const both = new TextEncoder().encode(JSON.stringify([odd, usual]));
    const told = await takeCdrs(who, both, new Map());
    expect(told).toMatchObject({ ok: true, taken: 1 });
    expect(told.ok && told.preview.rows.map((r) => r.match.is)).toContain('paired');
  });

  it('that the record cannot hold say why and are not taken; one whose id may be the number of a card comes in, once', async () => {
    const who = await newHousehold();
    const visitId = await addVisit(who, await addPlace(who), AT);
    const [usual] = JSON.parse(new TextDecoder().decode(cdrs)) as { cdr_location: object }[];
    const long = { ...usual, id: '4111111111111111', cdr_location: { ...usual?.cdr_location, evse_id: 'E'.repeat(70_000) } };
    const all = new TextEncoder().encode(
      JSON.stringify([{ ...usual, id: 'MUCH', start_date_time: '2020-01-01T00:00:00Z', total_cost: { excl_vat: 1e8 + 1 } }, long]),
    );
    const told = await takeCdrs(who, all, new Map());
    expect(told).toMatchObject({
      taken: 1,
      preview: {
        rows: [{ unkept: 'amount must be at most 100000000' }, { unkept: null, said: ['/cdr_location/evse_id is longer than it may be', expect.anything()] }],
      },
    });
    expect(await amounts(who, visitId)).toEqual(['6.25']);
    expect(await takeCdrs(who, all, new Map())).toMatchObject({ taken: 0, preview: { rows: [{ there: false }, { there: true }] } });
  });
});
