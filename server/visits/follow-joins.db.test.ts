import type { RowDataPacket } from 'mysql2/promise';
import { v7 } from 'uuid';
import type { StoredEvent } from '@/core/visit/event';
import { toBin } from '../db/binary-id';
import { pool } from '../db/pool';
import { addPlace, addVisit, describeWithDatabase, newHousehold, type Place, send } from '../fixtures/household';
import { eventsOfVisits } from './event-rows';
import { joinVisits } from './join-visits';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

describeWithDatabase('a recording joined into one that was joined', () => {
  let who: Awaited<ReturnType<typeof newHousehold>>;
  let place: Place;
  beforeEach(async () => {
    who = await newHousehold();
    place = await addPlace(who);
  });
  const eventsOf = async (visitId: string) => (await eventsOfVisits(who.householdId, [visitId])).get(visitId) ?? [];
  const join = async (into: string, from: string) => expect(await joinVisits(who, { into, from })).toMatchObject({ ok: true });

  it('is followed to the end, whatever comes late, and once', async () => {
    const at = Date.UTC(2025, 5, 1);
    const [x, y, z] = [await addVisit(who, place, at), await addVisit(who, place, at + 30_000), await addVisit(who, place, at + 60_000)];
    await join(y, x);
    await join(z, y);
    const [first] = await eventsOf(x);
    const late = { ...(first as StoredEvent), id: v7(), kind: 'note', payload: { text: 'rain' }, seq: 90, at: at + 2_000_000, mono: 2_010_000 };
    for (let i = 0; i < 2; i++) await send(who, [{ type: 'event', event: late }]);
    for (const id of [y, z]) expect((await eventsOf(id)).filter((e) => e.kind === 'note' && e.payload.text === 'rain')).toHaveLength(1);
    const [rows] = await pool().execute<RowDataPacket[]>('SELECT stale FROM visit WHERE household_id = ? AND id = ?', [toBin(who.householdId), toBin(z)]);
    expect(rows[0]?.stale).toBe(0);
  });
  it('a recording that comes with its own words of being joined is joined', async () => {
    const at = Date.UTC(2025, 5, 1);
    const [x, y] = [await addVisit(who, place, at), await addVisit(who, place, at + 30_000)];
    const visitId = v7();
    const own = (await eventsOf(x)).map(({ heard_ms: _, ...e }): StoredEvent => ({ ...e, id: v7(), visitId }));
    const last = own.at(-1) as StoredEvent;
    const words = { ...last, id: v7(), kind: 'withdrawal', seq: 99, payload: { target: visitId, joinedInto: y } };
    await send(
      who,
      [...own, words].map((event) => ({ type: 'event', event })),
    );
    expect((await eventsOf(y)).filter((e) => e.payload.joinedFrom === visitId)).toHaveLength(own.length);
  });
  it('copies keep what their batch said of the device’s clock', async () => {
    const at = Date.UTC(2025, 5, 1);
    const [x, y] = [await addVisit(who, place, at), await addVisit(who, place, at + 30_000)];
    await join(y, x);
    const copy = (await eventsOf(y)).find((e) => e.payload.joinedFrom === x);
    const original = (await eventsOf(x)).find((e) => e.kind === copy?.kind);
    expect(copy?.heard_ms).toBeDefined();
    expect(copy?.heard_ms).toBe(original?.heard_ms);
  });
});
