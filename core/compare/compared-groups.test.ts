import price from '../evidence/fixtures/price.json';
import type { Grouping } from '../figures/groupings';
import type { Asked } from '../figures/populations';
import { type Cell, waiting } from './cells';
import { comparedGroups, inOrder, startsOf, withLeast } from './compared-groups';
import { attempt, failed, visit } from './fixtures/rows';
import { figuresRead, LOOK_NAMES, LOOKS, MEASURE_NAMES, MEASURES, type Measure } from './measures';
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

describe('measures', () => {
  const session = (more: object) => visit({ attempts: [attempt(20, more)] });
  it.each<[Measure, [object, object, object], [number, number]]>([
    ['chargeStart', [{}, { outcome: 'failed' }, { outcome: 'open' }], [1, 1]],
    ['end', [{ sessionEnd: 'wished' }, { sessionEnd: 'limit' }, { sessionEnd: null }], [1, 1]],
    ['session', [{ good: 'yes' }, { good: 'no' }, { good: null }], [1, 1]],
    ['authorisation', [{ firstShown: 'yes' }, { firstShown: 'no' }, { firstShown: null }], [1, 1]],
    ['early', [{ early: 'yes' }, { early: 'no' }, { early: null }], [1, 1]],
    ['itself', [{ sessionEnd: 'itself' }, { sessionEnd: 'other' }, { sessionEnd: null }], [1, 1]],
    ['stuck', [{ stuck: 'yes' }, { stuck: 'no' }, { stuck: null }], [1, 1]],
  ])('%s is a share of attempts, those that do not tell apart', (measure, attempts, [yes, no]) => {
    expect(cell(measure, attempts.map(session))).toMatchObject({ is: 'share', yes, no });
  });
  it('of whole visits too', () => {
    expect(cell('visit', [visit({ ended: 'charge' }), visit({ ended: 'none' }), visit({ ended: 'open' })])).toMatchObject({ yes: 1, no: 1 });
    expect(cell('priceSeen', [visit({ priceBefore: 'yes' }), visit({ priceBefore: 'no' }), visit({ priceBefore: null })])).toMatchObject({ yes: 1, no: 1 });
  });
  it('with and without the faults of a side, and how many that takes away', () => {
    const visits = [visit(), visit({ firstTry: 'no', firstSide: 'car' }), visit({ firstTry: 'no', firstSide: null })];
    expect(cell('firstTry', visits, { without: 'car' })).toMatchObject({ yes: 1, no: 2, without: { yes: 1, no: 1, side: 'car', taken: 1 } });
    const attempts = [session({}), session({ outcome: 'failed', side: 'car' }), session({ outcome: 'gave_up', side: null })];
    expect(cell('chargeStart', attempts, { without: 'car' })).toMatchObject({ yes: 1, no: 2, without: { yes: 1, no: 1, taken: 1 } });
    const shown = [session({ firstShown: 'yes' }), session({ firstShown: 'no', refusedBy: 'payment' })];
    expect(cell('authorisation', shown, { without: 'payment' })).toMatchObject({ without: { yes: 1, no: 0, taken: 1 } });
    const early = [session({ early: 'yes', side: 'car' }), session({ early: 'no' })];
    expect(cell('early', early, { without: 'car' })).toMatchObject({ yes: 1, without: { yes: 0, no: 1, taken: 1 } });
  });
  it('faults per 100 visits, by kind and by side, without one side', () => {
    const visits = [
      visit({ faultMarks: 'card_refused:payment,start_error:network' }),
      visit({ faultMarks: 'start_error:network' }),
      visit({ faultMarks: '' }),
      visit(),
    ];
    expect(cell('faults', visits)).toEqual({
      is: 'rate',
      count: 3,
      per: 4,
      of: 'visits',
      rate: { known: true, value: 75 },
      parts: [
        ['Start error', 2],
        ['Card refused', 1],
      ],
    });
    expect(cell('sides', visits)).toMatchObject({
      parts: [
        ['network', 2],
        ['payment', 1],
      ],
    });
    expect(cell('faults', visits, { without: 'network' })).toMatchObject({ count: 1, rate: { value: 25 } });
    expect(cell('faults', [visit({ attemptCount: 0, firstTry: 'left_out', attempts: [] })])).toMatchObject({ rate: { known: false } });
  });
  it('interruptions per 100 h charging, where that is known', () => {
    const of = [session({ charging: 1800, interruptions: 1 }), session({ charging: 1800, interruptions: 2 }), session({ charging: null, interruptions: 9 })];
    expect(cell('interruptions', of)).toMatchObject({ count: 3, per: 1, of: 'hours', rate: { value: 300 } });
  });
  it('bays out of order over the bays looked at', () => {
    const got = cell('outOfOrder', [visit({ baysSeen: 4, baysOut: 1 }), visit({ baysSeen: 6, baysOut: 0 }), visit({ baysSeen: null, baysOut: null })]);
    expect(got).toMatchObject({ is: 'bays', yes: 1, no: 9, looks: 2 });
    expect(cell('outOfOrder', [visit()])).toMatchObject({ interval: null });
  });
  it('queue and helpline: median and middle half of those that were timed', () => {
    const visits = [60, 120, 300].map((s) => visit({ queue_s: s, helpAnswered_s: s / 2 }));
    expect(cell('queue', [...visits, visit({ queue_s: null })])).toEqual({ is: 'times', n: 3, median: { known: true, value: 120 }, quarters: [90, 210] });
    expect(cell('help', visits)).toMatchObject({ n: 3, median: { value: 60 } });
    expect(cell('queue', [visit()])).toMatchObject({ n: 0, median: { why: 'not recorded' } });
  });
  it('time to repair is an interval between what was seen', () => {
    const hour = 3_600_000;
    const at = (h: number, works: boolean) =>
      visit({
        at: h * hour,
        workedAt: works ? ['A'] : [],
        attempts: [works ? attempt(20, { stallId: 'A' }) : { ...failed, stallId: 'A', side: 'network' }],
      });
    expect(cell('repair', [at(0, true), at(10, false), at(14, false), at(30, true)])).toEqual({
      is: 'repair',
      n: 1,
      open: 0,
      least: { known: true, value: 4 * 3600 },
      most: { known: true, value: 30 * 3600 },
    });
    // In whatever order they come; never seen working before: no upper end. Not seen working since: still open.
    expect(cell('repair', [at(30, true), at(14, false)])).toMatchObject({ n: 1, least: { value: 0 }, most: { known: false } });
    expect(cell('repair', [at(0, true), at(10, false)])).toMatchObject({ n: 0, open: 1, least: { why: 'not seen working since' } });
    expect(cell('repair', [at(0, true)])).toMatchObject({ least: { why: 'none seen broken' } });
    // A card that was refused breaks no stall; one that worked at a second try is not broken.
    const refused = visit({ at: hour, attempts: [{ ...failed, stallId: 'A', side: 'payment' }] });
    const second = visit({ at: hour, workedAt: ['A'], attempts: [{ ...failed, stallId: 'A', side: 'network' }, attempt(20, { stallId: 'A' })] });
    for (const v of [refused, second, visit({ ...at(1, false), leftOut: true })]) expect(cell('repair', [v, visit()])).toMatchObject({ n: 0, open: 0 });
  });
  it('read no figure that nobody fetched', () => {
    const asked = { ...ASKED, without: 'car' as const };
    for (const look of LOOK_NAMES) {
      const read = figuresRead(LOOKS[look].measures, asked, ['weather', 'adapter']);
      const only = (names: readonly string[], of: object) =>
        new Proxy(of, {
          get: (target, name) => {
            const beside = ['networkId', 'siteId', 'stallId', 'workedAt', 'driverId', 'carId', 'at', 'month', 'attempts'];
            if (typeof name === 'string' && !names.includes(name) && !beside.includes(name)) throw new Error(`${look} reads ${name}`);
            return Reflect.get(target, name);
          },
        });
      const rows = [visit({ attempts: [only(read.attempt, attempt(20)) as never] }), visit({ attempts: [only(read.attempt, failed) as never] })];
      comparedGroups(
        rows.map((r) => only(read.visit, r) as VisitRow),
        asked,
        ['weather', 'adapter'],
        LOOKS[look].measures,
      );
    }
  });
  it('each says what it is counted of', () => {
    for (const m of MEASURE_NAMES) expect(MEASURES[m].rule.length).toBeGreaterThan(15);
    expect(LOOK_NAMES.flatMap((l): readonly Measure[] => LOOKS[l].measures).sort()).toEqual([...MEASURE_NAMES].sort());
  });
});

describe('kinds of faults', () => {
  it('stand by how often they came, then by name', () => {
    const marks = ['start_error:network', 'card_refused:payment', 'start_error:network', 'app_error:network', 'card_refused:payment', 'hot_connector:network'];
    const cellOf = cell(
      'faults',
      marks.map((faultMarks) => visit({ faultMarks })),
    );
    const names = cellOf.is === 'rate' ? cellOf.parts : [];
    expect(names.map(([, n]) => n)).toEqual([2, 2, 1, 1]);
    expect(names.slice(0, 2).map(([name]) => name)).toEqual(
      names
        .slice(0, 2)
        .map(([name]) => name)
        .sort(),
    );
    expect(names.slice(2).map(([name]) => name)).toEqual(
      names
        .slice(2)
        .map(([name]) => name)
        .sort(),
    );
    expect(cell('interruptions', [visit()])).toMatchObject({ rate: { known: false, why: 'not recorded' } });
  });
});

describe('what a comparison fetches', () => {
  it('is what its measures, groups and sentences read, and no more', () => {
    const always = ['firstTry', 'leftOut', 'attemptCount', 'leftReason', 'ended', 'paid', 'noted'];
    const starts = ['n', 'outcome', 'stallId', 'meansKind', 'pm', 'openFor', 'late', 'endMark', 'handshake'];
    const sorted = ({ visit: v, attempt: a }: ReturnType<typeof figuresRead>) => [[...v].sort(), [...a].sort()];
    expect(sorted(figuresRead([], ASKED, []))).toEqual([always.sort(), starts.sort()]);
    expect(sorted(figuresRead(['queue', 'interruptions'], ASKED, ['model', 'hour', 'car']))).toEqual([
      [...always, 'queue_s', 'hour'].sort(),
      [...starts, 'charging', 'interruptions', 'model'].sort(),
    ]);
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
