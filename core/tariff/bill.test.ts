import type { ExtraPricing, OcpiTariff, Restrictions } from '../records/ocpi-tariff';
import { billOf, cannotPrice } from './bill';
import { compileTariff } from './compiled-tariff';
import { decimal, exact, NOTHING } from './exact';
import { only, sessionOf, tariffOf, when } from './fixtures/sessions';
import type { ChargedSession } from './session-period';

type Elements = OcpiTariff['elements'];
const NOON = '2024-03-05T11:00:00Z';
const bill = (elements: Elements, session: ChargedSession, extra: ExtraPricing = {}, more: Partial<OcpiTariff> = {}) =>
  billOf(compileTariff(tariffOf(elements, more), extra), session);
/** Without and with tax, to six decimals. */
const cost = (...of: Parameters<typeof bill>) => {
  const { excl, incl } = bill(...of).total;
  return [decimal(excl, 6), decimal(incl, 6)];
};
const excl = (...of: Parameters<typeof bill>) => Number(cost(...of)[0]);
/** Wh, seconds or times of each kind of line. */
const billed = (...of: Parameters<typeof bill>) => {
  const lines = bill(...of).lines.filter((l) => l.vat !== null);
  return Object.fromEntries(
    lines.map((l) => [
      l.of,
      Number(
        decimal(
          lines.filter((m) => m.of === l.of).reduce((s, m) => s.add(m.quantity), NOTHING),
          6,
        ),
      ),
    ]),
  );
};

describe('steps', () => {
  const hour = [only('TIME', 1.2, 600), only('PARKING_TIME', 6, 900)];
  it('round the parked time alone where both were charged for, also when charging goes on and where parking is free', () => {
    expect(billed(hour, sessionOf(NOON, [{ min: 21, kwh: 5 }]))).toEqual({ TIME: 1800 });
    expect(
      billed(
        hour,
        sessionOf(NOON, [
          { min: 21, kwh: 5 },
          { min: 16, parked: true },
        ]),
      ),
    ).toEqual({ TIME: 1260, PARKING_TIME: 1800 });
    expect(
      billed(
        hour,
        sessionOf(NOON, [
          { min: 21, kwh: 5 },
          { min: 16, parked: true },
          { min: 2, kwh: 1 },
        ]),
      ),
    ).toEqual({ TIME: 1380, PARKING_TIME: 1800 });
    expect(
      billed(
        [only('TIME', 1, 600), only('PARKING_TIME', 0, 900)],
        sessionOf(NOON, [
          { min: 21, kwh: 5 },
          { min: 16, parked: true },
        ]),
      ),
    ).toEqual({
      TIME: 1260,
      PARKING_TIME: 1800,
    });
    expect(
      billed(
        [only('TIME', 1, 600)],
        sessionOf(NOON, [
          { min: 21, kwh: 5 },
          { min: 16, parked: true },
        ]),
      ),
    ).toEqual({ TIME: 1800 });
    expect(
      billed(
        [only('PARKING_TIME', 1, 600)],
        sessionOf(NOON, [
          { min: 21, kwh: 5 },
          { min: 16, parked: true },
        ]),
      ),
    ).toEqual({ PARKING_TIME: 1200 });
  });
  it('are those of the price that was charged last, and what they add costs its price', () => {
    const two: Elements = [when(only('ENERGY', 0.2, 7000), { max_kwh: 10 }), only('ENERGY', 0.5, 4000)];
    // 11 kWh: 10 at 0.20, 1 at 0.50; up to the next 4 kWh, 12.
    expect(billed(two, sessionOf(NOON, [{ min: 30, kwh: 11 }]))).toEqual({ ENERGY: 12_000 });
    expect(excl(two, sessionOf(NOON, [{ min: 30, kwh: 11 }]))).toBe(3);
    expect(bill(two, sessionOf(NOON, [{ min: 30, kwh: 11 }])).lines.map((l) => [l.element, decimal(l.added, 0)])).toEqual([
      [0, '0'],
      [1, '1000'],
    ]);
    // Exactly ten: the second was never charged.
    expect(billed(two, sessionOf(NOON, [{ min: 30, kwh: 10 }]))).toEqual({ ENERGY: 14_000 });
    expect(billed(two, sessionOf(NOON, [{ min: 30 }]))).toEqual({});
  });
  it('of nothing round nothing, of one round to a whole', () => {
    expect(billed([only('ENERGY', 1, 0)], sessionOf(NOON, [{ min: 30, kwh: 1.0004 }]))).toEqual({ ENERGY: 1000.4 });
    expect(billed([only('ENERGY', 1, 1)], sessionOf(NOON, [{ min: 30, kwh: 1.0004 }]))).toEqual({ ENERGY: 1001 });
  });
});

describe('the clock of the place', () => {
  const night = (r: Restrictions): Elements => [when(only('TIME', 6), r)];
  const minutes = (r: Restrictions, start: string, min: number, zone?: string) => (billed(night(r), sessionOf(start, [{ min, kwh: 1 }], zone)).TIME ?? 0) / 60;
  it('a window goes over midnight; its days are those of the moment', () => {
    // Friday 1 March 2024, 20:00 in Amsterdam, to Saturday 20:00.
    const friday = { start_time: '22:00', end_time: '02:00', day_of_week: ['FRIDAY' as const] };
    expect(minutes(friday, '2024-03-01T19:00:00Z', 1440)).toBe(120);
    expect(minutes(friday, '2024-02-29T23:00:00Z', 1440)).toBe(240);
    expect(minutes({ start_time: '22:00', end_time: '02:00' }, '2024-03-01T19:00:00Z', 1440)).toBe(240);
  });
  it('open ends, whole days and 00:00', () => {
    const day = (r: Restrictions) => minutes(r, '2024-03-04T23:00:00Z', 1440);
    expect([day({ start_time: '17:00' }), day({ end_time: '17:00' }), day({ start_time: '08:00', end_time: '08:00' })]).toEqual([420, 1020, 1440]);
    expect([day({ start_time: '23:00', end_time: '00:00' }), day({ end_time: '00:00' }), day({ day_of_week: [] })]).toEqual([60, 1440, 1440]);
  });
  it('dates from the first on, up to the last without it', () => {
    const dates = { start_date: '2024-03-05', end_date: '2024-03-06' };
    expect([minutes(dates, '2024-03-04T21:00:00Z', 60), minutes(dates, '2024-03-04T22:30:00Z', 60), minutes(dates, '2024-03-05T22:30:00Z', 60)]).toEqual([
      0, 30, 30,
    ]);
  });
  it('an hour that is skipped never comes, one that comes twice comes twice', () => {
    const two = { start_time: '02:00', end_time: '03:00' };
    expect([minutes(two, '2024-03-30T23:00:00Z', 360), minutes(two, '2024-10-26T22:00:00Z', 360)]).toEqual([0, 120]);
    // By half an hour on Lord Howe Island, where the clock went back at 02:00 on 7 April 2024.
    expect(minutes({ start_time: '01:30', end_time: '02:00' }, '2024-04-06T14:00:00Z', 300, 'Australia/Lord_Howe')).toBe(60);
  });
});

describe('bounds of kWh, time, power and current', () => {
  it('least inclusive, greatest exclusive', () => {
    const part = (r: Restrictions, session: ChargedSession) => (billed([when(only('TIME', 6), r)], session).TIME ?? 0) / 60;
    const s = sessionOf(NOON, [
      { min: 40, kwh: 20, power: 50, current: 32 },
      { min: 20, kwh: 5, power: 49.99, current: 31.9 },
    ]);
    expect([part({ min_power: 50 }, s), part({ max_power: 50 }, s), part({ min_current: 32 }, s), part({ max_current: 32 }, s)]).toEqual([40, 20, 40, 20]);
    expect([part({ min_duration: 600 }, s), part({ max_duration: 600 }, s), part({ min_kwh: 5 }, s), part({ max_kwh: 5 }, s)]).toEqual([50, 10, 50, 10]);
    // A power that is not given is the mean: 20 kWh in 40 minutes are 30 kW.
    expect(part({ min_power: 30 }, sessionOf(NOON, [{ min: 40, kwh: 20 }]))).toBe(40);
    expect(part({ min_power: 30.001 }, sessionOf(NOON, [{ min: 40, kwh: 20 }]))).toBe(0);
  });
  it('cut where they lie, between milliseconds too', () => {
    // 7 kWh in ten minutes: 3 kWh after 3/7 of them.
    expect(excl([when(only('TIME', 7), { max_kwh: 3 })], sessionOf(NOON, [{ min: 10, kwh: 7 }]))).toBe(0.5);
  });
  it('what is parked has no power and no current, unless it says so', () => {
    const low = [when(only('PARKING_TIME', 6), { max_power: 1, max_current: 1 })];
    expect(billed(low, sessionOf(NOON, [{ min: 10, parked: true }]))).toEqual({ PARKING_TIME: 600 });
    expect(billed(low, sessionOf(NOON, [{ min: 10, parked: true, power: 2 }]))).toEqual({});
  });
  it('a reservation is never; of an unknown current nothing can be said', () => {
    expect(billed([when(only('FLAT', 5), { reservation: 'RESERVATION' }), only('FLAT', 1)], sessionOf(NOON, [{ min: 1 }]))).toEqual({ FLAT: 1 });
    expect(excl([when(only('FLAT', 5), { reservation: 'RESERVATION' })], sessionOf(NOON, [{ min: 1 }]))).toBe(0);
    const t = compileTariff(tariffOf([when(only('TIME', 1), { min_current: 16 })]));
    const paths = (s: ChargedSession) => cannotPrice(t, s).map((p) => p.path);
    expect(paths(sessionOf(NOON, [{ min: 1, current: 3 }, { min: 1 }, { min: 0 }, { min: 1, parked: true }]))).toEqual(['session.periods[1].avg_current_a']);
  });
});

describe('the start fee', () => {
  it('is one, of the element that holds first', () => {
    const two: Elements = [when(only('FLAT', 5), { min_duration: 600 }), only('FLAT', 1)];
    expect(excl(two, sessionOf(NOON, [{ min: 30, kwh: 1 }]))).toBe(1);
    expect(excl([when(only('FLAT', 5), { min_duration: 600 })], sessionOf(NOON, [{ min: 30, parked: true }]))).toBe(5);
    expect(excl([when(only('FLAT', 5), { min_kwh: 1 })], sessionOf(NOON, [{ min: 30, kwh: 1 }]))).toBe(0);
  });
  it('is asked for by no period without length, unless the whole session has none', () => {
    const flat: Elements = [when(only('FLAT', 5), { max_power: 1 }), only('FLAT', 2)];
    expect(
      excl(
        flat,
        sessionOf(NOON, [
          { min: 0, power: 0 },
          { min: 10, kwh: 5 },
        ]),
      ),
    ).toBe(2);
    expect(excl(flat, sessionOf(NOON, [{ min: 0 }, { min: 0 }]))).toBe(5);
  });
});

describe('least and greatest price', () => {
  const s = sessionOf(NOON, [{ min: 30, kwh: 10 }]);
  it('bind each by itself; the amount with tax goes along where nothing is said of it', () => {
    expect(cost([only('ENERGY', 0.1, 0, 20)], s, {}, { min_price: { excl_vat: 2, incl_vat: 2.1 } })).toEqual(['2.000000', '2.100000']);
    expect(cost([only('ENERGY', 0.1, 0, 20)], s, {}, { min_price: { excl_vat: 0.5, incl_vat: 3 } })).toEqual(['1.000000', '3.000000']);
    expect(cost([only('ENERGY', 0.1, 0, 20)], s, {}, { min_price: { excl_vat: 2 } })).toEqual(['2.000000', '2.400000']);
    expect(cost([only('ENERGY', 0.1, 0, 20)], s, {}, { max_price: { excl_vat: 0.5 } })).toEqual(['0.500000', '0.600000']);
    expect(cost([only('ENERGY', 0.1, 0, 20)], s, {}, { max_price: { excl_vat: 5 } })).toEqual(['1.000000', '1.200000']);
    expect(cost([only('PARKING_TIME', 1)], s, {}, { min_price: { excl_vat: 2 } })).toEqual(['2.000000', '2.000000']);
  });
  it('hold for the standard’s own; fees on top, then the least charge, then tax', () => {
    const extra: ExtraPricing = { overstay_fee: { after_minutes: 20, fee: 3, vat: 20 }, minimum_charge: { excl_vat: 5 }, tax_percent: 10 };
    const b = bill([only('ENERGY', 0.1, 0, 20)], s, extra, { min_price: { excl_vat: 1.5 } });
    expect(b.lines.map((l) => [l.of, decimal(l.excl, 2), decimal(l.incl, 4)])).toEqual([
      ['ENERGY', '1.00', '1.2000'],
      ['min_price', '0.50', '0.6000'],
      ['X_OVERSTAY', '3.00', '3.6000'],
      ['x_minimum_charge', '0.50', '0.6000'],
      ['x_tax', '0.00', '0.6000'],
    ]);
  });
});

describe('what stands on posts', () => {
  const free: Elements = [only('FLAT', 0)];
  it('an idle fee from the end of the last charging, less its grace, by occupancy', () => {
    const idle: ExtraPricing = {
      idle_fee: {
        grace_minutes: 5,
        rates: [
          { min_occupancy: 0.5, price_per_min: 0.3 },
          { min_occupancy: 0.9, price_per_min: 1 },
        ],
        step_seconds: 120,
      },
    };
    const followed = (...parts: Parameters<typeof sessionOf>[1][number][]) => sessionOf(NOON, [{ min: 10, kwh: 5 }, ...parts]);
    const of = (s: ChargedSession) => [billed(free, s, idle).X_IDLE ?? 0, excl(free, s, idle)];
    expect(of(followed({ min: 10, parked: true, occupancy: 0.5 }))).toEqual([360, 1.8]);
    expect(of(followed({ min: 4, parked: true, occupancy: 0.5 }, { min: 4, parked: true, occupancy: 0.95 }))).toEqual([240, 4]);
    expect(of(followed({ min: 10, parked: true, occupancy: 0.49 }))).toEqual([0, 0]);
    expect(of(followed({ min: 5, parked: true, occupancy: 1 }))).toEqual([0, 0]);
    // A pause is not idle; without charging there is none.
    expect(of(followed({ min: 30, parked: true, occupancy: 1 }, { min: 1, kwh: 1 }))).toEqual([0, 0]);
    expect(of(sessionOf(NOON, [{ min: 30, parked: true, occupancy: 1 }]))).toEqual([0, 0]);
    expect(of(followed({ min: 30, parked: true, occupancy: 1 }, { min: 0 }))).toEqual([1560, 26]);
  });
  it('an overstay fee once, when strictly longer', () => {
    const over: ExtraPricing = { overstay_fee: { after_minutes: 60, fee: 10 } };
    expect([60, 61].map((min) => excl(free, sessionOf(NOON, [{ min, kwh: 1 }]), over))).toEqual([0, 10]);
  });
  it('minutes by power while charging; the threshold belongs to the upper step', () => {
    const byPower: ExtraPricing = {
      power_time: {
        tiers: [
          { min_power: 10, price_per_min: 0.2 },
          { min_power: 60, price_per_min: 0.5 },
        ],
        step_seconds: 300,
        vat: 10,
      },
    };
    const s = sessionOf(NOON, [
      { min: 2, kwh: 0.3 },
      { min: 6, kwh: 6 },
      { min: 6, kwh: 5.9 },
      { min: 60, parked: true, power: 80 },
    ]);
    expect([billed(free, s, byPower), cost(free, s, byPower)]).toEqual([{ FLAT: 1, X_POWER_TIME: 900 }, ['4.800000', '5.280000']]);
  });
  it('free minutes of what they are of; the start and the fees stay', () => {
    const all: Elements = [only('FLAT', 1), only('ENERGY', 0.5), only('TIME', 6), only('PARKING_TIME', 6)];
    const s = sessionOf(NOON, [
      { min: 20, kwh: 10 },
      { min: 20, parked: true },
    ]);
    const given = (applies_to: NonNullable<ExtraPricing['allowance']>['applies_to']) =>
      billed(all, s, { allowance: { free_minutes_per_session: 25, applies_to } });
    expect(given(['TIME', 'PARKING_TIME'])).toEqual({ FLAT: 1, ENERGY: 10_000, PARKING_TIME: 900 });
    expect(given(['ENERGY'])).toEqual({ FLAT: 1, TIME: 1200, PARKING_TIME: 1200 });
    const byPower: ExtraPricing = {
      power_time: { tiers: [{ min_power: 0, price_per_min: 1 }] },
      allowance: { free_minutes_per_session: 5, applies_to: ['X_POWER_TIME'] },
    };
    expect(billed([only('TIME', 1)], s, byPower)).toEqual({ TIME: 1200, X_POWER_TIME: 900 });
  });
  it('free kWh of the month, which count towards bounds all the same', () => {
    const two: Elements = [when(only('ENERGY', 0.2), { max_kwh: 10 }), only('ENERGY', 0.5)];
    const t = compileTariff(tariffOf(two), { allowance: { free_kwh_per_month: 30 } });
    const of = (before: number) => decimal(billOf(t, sessionOf(NOON, [{ min: 30, kwh: 20 }]), exact(before)).total.excl, 3);
    expect([0, 10, 15, 22.5, 30, 31].map(of)).toEqual(['0.000', '0.000', '2.500', '5.500', '7.000', '7.000']);
    expect(of(0.0000001 + 20)).toBe('5.000');
  });
});

describe('when it cannot be priced', () => {
  it('a tariff holds for the whole of a session that began while it was valid', () => {
    const t = compileTariff(tariffOf([only('ENERGY', 1)], { start_date_time: '2024-03-05T11:00:00Z', end_date_time: '2024-03-05T12:00:00' }));
    const at = (start: string) => cannotPrice(t, sessionOf(start, [{ min: 90, kwh: 1 }])).map((p) => p.path);
    expect(['2024-03-05T10:59:59Z', '2024-03-05T11:00:00Z', '2024-03-05T11:59:59Z', '2024-03-05T12:00:00Z'].map((s) => at(s).length)).toEqual([1, 0, 0, 1]);
    expect(at('2024-03-05T12:00:00Z')).toEqual(['session.periods[0].start']);
  });
});
