import { v7 } from 'uuid';
import type { Member } from '../accounts/who';
import { pool } from '../db/pool';
import { describeWithDatabase, newHousehold, send } from '../fixtures/household';
import { importedEvent } from '../formats/imported-events';
import { eventsOfVisits } from '../visits/event-rows';
import { checkMade, takeMade } from './take-batch';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

const AT = Date.UTC(2025, 9, 14, 12);
type Made = { id?: string; visitId: string; at?: number; payload?: Record<string, unknown> };
const made = (who: Member, { id = v7(), visitId, at = AT, payload = {} }: Made) =>
  importedEvent(who, { id, visitId, zone: 'UTC', seq: 1, kind: 'pulled_in', importId: v7(), at, payload });
const statuses = async (who: Member, events: ReturnType<typeof made>[]) =>
  (await takeMade(who, await checkMade(events), 'later')).map(({ id: _, ...said }) => said);
const ids = async (who: Member, visitId: string) => ((await eventsOfVisits(who.householdId, [visitId])).get(visitId) ?? []).map((e) => e.id).sort();

describeWithDatabase('events that the server made of a file', () => {
  it('come in once, whether their visit was here before or comes with them', async () => {
    const who = await newHousehold();
    const [here, other] = [v7(), v7()];
    const first = made(who, { visitId: here });
    expect(await statuses(who, [first, first])).toEqual([{ status: 'taken' }, { status: 'already' }]);
    const more = [made(who, { visitId: here }), made(who, { visitId: other })] as const;
    expect(await statuses(who, [first, ...more])).toEqual([{ status: 'already' }, { status: 'taken' }, { status: 'taken' }]);
    expect(await ids(who, here)).toEqual([first.id, more[0].id].sort());
    expect(await ids(who, other)).toEqual([more[1].id]);
  });

  it('are taken but for one whose id stands in another visit, which hinders no other', async () => {
    const who = await newHousehold();
    const [here, fresh] = [v7(), v7()];
    const first = made(who, { visitId: here });
    await statuses(who, [first]);
    const [before, after] = [made(who, { visitId: fresh }), made(who, { visitId: fresh })];
    const stands = { status: 'conflict', path: 'id', reason: 'is taken by an event with other content' };
    expect(await statuses(who, [before, made(who, { id: first.id, visitId: fresh }), after])).toEqual([{ status: 'taken' }, stands, { status: 'taken' }]);
    expect(await ids(who, here)).toEqual([first.id]);
    expect(await ids(who, fresh)).toEqual([before.id, after.id].sort());
    // Nor does it hinder what a phone sends beside it.
    const sent = await send(
      who,
      [made(who, { id: first.id, visitId: v7() }), made(who, { visitId: v7() })].map((event) => ({ type: 'event', event })),
    );
    expect(sent).toMatchObject([stands, { status: 'taken' }]);
    // The same id in another household is another event.
    const others = await newHousehold();
    expect(await statuses(others, [made(others, { id: first.id, visitId: v7() })])).toEqual([{ status: 'taken' }]);
  });

  it('are refused one by one, with the place of what is wrong, though they are like the one before', async () => {
    const who = await newHousehold();
    const visitId = v7();
    const wrong = [null, [], 'text'].map((payload) => made(who, { visitId, payload: payload as never }));
    const odd = made(who, { visitId, payload: { socPct: 101 } });
    const later = made(who, { visitId, at: Date.UTC(2099, 0, 1) });
    const refused = (path: string, reason: string) => ({ status: 'refused', path, reason });
    expect(await statuses(who, [made(who, { visitId }), ...wrong, odd, later, made(who, { visitId })])).toEqual([
      { status: 'taken' },
      ...wrong.map(() => refused('payload', 'must hold named fields')),
      refused('payload.socPct', 'must be at most 100 %'),
      refused('at', 'is more than 48 hours in the future'),
      { status: 'taken' },
    ]);
  });
});
