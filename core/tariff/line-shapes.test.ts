import type { ExtraPricing, OcpiTariff } from '../records/ocpi-tariff';
import { billOf, cannotPrice, type Line } from './bill';
import { compileTariff } from './compiled-tariff';
import { decimal } from './exact';
import { only, sessionOf, tariffOf, when } from './fixtures/sessions';
import { isTooLong, MOST_DAYS } from './session-period';

const NOON = '2024-03-05T11:00:00Z';
const T = Date.parse(NOON);
const MIN = 60_000;
const FREE = [only('FLAT', 0)];
const lines = (elements: OcpiTariff['elements'], parts: Parameters<typeof sessionOf>[1], extra: ExtraPricing = {}, more: Partial<OcpiTariff> = {}) =>
  billOf(compileTariff(tariffOf(elements, more), extra), sessionOf(NOON, parts)).lines;
const plain = (l: Line | undefined) =>
  l && {
    of: l.of,
    quantity: Number(l.quantity.valueOf()),
    added: Number(l.added.valueOf()),
    unit: l.unit,
    price: l.price && decimal(l.price, 3),
    per: l.per,
    vat: l.vat && decimal(l.vat, 1),
    where: l.where,
    excl: decimal(l.excl, 4),
    incl: decimal(l.incl, 4),
  };

describe('a line says how much of what, at what price, where and with which tax', () => {
  it('of the start', () => {
    expect(plain(lines([only('FLAT', 1, 0, 20)], [{ min: 10, kwh: 1 }])[0])).toEqual({
      of: 'FLAT',
      quantity: 1,
      added: 0,
      unit: 'x',
      price: '1.000',
      per: 'x',
      vat: '20.0',
      where: [[T, T]],
      excl: '1.0000',
      incl: '1.2000',
    });
  });
  it('of minutes by power, rounded up at the last tier', () => {
    const tiers = [
      { min_power: 0, price_per_min: 0.1 },
      { min_power: 50, price_per_min: 0.3 },
    ];
    const [slow, quick] = lines(
      FREE,
      [
        { min: 2.5, kwh: 1, power: 20 },
        { min: 3, kwh: 4, power: 80 },
      ],
      { power_time: { tiers, step_seconds: 60, vat: 20 } },
    ).slice(-2);
    expect(plain(slow)).toMatchObject({ of: 'X_POWER_TIME', quantity: 150, added: 0, unit: 's', price: '0.100', per: 'min', excl: '0.2500', incl: '0.3000' });
    expect(plain(quick)).toMatchObject({ quantity: 210, added: 30, where: [[T + 2.5 * MIN, T + 5.5 * MIN]], excl: '1.0500', incl: '1.2600' });
  });
  it('of idling at two rates: its own tax, the step at the last one, and none where no rate holds', () => {
    const idle_fee = {
      grace_minutes: 5,
      rates: [
        { min_occupancy: 0.2, price_per_min: 0.1 },
        { min_occupancy: 0.8, price_per_min: 0.5 },
      ],
      step_seconds: 60,
      vat: 20,
    };
    const parts = [
      { min: 10, kwh: 5 },
      { min: 5, parked: true as const, occupancy: 0.5 },
      { min: 2.5, parked: true as const, occupancy: 0.5 },
      { min: 1, parked: true as const, occupancy: 0.1 },
      { min: 1, parked: true as const, occupancy: 0.9 },
    ];
    const idle = lines(FREE, parts, { idle_fee }).filter((l) => l.of === 'X_IDLE');
    expect(idle.map(plain)).toEqual([
      {
        of: 'X_IDLE',
        quantity: 150,
        added: 0,
        unit: 's',
        price: '0.100',
        per: 'min',
        vat: '20.0',
        where: [[T + 15 * MIN, T + 17.5 * MIN]],
        excl: '0.2500',
        incl: '0.3000',
      },
      {
        of: 'X_IDLE',
        quantity: 90,
        added: 30,
        unit: 's',
        price: '0.500',
        per: 'min',
        vat: '20.0',
        where: [[T + 18.5 * MIN, T + 19.5 * MIN]],
        excl: '0.7500',
        incl: '0.9000',
      },
    ]);
    expect(lines(FREE, parts.slice(0, 2), { idle_fee }).filter((l) => l.of === 'X_IDLE')).toEqual([]);
  });
  it('of staying too long: once, when the time is up', () => {
    const overstay_fee = { after_minutes: 30, fee: 10, vat: 20 };
    expect(plain(lines(FREE, [{ min: 31, kwh: 5 }], { overstay_fee }).find((l) => l.of === 'X_OVERSTAY'))).toEqual({
      of: 'X_OVERSTAY',
      quantity: 1,
      added: 0,
      unit: 'x',
      price: '10.000',
      per: 'x',
      vat: '20.0',
      where: [[T + 30 * MIN, T + 30 * MIN]],
      excl: '10.0000',
      incl: '12.0000',
    });
    expect(lines(FREE, [{ min: 30, kwh: 5 }], { overstay_fee }).some((l) => l.of === 'X_OVERSTAY')).toBe(false);
  });
  it('of a change to the sum: of no quantity and of no stretch, and none where nothing changes', () => {
    const least = (excl_vat: number) => lines([only('ENERGY', 1)], [{ min: 10, kwh: 5 }], {}, { min_price: { excl_vat } }).filter((l) => l.of === 'min_price');
    expect(least(6).map(plain)).toEqual([
      { of: 'min_price', quantity: 1, added: 0, unit: '', price: null, per: '', vat: null, where: [], excl: '1.0000', incl: '1.0000' },
    ]);
    expect(least(5)).toEqual([]);
  });
});

describe('where a tariff cuts', () => {
  it('at parts of a kWh, though the charge is of whole ones', () => {
    const [first, second] = lines([when(only('ENERGY', 1), { max_kwh: 2.25 }), only('ENERGY', 2)], [{ min: 10, kwh: 4 }]);
    expect([plain(first), plain(second)]).toMatchObject([
      { quantity: 2250, excl: '2.2500' },
      { quantity: 1750, excl: '3.5000' },
    ]);
    const free = lines([only('ENERGY', 1)], [{ min: 10, kwh: 4 }], { allowance: { free_kwh_per_month: 1.5 } });
    expect(free.map(plain)).toMatchObject([{ quantity: 2500, excl: '2.5000' }]);
  });
  it('by a first or a last day alone, and at times of day that are listed late first', () => {
    const of = (restrictions: object) =>
      Number(
        decimal(
          billOf(compileTariff(tariffOf([when(only('ENERGY', 1), restrictions)])), sessionOf('2024-03-05T22:00:00Z', [{ min: 120, kwh: 10 }])).total.excl,
          3,
        ),
      );
    // An hour before and one after midnight in Amsterdam.
    expect(of({ start_date: '2024-03-06' })).toBe(5);
    expect(of({ end_date: '2024-03-06' })).toBe(5);
    expect(of({ start_time: '23:30', end_time: '00:15' })).toBe(3.75);
    expect(of({ start_time: '00:00', end_time: '00:00' })).toBe(10);
    const late = [when(only('ENERGY', 2), { start_time: '00:30', end_time: '06:00' }), when(only('ENERGY', 1), { start_time: '20:00', end_time: '23:30' })];
    expect(billOf(compileTariff(tariffOf(late)), sessionOf('2024-03-05T22:00:00Z', [{ min: 120, kwh: 12 }])).total.excl.equals(9)).toBe(true);
  });
});

describe('the stretches that caused a line', () => {
  const where = (...of: Parameters<typeof lines>) => lines(...of).map((l) => [l.of, l.where.map(([from, to]) => [(from - T) / MIN, (to - T) / MIN])]);
  it('follow on one another as one, and are apart where something lay between', () => {
    expect(where([only('TIME', 6)], [{ min: 10 }, { min: 10, kwh: 2 }])).toEqual([['TIME', [[0, 20]]]]);
    expect(where([only('TIME', 6)], [{ min: 10 }, { min: 5, parked: true }, { min: 10 }])).toEqual([
      [
        'TIME',
        [
          [0, 10],
          [15, 25],
        ],
      ],
    ]);
  });
  it('end where the price changed, within a period too', () => {
    expect(where([when(only('ENERGY', 1), { max_kwh: 2.25 }), only('ENERGY', 2)], [{ min: 10, kwh: 4 }])).toEqual([
      ['ENERGY', [[0, 5.625]]],
      ['ENERGY', [[5.625, 10]]],
    ]);
    expect(where([when(only('TIME', 6), { max_duration: 240 }), only('TIME', 12)], [{ min: 10 }])).toEqual([
      ['TIME', [[0, 4]]],
      ['TIME', [[4, 10]]],
    ]);
  });
  it('are of the tiers of power alone that were given', () => {
    const tiers = [0, 50, 100].map((min_power) => ({ min_power, price_per_min: 0.1 }));
    expect(where(FREE, [{ min: 10, kwh: 10, power: 60 }], { power_time: { tiers } })).toEqual([
      ['FLAT', [[0, 0]]],
      ['X_POWER_TIME', [[0, 10]]],
    ]);
  });
});

describe('what cannot be priced says where and why', () => {
  const why = (t: OcpiTariff, parts: Parameters<typeof sessionOf>[1] = [{ min: 10, kwh: 1 }]) => cannotPrice(compileTariff(t), sessionOf(NOON, parts));
  it('too long, before it holds, after it held, and without the current it looks at', () => {
    const price = [only('ENERGY', 1)];
    expect(why(tariffOf(price))).toEqual([]);
    const tooLong = [{ path: 'session.periods', reason: `the charge would have lasted more than ${MOST_DAYS} days` }];
    expect(why(tariffOf(price), [{ min: MOST_DAYS * 1440 + 1, kwh: 1 }])).toEqual(tooLong);
    const notThen = [{ path: 'session.periods[0].start', reason: 'the tariff is not valid then' }];
    expect(why(tariffOf(price, { start_date_time: '2024-03-05T11:00:01Z' }))).toEqual(notThen);
    expect(why(tariffOf(price, { start_date_time: NOON }))).toEqual([]);
    expect(why(tariffOf(price, { end_date_time: NOON }))).toEqual(notThen);
    expect(
      why(tariffOf([when(price[0] as never, { min_current: 10 }), only('ENERGY', 2)]), [
        { min: 5, kwh: 1, current: 20 },
        { min: 5, kwh: 1 },
        { min: 5, parked: true },
      ]),
    ).toEqual([{ path: 'session.periods[1].avg_current_a', reason: 'is missing: the tariff looks at the current' }]);
  });
  it('sixty-two days are not too long, over however many periods', () => {
    const days = (...d: number[]) =>
      sessionOf(
        NOON,
        d.map((min) => ({ min: min * 1440 })),
      );
    expect([
      isTooLong(days(MOST_DAYS)),
      isTooLong(days(MOST_DAYS - 1, 1)),
      isTooLong(days(MOST_DAYS, 1 / 1440)),
      isTooLong({ zone: 'UTC', periods: [] }),
    ]).toEqual([false, false, true, false]);
  });
});
