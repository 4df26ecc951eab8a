import { pool } from '../db/pool';
import { addPlace, addSomebody, addVisit, describeWithDatabase, newHousehold } from '../fixtures/household';
import { markVisits } from '../visits/mark-visits';
import { sessionsAround } from './visits-around';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

const AT = Date.UTC(2025, 9, 14, 12);
const DAY = 86_400_000;

describeWithDatabase('sessions recorded around what a file tells of', () => {
  it('are worked out once while nothing is written and the same times are asked', async () => {
    const who = await newHousehold();
    const place = await addPlace(who);
    const visitId = await addVisit(who, place, AT);
    const first = await sessionsAround(who, [AT, AT + DAY]);
    expect([...first.visits.keys()]).toEqual([visitId]);
    expect(first.attempts).toMatchObject([{ visitId, n: 1, site: 'Lipa Barn', stall: '1', kWh: '12.5' }]);
    expect(await sessionsAround(who, [AT, AT + DAY])).toBe(first);
    expect((await sessionsAround(who, [AT + 9 * DAY])).visits.size).toBe(0);
    expect((await sessionsAround(who, [AT, AT + DAY])).visits.size).toBe(1);
    // What is written meanwhile is seen.
    const second = await addVisit(who, place, AT + DAY);
    expect(new Set((await sessionsAround(who, [AT, AT + DAY])).visits.keys())).toEqual(new Set([visitId, second]));
  });

  it('are those that this person sees, in this household', async () => {
    const who = await newHousehold();
    const other = await addSomebody(who.householdId, 'driver');
    const visitId = await addVisit(who, await addPlace(who), AT);
    expect((await sessionsAround(other, [AT])).visits.size).toBe(1);
    const elsewhere = { ...(await newHousehold()), personId: who.personId };
    expect((await sessionsAround(who, [AT])).visits.size).toBe(1);
    expect((await sessionsAround(elsewhere, [AT])).visits.size).toBe(0);
    await markVisits(who, { ids: [visitId], as: 'private' });
    expect((await sessionsAround(other, [AT])).visits.size).toBe(0);
    expect((await sessionsAround(who, [AT])).visits.size).toBe(1);
  });
});
