import { visitRow } from '@/core/compare/visit-row';
import { POPULATION_NAMES, POPULATIONS, visitTest } from '@/core/figures/populations';
import { CARD, KW, type Step } from '@/core/visit/fixtures/story';
import type { Member } from '../accounts/who';
import { fromBin } from '../db/binary-id';
import { pool } from '../db/pool';
import { addPlace, addVisit, CHARGED, describeWithDatabase, newHousehold, type Place } from '../fixtures/household';
import { visitWhere } from '../visits/visit-where';
import { deriveVisits } from './write-figures';

afterAll(() => (process.env.DATABASE_URL ? pool().end() : undefined));

const start: Step[] = [
  [10, 'plugged'],
  [20, 'means_shown', CARD],
];
const out = (reason: string, at = 400): Step => [at, 'pulled_out', { reason }];
const bill = (currency: string, kWh?: string): Step => [1000, 'bill', { sessions: [], amount: '5', currency, state: 'charged', ...(kWh ? { kWh } : {}) }];
/** One visit of every sort that a comparison tells apart. */
const SORTS: Record<string, readonly Step[]> = {
  clean: [...CHARGED, bill('EUR')],
  'in another currency': [...CHARGED, bill('CHF')],
  'read too early': [
    ...start,
    [50, 'power_seen', KW],
    [60, 'reading', { screen: 'stall', kWh: '0.4', kW: 50 }],
    [900, 'stop_asked', {}],
    out('enough', 950),
    bill('EUR'),
  ],
  'after a second showing': [...start, [30, 'means_shown', CARD], [60, 'power_seen', KW], out('enough')],
  'seen late': [...start, [90, 'power_seen', { ...KW, late: true }], out('enough')],
  'by the kWh': [...start, [90, 'power_seen', { screen: 'stall', mark: 'kWh' }], out('enough')],
  'failed by the network': [...start, [60, 'fault', { code: 'start_error', side: 'network' }], out('gave_up')],
  'failed by the car': [...start, [60, 'fault', { code: 'timed_out', side: 'car' }], out('gave_up')],
  'only claimed': [...start, [40, 'claimed', { by: 'screen' }], out('enough')],
  'left for the queue': [out('queue')],
  'left for the price': [...start, out('price')],
  closed: [out('closed')],
  'a receipt': [out('enough'), bill('EUR', '20')],
  'left out by somebody': [...CHARGED, [1100, 'mark', { as: 'left_out', reason: 'a test' }]],
  'still there': [...start],
};

describeWithDatabase('a number and the list behind it', () => {
  let place: Place;
  let member: Member;
  let householdId: string;
  const ids: string[] = [];
  beforeAll(async () => {
    const who = await newHousehold();
    member = who;
    householdId = who.householdId;
    place = await addPlace(who);
    for (const [i, steps] of Object.values(SORTS).entries()) ids.push(await addVisit(who, place, Date.UTC(2025, 5, 1 + i), steps));
  }, 30_000);

  const asked = POPULATION_NAMES.flatMap((name) => [undefined, 'car' as const].map((without) => [name, without] as const));
  it.each(asked)('are of the same visits: %s, without %s', async (counted, without) => {
    const how = { time: 'handshake', mark: 'kW', currency: 'EUR', ...(without ? { without } : {}) } as const;
    const byCore = (await deriveVisits(householdId, ids))
      .filter(({ visit }) => visitTest(POPULATIONS[counted].who(how))(visitRow(visit, place.networkId)))
      .map(({ visit }) => visit.id);
    const where = visitWhere(member, { ...how, counted }, 'EUR');
    const [rows] = await pool().execute(
      `SELECT v.id FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id WHERE ${where.sql}`,
      where.values,
    );
    const listed = (rows as { id: Buffer }[]).map((r) => fromBin(r.id));
    expect(listed.sort()).toEqual(byCore.sort());
    expect(listed.length).toBeGreaterThan(0);
    expect(listed.length).toBeLessThan(ids.length);
  });
});
