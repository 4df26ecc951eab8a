import type { ExtraPricing, OcpiTariff } from '../records/ocpi-tariff';
import { deriveVisit } from '../visit/derive';
import { CARD, IN, KW, SITE, STALL_A, type Step, story, T0, VISIT } from '../visit/fixtures/story';
import { payloadProblem } from '../visit/payloads';
import { chargedAttempts, chargedFrom, chargedUntil, needsTimes, occupancyOf, visitBills } from './charged-visit';
import { compileTariff } from './compiled-tariff';
import { only, tariffOf, when } from './fixtures/sessions';

const START: Step[] = [IN, [20, 'stall_chosen', { stallId: STALL_A }], [60, 'plugged'], [70, 'means_shown', CARD], [100, 'power_seen', KW]];
const read = (s: number, more: object): Step => [s, 'reading', { screen: 'stall', ...more }];
const GONE: Step = [700, 'power_gone', { why: 'asked' }];
const visitOf = (...steps: Step[]) => deriveVisit(VISIT, story(...steps), payloadProblem);
const sessions = (...steps: Step[]) => {
  const found = chargedAttempts(visitOf(...steps));
  if (!found.known) throw new Error(found.why);
  return found.value;
};
/** Periods in seconds since T0: from, to, whether it charges, kWh. */
const periods = (...steps: Step[]) =>
  sessions(...steps).map((a) => a.session.periods.map((p) => [(p.start - T0) / 1000, (p.end - T0) / 1000, p.charging, p.kwh]));

describe('a session as it is priced', () => {
  it('is even between the stall’s readings, and parked until it was unplugged', () => {
    expect(periods(...START, read(400, { kWh: '4' }), GONE, read(701, { kWh: '10' }), [760, 'unplugged'])).toEqual([
      [
        [100, 400, true, 4],
        [400, 700, true, 6],
        [700, 760, false, 0],
      ],
    ]);
    expect(periods(...START, GONE, read(700, { kWh: '10' }), [700, 'unplugged'])).toEqual([[[100, 700, true, 10]]]);
  });
  it('leaves out what cannot be: the car’s screen, no kWh, a figure that falls or passes the last, another at the same moment, what lies outside', () => {
    const odd: Step[] = [
      read(90, { kWh: '1' }),
      read(100, { kWh: '1' }),
      [200, 'reading', { screen: 'car', kWh: '2' }],
      read(250, { kW: 60 }),
      read(300, { kWh: '4' }),
      read(300, { kWh: '5' }),
      read(350, { kWh: '3' }),
      read(360, { kWh: '4' }),
      read(400, { kWh: '12' }),
    ];
    expect(periods(...START, ...odd, GONE, read(702, { kWh: '10' }))[0]).toEqual([
      [100, 300, true, 4],
      [300, 360, true, 0],
      [360, 700, true, 6],
    ]);
  });
  it('pauses are parked; what was read in one came before it', () => {
    const paused: Step[] = [
      read(300, { kWh: '4' }),
      [400, 'change', { what: 'paused' }],
      read(450, { kWh: '6' }),
      read(470, { kWh: '7' }),
      [500, 'power_seen', KW],
    ];
    expect(periods(...START, ...paused, GONE, read(700, { kWh: '10' }))[0]).toEqual([
      [100, 300, true, 4],
      [300, 400, true, 3],
      [400, 500, false, 0],
      [500, 700, true, 3],
    ]);
  });
  it('begins with the claim where that came first, and ends where anything of its end was told', () => {
    const claimed = visitOf(...START.slice(0, 4), [80, 'claimed', { by: 'screen' }], [100, 'power_seen', KW], GONE).attempts[0] as never;
    expect(chargedFrom(claimed, T0 + 100_000)).toBe(T0 + 80_000);
    expect(chargedFrom(claimed, T0 + 80_000)).toBe(T0 + 80_000);
    expect(chargedFrom({ claimed: { t: T0 + 120_000 } as never }, T0 + 100_000.4)).toBe(T0 + 100_000);
    expect(chargedFrom({}, T0 + 0.6)).toBe(T0 + 1);
    const until = (...steps: Step[]) => {
      const t = chargedUntil(visitOf(...START, ...steps).attempts[0] as never);
      return t && (t - T0) / 1000;
    };
    expect([until(), until(GONE), until([800, 'unplugged']), until([800, 'pulled_out', { reason: 'enough' }])]).toEqual([null, 700, 800, 800]);
  });
  it('of which only the day is known has a nominal hour and no times', () => {
    const day = (s: number, kind: Step[1], payload = {}): Step => [s, kind, payload, { precision: 'day', origin: 'typed' }];
    const [a] = sessions(
      day(0, 'pulled_in', { siteId: SITE }),
      day(100, 'power_seen', KW),
      day(200, 'power_gone', { why: 'asked' }),
      day(210, 'reading', { screen: 'stall', kWh: '8' }),
    );
    expect(a).toMatchObject({ timed: false, kWh: '8', session: { periods: [{ start: T0 + 100_000, end: T0 + 3_700_000, charging: true, kwh: 8 }] } });
  });
  it('whose end is its start has none either', () => {
    const [a] = sessions(...START, [100, 'power_gone', { why: 'asked' }], read(101, { kWh: '0.2' }));
    expect([a?.timed, a?.session.periods[0]?.kwh]).toEqual([false, 0.2]);
  });
});

describe('how full the site was', () => {
  const seen = (counted: object | undefined) => occupancyOf(visitOf([0, 'pulled_in', { siteId: SITE, ...(counted ? { seen: counted } : {}) }]));
  it('is what was seen on arrival, and nothing where nobody looked', () => {
    expect([seen({ total: 4, free: 1 }), seen({ total: 4, free: 4 }), seen({ total: 4, free: 0 })]).toEqual([0.75, 0, 1]);
    expect([seen({ total: 4 }), seen({ free: 1 }), seen(undefined)]).toEqual([0, 0, 0]);
    const of = (total: number, free: number) => occupancyOf({ line: [{ kind: 'pulled_in', payload: { seen: { total, free } } }] as never });
    expect([of(0, 0), of(2, 3), of(2, -1)]).toEqual([0, 0, 1]);
    expect(occupancyOf({ line: [{ kind: 'survey', payload: { seen: { total: 4, free: 1 } } }] as never })).toBe(0);
    const [a] = sessions([0, 'pulled_in', { siteId: SITE, seen: { total: 4, free: 1 } }], ...START.slice(1), GONE, read(701, { kWh: '1' }), [760, 'unplugged']);
    expect(a?.session.periods.map((p) => p.occupancy)).toEqual([0.75, 0.75]);
  });
});

describe('whose kWh', () => {
  const twice = (first: Step[], second: Step[]): Step[] => [
    ...START,
    GONE,
    ...first,
    [760, 'unplugged'],
    [800, 'plugged'],
    [810, 'means_shown', CARD],
    [820, 'power_seen', KW],
    [1120, 'power_gone', { why: 'asked' }],
    ...second,
    [1130, 'unplugged'],
    [1200, 'pulled_out', { reason: 'enough' }],
  ];
  const bill = (kWh: string): Step => [1300, 'bill', { sessions: [], amount: '9', currency: 'EUR', kWh, state: 'charged' }];
  const kWhOf = (...steps: Step[]) => {
    const found = chargedAttempts(visitOf(...steps));
    return found.known ? found.value.map((a) => a.kWh) : found.why;
  };
  it('are its own, else of what all bills say the share of its time', () => {
    expect(kWhOf(...twice([read(701, { kWh: '6' })], [read(1121, { kWh: '3' })]))).toEqual(['6', '3']);
    expect(kWhOf(...twice([read(701, { kWh: '6' })], []), bill('10'))).toEqual(['6', '4']);
    // 600 s and 300 s.
    expect(kWhOf(...twice([], []), bill('9'))).toEqual(['6', '3']);
    expect(kWhOf(...twice([read(701, { kWh: '6' })], []))).toBe('the kWh were not read to the end');
  });
  it('of a bill in the hand are those that it says, for the sessions that it names', () => {
    const v = visitOf(...twice([read(701, { kWh: '6' })], [read(1121, { kWh: '3' })]));
    const of = (bill: Parameters<typeof chargedAttempts>[1]) => {
      const found = chargedAttempts(v, bill);
      return found.known ? found.value.map((a) => [a.n, a.kWh]) : found.why;
    };
    expect(of({ attempts: [2] })).toEqual([[2, '3']]);
    expect(of({ attempts: [1, 2], kWh: '18' })).toEqual([
      [1, '12'],
      [2, '6'],
    ]);
    expect(of({ attempts: [], kWh: '18' })).toEqual([]);
  });
});

describe('what a tariff asks of times', () => {
  const asks = (elements: OcpiTariff['elements'], extra: ExtraPricing = {}) => needsTimes(compileTariff(tariffOf(elements), extra));
  const ENERGY = only('ENERGY', 1);
  it('is nothing where energy and starts alone are priced', () => {
    expect([asks([ENERGY]), asks([ENERGY, only('FLAT', 1)]), asks([when(ENERGY, { max_kwh: 5 })]), asks([ENERGY], { tax_percent: 20 })]).toEqual([
      false,
      false,
      false,
      false,
    ]);
    expect(asks([ENERGY], { allowance: { free_kwh_per_month: 5 } })).toBe(false);
  });
  it('is when, how long, how much power, or how long it stood', () => {
    expect(asks([ENERGY, when(ENERGY, { start_time: '10:00' })])).toBe(true);
    expect(asks([ENERGY, when(ENERGY, { min_power: 20 })])).toBe(true);
    expect([asks([ENERGY, only('TIME', 1)]), asks([ENERGY, only('PARKING_TIME', 1)])]).toEqual([true, true]);
    expect([asks([ENERGY, when(ENERGY, { min_duration: 60 })]), asks([ENERGY, when(ENERGY, { max_duration: 60 })])]).toEqual([true, true]);
    expect(asks([ENERGY], { idle_fee: { grace_minutes: 5, rates: [{ min_occupancy: 0, price_per_min: 1 }] } })).toBe(true);
    expect(asks([ENERGY], { overstay_fee: { after_minutes: 60, fee: 5 } })).toBe(true);
    expect(asks([ENERGY], { allowance: { free_minutes_per_session: 5, applies_to: ['TIME'] } })).toBe(true);
  });
  it('bills are of sessions, of known times where those are asked, and of what can be priced', () => {
    const [timed] = sessions(...START, GONE, read(701, { kWh: '5' }));
    if (!timed) throw new Error();
    const [energy, time] = [compileTariff(tariffOf([ENERGY])), compileTariff(tariffOf([only('TIME', 6)]))];
    const untimed = { ...timed, timed: false };
    expect(visitBills(energy, [])).toEqual({ known: false, why: 'no session to be charged for' });
    expect(visitBills(time, [timed, untimed])).toEqual({ known: false, why: 'the price depends on times that were not recorded' });
    expect(visitBills(energy, [timed, untimed])).toMatchObject({ known: true, value: [{ currency: 'EUR' }, { currency: 'EUR' }] });
    expect(visitBills(compileTariff(tariffOf([ENERGY], { end_date_time: '2024-01-01T00:00:00Z' })), [timed])).toEqual({
      known: false,
      why: 'the tariff is not valid then',
    });
  });
});
