import type { ExtraPricing, OcpiTariff } from '../records/ocpi-tariff';
import { deriveVisit } from '../visit/derive';
import { CARD, IN, KW, STALL_A, type Step, story, T0, VISIT } from '../visit/fixtures/story';
import { payloadProblem } from '../visit/payloads';
import { compileTariff } from './compiled-tariff';
import { type CostSoFar, costOfStaying, costSoFar, pricesFrom, runningSession } from './cost-so-far';
import { costWords, priceNowWords } from './cost-words';
import { isOneLine } from './post-price';

type Element = OcpiTariff['elements'][number];
const energy = (price: number, restrictions?: Element['restrictions']): Element => ({
  price_components: [{ type: 'ENERGY', price, step_size: 1 }],
  ...(restrictions ? { restrictions } : {}),
});
const START: Element = { price_components: [{ type: 'FLAT', price: 1, step_size: 0 }] };
const byMinute = (perMin: number): Element => ({ price_components: [{ type: 'TIME', price: perMin * 60, step_size: 1 }] });
const tariff = (elements: Element[], more: Partial<OcpiTariff> = {}): OcpiTariff => ({
  country_code: 'ZZ',
  party_id: 'OWN',
  id: 't',
  currency: 'EUR',
  elements,
  last_updated: '2025-01-01T00:00:00Z',
  ...more,
});

/** Power from the 100th second on, by 13:53:40 on the clock of the place. */
const STARTED: Step[] = [IN, [20, 'stall_chosen', { stallId: STALL_A }], [60, 'plugged'], [70, 'means_shown', CARD], [100, 'power_seen', KW]];
const read = (s: number, more: object): Step => [s, 'reading', { screen: 'stall', ...more }];
const MIN = 60;
/** The cost so far at a second of the visit. */
function at(s: number, elements: Element[], steps: Step[] = [], extra: ExtraPricing = {}) {
  const visit = deriveVisit(VISIT, story(...STARTED, ...steps), payloadProblem);
  return costSoFar(compileTariff(tariff(elements), extra), visit, T0 + s * 1000);
}
const told = (...asked: Parameters<typeof at>): CostSoFar => {
  const cost = at(...asked);
  if (!cost.known) throw new Error(cost.why);
  return cost.value;
};
const clock = (s: number | undefined) => (s === undefined ? null : new Date(s).toISOString().slice(11, 19));

describe('what a charge has cost so far', () => {
  it('is by what the stall has shown, and the start', () => {
    const cost = told(700, [START, energy(0.5)], [read(400, { kWh: '10' })]);
    expect(cost).toEqual({ total: '6.00', currency: 'EUR', now: { perKWh: '0.5000', perMin: null }, next: null });
    expect(at(700, [START, energy(0.5)])).toMatchObject({ known: false, why: 'the kWh were not read yet' });
    expect(at(700, [START, energy(0)])).toMatchObject({ known: true, value: { total: '1.00' } });
  });

  it('counts every minute to now, whether anything was read or not', () => {
    expect(told(100 + 25 * MIN, [byMinute(0.1)])).toMatchObject({ total: '2.50', now: { perKWh: null, perMin: '0.1000' } });
    expect(told(100, [byMinute(0.1)]).total).toBe('0.00');
  });

  it('by the hour: says when the price changes next, and what it is then', () => {
    const elements = [energy(0.3, { start_time: '14:30', end_time: '16:00' }), energy(0.5)];
    const cost = told(700, elements, [read(400, { kWh: '10', kW: 60 })]);
    expect([cost.total, clock(cost.next?.at), cost.next?.prices.perKWh]).toEqual(['5.00', '12:30:00', '0.3000']);
    // Two elements of one price are no change.
    expect(told(700, [energy(0.5, { start_time: '14:30', end_time: '16:00' }), energy(0.5)], [read(400, { kWh: '10', kW: 60 })]).next).toBeNull();
    // More than six hours on nobody waits.
    expect(told(700, [energy(0.3, { start_time: '22:00', end_time: '23:00' }), energy(0.5)], [read(400, { kWh: '10', kW: 60 })]).next).toBeNull();
  });

  it('by the kWh: the dearer ones begin when the power read last has brought them', () => {
    const elements = [energy(0.5, { max_kwh: 20 }), energy(0.7)];
    // 10 kWh more at 60 kW are ten minutes from now.
    const cost = told(700, elements, [read(700, { kWh: '10', kW: 60 })]);
    expect([cost.total, cost.next]).toEqual(['5.00', { at: T0 + (700 + 600) * 1000, prices: { perKWh: '0.7000', perMin: null }, fee: null }]);
  });

  it('by the mean so far where no power was read, and by the last one that was', () => {
    const elements = [energy(0.5, { max_kwh: 20 }), energy(0.7)];
    // 10 kWh in 600 s are 60 kW.
    expect(told(700, elements, [read(400, { kWh: '10' })]).next?.at).toBe(T0 + (700 + 600) * 1000);
    expect(told(700, elements, [read(300, { kW: 120 }), read(700, { kWh: '10' })]).next?.at).toBe(T0 + (700 + 300) * 1000);
  });
  it('the first of what comes is told, a price or a fee, each by itself', () => {
    const elements = [energy(0.5, { max_kwh: 20 }), energy(0.7)];
    const steps = [read(700, { kWh: '10', kW: 60 })];
    const fee = (after_minutes: number) => told(700, elements, steps, { overstay_fee: { after_minutes, fee: 12 } }).next;
    expect(fee(60)).toEqual({ at: T0 + 1300 * 1000, prices: { perKWh: '0.7000', perMin: null }, fee: null });
    expect(fee(15)).toEqual({ at: T0 + 1000 * 1000, prices: { perKWh: '0.5000', perMin: null }, fee: '12.00' });
    expect(fee(20)).toEqual({ at: T0 + 1300 * 1000, prices: { perKWh: '0.7000', perMin: null }, fee: '12.00' });
  });
  it('of a charge of which only the day is known energy is priced, minutes are not', () => {
    const day = { precision: 'day' as const, origin: 'typed' as const };
    const typed = (...steps: Step[]) => steps.map(([s, kind, payload = {}]): Step => [s, kind, payload, day]);
    const visit = deriveVisit(
      VISIT,
      story(...typed(IN, [100, 'power_seen', KW], [200, 'power_gone', { why: 'asked' }], [210, 'reading', { screen: 'stall', kWh: '8' }])),
      payloadProblem,
    );
    expect(costSoFar(compileTariff(tariff([START, energy(0.5)])), visit, T0 + 900_000)).toMatchObject({ known: true, value: { total: '5.00' } });
    expect(costSoFar(compileTariff(tariff([energy(0.5), byMinute(0.1)])), visit, T0 + 900_000)).toEqual({
      known: false,
      why: 'the price depends on times that were not recorded',
    });
  });

  it('free minutes cost nothing until they are over', () => {
    const free = { allowance: { free_minutes_per_session: 30, applies_to: ['TIME' as const] } };
    const cost = told(100 + 25 * MIN, [byMinute(0.1)], [], free);
    expect(cost).toMatchObject({ total: '0.00', now: { perMin: null }, next: { at: T0 + (100 + 30 * MIN) * 1000, prices: { perMin: '0.1000' } } });
    expect(told(100 + 40 * MIN, [byMinute(0.1)], [], free)).toMatchObject({ total: '1.00', next: null });
  });

  it('in power steps the minutes since the last reading go by the power read then, else by the mean', () => {
    const steps = { power_time: { tiers: [0, 50].map((min_power) => ({ min_power, price_per_min: min_power === 0 ? 0.05 : 0.2 })) } };
    const none: Element[] = [{ price_components: [{ type: 'FLAT', price: 0, step_size: 0 }] }];
    // 10 min with 20 kWh are 120 kW, then 10 min of which nothing was read but 30 kW.
    expect(told(100 + 20 * MIN, none, [read(100 + 10 * MIN, { kWh: '20', kW: 30 })], steps)).toMatchObject({ total: '2.50', now: { perMin: '0.0500' } });
    // Without any kW: 20 kWh in 20 min are 60 kW.
    expect(told(100 + 20 * MIN, none, [read(100 + 10 * MIN, { kWh: '20' })], steps).total).toBe('4.00');
    expect(told(100 + 20 * MIN, none, [], steps).total).toBe('1.00');
  });

  it('adds the sessions before it, each with its start; one of them without kWh leaves it open', () => {
    const again = (kWh: object): Step[] => [
      read(300, kWh),
      [310, 'power_gone', { socPct: 40 }],
      [330, 'unplugged'],
      [400, 'plugged'],
      [410, 'means_shown', CARD],
      [420, 'power_seen', KW],
      read(600, { kWh: '4' }),
    ];
    expect(told(700, [START, energy(0.5)], again({ kWh: '6' })).total).toBe('7.00');
    // 210 s of charging, then 20 s parked, and 280 s of the second.
    const parked: Element = { price_components: [{ type: 'PARKING_TIME', price: 180, step_size: 1 }] };
    expect(told(700, [byMinute(0.6), parked], again({ kWh: '6' })).total).toBe('5.90');
    expect(at(700, [START, energy(0.5)], again({ socPct: 30 }))).toMatchObject({ known: false, why: 'the kWh were not read yet' });
  });

  it('tax on top is in the sum and in the price', () => {
    expect(told(700, [energy(0.5)], [read(400, { kWh: '10' })], { tax_percent: 20 })).toMatchObject({ total: '6.00', now: { perKWh: '0.6000' } });
    const withVat: Element = { price_components: [{ type: 'ENERGY', price: 0.5, vat: 22, step_size: 1 }] };
    expect(told(700, [withVat], [read(400, { kWh: '10' })])).toMatchObject({ total: '6.10', now: { perKWh: '0.6100' } });
  });

  it('a tariff that looks at the current, or is not valid, prices nothing', () => {
    expect(at(700, [energy(0.5, { min_current: 100 })], [read(400, { kWh: '10' })])).toMatchObject({ known: false });
    const visit = deriveVisit(VISIT, story(...STARTED, read(400, { kWh: '10' })), payloadProblem);
    const later = compileTariff(tariff([energy(0.5)], { start_date_time: '2025-10-15T00:00:00Z' }));
    expect(costSoFar(later, visit, T0 + 700_000)).toMatchObject({ known: false, why: 'the tariff is not valid then' });
  });
});

describe('after the charge', () => {
  const GONE: Step[] = [read(690, { kWh: '10' }), [700, 'power_gone', { why: 'asked' }]];
  const idle: ExtraPricing = { idle_fee: { grace_minutes: 10, rates: [{ min_occupancy: 0, price_per_min: 0.2 }] } };
  const overstay: ExtraPricing = { overstay_fee: { after_minutes: 60, fee: 12 } };

  it('the sum goes on with the idle fee, and says from when it is asked', () => {
    const free = told(760, [energy(0.5)], GONE, idle);
    expect(free).toEqual({
      total: '5.00',
      currency: 'EUR',
      now: { perKWh: null, perMin: null },
      next: { at: T0 + (700 + 600) * 1000, prices: { perKWh: null, perMin: '0.2000' }, fee: null },
    });
    expect(told(700 + 25 * MIN, [energy(0.5)], GONE, idle)).toMatchObject({ total: '8.00', now: { perMin: '0.2000' }, next: null });
  });
  it('minutes parked are of an hour in the standard', () => {
    const parked: Element = { price_components: [{ type: 'PARKING_TIME', price: 6, step_size: 1 }] };
    expect(told(700 + 10 * MIN, [energy(0.5), parked], GONE)).toMatchObject({ total: '6.00', now: { perKWh: null, perMin: '0.1000' } });
  });
  it('stands once the car is unplugged or has left, and then is what the bill should come to', () => {
    const out: Step[] = [...GONE, [700 + 20 * MIN, 'unplugged']];
    const stands = { total: '7.00', now: { perKWh: null, perMin: null }, next: null };
    expect(told(700 + 90 * MIN, [energy(0.5)], out, idle)).toMatchObject(stands);
    expect(told(700 + 90 * MIN, [energy(0.5)], [...GONE, [700 + 20 * MIN, 'pulled_out', { reason: 'enough' }]], idle)).toMatchObject(stands);
  });
  it('an overstay fee is said while it charges and while it stands, once, with its tax', () => {
    const fee = { at: T0 + (100 + 60 * MIN) * 1000, fee: '12.00' };
    expect(told(700, [energy(0.5)], [read(400, { kWh: '10' })], overstay).next).toMatchObject({ ...fee, prices: { perKWh: '0.5000', perMin: null } });
    expect(told(760, [energy(0.5)], GONE, overstay).next).toMatchObject({ ...fee, prices: { perKWh: null, perMin: null } });
    expect(told(760, [energy(0.5)], GONE, { overstay_fee: { after_minutes: 60, fee: 12, vat: 22 }, tax_percent: 10 }).next?.fee).toBe('16.10');
    expect(told(100 + 61 * MIN, [energy(0.5)], GONE, overstay)).toMatchObject({ total: '17.00', next: null });
  });
  it('a pause costs what standing there costs, until it charges again', () => {
    const paused: Step[] = [read(390, { kWh: '10' }), [400, 'change', { what: 'paused' }]];
    expect(told(400 + 10 * MIN, [byMinute(0.6)], paused)).toMatchObject({ total: '3.00', now: { perMin: null } });
    expect(told(400 + 10 * MIN, [byMinute(0.6)], [...paused, [400 + 5 * MIN, 'power_seen', KW]])).toMatchObject({ total: '6.00', now: { perMin: '0.6000' } });
  });
  it('a try that got no power adds nothing and ends nothing', () => {
    const tried: Step[] = [...GONE, [760, 'means_shown', CARD], [770, 'fault', { code: 'start_error', side: 'network' }]];
    expect(told(700 + 25 * MIN, [START, energy(0.5)], tried, idle)).toMatchObject({ total: '9.00', now: { perMin: '0.2000' } });
  });
  it('before any power nothing was charged', () => {
    const visit = deriveVisit(VISIT, story(IN), payloadProblem);
    expect(costSoFar(compileTariff(tariff([energy(0.5)])), visit, T0)).toEqual({ known: false, why: 'nothing was charged yet' });
  });
  it('the phone’s clock set back counts from the start', () => {
    expect(told(0, [byMinute(0.1)]).total).toBe('0.00');
  });
});

describe('what is asked here now', () => {
  const here = (elements: Element[], extra: ExtraPricing = {}, kW = 50) => {
    const prices = pricesFrom(compileTariff(tariff(elements), extra), 'Europe/Ljubljana', Date.parse('2025-10-14T12:00:00Z'), kW);
    return prices.known ? priceNowWords(prices.value, { currency: 'EUR', since: '2025-03-01', by: null }, 'Europe/Ljubljana') : prices.why;
  };
  it('is by the whole of the price, with its age', () => {
    expect(here([energy(0.5)])).toBe('€0.500/kWh since 1 Mar 2025');
    expect(here([START, energy(0.5), byMinute(0.1)])).toBe('€0.500/kWh and €0.100/min, €1.00 per start since 1 Mar 2025');
    expect(here([energy(0.3, { start_time: '13:00', end_time: '15:00' }), energy(0.5)])).toBe('€0.300/kWh since 1 Mar 2025');
    expect(here([START])).toBe('€1.00 per start since 1 Mar 2025');
    expect(here([energy(0)], { tax_percent: 20 })).toBe('€0.000/kWh since 1 Mar 2025');
    expect(here([{ price_components: [{ type: 'FLAT', price: 0, step_size: 0 }] }])).toBe('free since 1 Mar 2025');
  });
  it('is of a member by name, and with tax in it', () => {
    const prices = pricesFrom(compileTariff(tariff([START, energy(0.5)]), { tax_percent: 20 }), 'UTC', T0, 50);
    if (!prices.known) throw new Error();
    expect(priceNowWords(prices.value, { currency: 'EUR', since: '2025-03-01', by: 'Otter plan' }, 'UTC')).toBe(
      '€0.600/kWh, €1.20 per start with Otter plan since 1 Mar 2025',
    );
  });
  it('by power it is that of the stall, and after free minutes it says from when', () => {
    const tiers = [0, 100].map((min_power) => ({ min_power, price_per_min: min_power === 0 ? 0.05 : 0.2 }));
    const nothing: Element[] = [{ price_components: [{ type: 'FLAT', price: 0, step_size: 0 }] }];
    expect([here(nothing, { power_time: { tiers } }), here(nothing, { power_time: { tiers } }, 150)]).toEqual([
      '€0.050/min since 1 Mar 2025',
      '€0.200/min since 1 Mar 2025',
    ]);
    expect(here([byMinute(0.1)], { allowance: { free_minutes_per_session: 30, applies_to: ['TIME'] } })).toBe('€0.100/min from 14:30 since 1 Mar 2025');
  });
  it('is nothing that a tariff which is not valid could say', () => {
    expect(pricesFrom(compileTariff(tariff([energy(0.5)], { start_date_time: '2025-10-15T00:00:00Z' })), 'UTC', T0, 50)).toMatchObject({ known: false });
  });
});

describe('what staying costs', () => {
  const session = (steps: Step[], s: number) => {
    const visit = deriveVisit(VISIT, story(...STARTED, ...steps), payloadProblem);
    const a = visit.attempts[0];
    if (!a?.proof) throw new Error();
    return runningSession(visit, { ...a, proof: a.proof }, T0 + s * 1000);
  };
  it('is the difference that the kWh and minutes make, from where one is by then', () => {
    const here = session([read(400, { kWh: '10' })], 700);
    const both = costOfStaying(compileTariff(tariff([START, energy(0.5), byMinute(0.1)])), here);
    expect(both?.(6, 10, { min: 0, kWh: 0 })).toBeCloseTo(4, 9);
    expect(both?.(6, 10, { min: 20, kWh: 12 })).toBeCloseTo(4, 9);
    expect(both?.(0, 0, { min: 0, kWh: 0 })).toBe(0);
    // The 14:30 after 14:03:40: of 20 min that begin ten minutes before it, half.
    const byHour = costOfStaying(compileTariff(tariff([energy(0.3, { start_time: '14:30' }), energy(0.5)])), here);
    const tenBefore = (Date.parse('2025-10-14T12:20:00Z') - (T0 + 700_000)) / 60_000;
    expect(byHour?.(20, 20, { min: tenBefore, kWh: 5 })).toBeCloseTo(8, 6);
    // Dearer after 20 kWh of the session: ten are there, eight more come before.
    const byKWh = costOfStaying(compileTariff(tariff([energy(0.5, { max_kwh: 20 }), energy(0.7)])), here);
    expect(byKWh?.(4, 5, { min: 10, kWh: 8 })).toBeCloseTo(2 * 0.5 + 2 * 0.7, 9);
  });
});

it('a tariff that cannot price the session has no cost of staying', () => {
  const events = story(...STARTED, read(400, { kWh: '10' }));
  const a = deriveVisit(VISIT, events, payloadProblem).attempts[0];
  if (!a?.proof) throw new Error();
  const of = (t: OcpiTariff, now: number) =>
    costOfStaying(compileTariff(t), runningSession(deriveVisit(VISIT, events, payloadProblem), { ...a, proof: a.proof as never }, now));
  const [soon, days] = [T0 + 700_000, T0 + 63 * 86_400_000];
  expect(of(tariff([energy(0.5)]), soon)).not.toBeNull();
  expect(of(tariff([energy(0.5, { min_current: 100 })]), soon)).toBeNull();
  expect(of(tariff([energy(0.5)]), days)).toBeNull();
});

describe('in words', () => {
  const cost = (total: string, next: CostSoFar['next'] = null): CostSoFar => ({ total, currency: 'EUR', now: { perKWh: '0.5000', perMin: null }, next });
  const t = Date.parse('2025-10-14T12:30:00Z');
  const said = (c: CostSoFar, zone = 'UTC') => costWords([{ cost: c, by: null }], zone);
  it('says the sum, that with a plan, and what changes', () => {
    expect(said(cost('5.00'))).toBe('By tariff about €5.00 so far.');
    const cheaper = { at: t, prices: { perKWh: '0.3', perMin: null }, fee: null };
    expect(
      costWords(
        [
          { cost: cost('5.00', cheaper), by: null },
          { cost: cost('4.00'), by: 'Otter plan' },
        ],
        'Europe/Ljubljana',
      ),
    ).toBe('By tariff about €5.00, €4.00 with Otter plan so far. From 14:30 €0.300 per kWh.');
    expect(costWords([{ cost: cost('4.00'), by: 'Otter plan' }], 'UTC')).toBe('By tariff about €4.00 with Otter plan so far.');
    expect(costWords([], 'UTC')).toBeNull();
    expect(said(cost('5.00', { at: t, prices: { perKWh: '0.5000', perMin: '0.1' }, fee: null }))).toBe(
      'By tariff about €5.00 so far. From 12:30 €0.100 per minute.',
    );
    expect(said(cost('5.00', { at: t, prices: { perKWh: null, perMin: '0.2' }, fee: null }))).toContain('From 12:30 €0.200 per minute and nothing per kWh.');
    const byMin = { ...cost('5.00', { at: t, prices: { perKWh: '0.5000', perMin: null }, fee: null }), now: { perKWh: '0.5000', perMin: '0.1' } };
    expect(said(byMin)).toContain('From 12:30 nothing per minute.');
    const fee = cost('5.00', { at: t, prices: { perKWh: '0.5000', perMin: null }, fee: '12.00' });
    expect(said(fee)).toBe('By tariff about €5.00 so far. From 12:30 €12.00 more, once.');
  });
});

describe('a price of one line', () => {
  const said = (elements: Element[], more: Partial<OcpiTariff> = {}, extra: ExtraPricing | null = null) => isOneLine({ tariff: tariff(elements, more), extra });
  it('says so much per kWh and per start, and nothing else', () => {
    expect(isOneLine({ tariff: null, extra: null })).toBe(true);
    expect(said([{ price_components: [...START.price_components, ...energy(0.5).price_components] }], {}, {})).toBe(true);
    expect(said([{ price_components: [...energy(0.5).price_components, { type: 'TIME', price: 0, step_size: 60 }] }])).toBe(true);
    expect(said([START, energy(0.5)])).toBe(false);
    expect(said([energy(0.5, { max_kwh: 3 })])).toBe(false);
    expect(said([byMinute(0.1)])).toBe(false);
    expect(said([{ price_components: [{ type: 'ENERGY', price: 0.5, step_size: 1000 }] }])).toBe(false);
    expect(said([energy(0.5)], { min_price: { excl_vat: 1 } })).toBe(false);
    expect(said([energy(0.5)], { max_price: { excl_vat: 9 } })).toBe(false);
    expect(said([energy(0.5)], {}, { tax_percent: 20 })).toBe(false);
  });
});
