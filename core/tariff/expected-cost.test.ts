import type { ExtraPricing, OcpiTariff } from '../records/ocpi-tariff';
import { deriveVisit } from '../visit/derive';
import { CARD, IN, KW, STALL_A, STALL_B, type Step, story, T0, VISIT } from '../visit/fixtures/story';
import { payloadProblem } from '../visit/payloads';
import { chargedAttempts, visitBills } from './charged-visit';
import { compileTariff } from './compiled-tariff';
import { billCost, screenCost, tryPrice } from './expected-cost';
import bills from './fixtures/bills.json';
import { NO_PRICE, objectOfPlain } from './plain-price';

type Component = OcpiTariff['elements'][number]['price_components'][number];
const tariff = (price_components: Component[], extra: ExtraPricing = {}) =>
  compileTariff(
    { country_code: 'ZZ', party_id: 'OWN', id: 't', currency: 'EUR', elements: [{ price_components }], last_updated: '2025-01-01T00:00:00Z' },
    extra,
  );
const line = (perKWh: string, startFee = '0') =>
  tariff([
    { type: 'FLAT', price: Number(startFee), step_size: 0 },
    { type: 'ENERGY', price: Number(perKWh), step_size: 0 },
  ]);
const byMinute = tariff([{ type: 'TIME', price: 6, step_size: 1 }]);
const visitOf = (...steps: Step[]) => deriveVisit(VISIT, story(...steps), payloadProblem);
/** Ten minutes of charging from the 100th second on, unplugged a minute later. */
const START: Step[] = [IN, [20, 'stall_chosen', { stallId: STALL_A }], [60, 'plugged'], [70, 'means_shown', CARD], [100, 'power_seen', KW]];
const ENDED: Step[] = [...START, [700, 'power_gone', { why: 'asked' }], [760, 'unplugged']];
const read = (s: number, kWh: string): Step => [s, 'reading', { screen: 'stall', kWh }];

describe('what a bill should come to', () => {
  const visit = visitOf(...ENDED);
  it.each(bills.cases.map((c) => [c.title, c] as const))('%s', (_title, c) => {
    expect(billCost(line(c.perKWh, c.startFee), visit, { attempts: [], kWh: c.kWh })).toBe(c.total);
  });
  // Common practice, no source: at 0.30 per kWh.
  it.each([
    ['13.074', '3.92'],
    ['15.278', '4.58'],
    ['16.34', '4.90'],
    ['16.534', '4.96'],
  ])('%s kWh at 0.30 costs %s', (kWh, total) => {
    expect(billCost(line('0.30'), visit, { attempts: [], kWh })).toBe(total);
  });

  const second: Step[] = [
    [800, 'stall_chosen', { stallId: STALL_B }],
    [810, 'plugged'],
    [820, 'means_shown', CARD],
    [830, 'power_seen', KW],
    read(1000, '3'),
    [1430, 'power_gone', { why: 'asked' }],
    [1440, 'unplugged'],
  ];
  it('asks the start fee of each session, and rounds only the total', () => {
    const both = visitOf(...START, read(690, '0.335'), ...ENDED.slice(-2), ...second.filter(([, kind]) => kind !== 'reading'), read(1429, '0.67'));
    expect(billCost(line('0.333', '0.005'), both, { attempts: [] })).toBe('0.34');
    expect(billCost(line('0.1', '0.2'), visit, { attempts: [], kWh: '1' })).toBe('0.30');
  });
  it('is of the sessions that it is for, by the minute and by the kWh, on the kWh that it says', () => {
    const both = visitOf(...ENDED, ...second);
    expect(billCost(byMinute, both, { attempts: [], kWh: '1' })).toBe('2.00');
    expect(billCost(byMinute, both, { attempts: [1], kWh: '1' })).toBe('1.00');
    expect(billCost(line('0.5', '1'), both, { attempts: [2], kWh: '4' })).toBe('3.00');
    expect(billCost(line('0.5', '1'), both, { attempts: [], kWh: '10' })).toBe('7.00');
  });
  it('without kWh on it goes by what was read to the end, and is not told where nothing was', () => {
    const read3 = visitOf(...START, read(690, '3'), ...ENDED.slice(-2));
    expect(billCost(line('0.5'), read3, { attempts: [] })).toBe('1.50');
    expect(billCost(line('0.5'), visit, { attempts: [] })).toBeNull();
    expect(billCost(line('0.5'), visitOf(IN), { attempts: [], kWh: '3' })).toBeNull();
    const current = tariff([{ type: 'ENERGY', price: 0.5, step_size: 0 }]);
    current.byCurrent = true;
    expect(billCost(current, read3, { attempts: [] })).toBeNull();
  });
});

describe('what the screen should say', () => {
  it('is of the session that runs, at the kWh that are typed', () => {
    const running = visitOf(...ENDED, ...START.map(([s, k, p]): Step => [s + 1000, k, p]).slice(1));
    expect(screenCost(line('0.5', '1'), running, '8', T0 + 1_700_000)).toBe('5.00');
    expect(screenCost(byMinute, running, '8', T0 + 1_700_000)).toBe('1.00');
    // A clock that stands before the start.
    expect(screenCost(byMinute, running, '8', T0)).toBe('0.00');
  });
  it('is nothing before the charge, after it and where it cannot be priced', () => {
    expect(screenCost(byMinute, visitOf(IN), '8', T0)).toBeNull();
    expect(screenCost(byMinute, visitOf(...ENDED), '8', T0 + 800_000)).toBeNull();
    expect(screenCost(byMinute, visitOf(...START), '8', T0 + 63 * 86_400_000)).toBeNull();
  });
});

describe('how long the car stood connected', () => {
  const parked = tariff([{ type: 'PARKING_TIME', price: 60, step_size: 1 }]);
  const cost = (...steps: Step[]) => {
    const visit = visitOf(...START, [700, 'power_gone', { why: 'asked' }], ...steps);
    const attempts = chargedAttempts({ ...visit, delivered: { known: true, value: '5' } });
    if (!attempts.known) throw new Error(attempts.why);
    const found = visitBills(parked, attempts.value);
    return found.known ? found.value.map((b) => Number(b.total.incl.valueOf())) : found.why;
  };
  it('is until it was unplugged, else until it left', () => {
    expect(cost([760, 'unplugged'], [1000, 'pulled_out'])).toEqual([1]);
    expect(cost([1000, 'pulled_out'])).toEqual([5]);
  });
  it('is also through a try after it that got no power', () => {
    const tried: Step[] = [
      [720, 'means_shown', CARD],
      [730, 'fault', { code: 'start_error', side: 'network' }],
    ];
    expect(cost(...tried, [820, 'unplugged'], [1000, 'pulled_out'])).toEqual([2]);
  });
  it('is at most until the next session or stall', () => {
    const again: Step[] = [
      [760, 'means_shown', CARD],
      [800, 'power_seen', KW],
      [860, 'power_gone', { why: 'asked' }],
      [920, 'unplugged'],
    ];
    expect(cost(...again, [1000, 'pulled_out'])).toEqual([1, 1]);
    const elsewhere: Step[] = [
      [760, 'stall_chosen', { stallId: STALL_B }],
      [770, 'plugged'],
    ];
    expect(cost(...elsewhere, [1000, 'pulled_out'])).toEqual([expect.closeTo(70 / 60, 6)]);
  });
});

it('a price while it is typed: one stop by it, and what looks odd', () => {
  const object = objectOfPlain({ ...NO_PRICE, perKWh: '0.5', perMin: '0.1', startFee: '1' }, { id: 't', currency: 'EUR', day: '2025-01-01' });
  const tried = (o: typeof object) => tryPrice(o, 'UTC', T0 + 0.4, '2025-10-14', { kWh: 40, minutes: 30 });
  expect(tried(object)).toEqual({ cost: '€24.00', questions: [] });
  const elements = [{ price_components: [{ type: 'ENERGY' as const, price: 1, step_size: 0 }], restrictions: { min_current: 9 } }];
  expect(tried({ ...object, tariff: { ...object.tariff, elements } }).cost).toBeNull();
  const night = objectOfPlain(
    { ...NO_PRICE, windows: [{ from: '22:00', to: '06:00', days: 'all', perKWh: '0.3' }] },
    { id: 't', currency: 'EUR', day: '2025-01-01' },
  );
  expect(tried(night)).toEqual({ cost: '€0.00', questions: [expect.stringContaining('06:00')] });
});
