import { v7 } from 'uuid';
import { CARD, KW, type Step, story } from '@/core/visit/fixtures/story';
import type { SignedIn } from '../accounts/sessions';
import type { Member } from '../accounts/who';
import { pool } from '../db/pool';
import { addPlace, addSomebody, addVisit, CHARGED, describeWithDatabase, newHousehold, type Place, send } from '../fixtures/household';
import { markVisits } from '../visits/mark-visits';
import { sameStop } from './same-stop';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

/** Charged as in [CHARGED], 12.5 kWh in 852 s, and then once more: 5 kWh in 400 s. */
const TWICE: Step[] = [
  ...CHARGED.slice(0, -1),
  [1000, 'plugged'],
  [1010, 'means_shown', CARD],
  [1050, 'power_seen', KW],
  [1449, 'reading', { screen: 'stall', kWh: '5', kW: 45 }],
  [1450, 'stop_asked', { by: 'button' }],
  [1480, 'unplugged'],
  [1500, 'pulled_out', { reason: 'enough' }],
];

describeWithDatabase('the power that a site gave', () => {
  let ines: Member;
  let tone: Member;
  let place: Place;
  const at = (day: number) => Date.UTC(2025, 9, day, 12);
  const lastsAt = async (who: Member, where = place) => {
    const signedIn = { ...who, currency: 'EUR', zone: 'UTC' } as unknown as SignedIn;
    const { rows } = await sameStop(signedIn, { kWh: 40, weekday: 2, time: '12:00', parkedMin: 0 });
    return rows.find((r) => r.siteId === where.siteId)?.minutes;
  };
  beforeAll(async () => {
    ines = await newHousehold();
    tone = await addSomebody(ines.householdId, 'driver');
    place = await addPlace(ines);
    await addVisit(ines, place, at(1));
    await addVisit(ines, place, at(2), TWICE);
  }, 30_000);

  it('is taken from three visits on, all energy over all time charging', async () => {
    // Two are too few: the plate says it.
    expect(await lastsAt(ines)).toEqual({ kWh: 40, minutes: (40 / 150) * 60, by: 'plate', current: 'dc' });
    await addVisit(tone, place, at(3));
    const kW = ((3 * 12.5 + 5) * 3600) / (3 * 852 + 400);
    const own = { kWh: 40, minutes: expect.closeTo((40 / kW) * 60, 6), by: 'own', current: 'dc' };
    expect(await lastsAt(ines)).toEqual(own);
    // Nobody else's: neither another site nor another household has it.
    const elsewhere = await addPlace(ines, { network: 'Otter', site: 'Drava' });
    expect(await lastsAt(ines, elsewhere)).toMatchObject({ by: 'plate' });
    const stranger = await newHousehold();
    expect(await lastsAt(stranger)).toBeUndefined();
  });
  it('rests on no visit that is left out, private to somebody else, withdrawn, or of which energy or time is not known', async () => {
    const before = await lastsAt(ines);
    expect(before).toMatchObject({ by: 'own' });
    const slow: Step[] = [
      ...CHARGED.slice(0, 3),
      [3600, 'reading', { screen: 'stall', kWh: '1', kW: 1 }],
      [3602, 'stop_asked', { by: 'button' }],
      [3650, 'unplugged'],
    ];
    const [out, hers] = [await addVisit(ines, place, at(4), slow), await addVisit(ines, place, at(5), slow)];
    expect(await lastsAt(ines)).not.toEqual(before);
    await markVisits(ines, { ids: [out], as: 'left_out', reason: 'a trial' });
    await markVisits(ines, { ids: [hers], as: 'private' });
    expect(await lastsAt(tone)).toEqual(before);
    expect(await lastsAt(ines)).not.toEqual(before);
    const back = await addVisit(ines, place, at(8), slow);
    expect(await lastsAt(tone)).not.toEqual(before);
    const { householdId, personId } = ines;
    const [event] = story([9999, 'withdrawal', { target: back }]).map((e) => ({ ...e, householdId, personId, id: v7(), visitId: back, at: at(9) }));
    expect(await send(ines, [{ type: 'event', event }])).toMatchObject([{ status: 'taken' }]);
    expect(await lastsAt(tone)).toEqual(before);
    // Power that is still on, and a charge of which no kWh was read.
    await addVisit(ines, place, at(6), CHARGED.slice(0, 3));
    await addVisit(ines, place, at(7), [...CHARGED.slice(0, 3), ...CHARGED.slice(4)]);
    expect(await lastsAt(tone)).toEqual(before);
  });
});
