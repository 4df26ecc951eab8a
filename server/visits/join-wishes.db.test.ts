import { v7 } from 'uuid';
import { readLedgerFilter } from '@/core/compare/ledger-filter';
import { codeDigits } from '@/core/visit/visit-code';
import type { Member } from '../accounts/who';
import { pool } from '../db/pool';
import { addPlace, addSomebody, describeWithDatabase, newHousehold, type Place, send } from '../fixtures/household';
import { ledgerPage } from './ledger-query';
import { visitPage } from './visit-page';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

const AT = Date.UTC(2025, 9, 14, 12);
type Told = [s: number, kind: string, payload: object];
/** A recording of a visit on one phone, as it is sent. */
function recording({ householdId, personId }: Member, visitId: string, told: Told[], at = AT) {
  const device = v7();
  return told.map(([s, kind, payload], i) => ({
    type: 'event',
    event: {
      id: v7(),
      householdId,
      personId,
      visitId,
      kind,
      v: 1,
      at: at + s * 1000,
      precision: 'ms',
      zone: 'UTC',
      deviceId: device,
      life: device,
      mono: 1000 * s,
      awake: true,
      seq: i + 1,
      origin: 'tap',
      role: 'recorder',
      payload,
    },
  }));
}
const first = (place: Place): Told[] => [
  [0, 'pulled_in', { siteId: place.siteId }],
  [5, 'stall_chosen', { stallId: place.stalls[0] }],
  [30, 'plugged', {}],
];
const second = (place: Place, visitId: string): Told[] => [
  [20, 'pulled_in', { siteId: place.siteId, joins: codeDigits(visitId) }],
  [60, 'note', { text: 'windy' }],
];
const listed = async (who: Member) =>
  (
    await ledgerPage(
      who,
      'EUR',
      readLedgerFilter(() => null),
    )
  ).rows.map((r) => r.id);
const notes = async (who: Member, visitId: string) => {
  const page = await visitPage(who, visitId);
  return page && 'visit' in page ? page.visit.line.filter((e) => e.kind === 'note').length : null;
};

describeWithDatabase('a second phone that joined without a network, by the code of the visit', () => {
  let ines: Member;
  let tone: Member;
  let place: Place;
  beforeEach(async () => {
    ines = await newHousehold();
    tone = await addSomebody(ines.householdId, 'driver');
    place = await addPlace(ines);
  });
  it.each([
    ['first', [0, 1]],
    ['last', [1, 0]],
  ])('is one visit with the first, whose recording reaches the server %s', async (_when, order) => {
    const [a, b] = [v7(), v7()];
    const batches = [() => send(ines, recording(ines, a, first(place))), () => send(tone, recording(tone, b, second(place, a)))];
    for (const i of order) expect((await batches[i]?.())?.map((r) => r.status)).toEqual(expect.not.arrayContaining(['refused']));
    expect(await listed(ines)).toEqual([a]);
    expect(await notes(ines, a)).toBe(1);
    // What comes later to the second recording follows.
    await send(tone, recording(tone, b, [[90, 'note', { text: 'rain' }]]));
    expect(await notes(ines, a)).toBe(2);
  });
  it('stays alone at another site, on another day, with a code that is nobody’s, and in another household', async () => {
    const other = await addPlace(ines, { network: 'Ferrywell', site: 'Brod' });
    const [a, b, c, d] = [v7(), v7(), v7(), v7()];
    await send(ines, recording(ines, a, first(place)));
    await send(tone, recording(tone, b, second(other, a)));
    await send(tone, recording(tone, c, second(place, a), AT + 13 * 3600_000));
    await send(tone, recording(tone, d, second(place, v7())));
    expect((await listed(ines)).sort()).toEqual([a, b, c, d].sort());
    const stranger = await newHousehold();
    const elsewhere = await addPlace(stranger);
    const e = v7();
    await send(stranger, recording(stranger, e, second(elsewhere, a)));
    expect(await listed(stranger)).toEqual([e]);
  });
  it('where two visits say of each other that they were joined into it, a third stays alone: nothing goes round for ever', async () => {
    const [a, b, c] = [v7(), v7(), v7()];
    await send(ines, recording(ines, a, [...first(place), [100, 'withdrawal', { target: a, joinedInto: b }]]));
    await send(ines, recording(ines, b, [...first(place), [100, 'withdrawal', { target: b, joinedInto: a }]]));
    expect((await send(tone, recording(tone, c, second(place, a)))).map((r) => r.status)).toEqual(['taken', 'taken']);
    expect(await listed(ines)).toEqual([c]);
  });
  it('somebody who only looks on joins so too: what they recorded waits on their phone until the visit is here', async () => {
    const observer = await addSomebody(ines.householdId, 'observer');
    const [a, b] = [v7(), v7()];
    const items = recording(observer, b, second(place, a));
    expect((await send(observer, items)).map((r) => r.code)).toEqual(['visit_unknown', 'visit_unknown']);
    await send(ines, recording(ines, a, first(place)));
    expect((await send(observer, items)).map((r) => r.status)).toEqual(['taken', 'taken']);
    expect(await listed(ines)).toEqual([a]);
    expect(await notes(ines, a)).toBe(1);
  });
});
