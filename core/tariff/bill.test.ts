import fc from 'fast-check';
import type { ExtraPricing, OcpiTariff, Restrictions } from '../records/ocpi-tariff';
import { ADJUSTMENTS, billOf, cannotPrice, FEES, type Line, sumTaxed } from './bill';
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

/** Any tariff and session, with bounds that lie on whole seconds. */
const ANY = (() => {
  const n = (max: number) => fc.integer({ min: 0, max });
  const clock = fc.tuple(n(23), fc.constantFrom(0, 15, 30, 59)).map(([h, m]) => `${String(h).padStart(2, '0')}:${String(m).padStart(2, '0')}`);
  const some = <T>(of: fc.Arbitrary<T>) => fc.option(of, { nil: undefined, freq: 2 });
  const from = fc.record({
    start_time: some(clock),
    end_time: some(clock),
    min_kwh: some(n(8)),
    min_duration: some(n(90).map((m) => m * 60)),
    max_duration: some(n(90).map((m) => 5400 + m * 60)),
    max_power: some(n(60).map((p) => p + 1)),
    day_of_week: some(fc.subarray(['MONDAY', 'TUESDAY', 'SUNDAY', 'SATURDAY'] as const).map((d) => [...d])),
  });
  const component = fc.record({
    type: fc.constantFrom('ENERGY' as const, 'FLAT' as const, 'TIME' as const, 'PARKING_TIME' as const),
    price: n(900).map((p) => p / 100),
    vat: some(n(25)),
    step_size: fc.constantFrom(0, 1, 60, 900),
  });
  const element = fc.record({ price_components: fc.uniqueArray(component, { minLength: 1, maxLength: 3, selector: (c) => c.type }), restrictions: some(from) });
  const tariff = fc.array(element, { minLength: 1, maxLength: 5 }).map((elements) => tariffOf(JSON.parse(JSON.stringify(elements)) as Elements));
  const part = fc.record({ min: n(70), perMin: n(20), parked: fc.boolean() });
  const session = fc
    .tuple(
      fc.constantFrom('2024-03-30T22:10:00Z', '2024-10-26T21:40:00Z', '2024-03-04T15:00:00Z', '2024-03-08T21:30:00Z'),
      fc.array(part, { minLength: 1, maxLength: 5 }),
    )
    .map(([start, parts]) =>
      // 0.06 kWh a minute, or a multiple: a gram of energy a second, so that whole kWh lie on whole seconds or the second is cut alike.
      sessionOf(
        start,
        parts.map((p) => (p.parked ? { min: p.min, parked: true as const } : { min: p.min, kwh: Math.round(p.min * p.perMin * 60) / 1000 })),
      ),
    );
  return { tariff, session };
})();

/** The same by walking through the session second by second, in integers, knowing nothing of how it is cut. */
function walked(tariff: OcpiTariff, s: ChargedSession): { volumes: Map<string, number>; flat: number | null } {
  const local = new Intl.DateTimeFormat('en-GB', { timeZone: s.zone, hourCycle: 'h23', hour: '2-digit', minute: '2-digit', weekday: 'long' });
  const volumes = new Map<string, number>();
  let flat: number | null = null;
  const t0 = s.periods[0]?.start ?? 0;
  let wh = 0;
  const clocks = new Map<number, [string, string]>();
  for (const p of s.periods) {
    const seconds = (p.end - p.start) / 1000;
    const each = seconds === 0 ? 0 : Math.round((p.kwh * 1000) / seconds);
    for (let at = p.start; at < p.end; at += 1000) {
      const minute = Math.floor(at / 60_000);
      const known = clocks.get(minute);
      const parts = known ? [] : local.formatToParts(at);
      const of = (type: string) => parts.find((x) => x.type === type)?.value ?? '';
      const [clock, day] = known ?? [`${of('hour')}:${of('minute')}`, of('weekday').toUpperCase()];
      clocks.set(minute, [clock, day]);
      const holds = (r: Restrictions = {}): boolean => {
        const { start_time: a, end_time: b = '24:00' } = r;
        const end = b === '00:00' ? '24:00' : b;
        const start = a ?? '00:00';
        const window = a !== undefined && a === r.end_time ? true : start < end ? clock >= start && clock < end : clock >= start || clock < end;
        const since = (at - t0) / 1000;
        return (
          window &&
          (!r.day_of_week?.length || r.day_of_week.includes(day as never)) &&
          wh >= (r.min_kwh ?? 0) * 1000 &&
          since >= (r.min_duration ?? 0) &&
          since < (r.max_duration ?? Number.POSITIVE_INFINITY) &&
          (p.kwh * 3600) / seconds < (r.max_power ?? Number.POSITIVE_INFINITY)
        );
      };
      const active = (type: string) => tariff.elements.findIndex((e) => e.price_components.some((c) => c.type === type) && holds(e.restrictions));
      const add = (type: string, n: number) => {
        const i = active(type);
        if (i >= 0 && n > 0) volumes.set(`${type} ${i}`, (volumes.get(`${type} ${i}`) ?? 0) + n);
      };
      if (flat === null && active('FLAT') >= 0) flat = active('FLAT');
      if (p.charging) add('ENERGY', each);
      add(p.charging ? 'TIME' : 'PARKING_TIME', 1);
      wh += each;
    }
  }
  return { volumes, flat };
}

const plain = (l: Line) => Number(decimal(l.quantity.sub(l.added), 6));

describe('whatever the tariff and the session', () => {
  it('volumes are those of walking through it second by second', () => {
    fc.assert(
      fc.property(ANY.tariff, ANY.session, (tariff, session) => {
        // A bound of kWh inside a second is cut there and not at its end: only bounds that lie on seconds are compared.
        const perSecond = session.periods.map((p) => (p.end === p.start ? 0 : (p.kwh * 1_000_000) / (p.end - p.start)));
        fc.pre(perSecond.every((wh) => wh === 0 || 1000 % wh === 0));
        const { lines } = billOf(compileTariff(tariff), session);
        const { volumes, flat } = walked(tariff, session);
        const found = lines.filter((l) => l.vat !== null && l.of !== 'FLAT').map((l) => [`${l.of} ${l.element}`, plain(l)]);
        expect(new Map(found as [string, number][])).toEqual(volumes);
        if (session.periods.some((p) => p.end > p.start)) expect(lines.find((l) => l.of === 'FLAT')?.element ?? null).toBe(flat);
      }),
      { numRuns: 150, seed: 20241126 },
    );
  });
  it('lines add up, and each is its quantity at its price with its tax', () => {
    fc.assert(
      fc.property(ANY.tariff, ANY.session, (tariff, session) => {
        const { lines, total } = billOf(
          compileTariff({ ...tariff, min_price: { excl_vat: 3 }, max_price: { excl_vat: 9, incl_vat: 10 } }, { tax_percent: 7 }),
          session,
        );
        const sum = sumTaxed(lines);
        expect([sum.excl.equals(total.excl), sum.incl.equals(total.incl)]).toEqual([true, true]);
        const per = { kWh: 1000, h: 3600, min: 60, x: 1, '': 1 };
        for (const l of lines.filter((x) => x.price !== null)) {
          expect(l.excl.equals(l.quantity.div(per[l.per]).mul(l.price ?? 0))).toBe(true);
          expect(l.incl.equals(l.excl.mul(exact(1).add((l.vat ?? NOTHING).div(100))))).toBe(true);
        }
        expect(lines.every((l) => l.element !== null || [...FEES, ...ADJUSTMENTS].includes(l.of as never))).toBe(true);
      }),
      { numRuns: 100, seed: 7 },
    );
  });
  it('a period in two at any instant changes nothing', () => {
    fc.assert(
      fc.property(ANY.tariff, ANY.session, fc.nat(), fc.integer({ min: 1, max: 9 }), (tariff, session, which, tenth) => {
        const i = which % session.periods.length;
        const p = session.periods[i] as ChargedSession['periods'][number];
        const at = p.start + ((p.end - p.start) / 10) * tenth;
        const power = p.power ?? (p.end === p.start ? 0 : (p.kwh * 3_600_000) / (p.end - p.start));
        // In tenths of whole milliwatt-hours, so that both halves are decimals.
        const first = Number(((p.kwh * tenth) / 10).toFixed(6));
        const second = Number((p.kwh - first).toFixed(6));
        const halves = [
          { ...p, power, end: at, kwh: first },
          { ...p, power, start: at, kwh: second },
        ];
        const cut = { ...session, periods: [...session.periods.slice(0, i), ...halves, ...session.periods.slice(i + 1)] };
        const whole = { ...session, periods: session.periods.map((q, j) => (j === i ? { ...q, power } : q)) };
        const t = compileTariff(tariff);
        expect(decimal(billOf(t, cut).total.incl, 9)).toBe(decimal(billOf(t, whole).total.incl, 9));
      }),
      { numRuns: 150, seed: 11 },
    );
  });
  it('more energy at the same times never costs less, without bounds of kWh and power', () => {
    fc.assert(
      fc.property(ANY.tariff, ANY.session, fc.integer({ min: 1, max: 5000 }), (tariff, session, more) => {
        const t = compileTariff({
          ...tariff,
          elements: tariff.elements.map(({ restrictions: { min_kwh: _, max_power: __, ...r } = {}, ...e }) => ({ ...e, restrictions: r })),
        });
        const fuller = { ...session, periods: session.periods.map((p) => (p.kwh > 0 ? { ...p, kwh: Number((p.kwh + more / 1000).toFixed(3)) } : p)) };
        expect(billOf(t, fuller).total.incl.gte(billOf(t, session).total.incl)).toBe(true);
      }),
      { numRuns: 100, seed: 3 },
    );
  });
});
