import { v7 } from 'uuid';
import { cdrOf } from '@/core/formats/fixtures/cdr';
import { type TypedVisit, typedVisit } from '@/core/visit/typed-visit';
import type { Member } from '../accounts/who';
import { pool } from '../db/pool';
import { addPlace, describeWithDatabase, newHousehold, type Place, send, signedIn } from '../fixtures/household';
import { visitPage } from '../visits/visit-page';
import { previewCdrs, takeCdrs } from './import-cdrs';
import { importSheet } from './import-sheet';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

const DAY = Date.UTC(2025, 9, 14, 12);
const at = (hhmm: string) => Date.parse(`2025-10-14T${hhmm}:00Z`);
/** A visit typed in from its receipt: no attempt is made up of it. */
async function typeIn(who: Member, place: Place, more: Partial<TypedVisit> = {}): Promise<string> {
  const visitId = v7({ msecs: DAY });
  const times = { pulledIn: null, plugged: null, powerSeen: null, stopped: null, pulledOut: null };
  const known = { stallId: place.stalls[0], kWh: '31.4', amount: '15.70', currency: 'EUR', meansKind: null, meansId: null, minutes: null };
  const rest = {
    carId: null,
    drivenBy: null,
    handshake_s: null,
    socFrom: null,
    socTo: null,
    fault: null,
    charged: true,
    reason: 'enough' as const,
    note: null,
  };
  const events = typedVisit({ siteId: place.siteId, day: DAY, ...times, ...known, ...rest, ...more });
  const device = v7();
  const { householdId, personId } = who;
  const envelope = {
    householdId,
    personId,
    visitId,
    v: 1,
    zone: 'UTC',
    deviceId: device,
    life: device,
    mono: 0,
    awake: true,
    origin: 'typed',
    role: 'recorder',
  };
  const items = events.map((e, i) => ({ type: 'event', event: { ...envelope, ...e, id: v7(), seq: i + 1 } }));
  for (const r of await send(who, items, Date.now())) expect(r).toMatchObject({ status: 'taken' });
  return visitId;
}
const cdr = (start: number, kWh = 31.4, total = 15.7) => {
  const times = { start, end: start + 40 * 60_000 };
  const charging_periods = [{ start_date_time: new Date(start).toISOString(), dimensions: [{ type: 'ENERGY', volume: kWh }] }];
  return new TextEncoder().encode(JSON.stringify([cdrOf(times, { charging_periods, total_energy: kWh, total_cost: { excl_vat: total } })]));
};
const sheet = (start: string, kWh = '31,4') => new TextEncoder().encode(`Start;Station;Energy (kWh);Cost (EUR)\n${start};Lipa Barn;${kWh};15,70`);
const matched = async (who: Member, file: Uint8Array) => {
  const told = await previewCdrs(who, file);
  return told.ok ? told.preview.rows.map((r) => r.match) : [];
};
const planned = async (who: Member, file: Uint8Array) => {
  const told = await importSheet({ ...signedIn(who), zone: 'UTC' }, file, { answers: [], sites: [] }, false);
  return told.ok ? told.preview.rows.map((r) => [r.plan, r.visitId]) : [];
};

describeWithDatabase('a visit typed in from its receipt', () => {
  let who: Member;
  let place: Place;
  beforeEach(async () => {
    who = await newHousehold();
    place = await addPlace(who);
  });

  it('known to the day is what a network tells of that day, whenever on it; its bill stands beside and is paid once', async () => {
    const visitId = await typeIn(who, place);
    for (const hhmm of ['00:05', '12:00', '23:50'])
      expect(await matched(who, cdr(at(hhmm)))).toMatchObject([{ is: 'paired', where: { visitId, n: 0, dayOnly: true }, offset_s: null, kWhDiff: '0' }]);
    expect(await planned(who, sheet('2025-10-14 18:20'))).toEqual([['near', visitId]]);
    expect(await planned(who, sheet('2025-10-14'))).toEqual([['near', visitId]]);
    // Another day, or another energy, is another visit.
    expect(await matched(who, cdr(at('12:00') + 86_400_000))).toEqual([{ is: 'unmatched' }]);
    expect(await matched(who, cdr(at('12:00'), 29))).toEqual([{ is: 'unmatched' }]);
    expect(await planned(who, sheet('2025-10-15 18:20'))).toEqual([['new', null]]);
    expect(await takeCdrs(who, cdr(at('18:20')), new Map())).toMatchObject({ taken: 1 });
    const page = await visitPage(who, visitId);
    if (!page || !('visit' in page)) throw new Error();
    expect([page.visit.paid, page.visit.billsAgain.length]).toEqual([{ known: true, value: { amount: '15.7', currency: 'EUR' } }, 1]);
    expect(await previewCdrs(who, cdr(at('18:20')))).toMatchObject({ preview: { rows: [{ there: true, stands: { visitId } }], leftOut: { shown: [] } } });
  });
  it('with an hour is that of the same hour; left at an hour that nobody knows it is any in the half day after', async () => {
    const visitId = await typeIn(who, place, { pulledIn: at('18:00'), pulledOut: at('18:50') });
    expect(await matched(who, cdr(at('18:10')))).toMatchObject([{ is: 'paired', where: { visitId, dayOnly: false } }]);
    expect(await matched(who, cdr(at('19:06')))).toEqual([{ is: 'unmatched' }]);
    const open = await newHousehold();
    const there = await addPlace(open);
    const arrived = await typeIn(open, there, { pulledIn: at('08:00') });
    expect(await matched(open, cdr(at('19:50')))).toMatchObject([{ is: 'paired', where: { visitId: arrived } }]);
    expect(await matched(open, cdr(at('20:20')))).toEqual([{ is: 'unmatched' }]);
  });
  it('is told where a file does not have it, and one that did not charge is not', async () => {
    const visitId = await typeIn(who, place);
    await typeIn(who, place, { charged: false, reason: 'gave_up', kWh: null, amount: null });
    const around = [at('12:00') - 5 * 86_400_000, at('12:00') + 5 * 86_400_000].map((t) => JSON.parse(new TextDecoder().decode(cdr(t)))[0]);
    const file = new TextEncoder().encode(JSON.stringify(around.map((c, i) => ({ ...c, id: `C-${i}` }))));
    const told = await previewCdrs(who, file);
    const left = { visitId, n: 0, site: 'Lipa Barn', stall: '1', at: DAY, dayOnly: true, zone: 'UTC', paid: [{ amount: '15.70', currency: 'EUR' }] };
    expect(told.ok && told.preview.leftOut).toEqual({ shown: [left], more: 0 });
  });
});
