import price from '../evidence/fixtures/price.json';
import type { Grouping } from '../figures/groupings';
import type { Asked } from '../figures/populations';
import { type Cell, waiting } from './cells';
import { comparedGroups, inOrder, startsOf, withLeast } from './compared-groups';
import { attempt, failed, visit } from './fixtures/rows';
import { MEASURE_NAMES, type Measure } from './measures';
import type { VisitRow } from './visit-row';

const ASKED: Asked = { time: 'handshake', mark: 'kW', currency: 'EUR' };
const times = (n: number, f: (i: number) => VisitRow) => Array.from({ length: n }, (_, i) => f(i));
const by = (grouping: Grouping, visits: VisitRow[], ...measures: Measure[]) => comparedGroups(visits, ASKED, [grouping], measures).rows;
const row = (visits: VisitRow[]) => comparedGroups(visits, ASKED, ['network'], MEASURE_NAMES).rows[0]!;
const cell = (measure: Measure, visits: VisitRow[], asked: Partial<Asked> = {}): Cell =>
  comparedGroups(visits, { ...ASKED, ...asked }, ['network'], [measure]).rows[0]!.cells[measure]!;

describe('a line of the comparison', () => {
  it('counts the first try over visits with an answer, and what is left out beside', () => {
    const r = row([
      visit(),
      visit({ firstTry: 'no', attempts: [failed] }),
      visit({ firstTry: 'left_out', attempts: [{ ...failed, outcome: 'open' }] }),
      visit({ firstTry: 'left_out', attempts: [] }),
    ]);
    expect(r).toMatchObject({ visits: 3, allVisits: 4, cells: { firstTry: { yes: 1, no: 1, leftOut: 1 } } });
    expect(r.cells.firstTry?.interval?.[0]).toBeCloseTo(0.0945, 3);
  });
  it('says from how many sites, and the share of the commonest', () => {
    expect(row([visit({ siteId: 'a' }), visit({ siteId: 'a' }), visit({ siteId: 'b' })])).toMatchObject({ sites: 2, commonestSite: 2 / 3 });
  });
  it('says how many of the billed charges were recorded at the stall', () => {
    const billed = { ended: 'charge', paid: '5', noted: true };
    expect(row([visit(billed), visit({ ...billed, noted: false }), visit({ ...billed, paid: null }), visit({ ...billed, ended: 'none' })]).coverage).toEqual({
      noted: 1,
      billed: 2,
    });
  });
  it('averages the lost time over the visits where it is known', () => {
    expect(row([visit({ lost_s: 100 }), visit({ lost_s: 0 }), visit({ lost_s: null })]).cells.lost).toEqual({
      is: 'mean',
      n: 2,
      mean: { known: true, value: 50 },
    });
    expect(cell('lost', [visit({ lost_s: null })])).toEqual({ is: 'mean', n: 0, mean: { known: false, why: 'not recorded' } });
  });
  // Fixture: R 4.2.2, total cost over total kWh, which is not the mean of the ratios.
  it.each(price.cases.map((c) => [c.label ?? 'case', c] as const))('all-in price, R: %s', (_name, c) => {
    const r = row(c.cost.map((paid, i) => visit({ paid: String(paid), deliveredKWh: String(c.kwh[i]), currency: 'EUR' })));
    expect(r.cells.allIn?.perKWh.known && Number(r.cells.allIn.perKWh.value)).toBeCloseTo(c.weightedMean, 10);
  });
  it('leaves other currencies and half-known visits out of the price, zero kWh in', () => {
    expect(
      cell('allIn', [
        visit({ paid: '10', deliveredKWh: '20', currency: 'EUR' }),
        visit({ paid: '2', deliveredKWh: '0', currency: 'EUR' }),
        visit({ paid: '99', deliveredKWh: '1', currency: 'CHF' }),
        visit({ paid: '99', deliveredKWh: null, currency: 'EUR' }),
      ]),
    ).toEqual({ is: 'price', n: 2, perKWh: { known: true, value: '0.6' }, currency: 'EUR', bills: { off: 0, checked: 0 }, stop: { kWh: 10, hour: null } });
    expect(cell('allIn', [visit({ paid: '2', deliveredKWh: '0', currency: 'EUR' })])).toMatchObject({ perKWh: { why: 'nothing delivered' } });
    expect(cell('allIn', [visit()])).toMatchObject({ perKWh: { why: 'no bill and kWh together' } });
  });
  it('says beside the price how many bills were off of those held against one, and what a stop was like', () => {
    const bills = [
      ['off', 9],
      ['right', 15],
      ['right', 16],
      [null, null],
    ] as const;
    const rows = bills.map(([billCheck, hour], i) => visit({ paid: '10', deliveredKWh: String(10 + 10 * i), currency: 'EUR', billCheck, hour }));
    expect(cell('allIn', [...rows, visit({ billCheck: 'off', leftOut: true })])).toMatchObject({ bills: { off: 1, checked: 3 }, stop: { kWh: 25, hour: 15 } });
    expect(cell('allIn', [visit()])).toMatchObject({ stop: null });
  });
  it('lines stand in the order of the interval’s lower end: one lucky visit does not lead', () => {
    const lucky = [visit({ networkId: 'lucky' }), ...times(20, (i) => visit({ networkId: 'steady', firstTry: i === 0 ? 'no' : 'yes' }))];
    expect(by('network', lucky, 'firstTry').map((r) => r.groups[0]?.key)).toEqual(['steady', 'lucky']);
  });
  it('equals stand by their visits, then by name, in whatever order they were visited', () => {
    const equal = ['c', 'a', 'b'].map((networkId) => visit({ networkId }));
    const keys = (visits: VisitRow[], ...measures: Measure[]) => by('network', visits, ...measures).map((r) => r.groups[0]?.key);
    for (const measures of [[], ['firstTry'], ['queue']] as Measure[][]) {
      expect(keys(equal, ...measures)).toEqual(['a', 'b', 'c']);
      expect(keys([...equal].reverse(), ...measures)).toEqual(['a', 'b', 'c']);
    }
    for (const measures of [[], ['queue']] as Measure[][]) expect(keys([...equal, visit({ networkId: 'c' })], ...measures)).toEqual(['c', 'a', 'b']);
  });
  it('sorted by what is better when less, the upper end counts, and what is not known stands last', () => {
    const of = (networkId: string, n: number, early: number) =>
      times(n, (i) => visit({ networkId, attempts: [attempt(20, { early: i < early ? 'yes' : 'no' })] }));
    const rows = by('network', [...of('few', 2, 0), ...of('many', 40, 1), visit({ networkId: 'none' })], 'early');
    expect(rows.map((r) => r.groups[0]?.key)).toEqual(['many', 'few', 'none']);
    const slow = by('network', [visit({ networkId: 'slow', attempts: [attempt(90)] }), visit({ networkId: 'quick', attempts: [attempt(9)] })], 'wait');
    expect(slow.sort(inOrder('wait')).map((r) => r.groups[0]?.key)).toEqual(['quick', 'slow']);
  });
  it('the better first by every kind of figure, and last what is not known', () => {
    const order = (measure: Measure, better: Partial<VisitRow>, worse: Partial<VisitRow>) =>
      by(
        'network',
        [
          visit({ networkId: 'none', firstTry: 'left_out', attempts: [] }),
          ...[1, 2].flatMap(() => [visit({ ...worse, networkId: 'a' }), visit({ ...better, networkId: 'z' })]),
        ],
        measure,
      )
        .sort(inOrder(measure))
        .map((r) => r.groups[0]?.key);
    const billed = { deliveredKWh: '10', currency: 'EUR' };
    const long = (interruptions: number) => ({ attempts: [attempt(20, { charging: 3600, interruptions })] });
    const all: [Measure, Partial<VisitRow>, Partial<VisitRow>][] = [
      ['firstTry', {}, { firstTry: 'no' }],
      ['wait', { attempts: [attempt(9)] }, { attempts: [attempt(90)] }],
      ['lost', { lost_s: 1 }, { lost_s: 100 }],
      ['allIn', { ...billed, paid: '4' }, { ...billed, paid: '5' }],
      ['interruptions', long(0), long(2)],
      ['faults', {}, { faultMarks: 'start_error:network' }],
      ['outOfOrder', { baysSeen: 4, baysOut: 0 }, { baysSeen: 4, baysOut: 3 }],
      ['queue', { queue_s: 10 }, { queue_s: 500 }],
      ['early', { attempts: [attempt(20, { early: 'no' })] }, { attempts: [attempt(20, { early: 'yes' })] }],
    ];
    for (const [measure, better, worse] of all) expect([measure, order(measure, better, worse).filter((key) => key !== 'none')]).toEqual([measure, ['z', 'a']]);
    for (const measure of ['wait', 'allIn', 'interruptions', 'outOfOrder', 'queue'] as const) {
      const [, better, worse] = all.find(([m]) => m === measure) as (typeof all)[number];
      expect([measure, order(measure, better, worse).at(-1)]).toEqual([measure, 'none']);
    }
  });
  it('by how long it stayed broken, at least: the shorter first', () => {
    const stay = (networkId: string, s: number) =>
      [0, s, 2 * s].map((at, i) =>
        visit({
          networkId,
          siteId: networkId,
          at: at * 1000,
          stallId: networkId,
          workedAt: i === 2 ? [networkId] : [],
          firstTry: i === 2 ? 'yes' : 'no',
          attempts: [i === 2 ? attempt(20, { stallId: networkId }) : { ...failed, stallId: networkId, side: 'network' }],
        }),
      );
    const rows = by('network', [...stay('a long one', 9000), ...stay('short', 60)], 'repair');
    expect(rows.map((r) => r.groups[0]?.key)).toEqual(['short', 'a long one']);
  });
  it('alike in all, the one with more visits first, then by name; without a measure the same', () => {
    const three = [visit({ networkId: 'b' }), visit({ networkId: 'a' }), visit({ networkId: 'c' }), visit({ networkId: 'c' })];
    expect(by('network', three, 'queue').map((r) => r.groups[0]?.key)).toEqual(['c', 'a', 'b']);
    expect(by('network', three).map((r) => r.groups[0]?.key)).toEqual(['c', 'a', 'b']);
  });
  it('lines with fewer visits than asked for are not shown', () => {
    const rows = by('network', [...times(3, () => visit({ networkId: 'three' })), visit({ networkId: 'one' })], 'firstTry');
    expect(withLeast(rows, 3).map((r) => r.groups[0]?.key)).toEqual(['three']);
    expect(withLeast(rows, 4)).toEqual([]);
    expect(withLeast(rows, 0)).toHaveLength(2);
    // Those that count for no start are visits, too; of none of them a site is the commonest.
    const [claimed] = by(
      'network',
      [1, 2].map(() => visit({ attemptCount: 0, attempts: [], firstTry: 'left_out', leftReason: 'too_dear' })),
      'firstTry',
    );
    expect(claimed).toMatchObject({ visits: 0, allVisits: 2, sites: 0, commonestSite: 0 });
    expect(withLeast(claimed ? [claimed] : [], 2)).toHaveLength(1);
  });
});

describe('groups', () => {
  const two = visit({
    siteId: 'x',
    carId: 'c',
    driverId: 'd',
    hour: 13,
    weather: 'rain',
    attemptCount: 2,
    firstTry: 'no',
    attempts: [
      { ...failed, stallId: 'A', meansKind: 'contactless', model: 'Twin', connector: 'CCS2', adapterId: null },
      attempt(30, { stallId: 'B', meansKind: 'app', model: 'Single', connector: 'CCS2', adapterId: 'q' }),
    ],
  });
  it.each<[Grouping, [string, number, number][]]>([
    // A visit counts where its first attempt was, an attempt where it was itself.
    [
      'stall',
      [
        ['A', 1, 1],
        ['B', 0, 1],
      ],
    ],
    [
      'means',
      [
        ['contactless', 1, 1],
        ['app', 0, 1],
      ],
    ],
    [
      'model',
      [
        ['Twin', 1, 1],
        ['Single', 0, 1],
      ],
    ],
    ['connector', [['CCS2', 1, 2]]],
    ['adapter', [['q', 0, 1]]],
    ['site', [['x', 1, 2]]],
    ['car', [['c', 1, 2]]],
    ['driver', [['d', 1, 2]]],
    ['hour', [['13', 1, 2]]],
    ['weather', [['rain', 1, 2]]],
    ['month', [['2025-10', 1, 2]]],
  ])('by %s', (grouping, expected) => {
    const rows = by(grouping, [two], 'firstTry', 'chargeStart');
    const got = rows.map((r): [string, number, number] => {
      const share = r.cells.chargeStart;
      return [r.groups[0]?.key ?? '', r.visits, (share?.yes ?? 0) + (share?.no ?? 0)];
    });
    expect(got.sort()).toEqual([...expected].sort());
  });
  it('by two things at once, and what has none of them is counted apart', () => {
    const { rows, ungrouped } = comparedGroups([two, visit({ hour: null }), visit({ hour: 0 })], ASKED, ['network', 'hour'], ['firstTry']);
    expect(rows.map((r) => r.groups)).toEqual(
      expect.arrayContaining([
        [
          { by: 'network', key: 'n' },
          { by: 'hour', key: '13' },
        ],
        [
          { by: 'network', key: 'n' },
          { by: 'hour', key: '0' },
        ],
      ]),
    );
    expect([rows.length, ungrouped]).toEqual([2, 1]);
  });
  it('what somebody left out is in none', () => {
    expect(comparedGroups([visit({ leftOut: true })], ASKED, ['network'], ['firstTry'])).toEqual({ rows: [], ungrouped: 0 });
  });
});

describe('waiting for power', () => {
  it('counts what never got power as never', () => {
    expect(waiting([attempt(10), attempt(20), attempt(30), failed], ASKED)).toMatchObject({ timed: 3, never: 1, median: { known: true, value: 25 } });
  });
  it('says so when fewer than half started', () => {
    expect(waiting([attempt(10), failed, failed], ASKED).median).toEqual({ known: false, why: 'fewer than half started' });
    expect(waiting([failed], ASKED).median).toEqual({ known: false, why: 'none got power' });
    expect(waiting([], ASKED).median).toEqual({ known: false, why: 'nothing timed' });
  });
  it('keeps end marks apart and late looks out', () => {
    expect(
      waiting([attempt(10), attempt(90, { endMark: 'kWh' }), attempt(400, { late: true }), attempt(null), { ...failed, outcome: 'open' }], ASKED),
    ).toMatchObject({ timed: 1, never: 0, leftOut: 4, median: { value: 10 } });
  });
  it('the middle half may have no upper end', () => {
    expect(waiting([attempt(10), attempt(20), attempt(30), failed, failed], ASKED).quarters).toEqual([20, null]);
  });
});

it('starts are the visits with an answer, whatever side failed; what somebody left out is none', () => {
  const where = { networkId: 'n', siteId: 'x', stallId: 'y', workedAt: ['y'], driverId: 'z', at: 7, month: '2025-10' };
  const all = [
    visit(where),
    visit({ ...where, firstTry: 'no', firstSide: 'car' }),
    visit({ ...where, firstTry: 'left_out' }),
    visit({ ...where, leftOut: true }),
  ];
  expect(startsOf(all)).toEqual([
    { ...where, group: 'n', stratum: ' ', yes: true },
    { ...where, group: 'n', stratum: ' ', yes: false },
  ]);
  expect(startsOf(all, 'site').map((s) => s.group)).toEqual(['x', 'x']);
  expect(startsOf(all, 'weather')).toEqual([]);
});
