import type { Asked } from '../figures/populations';
import type { Cell } from './cells';
import { comparedGroups } from './compared-groups';
import { attempt, failed, visit } from './fixtures/rows';
import { figuresRead, LOOK_NAMES, LOOKS, MEASURE_NAMES, MEASURES, type Measure } from './measures';
import type { VisitRow } from './visit-row';

const ASKED: Asked = { time: 'handshake', mark: 'kW', currency: 'EUR' };
const cell = (measure: Measure, visits: VisitRow[], asked: Partial<Asked> = {}): Cell =>
  comparedGroups(visits, { ...ASKED, ...asked }, ['network'], [measure]).rows[0]!.cells[measure]!;

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
    const even = ['start_error:network,card_refused:payment', 'card_refused:payment,start_error:network'];
    for (const faultMarks of even)
      expect(cell('sides', [visit({ faultMarks })])).toMatchObject({
        parts: [
          ['network', 1],
          ['payment', 1],
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
