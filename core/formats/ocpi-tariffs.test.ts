import { tariffsIn } from './ocpi-tariffs';
import { readJson } from './strict-json';

type Part = { type: string; price: number; vat?: number; step_size?: number };
const component = ({ step_size = 1, ...more }: Part) => ({ step_size, ...more });
const ENERGY: Part = { type: 'ENERGY', price: 0.5 };
const FLAT: Part = { type: 'FLAT', price: 1 };
const element = (parts: readonly Part[], restrictions?: object | null) => ({
  price_components: parts.map(component),
  ...(restrictions === undefined ? {} : { restrictions }),
});
const tariff = (elements: readonly object[], more: object = {}) => {
  const read = readJson(
    new TextEncoder().encode(
      JSON.stringify({ country_code: 'SI', party_id: 'BLU', id: 'T-1', currency: 'EUR', elements, last_updated: '2025-01-01T00:00:00Z', ...more }),
    ),
  );
  if (!read.ok) throw new Error(read.code);
  return tariffsIn(read.value);
};
const one = (...of: Parameters<typeof tariff>) => {
  const { tariffs, breaches } = tariff(...of);
  const [t] = tariffs;
  return t ? (t.simple ?? t.whyNotSimple) : breaches.map((b) => `${b.pointer} ${b.code}`);
};

describe('a tariff is a price of a kWh and a start fee', () => {
  it.each([
    ['a kWh alone', [ENERGY], { perKWh: '0.5', startFee: '0' }],
    ['a start alone', [FLAT], { perKWh: '0', startFee: '1' }],
    [
      'both, with tax',
      [
        { ...ENERGY, vat: 22 },
        { ...FLAT, vat: 22 },
      ],
      { perKWh: '0.61', startFee: '1.22' },
    ],
    ['tax of a third place, half up to six', [{ type: 'ENERGY', price: 0.333333, vat: 9.5 }], { perKWh: '0.365', startFee: '0' }],
    ['half a millionth up', [{ type: 'ENERGY', price: 0.0000005 }], { perKWh: '0.000001', startFee: '0' }],
    ['time that costs nothing', [ENERGY, { type: 'TIME', price: 0 }, { type: 'PARKING_TIME', price: 0 }], { perKWh: '0.5', startFee: '0' }],
    ['a step of one Wh or of none', [{ ...ENERGY, step_size: 0 }], { perKWh: '0.5', startFee: '0' }],
    ['time in steps, for nothing', [ENERGY, { type: 'TIME', price: 0, step_size: 900 }], { perKWh: '0.5', startFee: '0' }],
  ])('%s', (_, parts, want) => expect(one([element(parts)])).toEqual(want));

  it.each([
    ['several_elements', [element([ENERGY]), element([FLAT])]],
    // The first reason goes before the others.
    ['several_elements', [element([ENERGY, ENERGY], { min_kwh: 1 }), element([{ ...ENERGY, step_size: 5 }])]],
    ['restrictions', [element([ENERGY, ENERGY], { min_kwh: 1 })]],
    ['several_components', [element([ENERGY, ENERGY, { type: 'TIME', price: 1 }])]],
    [
      'time_priced',
      [
        element([
          { ...ENERGY, step_size: 5 },
          { type: 'TIME', price: 0.01 },
        ]),
      ],
    ],
    ['time_priced', [element([ENERGY, { type: 'PARKING_TIME', price: 3 }])]],
    ['step', [element([{ ...ENERGY, step_size: 2 }])]],
    ['step', [element([FLAT, { ...ENERGY, step_size: 2 }])]],
  ] as const)('not where there is more to it: %s', (why, elements) => {
    expect(one(elements)).toBe(why);
    expect(one(elements, { min_price: { excl_vat: 1 } })).toBe(why);
  });
  it('not with a least or a greatest price; null is as absent', () => {
    const simple = { perKWh: '0.5', startFee: '0' };
    expect(one([element([ENERGY])], { min_price: { excl_vat: 0.5 } })).toBe('min_max');
    expect(one([element([ENERGY])], { max_price: { excl_vat: 50 } })).toBe('min_max');
    expect(one([element([ENERGY])], { min_price: null, max_price: null })).toEqual(simple);
    expect(one([element([ENERGY], null)])).toEqual(simple);
    expect(one([element([ENERGY], {})])).toEqual(simple);
    expect(one([element([ENERGY], { min_kwh: null, day_of_week: null })])).toEqual(simple);
  });
});

it('restrictions are kept as they are written, of the components of their element alone', () => {
  const [read] = tariff([element([ENERGY], { min_kwh: 1.5, start_time: '08:00', day_of_week: ['MONDAY', 'FRIDAY'], max_kwh: null }), element([FLAT])]).tariffs;
  expect(read?.components.map((c) => [c.element, c.type, c.restrictions])).toEqual([
    [0, 'ENERGY', { min_kwh: '1.5', start_time: '08:00', day_of_week: ['MONDAY', 'FRIDAY'] }],
    [1, 'FLAT', {}],
  ]);
  expect(read?.components[0]).toMatchObject({ price: '0.5', vat: null, stepSize: 1 });
});

it.each([
  ['2025-02-28', []],
  ['2024-02-29', []],
  ['2025-02-29', ['/elements/0/restrictions/start_date format']],
  ['2025-13-01', ['/elements/0/restrictions/start_date format']],
  ['2025-2-28', ['/elements/0/restrictions/start_date format']],
  ['20250228', ['/elements/0/restrictions/start_date format']],
  ['2025-02-28T00:00:00Z', ['/elements/0/restrictions/start_date format']],
  [' 2025-02-28', ['/elements/0/restrictions/start_date format']],
  ['abcd-02-28', ['/elements/0/restrictions/start_date format']],
])('a day is written %s: %j', (start_date, want) =>
  expect(tariff([element([ENERGY], { start_date })]).breaches.map((b) => `${b.pointer} ${b.code}`)).toEqual(want),
);

it('ends after it begins', () => {
  const order = (from: string, to: string) =>
    tariff([element([ENERGY])], { start_date_time: from, end_date_time: to }).breaches.map((b) => `${b.pointer} ${b.code}`);
  expect(order('2025-01-01T00:00:00Z', '2025-01-01T00:00:01Z')).toEqual([]);
  expect(order('2025-01-01T00:00:00Z', '2025-01-01T00:00:00Z')).toEqual(['/end_date_time order']);
  expect(order('2025-01-02T00:00:00Z', '2025-01-01T00:00:00Z')).toEqual(['/end_date_time order']);
});
