import fc from 'fast-check';
import { type AdvertisedPlan, breakEven } from './break-even';
import { compileTariff } from './compiled-tariff';
import { decimal, fractionText, NOTHING } from './exact';
import { only, sessionOf, tariffOf } from './fixtures/sessions';
import { cheapest, planCost } from './plan-cost';
import { priceCase } from './price-case';

const session = (start: string, kwh: number) => sessionOf(start, [{ min: 60, kwh }]);
const asked = (start: string, end: string, kwh: number, time_zone = 'Europe/Amsterdam') => ({ time_zone, periods: [{ start, end, kwh, state: 'CHARGING' }] });

describe('a plan month by month', () => {
  const t = compileTariff(tariffOf([only('ENERGY', 0.333, 0, 20)]), { allowance: { free_kwh_per_month: 30 } });
  it('months are those of the place, free kWh go to whoever comes first, each bill is rounded', () => {
    // Half past midnight on 1 April in Amsterdam is still March in UTC; the second in the list was the first in time.
    const all = [session('2024-03-31T22:30:00Z', 10), session('2024-03-10T10:00:00Z', 25), session('2024-03-05T10:00:00Z', 10)];
    const cost = planCost(t, all, { monthly_fee: 4.99, vat: 20 });
    expect(cost.bills.map((b) => decimal(b.total.excl, 4))).toEqual(['0.0000', '1.6650', '0.0000']);
    expect([...cost.months].map(([name, m]) => [name, ...[m.sessions, m.subscription, m.total].map((x) => decimal(x.incl, 3))])).toEqual([
      ['2024-03', '2.000', '5.990', '7.990'],
      ['2024-04', '0.000', '5.990', '5.990'],
    ]);
    expect(decimal(cost.total.excl, 2)).toBe('11.65');
  });
  it('rounds half up, and to the whole yen', () => {
    const sold = (currency: string, price: number) =>
      priceCase({ tariff: tariffOf([only('ENERGY', price)], { currency }), session: asked('2024-03-05T10:00:00Z', '2024-03-05T11:00:00Z', 1) });
    const total = (a: ReturnType<typeof sold>) => (a.ok ? (a.answer.total as { incl_vat: string }).incl_vat : a.problems);
    expect([total(sold('EUR', 0.125)), total(sold('EUR', 0.1249)), total(sold('JPY', 49.5)), total(sold('JPY', 0))]).toEqual(['0.13', '0.12', '50', '0']);
  });
  it('of two that start at once the first in the list is the first', () => {
    const bills = planCost(t, [session('2024-03-05T10:00:00Z', 25), session('2024-03-05T10:00:00Z', 10)], null).bills.map((b) => decimal(b.total.excl, 4));
    expect(bills).toEqual(['0.0000', '1.6650']);
    const months = planCost(t, [session('2024-05-05T10:00:00Z', 1), session('2024-03-05T10:00:00Z', 1), session('2024-04-05T10:00:00Z', 1)], null).months;
    expect([...months.keys()]).toEqual(['2024-03', '2024-04', '2024-05']);
  });
  it('several can be the cheapest', () => {
    const cost = (fee: number) => planCost(compileTariff(tariffOf([only('ENERGY', 0.5)])), [session('2024-03-05T10:00:00Z', 10)], { monthly_fee: fee });
    expect(
      cheapest(
        new Map([
          ['a', cost(2)],
          ['b', cost(0)],
          ['c', cost(0)],
        ]),
      ),
    ).toEqual(['b', 'c']);
  });
});

describe('where two plans break even', () => {
  const at = (a: AdvertisedPlan, b: AdvertisedPlan) => {
    const { crossings, atZero, inTheLimit } = breakEven(a, b);
    return [crossings.map(fractionText), atZero, inTheLimit];
  };
  it('once, twice, never, and at the end of a tie', () => {
    expect(at({ price_per_kwh: 0.5 }, { price_per_kwh: 0.3, monthly_fee: 10 })).toEqual([['50'], 'a', 'b']);
    // 20 kWh for 10, then 0.6: dearer below 20, cheaper from there to 40, dearer again.
    expect(at({ price_per_kwh: 0.5 }, { price_per_kwh: 0.6, monthly_fee: 8, included_kwh: 20 })).toEqual([['16', '40'], 'a', 'a']);
    expect(at({ price_per_kwh: 0.5 }, { price_per_kwh: 0.6 })).toEqual([[], 'tie', 'a']);
    expect(at({ price_per_kwh: 0.5 }, { price_per_kwh: 0.5 })).toEqual([[], 'tie', 'tie']);
    expect(at({ price_per_kwh: 0.5, monthly_fee: 1 }, { price_per_kwh: 0.5 })).toEqual([[], 'b', 'b']);
    // b is dearer, both cost the same from 10 to 30 kWh, then b is cheaper.
    expect(at({ price_per_kwh: 0.5, monthly_fee: 0, included_kwh: 0 }, { price_per_kwh: 0.5, monthly_fee: 5, included_kwh: 10 })).toEqual([[], 'a', 'tie']);
    expect(at({ price_per_kwh: 1, included_kwh: 30, monthly_fee: 5 }, { price_per_kwh: 1, included_kwh: 30, monthly_fee: 5 })).toEqual([[], 'tie', 'tie']);
    expect(at({ price_per_kwh: 0.5, monthly_fee: 2 }, { price_per_kwh: 0, monthly_fee: 2 })).toEqual([[], 'tie', 'b']);
  });
  it('sessions and tax count, tax not on the monthly fee', () => {
    expect(at({ price_per_kwh: 0.4, price_per_session: 0.5, sessions_per_month: 4, tax_percent: 10 }, { price_per_kwh: 0.4, monthly_fee: 3 })).toEqual([
      ['20'],
      'a',
      'b',
    ]);
  });
  it('is where tabulating both says', () => {
    const cents = (max: number) => fc.integer({ min: 0, max }).map((c) => c / 100);
    const plan = fc.record({ monthly_fee: cents(2000), price_per_kwh: cents(90), included_kwh: fc.integer({ min: 0, max: 60 }) });
    fc.assert(
      fc.property(plan, plan, (a, b) => {
        // In cents: what each costs at every kWh, by hand.
        const cost = (p: AdvertisedPlan, k: number) =>
          Math.round((p.monthly_fee ?? 0) * 100) + Math.round(p.price_per_kwh * 100) * Math.max(0, k - (p.included_kwh ?? 0));
        const { crossings } = breakEven(a, b);
        for (let k = 0; k < 300; k++) {
          const [x, y] = [cost(a, k) - cost(b, k), cost(a, k + 1) - cost(b, k + 1)];
          // Between two whole kWh the sign changes where, and only where, a crossing lies in between.
          if (x * y < 0) expect(crossings.filter((c) => c.gt(k) && c.lt(k + 1))).toHaveLength(1);
          if (x * y > 0) expect(crossings.filter((c) => c.gt(k) && c.lt(k + 1))).toHaveLength(0);
        }
        expect(crossings.every((c) => c.gte(NOTHING))).toBe(true);
      }),
      { numRuns: 100, seed: 5 },
    );
  });
});

describe('what is refused, with its place', () => {
  const good = { tariff: tariffOf([only('ENERGY', 0.5)]), session: asked('2024-03-05T10:00:00Z', '2024-03-05T11:00:00Z', 10) };
  /** The good one with something else at a place. */
  const but = (path: string, value: unknown) => {
    const made = JSON.parse(JSON.stringify(good)) as Record<string, unknown>;
    const keys = path.split('.');
    const last = keys.pop() as string;
    let at: Record<string, unknown> = made;
    for (const k of keys) {
      at[k] ??= {};
      at = at[k] as Record<string, unknown>;
    }
    if (value === undefined) delete at[last];
    else at[last] = value;
    return made;
  };
  const problems = (body: unknown) => {
    const priced = priceCase(body);
    return priced.ok ? 'priced' : priced.problems.map((p) => p.path);
  };
  const E = 'tariff.elements.0';
  const period = (start: string, end: string, more: object = {}) => ({
    start: `2024-03-05T${start}Z`,
    end: `2024-03-05T${end}Z`,
    kwh: 1,
    state: 'CHARGING',
    ...more,
  });
  it.each([
    ['tariff', undefined, 'tariff'],
    ['session', undefined, 'session'],
    ['tariff.currency', 'eur', 'tariff.currency'],
    ['tariff.elements', [], 'tariff.elements'],
    ['tariff.country_code', 'ZZZ', 'tariff.country_code'],
    ['tariff.last_updated', 'yesterday', 'tariff.last_updated'],
    [`${E}.price_components`, [], 'tariff.elements[0].price_components'],
    [`${E}.price_components.0.price`, '0.5', 'tariff.elements[0].price_components[0].price'],
    [`${E}.price_components.0.step_size`, 1.5, 'tariff.elements[0].price_components[0].step_size'],
    [`${E}.price_components.0.step_size`, undefined, 'tariff.elements[0].price_components[0].step_size'],
    [`${E}.price_components.0.vat`, -1, 'tariff.elements[0].price_components[0].vat'],
    [`${E}.price_components.1`, { type: 'ENERGY', price: 1, step_size: 1 }, 'tariff.elements[0].price_components[1].type'],
    [`${E}.restrictions`, { start_time: '24:00' }, 'tariff.elements[0].restrictions.start_time'],
    [`${E}.restrictions`, { start_time: '7:00' }, 'tariff.elements[0].restrictions.start_time'],
    [`${E}.restrictions`, { start_date: '2024-02-30' }, 'tariff.elements[0].restrictions.start_date'],
    [`${E}.restrictions`, { start_date: '2024-02-02', end_date: '2024-02-02' }, 'tariff.elements[0].restrictions.end_date'],
    [`${E}.restrictions`, { day_of_week: ['FUNDAY'] }, 'tariff.elements[0].restrictions.day_of_week[0]'],
    [`${E}.restrictions`, { min_soc: 10 }, 'tariff.elements[0].restrictions.min_soc'],
    [`${E}.restrictions`, { min_kwh: 10, max_kwh: 10 }, 'tariff.elements[0].restrictions.max_kwh'],
    [`${E}.restrictions`, { min_duration: -1 }, 'tariff.elements[0].restrictions.min_duration'],
    ['tariff.min_price', { excl_vat: 5 }, 'priced'],
    ['tariff.min_price', { incl_vat: 5 }, 'tariff.min_price.excl_vat'],
    ['tariff.min_price', { excl_vat: 5, incl_vat: 4 }, 'tariff.min_price.incl_vat'],
    ['tariff.end_date_time', '2024-03-05T09:00:00Z', 'session.periods[0].start'],
    ['session.time_zone', 'Mars/Olympus', 'session.time_zone'],
    ['session.periods', [], 'session.periods'],
    ['session.periods.0.kwh', -1, 'session.periods[0].kwh'],
    ['session.periods.0.kwh', null, 'session.periods[0].kwh'],
    ['session.periods.0.state', 'IDLE', 'session.periods[0].state'],
    ['session.periods.0.state', 'PARKED', 'session.periods[0].kwh'],
    ['session.periods.0.end', '2024-03-05T09:00:00Z', 'session.periods[0].end'],
    ['session.periods.0.end', '2024-03-05T10:00:00Z', 'session.periods[0].kwh'],
    ['session.periods.0.end', '2024-06-05T10:00:00Z', 'session.periods[0].end'],
    ['session.periods.0.start', '2024-02-30T10:00:00Z', 'session.periods[0].start'],
    ['session.periods.0.occupancy', 1.1, 'session.periods[0].occupancy'],
    ['session.periods', [period('10:00:00', '11:00:00'), period('10:59:59', '11:30:00')], 'session.periods[1]'],
    ['x_pricing', { idle: {} }, 'x_pricing.idle'],
    ['x_pricing', { idle_fee: { grace_minutes: -1, rates: [{ min_occupancy: 0, price_per_min: 1 }] } }, 'x_pricing.idle_fee.grace_minutes'],
    ['x_pricing', { idle_fee: { grace_minutes: 1, rates: [] } }, 'x_pricing.idle_fee.rates'],
    [
      'x_pricing',
      {
        idle_fee: {
          grace_minutes: 1,
          rates: [
            { min_occupancy: 0.5, price_per_min: 1 },
            { min_occupancy: 0.5, price_per_min: 2 },
          ],
        },
      },
      'x_pricing.idle_fee.rates[1].min_occupancy',
    ],
    [
      'x_pricing',
      {
        power_time: {
          tiers: [
            { min_power: 9, price_per_min: 1 },
            { min_power: 3, price_per_min: 2 },
          ],
        },
      },
      'x_pricing.power_time.tiers[1].min_power',
    ],
    ['x_pricing', { allowance: {} }, 'x_pricing.allowance'],
    ['x_pricing', { allowance: { free_minutes_per_session: 5 } }, 'x_pricing.allowance.applies_to'],
    ['x_pricing', { allowance: { free_minutes_per_session: 5, applies_to: ['FLAT'] } }, 'x_pricing.allowance.applies_to[0]'],
    ['x_pricing', { tax_percent: -6 }, 'x_pricing.tax_percent'],
    ['x_context', { kwh_used_before_in_month: -1 }, 'x_context.kwh_used_before_in_month'],
    ['kind', 'week', 'kind'],
  ])('%s = %j', (path, value, where) => {
    const found = problems(but(path, value));
    expect(typeof found === 'string' ? found : found[0]).toBe(where);
  });
  it('all that is wrong at once, and what is no request at all', () => {
    expect(problems({ ...but('tariff.currency', 1), session: {} })).toEqual(['tariff.currency', 'session.time_zone', 'session.periods']);
    for (const body of [null, 1, 'x', []]) expect(problems(body)).toEqual(['body']);
    expect(problems({ kind: '__proto__' })).toEqual(['kind']);
    const said = (body: unknown) => {
      const priced = priceCase(body);
      return priced.ok ? [] : priced.problems.map((p) => p.reason);
    };
    expect(said(1)).toEqual(['must hold named fields']);
    expect(said({ kind: 'week' })).toEqual(['must be one of: session, month, compare, break_even']);
    expect(said(but('session', undefined))).toEqual(['is missing']);
    expect(said(but('tariff.currency', 1))).toEqual(['must be text']);
    expect(said(but('x_pricing', { idle: {} }))).toEqual(['is not known']);
  });
  it('what the standard allows: no Z, an offset, fields unknown to it', () => {
    expect(problems(but('session.periods.0.start', '2024-03-05T10:00:00'))).toBe('priced');
    expect(problems(but('session.periods.0.start', '2024-03-05T11:00:00.500+01:00'))).toBe('priced');
    expect(problems(but('tariff.energy_mix', { is_green_energy: true }))).toBe('priced');
  });
  it('of several plans each by its place; two currencies cannot be compared', () => {
    const plan = (name: string, currency = 'EUR') => ({ name, tariff: tariffOf([only('ENERGY', 0.5)], { currency, end_date_time: '2024-03-05T10:30:00Z' }) });
    const sessions = [good.session, asked('2024-03-05T11:00:00Z', '2024-03-05T12:00:00Z', 1)];
    expect(problems({ kind: 'compare', plans: [plan('a'), plan('a', 'CHF')], sessions })).toEqual([
      'sessions[1].periods[0].start',
      'plans[1].name',
      'plans[1].tariff.currency',
      'sessions[1].periods[0].start',
    ]);
    expect(problems({ kind: 'compare', plans: [], sessions })).toEqual(['plans']);
    expect(problems({ kind: 'month', tariff: good.tariff, sessions: [] })).toEqual(['sessions']);
    expect(problems({ kind: 'break_even', plan_a: { price_per_kwh: 1, fee: 2 }, plan_b: {} })).toEqual(['plan_a.fee', 'plan_b.price_per_kwh']);
  });
  it('what would keep the server busy', () => {
    const elements = Array.from({ length: 200 }, (_, i) => ({
      ...only('ENERGY', 1),
      restrictions: { start_time: `${String(i % 24).padStart(2, '0')}:${String(i % 60).padStart(2, '0')}` },
    }));
    const long = asked('2024-03-05T10:00:00Z', '2024-05-05T10:00:00Z', 1);
    expect(problems({ kind: 'month', tariff: tariffOf(elements), sessions: Array.from({ length: 3 }, () => long) })).toEqual(['body']);
    expect(
      problems({
        kind: 'compare',
        plans: Array.from({ length: 6 }, (_, i) => ({ name: `${i}`, tariff: good.tariff })),
        sessions: Array.from({ length: 1000 }, () => good.session),
      }),
    ).toEqual(['sessions']);
    // So many plans times sessions are allowed, and what they take together is counted.
    const plans = (n: number, tariff = good.tariff) => Array.from({ length: n }, (_, i) => ({ name: `${i}`, tariff }));
    expect(problems({ kind: 'compare', plans: plans(50), sessions: Array.from({ length: 100 }, () => good.session) })).toBe('priced');
    expect(problems({ kind: 'compare', plans: plans(1, tariffOf(elements)), sessions: [long, long] })).toBe('priced');
    expect(problems({ kind: 'compare', plans: plans(2, tariffOf(elements)), sessions: [long, long] })).toEqual(['body']);
  });
});

it('a session’s answer has its lines where they are asked for', () => {
  const priced = priceCase({ tariff: tariffOf([only('ENERGY', 0.5, 1000, 20)]), session: asked('2024-03-05T10:00:00Z', '2024-03-05T11:00:00Z', 10.2) }, true);
  expect(priced.ok && priced.answer.lines).toEqual([
    {
      of: 'ENERGY',
      element: 0,
      quantity: '11000.000000',
      added_by_step: '800.000000',
      unit: 'Wh',
      price: '0.500000',
      per: 'kWh',
      vat: '20.000',
      excl_vat: '5.500000',
      incl_vat: '6.600000',
      exact: ['11/2', '33/5'],
      where: [['2024-03-05T10:00:00.000Z', '2024-03-05T11:00:00.000Z']],
    },
  ]);
});
it('a line that brings the sum to a bound has no price and no tax of its own', () => {
  const tariff = tariffOf([only('ENERGY', 0.5)], { max_price: { excl_vat: 3 } });
  const priced = priceCase({ tariff, session: asked('2024-03-05T10:00:00Z', '2024-03-05T11:00:00Z', 10) }, true);
  expect(priced.ok && (priced.answer.lines as object[])[1]).toMatchObject({ of: 'max_price', price: null, vat: null, excl_vat: '-2.000000' });
});
