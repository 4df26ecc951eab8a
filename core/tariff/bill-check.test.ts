import { type BillFacts, explainBill, kWhDifference } from './bill-check';
import type { ChargedAttempt } from './charged-visit';
import { compileTariff } from './compiled-tariff';
import { exampleStop } from './example-stop';
import { NO_PRICE, objectOfPlain, type PlainPrice } from './plain-price';

const START = Date.parse('2025-10-14T15:00:00Z');
const price = (p: Partial<PlainPrice>, currency = 'EUR') => {
  const { tariff, extra } = objectOfPlain({ ...NO_PRICE, ...p }, { id: 'T', currency, day: '2025-10-14' });
  return compileTariff(tariff, extra ?? {});
};
const attempt = (kWh: number, minutes = 30, parked = 0, n = 1): ChargedAttempt => ({
  n,
  session: exampleStop('Europe/Ljubljana', START + n * 36e5, kWh, minutes, parked),
  kWh: String(kWh),
  timed: true,
});
/** 40 kWh in half an hour at 0.50 and a start fee of 1: 21 euros. */
const facts = (charged: string, more: Partial<BillFacts> = {}): BillFacts => ({
  tariff: price({ perKWh: '0.50', startFee: '1' }),
  attempts: [attempt(40)],
  failed: 0,
  charged,
  apart: true,
  billedKWh: null,
  asGuest: null,
  elsewhere: [],
  shownPerKWh: null,
  ...more,
});
const causes = (charged: string, more: Partial<BillFacts> = {}) => explainBill(facts(charged, more)).map((e) => [e.cause, e.fit]);
const text = (charged: string, more: Partial<BillFacts> = {}) => explainBill(facts(charged, more)).map((e) => e.text);

describe('what may explain a bill', () => {
  it('is not asked where it is what was expected, nor where nothing can be expected', () => {
    expect(causes('21.00')).toEqual([]);
    expect(causes('30.00', { attempts: [] })).toEqual([]);
    expect(causes('33.33')).toEqual([]);
  });

  it('the guests’ price, with both sums', () => {
    const asGuest = price({ perKWh: '0.60', startFee: '1' });
    expect(explainBill(facts('25.00', { asGuest }))).toEqual([
      { cause: 'member_price', fit: 'exact', text: 'The price for guests was taken: €25.00 instead of €21.00 with your plan.' },
    ]);
    // Of another currency it says nothing about this bill.
    expect(causes('25.00', { asGuest: price({ perKWh: '0.60', startFee: '1' }, 'CHF') })).toEqual([]);
    // By the minute, and only the day is known: it cannot be worked out.
    const tariff = price({ perKWh: '0.50' });
    expect(causes('25.00', { tariff, asGuest: price({ perMin: '0.8333' }), attempts: [{ ...attempt(40), timed: false }] })).toEqual([]);
  });

  it('a start fee twice, and one for each try without power', () => {
    expect(text('22.00')).toEqual(['The start fee was taken once more: €21.00 + €1.00 = €22.00.']);
    expect(text('22.00', { failed: 1 })[1]).toBe('The try without power cost a start fee each: €21.00 + 1 × €1.00 = €22.00.');
    expect(text('24.00', { failed: 3 })).toEqual(['The 3 tries without power cost a start fee each: €21.00 + 3 × €1.00 = €24.00.']);
    // Without a start fee there is none to take, however little is missing.
    expect(causes('20.00', { tariff: price({ perKWh: '0.50' }), failed: 2 })).toEqual([]);
    expect(causes('20.01', { tariff: price({ perKWh: '0.50' }), failed: 2 })).toEqual([['rounding', 'exact']]);
  });
  it('of two sessions a start fee is the one of a session', () => {
    const two = { attempts: [attempt(20, 30, 0, 1), attempt(20, 30, 0, 3)] };
    expect(causes('23.00', two)).toEqual([['start_twice', 'exact']]);
  });

  it('other kWh, beyond what meter and display allow, with what an AC meter reads', () => {
    expect(text('26.00', { billedKWh: '50' })).toEqual(['50.0 kWh were billed, 40.0 kWh read: at the same price €26.00.']);
    expect(text('22.40', { billedKWh: '42.8' })).toEqual([
      '42.8 kWh were billed, 40.0 kWh read: at the same price €22.40. A meter on the AC side reads 5 to 8 % more than the car gets.',
    ]);
    // 0.9 kWh of 40 are 2 % and a step.
    expect(causes('21.45', { billedKWh: '40.9' })).toEqual([]);
    expect(causes('21.46', { billedKWh: '40.91' })).toEqual([['other_kwh', 'exact']]);
    // A price by the minute does not hang on them.
    expect(causes('26.00', { tariff: price({ perMin: '0.70' }), billedKWh: '50' })).toEqual([]);
  });
  it('within so much two figures of energy are the same', () => {
    expect([kWhDifference('40', '40.9'), kWhDifference('40', '39.1'), kWhDifference('40', '41')]).toEqual(['same', 'same', 'other']);
    expect([kWhDifference('40', '42'), kWhDifference('40', '43.2'), kWhDifference('40', '43.21'), kWhDifference('40', '38')]).toEqual([
      'ac_side',
      'ac_side',
      'other',
      'other',
    ]);
    // A figure on the edge is the same still.
    expect(kWhDifference('5', '5.2')).toBe('same');
  });

  it('standing on: left out, taken though it was not due, or for more minutes', () => {
    const idle = { tariff: price({ perKWh: '0.50', idlePerMin: '0.30', idleAfterMin: '0' }), attempts: [attempt(40, 30, 10)] };
    expect(text('20.00', idle)).toEqual(['Without the €3.00 for standing on: €20.00.']);
    expect(text('24.50', idle)).toEqual(['5 more idle minutes at €0.30 make the €1.50.']);
    // No whole minutes make it, nor do ten hours of them, nor a bill that is less.
    expect(causes('24.40', idle)).toEqual([]);
    expect(causes('212.00', { ...idle, attempts: [attempt(40)] })).toEqual([]);
    expect(causes('200.00', { ...idle, attempts: [attempt(40)] })).toEqual([['idle_or_overstay', 'about']]);
    expect(causes('21.50', idle)).toEqual([]);
    const parked = { tariff: price({ perKWh: '0.50', parkedPerMin: '0.20' }), attempts: [attempt(40, 30, 10)] };
    expect(causes('20.00', parked)).toEqual([['idle_or_overstay', 'exact']]);
  });
  it('an overstay fee is thought of where it was not due', () => {
    const over = { tariff: price({ perKWh: '0.50', overstayFee: '10', overstayAfterMin: '45' }) };
    expect(text('30.00', over)).toEqual(['The overstay fee was taken: €20.00 + €10.00, though the car stood less than 45 min.']);
    const due = { ...over, attempts: [attempt(40, 30, 30)] };
    expect(causes('40.00', due)).toEqual([]);
    expect(causes('20.00', due)).toEqual([['idle_or_overstay', 'exact']]);
  });

  it('tax, missing or twice', () => {
    const taxed = { tariff: price({ perKWh: '0.50', taxOnTop: '20' }) };
    expect(text('20.00', taxed)).toEqual(['Tax is missing: €24.00 are €20.00 without it.']);
    expect(text('28.80', taxed)).toEqual(['Tax was added twice: €24.00 and once more the same share is €28.80.']);
    expect(causes('28.80')).toEqual([]);
  });

  it('rounding of lines, a cent or two a bill', () => {
    expect(text('21.02')).toEqual(['€0.02 apart: lines rounded one by one can differ by so much.']);
    expect(causes('20.98')).toEqual([['rounding', 'exact']]);
    expect(causes('21.03')).toEqual([]);
    const two = { attempts: [attempt(20, 30, 0, 1), attempt(20, 30, 0, 3)] };
    expect([causes('22.04', two), causes('22.05', two)]).toEqual([[['rounding', 'exact']], []]);
  });

  it('another price than on file: as noted on the spot, or another stall’s', () => {
    expect(text('23.00', { shownPerKWh: '0.55' })).toEqual([
      'At 0.55 per kWh, as it was noted on the spot, it is €23.00: the price on file may be out of date.',
    ]);
    const elsewhere = [
      { name: 'Stall 9', tariff: price({ perKWh: '0.70' }) },
      { name: 'Stall 7', tariff: price({ perKWh: '0.60' }) },
      { name: 'Stall 8', tariff: price({ perKWh: '0.60' }, 'CHF') },
    ];
    expect(text('24.00', { elsewhere })).toEqual(['At Stall 7 the same would cost €24.00: the bill may be for another stall.']);
  });

  it('what fits to the cent comes before what is near, and each cause is said once', () => {
    const elsewhere = [
      { name: 'Stall 7', tariff: price({ perKWh: '0.5983', startFee: '0' }) },
      { name: 'Stall 8', tariff: price({ perKWh: '0.60', startFee: '0' }) },
    ];
    const asGuest = price({ perKWh: '0.5990' });
    expect(causes('24.00', { elsewhere, asGuest })).toEqual([
      ['wrong_stall', 'exact'],
      ['member_price', 'about'],
    ]);
    expect(text('24.00', { elsewhere, asGuest })[0]).toContain('Stall 8');
  });
  it('what is off by more than half a per cent, or no nearer than what was expected, explains nothing', () => {
    expect(causes('24.12', { asGuest: price({ perKWh: '0.60' }) })).toEqual([]);
    expect(causes('24.10', { asGuest: price({ perKWh: '0.60' }) })).toEqual([['member_price', 'about']]);
    expect(causes('21.05', { asGuest: price({ perKWh: '0.5275' }) })).toEqual([]);
  });
});
