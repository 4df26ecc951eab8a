import fc from 'fast-check';
import { canonicalJson } from '../records/canonical-json';
import { extraPricing, ocpiTariff } from '../records/ocpi-tariff';
import { billOf } from './bill';
import { billWords } from './bill-words';
import { compileTariff } from './compiled-tariff';
import { exampleStop, nextWeekday } from './example-stop';
import { only, tariffOf, when } from './fixtures/sessions';
import { DAYS, NO_PRICE, objectOfPlain, oneLineOf, oneLineOfObject, type PlainPrice, plainOfObject, plainPrice, saysPrice } from './plain-price';
import { priceQuestions } from './price-questions';
import { priceWeek } from './price-week';
import { feeWords, priceWords } from './price-words';

const OF = { id: 'T', currency: 'EUR', day: '2025-10-14' };
const made = (p: Partial<PlainPrice>) => objectOfPlain({ ...NO_PRICE, ...p }, OF);
const compiled = (p: Partial<PlainPrice>) => {
  const { tariff, extra } = made(p);
  return compileTariff(tariff, extra ?? {});
};
/** A Tuesday at 17:00 in Ljubljana. */
const TUESDAY = Date.parse('2025-10-14T15:00:00Z');
const costs = (p: Partial<PlainPrice>, kWh = 40, min = 30, parked = 0) =>
  billWords(billOf(compiled(p), exampleStop('Europe/Ljubljana', TUESDAY, kWh, min, parked)), 'Europe/Ljubljana').total;

describe('plain choices', () => {
  // Common practice, no source: what posts say, with the sum by hand.
  it.each<[string, Partial<PlainPrice>, string]>([
    ['40 × 0.59', { perKWh: '0.59' }, '23.60'],
    ['and 0.35 a start', { perKWh: '0.59', startFee: '0.35' }, '23.95'],
    ['an evening price from 16:00 to 20:00', { perKWh: '0.45', windows: [{ from: '16:00', to: '20:00', days: 'weekdays', perKWh: '0.59' }] }, '23.60'],
    ['on weekends only', { perKWh: '0.45', windows: [{ from: '16:00', to: '20:00', days: 'weekend', perKWh: '0.59' }] }, '18.00'],
    ['changed after a quarter of an hour', { perKWh: '0.40', windows: [{ from: '17:15', to: '20:00', days: 'all', perKWh: '0.60' }] }, '20.00'],
    ['30 min at 0.20', { perMin: '0.20' }, '6.00'],
    ['and 10 min parked at 0.10', { perMin: '0.20', parkedPerMin: '0.10' }, '7.00'],
    [
      '80 kW: the upper step',
      {
        byPower: [
          { fromKW: '60', perMin: '0.50' },
          { fromKW: '0', perMin: '0.25' },
        ],
      },
      '15.00',
    ],
    ['idle 5 of 10 min', { perKWh: '0.5', idlePerMin: '0.30', idleAfterMin: '5' }, '21.50'],
    ['over 35 min', { perKWh: '0.5', overstayFee: '10', overstayAfterMin: '35' }, '30.00'],
    ['20 free minutes of 40', { perMin: '0.2', parkedPerMin: '0.2', freeMin: '20' }, '4.00'],
    ['at least 25', { perKWh: '0.5', minimum: '25' }, '25.00'],
    ['tax 22 % on top', { perKWh: '0.5', taxOnTop: '22' }, '24.40'],
    ['free', { perKWh: '0' }, '0.00'],
  ])('%s', (_what, p, total) => expect(costs(p, 40, 30, 10)).toBe(total));

  const money = fc.integer({ min: 0, max: 999 }).map((c) => String(c / 100));
  const or = <T>(of: fc.Arbitrary<T>) => fc.oneof(of, fc.constant(''));
  const whole = (max: number) => fc.integer({ min: 1, max }).map(String);
  const clock = fc.tuple(fc.integer({ min: 0, max: 23 }), fc.constantFrom('00', '30')).map(([h, m]) => `${String(h).padStart(2, '0')}:${m}`);
  const any = fc
    .record({
      perKWh: or(money),
      startFee: or(money),
      windows: fc.array(fc.record({ from: clock, to: clock, days: fc.constantFrom(...(Object.keys(DAYS) as (keyof typeof DAYS)[])), perKWh: money }), {
        maxLength: 3,
      }),
      perMin: or(money),
      parkedPerMin: or(money),
      byPower: fc.uniqueArray(fc.record({ fromKW: whole(300), perMin: money }), { selector: (s) => s.fromKW, maxLength: 3 }),
      idlePerMin: or(money),
      idleAfterMin: or(whole(60)),
      overstayFee: or(money),
      overstayAfterMin: or(whole(90)),
      freeMin: or(whole(60)),
      minimum: or(money),
      taxOnTop: or(whole(25)),
    })
    .filter(saysPrice);
  it('are an object that the schemas take, and come back from it with the same meaning', () => {
    fc.assert(
      fc.property(any, (p) => {
        expect(plainPrice.safeParse(p).success).toBe(true);
        const object = objectOfPlain(p, OF);
        expect(ocpiTariff.safeParse(object.tariff).success && (object.extra === null || extraPricing.safeParse(object.extra).success)).toBe(true);
        const back = plainOfObject(object.tariff, object.extra);
        expect(back && objectOfPlain(back, OF)).toEqual(object);
        // As it is kept: its fields in another order.
        const kept = JSON.parse(canonicalJson(object)) as typeof object;
        expect(plainOfObject(kept.tariff, kept.extra)).toEqual(back);
      }),
      { numRuns: 300, seed: 1 },
    );
  });
  it('are not what says more than they can', () => {
    const says = (elements: Parameters<typeof tariffOf>[0], more = {}) => plainOfObject(tariffOf(elements, more), null);
    expect(says([only('ENERGY', 0.5)])).toMatchObject({ perKWh: '0.5' });
    expect(plainOfObject(tariffOf([only('ENERGY', 0.5)]), {})).toMatchObject({ perKWh: '0.5' });
    for (const elements of [
      [only('ENERGY', 0.5, 1000)],
      [only('ENERGY', 0.5, 0, 20)],
      [when(only('ENERGY', 0.5), { min_kwh: 5 })],
      [only('TIME', 1), only('ENERGY', 0.5)],
    ])
      expect(says(elements)).toBeNull();
    expect(says([only('ENERGY', 0.5)], { min_price: { excl_vat: 1 } })).toBeNull();
    expect(says([only('ENERGY', 0.5)], { max_price: { excl_vat: 1 } })).toBeNull();
    for (const days of [{ start_date_time: '2025-01-01T00:00:00Z' }, { end_date_time: '2025-01-01T00:00:00Z' }])
      expect(says([only('ENERGY', 0.5)], days)).toBeNull();
    expect(plainOfObject(tariffOf([only('ENERGY', 0.5)]), { idle_fee: { grace_minutes: 0, rates: [{ min_occupancy: 0.5, price_per_min: 1 }] } })).toBeNull();
    expect(says([when(only('ENERGY', 0.5), { start_time: '22:00', end_time: '06:00', day_of_week: ['MONDAY'] })])).toBeNull();
  });
  it('leave out what asks for nothing, and what half is said', () => {
    expect(made({ perKWh: '0.5', freeMin: '0', taxOnTop: '0', overstayFee: '5' }).extra).toBeNull();
    expect(made({ perKWh: '0.5', overstayAfterMin: '45' }).extra).toBeNull();
    expect(made({ perKWh: '0.5', windows: [{ from: '00:00', to: '00:00', days: 'weekend', perKWh: '0.3' }] }).tariff.elements[0]?.restrictions).toEqual({
      day_of_week: ['SATURDAY', 'SUNDAY'],
    });
    expect(objectOfPlain({ ...NO_PRICE, perKWh: '1' }, { ...OF, id: 'x'.repeat(40) }).tariff.id).toBe('x'.repeat(36));
    const window = { from: '22:00', to: '06:00', days: 'all' as const, perKWh: '0.3' };
    const asks = (p: Partial<PlainPrice>) => saysPrice({ ...NO_PRICE, ...p });
    expect([asks({ windows: [window] }), asks({ byPower: [{ fromKW: '0', perMin: '1' }] }), asks({ idlePerMin: '1' }), asks({})]).toEqual([
      true,
      true,
      false,
      false,
    ]);
  });
  it('in one line as on the post, tax in', () => {
    expect(oneLineOf({ ...NO_PRICE, perKWh: '0.5', startFee: '1', taxOnTop: '22' })).toEqual({ perKWh: '0.61', startFee: '1.22' });
    expect(oneLineOf({ ...NO_PRICE, windows: [{ from: '22:00', to: '06:00', days: 'all', perKWh: '0.3' }] })).toEqual({ perKWh: '0.3', startFee: '0' });
    expect(oneLineOf({ ...NO_PRICE, perMin: '0.2' })).toEqual({ perKWh: null, startFee: '0' });
  });
  it('in one line, of any object', () => {
    const tariff = tariffOf([when(only('ENERGY', 0.4, 1, 25), { min_kwh: 5 }), only('ENERGY', 0.9), only('FLAT', 1, 0, 20)]);
    expect(oneLineOfObject(tariff, null)).toEqual({ perKWh: '0.5', startFee: '1.2' });
    expect(oneLineOfObject(tariff, { tax_percent: 10 })).toEqual({ perKWh: '0.55', startFee: '1.32' });
    expect(oneLineOfObject(tariffOf([only('TIME', 6)]), null)).toEqual({ perKWh: null, startFee: '0' });
  });
  it('refuse what is no price, with a sentence', () => {
    const wrong = (p: Partial<PlainPrice>) => plainPrice.safeParse({ ...NO_PRICE, ...p }).error?.issues.map((i) => [i.path.join('.'), i.message]);
    expect(
      wrong({ perKWh: '0,5', idleAfterMin: '-1', windows: [{ from: '24:00', to: '6:00', days: 'all', perKWh: '' }] })
        ?.map(([path]) => path)
        .filter((path, i, all) => all.indexOf(path) === i),
    ).toEqual(['perKWh', 'windows.0.from', 'windows.0.to', 'windows.0.perKWh', 'idleAfterMin']);
    expect(wrong({})).toBeUndefined();
    const told = (p: Partial<PlainPrice>) =>
      wrong(p)
        ?.map(([, message]) => message)
        .at(-1);
    expect([told({ perKWh: '999999' }), told({ perKWh: '999999.01' })]).toEqual([undefined, expect.anything()]);
    expect([told({ taxOnTop: '100' }), told({ taxOnTop: '100.1' })]).toEqual([undefined, expect.anything()]);
    expect([told({ overstayAfterMin: '1' }), told({ overstayAfterMin: '0' })]).toEqual([undefined, expect.anything()]);
    expect(plainPrice.parse({ ...NO_PRICE, perKWh: ' 0.5 ', idleAfterMin: ' 5 ' })).toMatchObject({ perKWh: '0.5', idleAfterMin: '5' });
  });
});

describe('the week', () => {
  it('is cut where the price changes, Monday first, tax in', () => {
    const week = priceWeek(
      compiled({ perKWh: '0.45', taxOnTop: '20', windows: [{ from: '16:00', to: '20:00', days: 'weekdays', perKWh: '0.59' }] }),
      '2025-10-14',
    );
    expect(week.map((d) => d.weekday)).toEqual([1, 2, 3, 4, 5, 6, 0]);
    expect(week[0]?.stretches).toEqual([
      { from: 0, to: 960, perKWh: '0.54' },
      { from: 960, to: 1200, perKWh: '0.708' },
      { from: 1200, to: 1440, perKWh: '0.54' },
    ]);
    expect(week[5]?.stretches).toEqual([{ from: 0, to: 1440, perKWh: '0.54' }]);
    expect(priceWeek(compiled({ perMin: '0.2' }), '2025-10-14')[6]?.stretches).toEqual([{ from: 0, to: 1440, perKWh: null }]);
  });
  it('the first that holds at the start of a session is shown', () => {
    const t = compileTariff(
      tariffOf([when(only('ENERGY', 0.2), { min_kwh: 10 }), when(only('ENERGY', 0.9), { reservation: 'RESERVATION' }), only('ENERGY', 0.5)]),
    );
    expect(priceWeek(t, '2025-10-14')[0]?.stretches).toEqual([{ from: 0, to: 1440, perKWh: '0.50' }]);
  });
});

describe('what may be a slip is asked', () => {
  const asked = (elements: Parameters<typeof tariffOf>[0]) => priceQuestions(compileTariff(tariffOf(elements)), '2025-10-14').map((q) => [q.about, q.text]);
  it('gaps in which nothing is charged', () => {
    expect(asked([when(only('ENERGY', 0.5), { start_time: '06:00', end_time: '22:00' })])[0]).toEqual([
      'gap',
      'Nothing is charged for charging Mon 00:00 to 06:00, Mon 22:00 to 24:00, Tue 00:00 to 06:00 and 11 more. Is it free then?',
    ]);
    expect(asked([when(only('ENERGY', 0.5), { start_time: '06:00' })])[0]?.[1]).toContain('every day 00:00 to 06:00');
    expect(asked([only('FLAT', 5)])[0]?.[1]).toContain('at all times');
    expect(asked([when(only('ENERGY', 0.5), { day_of_week: ['SUNDAY'] }), when(only('TIME', 5), { day_of_week: [...DAYS.weekdays, 'SATURDAY'] })])).toEqual([]);
    expect(priceQuestions(compiled({ byPower: [{ fromKW: '0', perMin: '1' }] }), '2025-10-14')).toEqual([]);
  });
  it('prices that never come up', () => {
    expect(asked([only('ENERGY', 0.5), when(only('ENERGY', 0.3), { start_time: '22:00', end_time: '06:00' })])).toEqual([
      ['overlap', 'Price 2 for energy never comes up: one before it holds at all of its times. Is the order right?'],
    ]);
    expect(asked([when(only('ENERGY', 0.3), { start_time: '22:00', end_time: '06:00' }), only('ENERGY', 0.5)])).toEqual([]);
    expect(asked([when(only('ENERGY', 0.3), { max_kwh: 10 }), only('ENERGY', 0.5)])).toEqual([]);
  });
});

describe('a bill in words', () => {
  it('each line says how much at what price and when', () => {
    const p = {
      perKWh: '0.45',
      startFee: '0.35',
      windows: [{ from: '17:15', to: '20:00', days: 'all' as const, perKWh: '0.60' }],
      idlePerMin: '0.10',
      idleAfterMin: '2',
    };
    const { lines, total, tax } = billWords(billOf(compiled(p), exampleStop('Europe/Ljubljana', TUESDAY, 40, 30, 10)), 'Europe/Ljubljana');
    expect(lines).toEqual([
      { label: 'Start', how: '', amount: '0.35' },
      { label: 'Energy', how: '20.0 kWh × 0.60 per kWh, 17:15 to 17:30', amount: '12.00' },
      { label: 'Energy', how: '20.0 kWh × 0.45 per kWh, 17:00 to 17:15', amount: '9.00' },
      { label: 'Idle', how: '8:00 × 0.10 a minute, 17:32 to 17:40', amount: '0.80' },
    ]);
    expect([total, tax]).toEqual(['22.15', null]);
  });
  it('tax is told where the price is without it; what costs nothing is left out', () => {
    const b = billWords(billOf(compiled({ perKWh: '0.50', startFee: '0', taxOnTop: '22' }), exampleStop('UTC', TUESDAY, 10, 30)), 'UTC');
    expect([b.lines.map((l) => l.label), b.total, b.tax]).toEqual([['Energy', 'Tax on top'], '6.10', '1.10']);
  });
  it('fees before one plugs in', () => {
    const { extra } = made({
      perKWh: '1',
      idlePerMin: '0.3',
      idleAfterMin: '10',
      overstayFee: '20',
      overstayAfterMin: '90',
      byPower: [{ fromKW: '0', perMin: '0.2' }],
      freeMin: '15',
      minimum: '2',
      taxOnTop: '6',
    });
    expect(feeWords(extra ?? {}, (n) => `€${n}`)).toEqual([
      'idle €0.3 a minute from 10 min after charging',
      'overstay €20 after 90 min',
      '€0.2 a minute from 0 kW',
      'first 15 min free',
      'at least €2',
      'tax 6 % on top',
    ]);
    expect(feeWords({ allowance: { free_kwh_per_month: 30 } }, String)).toEqual(['30 kWh a month free']);
  });
  it('a price in one line, minutes too', () => {
    const words = (p: Partial<PlainPrice>) => {
      const plain = { ...NO_PRICE, ...p };
      return priceWords({ currency: 'EUR', ...oneLineOf(plain), ...objectOfPlain(plain, { id: 't', currency: 'EUR', day: '2026-01-01' }) } as never);
    };
    expect(words({ perKWh: '0.5', startFee: '1' })).toBe('€0.500 per kWh, €1.00 per start');
    expect(words({ perMin: '0.1', parkedPerMin: '0.05', taxOnTop: '20' })).toBe('€0.120 a minute, €0.060 a minute parked, tax 20 % on top');
    expect(words({ perKWh: '0.6', windows: [{ from: '22:00', to: '06:00', days: 'all', perKWh: '0.4' }] })).toBe('€0.600 per kWh, by time of day');
    expect(words({ startFee: '0' })).toBe('no price of energy');
    expect(priceWords({ currency: 'EUR', perKWh: '0.4', startFee: '0', tariff: null, extra: null } as never)).toBe('€0.400 per kWh');
  });
});

it('the next day of the week, today counting', () => {
  expect([2, 3, 1, 0].map((w) => nextWeekday('2025-10-14', w))).toEqual(['2025-10-14', '2025-10-15', '2025-10-20', '2025-10-19']);
});
