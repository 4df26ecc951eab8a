import type { RowDataPacket } from 'mysql2/promise';
import { v7 } from 'uuid';
import { DEFINITION_VERSION } from '@/core/visit/definitions-version';
import type { Step } from '@/core/visit/fixtures/story';
import { toBin } from '../db/binary-id';
import { pool } from '../db/pool';
import { addPlace, addVisit, asRecords, CHARGED, describeWithDatabase, newHousehold, type Place, send } from '../fixtures/household';
import { figuresOf, figuresWaiting, rebuild } from './refresh';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

describeWithDatabase('figures that are out of date', () => {
  let who: Awaited<ReturnType<typeof newHousehold>>;
  let place: Place;
  let visitId: string;
  beforeEach(async () => {
    who = await newHousehold();
    place = await addPlace(who);
    visitId = await addVisit(who, place, Date.UTC(2025, 5, 1));
  });
  const row = async () => {
    const [rows] = await pool().execute<RowDataPacket[]>(
      'SELECT v.stale, v.definition_version, v.rev, f.handshake_s FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id WHERE v.household_id = ? AND v.id = ?',
      [toBin(who.householdId), toBin(visitId)],
    );
    return rows[0] as RowDataPacket;
  };
  const put = (sql: string) => pool().query(`${sql} WHERE household_id = UNHEX('${who.householdId.replaceAll('-', '')}')`);

  it('of an older version are derived anew before they are read', async () => {
    await put(`UPDATE visit SET definition_version = ${DEFINITION_VERSION - 1}`);
    await put('UPDATE visit_figures SET handshake_s = 1');
    expect(await figuresWaiting(who.householdId)).toBe(1);
    await figuresOf(who.householdId);
    expect(await row()).toMatchObject({ stale: 0, definition_version: DEFINITION_VERSION, handshake_s: 30 });
    expect(await figuresWaiting(who.householdId)).toBe(0);
  });
  it('of a newer version are left to it, changed or not: two versions side by side undo nothing of each other', async () => {
    await put(`UPDATE visit SET definition_version = ${DEFINITION_VERSION + 1}, stale = TRUE`);
    await put('UPDATE visit_figures SET handshake_s = 1');
    expect(await rebuild(who.householdId).all).toBe(0);
    expect(await row()).toMatchObject({ stale: 1, definition_version: DEFINITION_VERSION + 1, handshake_s: 1 });
  });
  it('are what a site’s new network makes of its visits, and a note makes none', async () => {
    const network = { type: 'network', id: place.networkId.replace(/^.{8}/, '01990000'), baseRev: 0, fields: { name: 'Otterbrook' } };
    const [made] = await send(who, asRecords([network]));
    const site = (fields: object) => send(who, asRecords([{ type: 'site', id: place.siteId, baseRev: made?.rev ?? 0, fields }]));
    const { rev } = await row();
    await site({ note: 'windy' });
    expect(await row()).toMatchObject({ rev, stale: 0 });
    await site({ networkId: network.id });
    expect(await row()).toMatchObject({ stale: 1 });
    await figuresOf(who.householdId);
    const [[attempt]] = (await pool().query<RowDataPacket[]>('SELECT network_id FROM attempt_figures WHERE visit_id = ?', [toBin(visitId)])) as [
      RowDataPacket[],
      unknown,
    ];
    expect((attempt?.network_id as Buffer | undefined)?.equals(toBin(network.id))).toBe(true);
  });
  it('are held against the price on file: a new price stales the bills from its month on, and what it says of them is read', async () => {
    const bill: Step = [1000, 'bill', { sessions: [], amount: '5', currency: 'EUR', state: 'charged' }];
    const old = await addVisit(who, place, Date.UTC(2025, 2, 1), [...CHARGED, bill]);
    const billed = await addVisit(who, place, Date.UTC(2025, 5, 3), [...CHARGED, bill]);
    const price = (id: string, fields: object, baseRev = 0) =>
      send(
        who,
        asRecords([
          { type: 'tariff', id, baseRev, fields: { networkId: place.networkId, currency: 'EUR', perKWh: '0.4', validFrom: '2025-01-01', ...fields } },
        ]),
      );
    const said = async () => {
      await figuresOf(who.householdId);
      const [rows] = await pool().execute<RowDataPacket[]>('SELECT visit_id, bill_check FROM visit_figures WHERE household_id = ?', [toBin(who.householdId)]);
      const of = (id: string) => rows.find((r) => (r.visit_id as Buffer).equals(toBin(id)))?.bill_check;
      return [of(old), of(billed), of(visitId)];
    };
    const stale = async () => {
      const [rows] = await pool().execute<RowDataPacket[]>('SELECT id FROM visit WHERE household_id = ? AND stale = TRUE', [toBin(who.householdId)]);
      return rows.length;
    };
    expect(await said()).toEqual([null, null, null]);
    const [first, later] = [v7(), v7()];
    await price(first, {});
    // 12.5 kWh at 0.40 are the 5 that were charged; the visit without a bill is left alone.
    expect(await stale()).toBe(2);
    expect(await said()).toEqual(['right', 'right', null]);
    const [made] = await price(later, { perKWh: '0.6', validFrom: '2025-06-02' });
    expect(await stale()).toBe(1);
    expect(await said()).toEqual(['right', 'off', null]);
    await price(later, { perKWh: '0.6', validFrom: '2025-06-02', note: 'from the post' }, made?.rev ?? 0);
    expect(await stale()).toBe(0);
    const plan = v7();
    const holds = { type: 'plan', id: plan, baseRev: 0, fields: { name: 'Member', networkId: place.networkId, currency: 'EUR', from: '2025-06-01' } };
    await send(who, asRecords([holds]));
    await price(v7(), { planId: plan, perKWh: '0.4' });
    expect(await said()).toEqual(['right', 'right', null]);
  });
  it('look wrong beside what is on file of stall and car, as it is now', async () => {
    const carId = v7();
    const car = (usableKWh: number, baseRev = 0) =>
      send(who, asRecords([{ type: 'car', id: carId, baseRev, fields: { name: 'Heron 62', usableKWh, connectors: ['CCS2'] } }]));
    const [made] = await car(62);
    // 12.5 kWh in 14.2 min: 53 kW. 20 % of 62 kWh are 12.4.
    const levels: Step[] = [20, 40].map((socPct, i): Step => [55 + i * 844, 'reading', { screen: 'car', socPct }]);
    const withCar = await addVisit(who, place, Date.UTC(2025, 5, 3), [...CHARGED.slice(0, 3), ...levels, ...CHARGED.slice(3)], { carId });
    const flags = async () => {
      await figuresOf(who.householdId);
      const [rows] = await pool().execute<RowDataPacket[]>('SELECT visit_id, flags FROM visit_figures WHERE household_id = ?', [toBin(who.householdId)]);
      return [visitId, withCar].map((id) => rows.find((r) => (r.visit_id as Buffer).equals(toBin(id)))?.flags);
    };
    expect(await flags()).toEqual([0, 0]);
    await car(90, made?.rev ?? 0);
    expect(await flags()).toEqual([0, 1]);
    const [stall] = (
      await pool().execute<RowDataPacket[]>('SELECT rev FROM stall WHERE household_id = ? AND id = ?', [
        toBin(who.householdId),
        toBin(place.stalls[0] as string),
      ])
    )[0];
    const fields = { siteId: place.siteId, name: '1', model: 'Twin 300', outlets: [{ connector: 'CCS2', ratedKW: 22 }] };
    await send(who, asRecords([{ type: 'stall', id: place.stalls[0] as string, baseRev: Number(stall?.rev), fields }]));
    // By time, and a tenth of it would fit; by time, and by battery as before.
    expect(await flags()).toEqual([2, 2]);
  });
  it('that cannot be written hinder no other, and are tried again', async () => {
    const other = await addVisit(who, place, Date.UTC(2025, 5, 2));
    await put('UPDATE visit SET stale = TRUE');
    const told = jest.spyOn(console, 'error').mockImplementation(() => {});
    // An event that no version would have taken: its zone is none.
    await pool().query(
      'INSERT INTO event SELECT household_id, UNHEX(REPLACE(UUID(), "-", "")), visit_id, person_id, kind, v, at, at_precision, "Nowhere/Nothing", device_id, life, mono, awake, 0, origin, role, payload, content_hash, received_at, sent_at, import_id FROM event WHERE household_id = ? AND visit_id = ? AND kind = "pulled_in"',
      [toBin(who.householdId), toBin(visitId)],
    );
    await rebuild(who.householdId).all;
    const [rows] = await pool().execute<RowDataPacket[]>('SELECT id, stale FROM visit WHERE household_id = ?', [toBin(who.householdId)]);
    expect(rows.find((r) => (r.id as Buffer).equals(toBin(other)))?.stale).toBe(0);
    expect(told).toHaveBeenCalled();
  });
  it('more than a reader waits for are worked off in the background, the newest first', async () => {
    for (let i = 0; i < 3; i++) await addVisit(who, place, Date.UTC(2025, 6, 1 + i));
    await put('UPDATE visit SET stale = TRUE');
    const steps: number[] = [];
    const done = await rebuild(who.householdId, (n) => steps.push(n)).all;
    expect([done, steps.at(-1)]).toEqual([4, 4]);
  });
});
