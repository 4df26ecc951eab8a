import { deriveVisit } from '../visit/derive';
import { APP, CARD, IN, idOf, KW, SITE, STALL_A, STALL_B, type Step, story, VISIT } from '../visit/fixtures/story';
import { payloadProblem } from '../visit/payloads';
import { ATTEMPT_FIGURES, type AttemptFigure } from './attempt-figures';
import type { Value, Where } from './figure';
import { changedInputs, USED_INPUTS } from './inputs';
import { attemptTest, NEVER, POPULATION_NAMES, POPULATIONS, type Population, timedBy, visitTest } from './populations';
import { VISIT_FIGURES, type VisitFigure } from './visit-figures';

const NETWORK = idOf(20);
const OTHER_SITE = idOf(21);
const OTHER_NETWORK = idOf(22);
const ADAPTER = idOf(23);
const CARD_HELD = idOf(24);
const where: Where = {
  bill: (of) => (of.bills.length > 0 ? 'off' : null),
  networkOfSite: (id) => ({ [SITE]: NETWORK, [OTHER_SITE]: OTHER_NETWORK })[id],
  stall: (id) => ({ [STALL_B]: { siteId: OTHER_SITE, model: 'Twin 300', connectors: ['CCS2', 'CCS2'] } })[id],
};
const visit = (...steps: Step[]) => deriveVisit(VISIT, story(...steps), payloadProblem);

/** Refused at one stall, charged at another with a card on file: 60 s from the card to power, the bill in full. */
const STEPS: Step[] = [
  [0, 'pulled_in', { siteId: SITE, carId: idOf(30) }],
  [10, 'stall_chosen', { stallId: STALL_A }],
  [20, 'first_act', { what: 'handle' }],
  [30, 'plugged'],
  [40, 'means_shown', APP],
  [70, 'means_refused', APP],
  [80, 'fault', { code: 'start_error', side: 'network' }],
  [100, 'stall_chosen', { stallId: STALL_B }],
  [110, 'first_act', { what: 'handle' }],
  [115, 'adapter_fitted', { adapterId: ADAPTER }],
  [120, 'plugged'],
  [140, 'means_shown', { ...CARD, meansId: CARD_HELD }],
  [150, 'means_accepted', { ...CARD, meansId: CARD_HELD }],
  [200, 'power_seen', KW],
  [1800, 'reading', { screen: 'stall', kWh: '20.5', kW: 50 }],
  [1805, 'stop_asked', { by: 'button' }],
  [1850, 'unplugged'],
  [1900, 'pulled_out', { reason: 'enough' }],
  [2000, 'bill', { sessions: [], amount: '10.25', currency: 'EUR', kWh: '20.5', state: 'charged' }],
];
const v = visit(...STEPS);
const ofVisit = (name: VisitFigure, of = v): Value => VISIT_FIGURES[name].value(of, where);
const ofAttempt = (name: AttemptFigure, n: number, of = v, at = where): Value => {
  const attempt = of.attempts[n - 1];
  if (!attempt) throw new Error(`no attempt ${n}`);
  return ATTEMPT_FIGURES[name].value({ attempt, visit: of }, at);
};

describe('figures of a visit', () => {
  it.each<[VisitFigure, Value]>([
    ['attemptCount', 2],
    ['failed', 1],
    ['firstTry', 'no'],
    ['firstSide', 'network'],
    ['ended', 'charge'],
    ['leftReason', 'enough'],
    ['leftOut', false],
    ['trialId', null],
    ['marked', null],
    ['arrivalDay', '2025-10-14'],
    ['faultCount', 2],
    ['faultCodes', 'card_refused,start_error'],
    ['faultMarks', 'card_refused:payment,start_error:network'],
    ['noted', true],
    ['hour', 13],
    ['weather', null],
    ['baysSeen', null],
    ['baysOut', null],
    ['priceBefore', null],
    ['queue_s', null],
    ['helpAnswered_s', null],
    ['flags', 0],
    ['deliveredKWh', '20.5'],
    ['deliveredLeast', null],
    ['paid', '10.25'],
    ['currency', 'EUR'],
    ['billCheck', 'off'],
    ['openMoney', null],
    ['handshake_s', 60],
    ['handshakeBound', 'exact'],
    ['charging_s', 1605],
    ['site', SITE],
  ])('%s is %s', (name, value) => expect(ofVisit(name)).toBe(value));
  it('lost time runs from the first act of the attempt that failed to the next attempt', () => expect(ofVisit('lost_s')).toBeGreaterThan(60));
  it('what is not known is null, never zero', () => {
    const left = visit(IN, [60, 'pulled_out', { reason: 'price' }]);
    for (const name of ['deliveredLeast', 'paid', 'currency', 'handshake_s', 'handshakeBound', 'charging_s', 'marked'] as const)
      expect(ofVisit(name, left)).toBeNull();
    // Who left without an attempt took nothing: that is known.
    expect(ofVisit('deliveredKWh', left)).toBe('0');
    expect(ofVisit('leftReason', left)).toBe('price');
    expect(ofVisit('faultCodes', left)).toBe('');
    for (const name of ['arrivalDay', 'site'] as const) expect(ofVisit(name, visit([5, 'note', { text: 'windy' }]))).toBeNull();
  });
  it('a reading before the end is at least, and no whole', () => {
    const early = visit(
      IN,
      [5, 'plugged'],
      [10, 'means_shown', CARD],
      [60, 'power_seen', KW],
      [600, 'reading', { screen: 'stall', kWh: '7.5' }],
      [3600, 'unplugged'],
      [3700, 'pulled_out', { reason: 'enough' }],
    );
    expect([ofVisit('deliveredKWh', early), ofVisit('deliveredLeast', early)]).toEqual([null, '7.5']);
  });
  it('a handshake without a means is a bound, and said to be one', () => {
    const bound = visit(IN, [5, 'plugged'], [60, 'power_seen', KW]);
    expect([ofVisit('handshake_s', bound), ofVisit('handshakeBound', bound)]).toEqual([55, 'at_most']);
  });
  it('marks: the last word of each', () => {
    const marked = visit(
      ...STEPS,
      [2100, 'mark', { as: 'business' }],
      [2110, 'mark', { as: 'private' }],
      [2120, 'mark', { as: 'left_out', reason: 'a trial' }],
    );
    expect([ofVisit('marked', marked), ofVisit('leftOut', marked)]).toEqual(['private', true]);
  });
  it('kinds of faults are cut where their row ends, each named once', () => {
    const many = {
      ...v,
      faults: Array.from({ length: 300 }, (_, i) => ({ code: `code_${i % 200}`, side: 'site' as const, attempt: null, t: 0, ends: false })),
    };
    const codes = ofVisit('faultCodes', many) as string;
    expect(codes).toHaveLength(500);
    expect(codes.startsWith('code_0,code_1,')).toBe(true);
    // Of those with their side whole ones, or none of one that is longer than its row.
    const marks = (ofVisit('faultMarks', many) as string).split(',');
    expect(marks.every((m) => /^code_\d+:site$/.test(m))).toBe(true);
    expect(marks.join(',').length).toBeGreaterThan(980);
    expect(ofVisit('faultMarks', { ...v, faults: [{ code: 'x'.repeat(1200), side: 'site' as const, attempt: null, t: 0, ends: false }] })).toBe('');
    const fit = { ...v, faults: [{ code: 'x'.repeat(500), side: 'site' as const, attempt: null, t: 0, ends: false }] };
    expect(ofVisit('faultCodes', fit)).toHaveLength(500);
  });
  it('given up counts as failed', () =>
    expect(ofVisit('failed', visit(IN, [5, 'plugged'], [10, 'means_shown', CARD], [90, 'pulled_out', { reason: 'gave_up' }]))).toBe(1));
});

describe('figures of an attempt', () => {
  it.each<[AttemptFigure, Value, Value]>([
    ['n', 1, 2],
    ['stallId', STALL_A, STALL_B],
    // The first stall's site is not known: the visit's.
    ['networkId', NETWORK, OTHER_NETWORK],
    ['model', null, 'Twin 300'],
    ['connector', null, 'CCS2'],
    ['side', 'network', null],
    ['good', 'no', 'yes'],
    ['firstShown', 'no', 'yes'],
    ['refusedBy', 'payment', null],
    ['sessionEnd', null, 'wished'],
    ['early', null, 'no'],
    ['interruptions', 0, 0],
    ['charging', null, 1605],
    ['pm', null, 0],
    ['stuck', null, 'no'],
    ['meansKind', 'app', 'contactless'],
    ['meansId', null, CARD_HELD],
    ['adapterId', null, ADAPTER],
    ['outcome', 'failed', 'power'],
    ['endMark', null, 'kW'],
    ['late', false, false],
    ['handshake', null, 60],
    ['setUp', null, 50],
    ['plugToPower', null, 80],
    ['meansToPower', null, 60],
    ['handsOn', null, 90],
  ])('%s of the one that failed is %s, of the one that charged %s', (name, first, second) =>
    expect([ofAttempt(name, 1), ofAttempt(name, 2)]).toEqual([first, second]),
  );
  it('a network nobody knows is none', () => {
    const nowhere: Where = { networkOfSite: () => undefined, stall: () => undefined };
    expect(ofAttempt('networkId', 2, v, nowhere)).toBeNull();
    const unnamed = visit([0, 'pulled_in', {}], [5, 'plugged'], [10, 'means_shown', CARD], [60, 'power_seen', KW]);
    expect(ofAttempt('networkId', 1, unnamed)).toBeNull();
    expect(ofAttempt('stallId', 1, unnamed)).toBeNull();
  });
  it('a bound is no time; seen late it is one, marked beside', () => {
    const bound = visit(IN, [5, 'plugged'], [60, 'power_seen', KW]);
    expect(ofAttempt('handshake', 1, bound)).toBeNull();
    const away = (...steps: Step[]) => ofAttempt('openFor', 1, visit(IN, [5, 'plugged'], ...steps, [100, 'pulled_out', { reason: 'called_away' }]));
    expect([away([10, 'means_shown', CARD]), away(), away([10, 'means_shown', CARD], [60, 'power_seen', KW])]).toEqual([90, null, null]);
    expect(ofAttempt('openFor', 1, visit(IN, [5, 'plugged'], [10, 'means_shown', CARD]))).toBeNull();
    const late = visit(IN, [5, 'plugged'], [10, 'means_shown', CARD], [60, 'power_seen', { ...KW, late: true }]);
    expect([ofAttempt('late', 1, late), ofAttempt('handshake', 1, late)]).toEqual([true, 50]);
  });
});

describe('what figures depend on', () => {
  it('is a site’s network, a stall’s site, model, connectors and plate, what a car holds, and the prices that bills are held against', () =>
    expect([...USED_INPUTS].sort()).toEqual([
      'car.usableKWh',
      'means.providerId',
      'plan.holds',
      'site.networkId',
      'stall.model',
      'stall.outlets',
      'stall.plate',
      'stall.siteId',
      'tariff.says',
    ]));
  it.each([
    ['a site moved to another network', 'site', { networkId: 'a', name: 'x' }, { networkId: 'b', name: 'x' }, ['site.networkId']],
    ['a site with another name', 'site', { networkId: 'a', name: 'x' }, { networkId: 'a', name: 'y' }, []],
    ['a site that comes after its visits', 'site', null, { networkId: 'a' }, ['site.networkId']],
    ['a stall moved to another site', 'stall', { siteId: 'a' }, { siteId: 'b' }, ['stall.siteId']],
    ['a stall with another note', 'stall', { siteId: 'a', note: '' }, { siteId: 'a', note: 'windy' }, []],
    ['a stall of another model', 'stall', { model: 'Twin' }, { model: 'Single' }, ['stall.model']],
    [
      'a stall with another connector',
      'stall',
      { outlets: [{ connector: 'CCS2', ratedKW: 50 }] },
      { outlets: [{ connector: 'CHAdeMO', ratedKW: 50 }] },
      ['stall.outlets'],
    ],
    [
      'a stall with another plate',
      'stall',
      { outlets: [{ connector: 'CCS2', ratedKW: 50 }] },
      { outlets: [{ connector: 'CCS2', ratedKW: 75 }] },
      ['stall.plate'],
    ],
    ['a price that says something else', 'tariff', { perKWh: '0.5' }, { perKWh: '0.6' }, ['tariff.says']],
    ['a price with another note', 'tariff', { perKWh: '0.5', note: 'a' }, { perKWh: '0.5', note: 'b' }, []],
    ['a plan that ended', 'plan', { from: '2025-01-01', until: null }, { from: '2025-01-01', until: '2025-06-30' }, ['plan.holds']],
    ['a plan with another fee', 'plan', { from: '2025-01-01', monthlyFee: '4' }, { from: '2025-01-01', monthlyFee: '5' }, []],
    ['a card of another provider', 'means', { providerId: 'a', label: 'x' }, { providerId: 'b', label: 'x' }, ['means.providerId']],
    ['a card with another label', 'means', { providerId: 'a', label: 'x' }, { providerId: 'a', label: 'y' }, []],
    ['a car', 'car', null, { networkId: 'a', siteId: 'b' }, ['car.usableKWh']],
    ['a car that holds something else', 'car', { usableKWh: 62, name: 'x' }, { usableKWh: 58, name: 'x' }, ['car.usableKWh']],
    ['a car of another name', 'car', { usableKWh: 62, name: 'x' }, { usableKWh: 62, name: 'y' }, []],
  ] as const)('%s changes what depends on it', (_what, type, before, now, changed) => expect(changedInputs(type, before, now)).toEqual(changed));
});

describe('who is counted', () => {
  const asked = { time: 'handshake', mark: 'kW', currency: 'EUR' } as const;
  const power = { outcome: 'power', late: false, endMark: 'kW', handshake: 40 };
  const row = {
    leftOut: false,
    attemptCount: 1,
    firstTry: 'yes',
    firstSide: null,
    leftReason: 'enough',
    lost_s: 0,
    paid: '5',
    deliveredKWh: '10',
    currency: 'EUR',
    attempts: [power],
  };
  const OF_STARTS = ['attempted', 'first_yes', 'first_no', 'first_left_out', 'timed', 'never', 'lost', 'priced'] as const;
  const counted = (more: object, how: Parameters<(typeof POPULATIONS)['timed']['who']>[0] = asked) =>
    OF_STARTS.filter((name: Population) => visitTest(POPULATIONS[name].who(how))({ ...row, ...more } as never));
  const ALL = ['attempted', 'first_yes', 'timed', 'lost', 'priced'];
  it.each<[string, object, string[]]>([
    ['a plain charge', {}, ALL],
    ['one that was left out', { leftOut: true }, []],
    ['a receipt typed in', { attemptCount: 0, firstTry: null, attempts: [] }, ['priced']],
    ['one without a bill', { paid: null }, ['attempted', 'first_yes', 'timed', 'lost']],
    ['one whose energy is not known whole', { deliveredKWh: null }, ['attempted', 'first_yes', 'timed', 'lost']],
    ['one in another currency', { currency: 'CHF' }, ['attempted', 'first_yes', 'timed', 'lost']],
    ['one whose lost time is not known', { lost_s: null }, ['attempted', 'first_yes', 'timed', 'priced']],
    ['no usable stall', { attemptCount: 0, firstTry: 'no', attempts: [], paid: null }, ['attempted', 'first_no', 'lost']],
    ['left for the queue', { attemptCount: 0, firstTry: 'left_out', leftReason: 'queue', attempts: [], paid: null }, ['attempted', 'first_left_out', 'lost']],
    ['left for the price', { attemptCount: 0, firstTry: 'left_out', leftReason: 'price', attempts: [], paid: null }, ['attempted', 'first_left_out', 'lost']],
    ['left out of the first try without having tried', { attemptCount: 0, firstTry: 'left_out', attempts: [], paid: null }, []],
    ['an attempt that failed', { firstTry: 'no', attempts: [{ outcome: 'failed' }, power] }, ['attempted', 'first_no', 'timed', 'never', 'lost', 'priced']],
    ['one that was given up', { firstTry: 'no', attempts: [{ outcome: 'gave_up' }], paid: null }, ['attempted', 'first_no', 'never', 'lost']],
    ['one still open', { attempts: [{ outcome: 'open' }] }, ['attempted', 'first_yes', 'lost', 'priced']],
    ['power seen late', { attempts: [{ ...power, late: true }] }, ['attempted', 'first_yes', 'lost', 'priced']],
    ['power by another mark', { attempts: [{ ...power, endMark: 'A' }] }, ['attempted', 'first_yes', 'lost', 'priced']],
    ['a time that is not known', { attempts: [{ ...power, handshake: null }] }, ['attempted', 'first_yes', 'lost', 'priced']],
    ['a time that was not asked for', { attempts: [{ ...power, handshake: undefined, setUp: 3 }] }, ['attempted', 'first_yes', 'lost', 'priced']],
  ])('%s', (_what, more, names) => expect(counted(more).sort()).toEqual([...names].sort()));
  it('by another definition and mark', () => {
    const setUp = { outcome: 'power', late: false, endMark: 'A', setUp: 3 };
    expect(counted({ attempts: [setUp] }, { ...asked, time: 'setUp', mark: 'A' })).toContain('timed');
    expect(counted({ attempts: [setUp] }, { ...asked, time: 'setUp' })).not.toContain('timed');
    expect(attemptTest(timedBy({ time: 'setUp', mark: 'A' }))(setUp)).toBe(true);
    expect(attemptTest(NEVER)({ outcome: 'power' })).toBe(false);
  });
  it('without the failures of one side: those of the others stay', () => {
    const without = { ...asked, without: 'network' } as const;
    expect(counted({ firstTry: 'no', firstSide: 'network' }, without)).not.toContain('first_no');
    expect(counted({ firstTry: 'no', firstSide: 'site' }, without)).toContain('first_no');
    expect(counted({ firstTry: 'yes', firstSide: 'network' }, without)).toContain('first_yes');
    expect(counted({ firstTry: 'no', firstSide: 'network' })).toContain('first_no');
  });
});

it('every figure has a column of its own, a definition, and a unit that fits what it is', () => {
  for (const figures of [VISIT_FIGURES, ATTEMPT_FIGURES]) {
    const all = Object.values(figures);
    expect(new Set(all.map((f) => f.column)).size).toBe(all.length);
    for (const f of all) {
      expect(f.definition.length).toBeGreaterThan(5);
      expect(f.column).toMatch(/^[a-z][a-z_]*$/);
      if (f.column.endsWith('_s')) expect([f.is, f.unit]).toEqual(['number', 's']);
      else expect(f.unit === 's').toBe(false);
      if (f.is === 'decimal') expect(['kWh', 'money']).toContain(f.unit);
    }
  }
  for (const name of POPULATION_NAMES) expect(POPULATIONS[name].label.length).toBeGreaterThan(5);
});
