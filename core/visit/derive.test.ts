import { LEFT_OPEN_MS } from './definitions-version';
import { deriveVisit, visitState } from './derive';
import { describeEnd, describeStart } from './describe-visit';
import { energyText } from './energy-text';
import type { StoredEvent } from './event';
import { CARD, IN, idOf, KW, SECOND_PHONE, SITE, STALL_A, type Step, story, T0, VISIT } from './fixtures/story';
import { payloadProblem } from './payloads';

const of = (events: readonly StoredEvent[]) => deriveVisit(VISIT, events, payloadProblem);
const visit = (...steps: Step[]) => of(story(...steps));
const CHARGE: Step[] = [
  [0, 'pulled_in', { siteId: SITE, carId: idOf(30), socPct: 18 }],
  [5, 'stall_chosen', { stallId: STALL_A }],
  [10, 'plugged'],
  [20, 'means_shown', CARD],
  [50, 'power_seen', KW],
];
const OUT: Step[] = [
  [1850, 'stop_asked', { by: 'button' }],
  [1900, 'unplugged'],
  [1950, 'pulled_out', { reason: 'enough' }],
];
const bill = (at: number, more: object = {}): Step => [at, 'bill', { sessions: [], amount: '10.00', currency: 'EUR', state: 'charged', ...more }];

describe('what a visit says', () => {
  it('a whole charge', () => {
    const v = visit(...CHARGE, [1849, 'reading', { screen: 'stall', socPct: 80, kWh: '40', kW: 60 }], ...OUT, bill(2000));
    expect(v).toMatchObject({
      id: VISIT,
      siteId: SITE,
      carId: idOf(30),
      driverId: idOf(2),
      zone: 'Europe/Ljubljana',
      pulledInAt: T0,
      pulledOutAt: T0 + 1_950_000,
      lastEventAt: T0 + 1_950_000,
      dayOnly: false,
      leftReason: 'enough',
      linkedVisitId: null,
      ended: 'charge',
      socFrom: 18,
      socTo: 80,
      delivered: { known: true, value: '40' },
      average: { known: true, value: 80 },
      peak: { known: true, value: { kW: 60, screen: 'stall' } },
      paid: { known: true, value: { amount: '10', currency: 'EUR' } },
      allIn: { known: true, value: { perKWh: '0.25', currency: 'EUR' } },
      faults: [],
      jumps_s: [],
    });
  });
  it('events of another visit are none of it', () => {
    const other = story([30, 'note', { text: 'x' }]).map((e) => ({ ...e, id: idOf(900), visitId: idOf(901) }));
    expect(of([...story(...CHARGE), ...other]).line).toHaveLength(5);
    expect(of(other)).toMatchObject({ line: [], zone: 'UTC', pulledInAt: null, siteId: null, carId: null, driverId: null, lastEventAt: 0, dayOnly: false });
  });
  it('the arrival is the recorder’s; one that only another phone saw stands in where there is no other', () => {
    const seen = story([0, 'pulled_in', { siteId: idOf(77), carId: idOf(31) }]).map((e) => ({
      ...e,
      id: idOf(910),
      at: T0 - 100_000,
      deviceId: SECOND_PHONE,
      role: 'observer' as const,
      personId: idOf(912),
      payload: { siteId: idOf(77), carId: idOf(31), drivenBy: idOf(911) },
    }));
    expect(of([...seen, ...story(...CHARGE)])).toMatchObject({ siteId: SITE, carId: idOf(30), driverId: idOf(2) });
    expect(of(seen)).toMatchObject({ siteId: idOf(77), driverId: idOf(911) });
  });
  it('who drove is whom the arrival names, else who recorded it, else who recorded anything', () => {
    const driver = (...steps: Step[]) => visit(...steps).driverId;
    expect(driver([0, 'pulled_in', { siteId: SITE, drivenBy: idOf(22) }])).toBe(idOf(22));
    expect(driver([0, 'pulled_in', { siteId: SITE }, { personId: idOf(23) }])).toBe(idOf(23));
    expect(driver([0, 'note', { text: 'x' }, { personId: idOf(24) }])).toBe(idOf(24));
  });
  it('of an arrival of which only the day is known, and without any', () => {
    expect(visit([0, 'pulled_in', { siteId: SITE }, { precision: 'day' }])).toMatchObject({ dayOnly: true });
    expect(visit([9, 'note', { text: 'x' }, { zone: 'Europe/Zurich' }])).toMatchObject({
      dayOnly: false,
      zone: 'Europe/Zurich',
      pulledInAt: null,
      lastEventAt: T0 + 9000,
    });
  });
  it('what comes afterwards says nothing of how long it lasted; with nothing left on the line the last word does', () => {
    expect(visit(...CHARGE, bill(90_000)).lastEventAt).toBe(T0 + 50_000);
    expect(visit(bill(90)).lastEventAt).toBe(T0 + 90_000);
    const gone = story([10, 'note', { text: 'x' }], [20, 'withdrawal', { target: idOf(100) }], [15, 'withdrawal', { target: idOf(999) }]);
    expect(of(gone)).toMatchObject({ line: [], lastEventAt: T0 + 20_000 });
    expect(of([...gone].reverse()).lastEventAt).toBe(T0 + 20_000);
    // Of two at one instant the greater id tells the zone, in any order of arrival.
    const same = gone.map((e, i) => ({ ...e, at: T0, zone: i === 2 ? 'Europe/Zurich' : 'Europe/Ljubljana' }));
    expect([of(same).zone, of([...same].reverse()).zone]).toEqual(['Europe/Zurich', 'Europe/Zurich']);
  });
  it('a level on the car’s or the stall’s screen; from the arrival where it was read there', () => {
    const soc = (...steps: Step[]) => {
      const v = visit(...steps);
      return [v.socFrom, v.socTo];
    };
    const read = (at: number, more: object): Step => [at, 'reading', { screen: 'car', ...more }];
    expect(soc(IN)).toEqual([null, null]);
    expect(soc(IN, read(60, { socPct: 30 }))).toEqual([30, null]);
    expect(soc(IN, read(60, { kW: 30 }), read(70, { socPct: 31 }), read(80, { socPct: 40 }))).toEqual([31, 40]);
    expect(soc([0, 'pulled_in', { siteId: SITE, socPct: 18 }])).toEqual([18, null]);
    expect(soc([0, 'pulled_in', { siteId: SITE, socPct: 18 }], read(60, { socPct: 30 }))).toEqual([18, 30]);
  });
  it('whether it charged, did not, or nobody can say yet', () => {
    const ended = (...steps: Step[]) => visit(...steps).ended;
    expect(ended(...CHARGE)).toBe('charge');
    expect(ended(IN)).toBe('open');
    expect(ended(IN, [60, 'pulled_out', { reason: 'queue' }])).toBe('none');
    expect(ended(...CHARGE.slice(0, 4), [60, 'pulled_out', { reason: 'enough' }])).toBe('open');
    expect(ended(...CHARGE.slice(0, 4), [60, 'fault', { code: 'start_error', side: 'network' }], [90, 'pulled_out', { reason: 'gave_up' }])).toBe('none');
    // One failed and one is open: open.
    expect(
      ended(
        ...CHARGE.slice(0, 4),
        [60, 'fault', { code: 'start_error', side: 'network' }],
        [70, 'plugged'],
        [75, 'means_shown', CARD],
        [90, 'pulled_out', { reason: 'enough' }],
      ),
    ).toBe('open');
    // kWh on a bill tell that it did, though nobody saw the power.
    expect(ended(IN, [60, 'pulled_out', { reason: 'enough' }], bill(90, { kWh: '20' }))).toBe('charge');
    expect(ended(IN, [60, 'pulled_out', { reason: 'enough' }], bill(90))).toBe('none');
  });
  it('averages say why there are none', () => {
    const average = (...steps: Step[]) => visit(...steps).average;
    expect(average(IN)).toEqual({ known: false, why: 'the visit is still open' });
    expect(average(IN, [60, 'pulled_out', { reason: 'queue' }])).toMatchObject({ known: false });
    expect(average(...CHARGE, bill(60, { kWh: '20' }))).toEqual({ known: false, why: 'still charging, or the end was not recorded' });
    expect(average(...CHARGE, [50, 'stop_asked', {}], [60, 'unplugged'], bill(90, { kWh: '20' }))).toEqual({ known: false, why: 'no charging time' });
  });
  it('money: refunds off, currencies never mixed, no price for nothing', () => {
    const paid = (...steps: Step[]) => visit(...CHARGE, ...OUT, ...steps);
    expect(paid().paid).toEqual({ known: false, why: 'no bill recorded' });
    expect(paid().allIn).toEqual({ known: false, why: 'no bill recorded' });
    expect(paid(bill(1, { amount: '12.5' }), bill(2, { amount: '2.5', state: 'refunded' })).paid).toEqual({
      known: true,
      value: { amount: '10', currency: 'EUR' },
    });
    expect(paid(bill(1), bill(2, { currency: 'CHF' })).paid).toEqual({ known: false, why: 'bills in more than one currency' });
    expect(paid(bill(1)).allIn).toMatchObject({ known: false, why: 'no kWh was read from the stall or the bill' });
    const nothing = visit(...CHARGE.slice(0, 4), [60, 'fault', { code: 'start_error', side: 'network' }], [90, 'pulled_out', { reason: 'gave_up' }], bill(99));
    expect(nothing.allIn).toEqual({ known: false, why: 'nothing was delivered' });
  });
  it('marks: the last word of each counts', () => {
    const marks = (...as: object[]) => visit(...CHARGE, ...as.map((payload, i): Step => [3000 + i, 'mark', payload as never])).marks;
    const out = { as: 'left_out', reason: 'a trial' };
    expect(marks()).toEqual({ as: null, leftOut: null });
    expect(marks({ as: 'business' })).toEqual({ as: 'business', leftOut: null });
    expect(marks({ as: 'business' }, { as: 'private' }, out, { ...out, reason: 'a second trial' })).toEqual({
      as: 'private',
      leftOut: { reason: 'a second trial' },
    });
    expect(marks(out)).toEqual({ as: null, leftOut: { reason: 'a trial' } });
  });
  it('faults and refusals in order, each with its attempt', () => {
    const v = visit(
      IN,
      [2, 'fault', { code: 'bay_blocked', side: 'site' }],
      [5, 'stall_chosen', { stallId: STALL_A }],
      [10, 'plugged'],
      [20, 'means_shown', CARD],
      [25, 'means_refused', CARD],
      [30, 'means_shown', CARD],
      [35, 'means_refused', { ...CARD, fault: 'stored_card_expired' }],
      [60, 'fault', { code: 'start_error', side: 'network' }],
      [70, 'means_shown', CARD],
      [90, 'power_seen', KW],
      [100, 'fault', { code: 'hot_connector', side: 'site' }],
    );
    expect(v.faults.map((f) => [f.code, f.side, f.attempt, (f.t - T0) / 1000, f.ends])).toEqual([
      ['bay_blocked', 'site', null, 2, false],
      ['card_refused', 'payment', 1, 25, false],
      ['stored_card_expired', 'payment', 1, 35, false],
      ['start_error', 'network', 1, 60, true],
      ['hot_connector', 'site', 2, 100, false],
    ]);
  });
  it('a stopwatch figure that somebody chose stands in place of the derived one, at the attempt with power', () => {
    const given = (more: object): Step => [400, 'figure_given', { figure: 'handshake', seconds: 31, startMark: 'card', endMark: 'kW', ...more }];
    const failed: Step[] = [...CHARGE.slice(0, 4), [40, 'fault', { code: 'start_error', side: 'network' }], [45, 'means_shown', CARD], [70, 'power_seen', KW]];
    const shakes = (...steps: Step[]) => visit(...steps).attempts.map((a) => a.times.handshake);
    expect(shakes(...failed, given({ used: true }))).toMatchObject([
      { known: false },
      { known: true, s: 31, pm_s: 2, bound: 'exact', to: { kind: 'power_seen' } },
    ]);
    expect(shakes(...failed, given({ used: true, plusMinus_s: 0.5 }))[1]).toMatchObject({ pm_s: 0.5 });
    expect(shakes(...failed, given({}))[1]).toMatchObject({ s: 25 });
    expect(shakes(...failed, given({ used: true, figure: 'something else' }))[1]).toMatchObject({ s: 25 });
    expect(shakes(...CHARGE.slice(0, 4), given({ used: true }))).toMatchObject([{ known: false }]);
    expect(visit(...failed, given({})).given).toHaveLength(1);
  });
  it('names the visit that it goes on to', () =>
    expect(visit(...CHARGE, [1950, 'pulled_out', { reason: 'enough', continuesVisit: idOf(88) }]).linkedVisitId).toBe(idOf(88)));
});

describe('how a visit stands', () => {
  it('over once pulled out, running until it is silent too long, then left open', () => {
    expect(visitState({ pulledOutAt: T0, lastEventAt: T0 }, T0 + 10 * LEFT_OPEN_MS)).toBe('over');
    expect(visitState({ pulledOutAt: null, lastEventAt: T0 }, T0 + LEFT_OPEN_MS)).toBe('running');
    expect(visitState({ pulledOutAt: null, lastEventAt: T0 }, T0 + LEFT_OPEN_MS + 1)).toBe('left_open');
  });
  it.each([
    ['running', 'open', null, 'still there'],
    ['left_open', 'charge', null, 'left open'],
    ['over', 'charge', 'enough', ''],
    ['over', 'none', 'gave_up', 'gave up'],
    ['over', 'none', 'queue', 'left for the queue'],
    ['over', 'none', 'price', 'left for the price'],
    ['over', 'none', 'unsafe', 'left as unsafe'],
    ['over', 'none', 'closed', 'closed'],
    ['over', 'none', 'called_away', 'called away'],
    ['over', 'open', 'enough', 'no power recorded'],
    ['over', 'none', null, 'no power recorded'],
    ['over', 'none', 'a reason of a newer version', 'no power recorded'],
  ] as const)('%s, %s, %s: “%s”', (state, ended, leftReason, text) => expect(describeEnd({ state, ended, leftReason })).toBe(text));
  it.each([
    [0, 0, 'none', null, null, 'no attempt'],
    [1, 1, 'none', null, null, '1 attempt failed'],
    [1, 0, 'charge', 12.4, 'exact', 'first try, 12.4 s handshake'],
    [1, 0, 'charge', 12.4, 'at_most', 'first try, at most 12.4 s handshake'],
    [1, 0, 'charge', null, null, 'first try'],
    [1, 0, 'open', null, null, '1 attempt'],
    [3, 2, 'charge', 33.4, 'exact', '3 attempts, 33.4 s handshake'],
    [3, 3, 'none', null, null, '3 attempts'],
  ] as const)('%s attempts, %s failed, %s, %s %s: “%s”', (attempts, failed, ended, handshake_s, handshakeBound, text) =>
    expect(describeStart({ attempts, failed, ended, handshake_s, handshakeBound })).toBe(text),
  );
  it('energy that was read too early is a least', () => {
    expect(energyText({ value: '12.34' })).toBe('12.3 kWh');
    expect(energyText({ value: '12.34', atLeast: true })).toBe('at least 12.3 kWh');
  });
});
