import type { Member } from '../accounts/who';
import { pool } from '../db/pool';
import { addPlace, addVisit, CHARGED, describeWithDatabase, newHousehold } from '../fixtures/household';
import { eventsOfVisits } from './event-rows';
import { markVisits } from './mark-visits';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

describeWithDatabase('why visits are left out of comparisons', () => {
  let who: Member;
  let ids: string[];
  beforeEach(async () => {
    who = await newHousehold();
    const place = await addPlace(who);
    ids = [await addVisit(who, place, Date.UTC(2025, 8, 2), CHARGED), await addVisit(who, place, Date.UTC(2025, 8, 3), CHARGED)];
  }, 30_000);
  const marks = async () => [...(await eventsOfVisits(who.householdId, ids)).values()].flat().filter((e) => e.kind === 'mark');

  it('is kept with each', async () => {
    expect(await markVisits(who, { ids, as: 'left_out', reason: 'a test' })).toEqual({ ok: true, changed: 2 });
    expect((await marks()).map((e) => e.payload.reason)).toEqual(['a test', 'a test']);
  });
  // 4111 1111 1111 1111: the well-known number of tests (from memory).
  it.each([
    ['paid with 4111 1111 1111 1111', 'This looks like a payment card number. Card numbers are never kept here.'],
    ['rain \ud83d', 'The reason holds half a character.'],
  ])('holds what words of a phone may hold, and none is marked otherwise: %j', async (reason, why) => {
    expect(await markVisits(who, { ids, as: 'left_out', reason })).toEqual({ ok: false, reason: why });
    expect(await marks()).toEqual([]);
  });
});
