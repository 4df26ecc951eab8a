import { v7 } from 'uuid';
import type { LedgerFilter } from '@/core/compare/ledger-filter';
import { visitRow } from '@/core/compare/visit-row';
import type { Group } from '@/core/figures/groupings';
import { POPULATION_NAMES, POPULATIONS, visitTest } from '@/core/figures/populations';
import { CARD, KW, type Step } from '@/core/visit/fixtures/story';
import type { Member } from '../accounts/who';
import { fromBin } from '../db/binary-id';
import { pool } from '../db/pool';
import { addPlace, addVisit, asRecords, CHARGED, describeWithDatabase, newHousehold, type Place, send } from '../fixtures/household';
import { visitWhere } from '../visits/visit-where';
import { billsAgainst } from './bills-against';
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
  'billed over the price on file': [...CHARGED, [1000, 'bill', { sessions: [], amount: '6', currency: 'EUR', state: 'charged' }]],
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
  'stopped by itself within a minute': [...start, [50, 'power_seen', KW], [90, 'fault', { code: 'stopped_by_itself', side: 'network' }], out('gave_up')],
  'stopped by a limit late, the handle stuck': [
    [5, 'change', { what: 'rain' }],
    ...start,
    [50, 'power_seen', KW],
    [3000, 'power_gone', { why: 'site_cap' }],
    [3010, 'stuck', { end: 'car' }],
    out('enough', 3100),
  ],
  'a queue, a price, a call for help': [
    [1, 'survey', { stalls: [{ stallId: '01900000-0000-7000-8000-000000000001', state: 'dark' }] }],
    [2, 'queue_joined'],
    [4, 'stall_free'],
    [6, 'price_shown', { where: 'screen', text: '0.59' }],
    [7, 'help_called'],
    [9, 'help_answered'],
    [10, 'plugged'],
    [20, 'means_refused', CARD],
    [30, 'means_shown', { meansKind: 'app' }],
    [60, 'power_seen', KW],
    [600, 'stop_asked', {}],
    [620, 'unplugged'],
    out('enough', 650),
  ],
  'no price shown': [[6, 'fault', { code: 'price_not_shown', side: 'network' }], [10, 'plugged'], [20, 'means_shown', { meansKind: 'app' }], out('price')],
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
    // 12.5 kWh make the 5 that the plain ones were charged.
    await send(
      who,
      asRecords([{ type: 'tariff', id: v7(), baseRev: 0, fields: { networkId: place.networkId, currency: 'EUR', perKWh: '0.4', validFrom: '2025-01-01' } }]),
    );
    for (const [i, steps] of Object.values(SORTS).entries()) ids.push(await addVisit(who, place, Date.UTC(2025, 5, 1 + i), steps));
  }, 30_000);

  const listed = async (filter: LedgerFilter): Promise<string[]> => {
    const where = visitWhere(member, filter, 'EUR');
    const [rows] = await pool().execute(
      `SELECT v.id FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id WHERE ${where.sql}`,
      where.values,
    );
    return (rows as { id: Buffer }[]).map((r) => fromBin(r.id));
  };
  const asked = POPULATION_NAMES.flatMap((name) => [undefined, 'car' as const].map((without) => [name, without] as const));
  it.each(asked)('are of the same visits: %s, without %s', async (counted, without) => {
    const how = { time: 'handshake', mark: 'kW', currency: 'EUR', ...(without ? { without } : {}) } as const;
    const bill = await billsAgainst(householdId, new Set([place.networkId]), pool());
    const where = { networkOfSite: () => place.networkId, stall: () => undefined, bill };
    const byCore = (await deriveVisits(householdId, ids))
      .filter(({ visit }) => visitTest(POPULATIONS[counted].who(how))(visitRow(visit, place.networkId, where)))
      .map(({ visit }) => visit.id);
    const got = await listed({ ...how, counted });
    expect(got.sort()).toEqual(byCore.sort());
    expect(got.length).toBeGreaterThan(0);
    expect(got.length).toBeLessThan(ids.length);
  });

  const groups: Group[][] = [
    [{ by: 'means', key: 'app' }],
    [{ by: 'means', key: 'contactless' }],
    [{ by: 'hour', key: '0' }],
    [{ by: 'weather', key: 'rain' }],
    [{ by: 'model', key: 'Twin 300' }],
    [{ by: 'connector', key: 'CCS2' }],
    [{ by: 'month', key: '2025-06' }],
    [
      { by: 'means', key: 'contactless' },
      { by: 'weather', key: 'rain' },
    ],
  ];
  it.each(groups.map((g) => [g.map((x) => `${x.by} ${x.key}`).join(', '), g] as const))('so are those of a group: %s', async (_, of) => {
    const derived = await deriveVisits(householdId, ids);
    const bill = await billsAgainst(householdId, new Set([place.networkId]), pool());
    const where = { bill, networkOfSite: () => place.networkId, stall: () => ({ siteId: place.siteId, model: 'Twin 300', connectors: ['CCS2'] }) };
    for (const counted of POPULATION_NAMES) {
      const how = { time: 'handshake', mark: 'kW', currency: 'EUR', groups: of } as const;
      const rows = derived.map(({ visit }) => ({ id: visit.id, row: visitRow(visit, place.networkId, where) }));
      const byCore = rows.filter(({ row }) => visitTest(POPULATIONS[counted].who(how))(row)).map(({ id }) => id);
      expect([counted, (await listed({ ...how, counted })).sort()]).toEqual([counted, byCore.sort()]);
    }
    // Without a number that was counted, too.
    expect((await listed({ time: 'handshake', mark: 'kW', groups: of })).length).toBeGreaterThan(0);
  });
});
