import type { SignedIn } from '../accounts/sessions';
import { pool } from '../db/pool';
import { asRecords, describeWithDatabase, newHousehold, send, signedIn } from '../fixtures/household';
import { recordsOf } from '../records/record-tables';
import { previewPlaces, takePlaces } from './import-places';
import type { PlaceChoice } from './place-records';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));
const at = { last_updated: '2026-01-01T00:00:00Z' };
const plug = {
  id: '1',
  standard: 'IEC_62196_T2_COMBO',
  format: 'CABLE',
  power_type: 'DC',
  max_voltage: 920,
  max_amperage: 200,
  max_electric_power: 150000,
  ...at,
};
/** @param posts each its uid and what stands on it */
const location = (id: string, latitude: string, longitude: string, posts: [string, string][]) => ({
  country_code: 'ZZ',
  party_id: 'BLU',
  id,
  publish: true,
  name: 'City Hall',
  address: 'Road 1',
  city: 'Brod',
  country: 'SVN',
  coordinates: { latitude, longitude },
  operator: { name: 'Bluebarn' },
  time_zone: 'Europe/Ljubljana',
  evses: posts.map(([uid, physical_reference]) => ({ uid, physical_reference, status: 'AVAILABLE', connectors: [plug], ...at })),
  ...at,
});
const feature = (coordinates: [number, number], more: object = {}) => ({
  type: 'Feature',
  geometry: { type: 'Point', coordinates },
  properties: { name: 'City Hall', network: 'Bluebarn', ...more },
});
const file = (all: object) => new TextEncoder().encode(JSON.stringify(all));
const rows = async (who: SignedIn, bytes: Uint8Array) => {
  const answer = await previewPlaces(who, bytes);
  if (!answer.ok) throw new Error(answer.refused.code);
  return answer.preview.rows;
};
const choicesOf = async (who: SignedIn, bytes: Uint8Array): Promise<PlaceChoice[]> =>
  (await rows(who, bytes)).map((r) => ({ pointer: r.pointer, network: r.network ?? 'Bluebarn', position: 'file', siteId: r.siteId }));
const take = async (who: SignedIn, bytes: Uint8Array, choices?: PlaceChoice[]) => {
  const answer = await takePlaces(who, bytes, choices ?? (await choicesOf(who, bytes)));
  if (!answer.ok) throw new Error(answer.refused.code);
  return answer;
};
/** Each site by its latitude with the ids of its posts. */
const sitesOf = async (who: SignedIn) => {
  const stalls = await recordsOf(who.householdId, 'stall');
  return (await recordsOf(who.householdId, 'site'))
    .map((s) => [
      s.fields.latitude,
      s.archived,
      stalls
        .filter((x) => x.fields.siteId === s.id)
        .map((x) => [x.fields.name, ...x.fields.evseUids])
        .sort(),
    ])
    .sort();
};
const putAway = async (who: SignedIn, type: 'site' | 'network') => {
  const [one] = await recordsOf(who.householdId, type);
  const [answer] = await send(who, asRecords([{ type, id: one?.id, baseRev: one?.rev, archived: true, fields: {} }]));
  expect(answer?.status).toBe('taken');
};

describeWithDatabase('places of a file', () => {
  let who: SignedIn;
  beforeEach(async () => {
    who = signedIn(await newHousehold());
  });
  const two = file([location('A', '46.0500', '14.5000', [['a1', '1']]), location('B', '45.5500', '13.7300', [['b1', '1']])]);
  const bothMade = [
    [45.55, false, [['1', 'b1']]],
    [46.05, false, [['1', 'a1']]],
  ];

  it('of one name and network that stand apart are two sites, each with its own posts, however often they are asked for', async () => {
    const choices = await choicesOf(who, two);
    await Promise.all([take(who, two, choices), take(who, two, choices)]);
    expect(await sitesOf(who)).toEqual(bothMade);
    // An answer that was lost is asked for again.
    expect(await take(who, two, choices)).toMatchObject({ taken: 0, notTaken: [] });
    expect(await sitesOf(who)).toEqual(bothMade);
    expect((await rows(who, two)).map((r) => r.is)).toEqual(['here', 'here']);
  });
  it('taken one after the other they are two as well; of GeoJSON too', async () => {
    const [first, second] = await choicesOf(who, two);
    await take(who, two, [first as PlaceChoice]);
    expect((await rows(who, two)).map((r) => r.is)).toEqual(['here', 'new']);
    await take(who, two, [second as PlaceChoice]);
    expect(await sitesOf(who)).toEqual(bothMade);
    const geo = file({ type: 'FeatureCollection', features: [feature([16.1, 46.6]), feature([16.9, 46.9]), feature([16.1001, 46.6])] });
    const choices = await choicesOf(who, geo);
    expect((await rows(who, geo)).map((r) => [r.is, r.asks])).toEqual([
      ['new', []],
      ['new', []],
      ['new', []],
    ]);
    for (const c of choices) await take(who, geo, [c]);
    expect((await sitesOf(who)).map(([latitude]) => latitude)).toEqual([45.55, 46.05, 46.6, 46.9]);
    expect((await rows(who, geo)).map((r) => r.is)).toEqual(['here', 'here', 'here']);
  });
  it('that stand a few steps from each other are two where each is a Location, and one as features', async () => {
    const sides = file([location('A', '46.0500', '14.5000', [['a1', '1']]), location('B', '46.0510', '14.5000', [['b1', '1']])]);
    await take(who, sides);
    expect((await sitesOf(who)).map(([, , posts]) => posts)).toEqual([[['1', 'a1']], [['1', 'b1']]]);
    const other = signedIn(await newHousehold());
    await take(other, file({ type: 'FeatureCollection', features: [feature([14.5, 46.05]), feature([14.5, 46.051])] }));
    expect(await sitesOf(other)).toEqual([[46.05, false, []]]);
  });
  it('keep two posts on which the same stands', async () => {
    await take(
      who,
      file([
        location('A', '46.0500', '14.5000', [
          ['a1', '1'],
          ['a2', '1'],
        ]),
      ]),
    );
    expect(await sitesOf(who)).toEqual([
      [
        46.05,
        false,
        [
          ['1', 'a1'],
          ['1', 'a2'],
        ],
      ],
    ]);
  });
  it('whose names are longer than a record keeps are shortened, are the same again, and cost no other its place; blank ones are none', async () => {
    const who = signedIn(await newHousehold());
    const odd = (id: string, latitude: string, more: object) => ({ ...location(id, latitude, '14.51', [[`U${id}`, '1']]), ...more });
    // OCPI 2.2.1: 100 letters for the name of an operator (BusinessDetails), 255 for that of a Location.
    const bytes = file([
      odd('L1', '46.05', { operator: { name: `Bluebarn ${'N'.repeat(91)}` } }),
      odd('L2', '46.15', { name: `Lipa ${'S'.repeat(250)}` }),
      odd('L3', '46.25', { name: ' ', operator: { name: '  ' } }),
      odd('L4', '46.35', { name: 'Brod Landing' }),
    ]);
    const answer = await take(who, bytes);
    expect(answer.notTaken).toEqual([]);
    const [sites, networks] = [await recordsOf(who.householdId, 'site'), await recordsOf(who.householdId, 'network')];
    expect(sites.map((s) => s.fields.name).sort()).toEqual(['Brod Landing', 'City Hall', `Lipa ${'S'.repeat(75)}`, 'Road 1']);
    expect(networks.map((n) => n.fields.name).sort()).toEqual(['Bluebarn', `Bluebarn ${'N'.repeat(71)}`, 'ZZ*BLU']);
    expect((await rows(who, bytes)).map((r) => r.is)).toEqual(['here', 'here', 'here', 'here']);
    expect((await take(who, bytes)).taken).toBe(0);
  });
  it('that were put away come into use again where that is asked, with their network', async () => {
    const one = file([location('A', '46.0500', '14.5000', [['a1', '1']])]);
    await take(who, one);
    await putAway(who, 'site');
    await putAway(who, 'network');
    expect(await rows(who, one)).toMatchObject([{ is: 'away' }]);
    expect(await take(who, one)).toMatchObject({ taken: 2, notTaken: [] });
    expect(await rows(who, one)).toMatchObject([{ is: 'here' }]);
    await putAway(who, 'network');
    await take(who, two);
    expect((await recordsOf(who.householdId, 'network')).map((n) => [n.fields.name, n.archived])).toEqual([['Bluebarn', false]]);
    expect(await sitesOf(who)).toEqual(bothMade);
  });
  it('known elsewhere are asked about: moved, left, or another of that name; one that is no longer what it was said to be is not taken', async () => {
    const elsewhere = (...at: [number, number]) => file(feature(at));
    await take(who, elsewhere(14.5, 46.05));
    const moved = elsewhere(14.5, 46.1);
    const [row] = await rows(who, moved);
    expect(row).toMatchObject({ is: 'adds', asks: ['moved'], siteId: expect.any(String) });
    const choice: PlaceChoice = { pointer: '', network: 'Bluebarn', position: 'none', siteId: row?.siteId ?? null };
    await take(who, moved, [choice]);
    expect(await sitesOf(who)).toEqual([[46.05, false, []]]);
    await take(who, moved, [{ ...choice, siteId: null, position: 'file' }]);
    expect(await sitesOf(who)).toEqual([
      [46.05, false, []],
      [46.1, false, []],
    ]);
    const third = elsewhere(14.5, 46.2);
    const [again] = await rows(who, third);
    await take(who, third, [{ ...choice, siteId: again?.siteId ?? null, position: 'file' }]);
    expect((await sitesOf(who)).map(([latitude]) => latitude)).toEqual([46.05, 46.2]);
    expect(await take(who, third, [{ ...choice, siteId: who.personId }])).toMatchObject({
      taken: 0,
      notTaken: [{ reason: expect.stringContaining('look again') }],
    });
  });
});
