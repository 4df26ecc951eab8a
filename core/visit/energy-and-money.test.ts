import { deriveVisit } from './derive';
import type { StoredEvent } from './event';
import { CARD, IN, KW, STALL_A, type Step, story, VISIT } from './fixtures/story';
import { payloadProblem } from './payloads';

const derive = (events: StoredEvent[]) => deriveVisit(VISIT, events, payloadProblem);
const visit = (...steps: Step[]) => derive(story(IN, [5, 'stall_chosen', { stallId: STALL_A }], ...steps));

describe('energy and money of a visit', () => {
  const charge: Step[] = [
    [10, 'plugged'],
    [20, 'means_shown', CARD],
    [60, 'power_seen', KW],
  ];
  it('takes the stall’s last kWh over the charging time: 5.8 kWh in 7 min is about 50 kW', () => {
    // Common practice, no source.
    const v = visit(
      ...charge,
      [240, 'reading', { screen: 'stall', kWh: '2.4', kW: 49 }],
      [479, 'reading', { screen: 'stall', kWh: '5.8', kW: 50 }],
      [480, 'stop_asked', { by: 'button' }],
    );
    expect(v.delivered).toEqual({ known: true, value: '5.8' });
    expect(v.average.known && v.average.value).toBeCloseTo(49.7, 1);
    expect(v.peak).toEqual({ known: true, value: { kW: 50, screen: 'stall' } });
  });
  it('29 kWh in 29 min is 60 kW; 50 kWh at a mean of 86 kW takes just under 35 min', () => {
    // Common practice, no source.
    const v = visit(...charge, [60 + 29 * 60, 'reading', { screen: 'stall', kWh: '29' }], [60 + 29 * 60, 'stop_asked', { by: 'button' }]);
    expect(v.average).toEqual({ known: true, value: 60 });
    const w = visit(...charge, [60 + 34.88 * 60, 'reading', { screen: 'stall', kWh: '50' }], [60 + 34.88 * 60, 'stop_asked', { by: 'button' }]);
    expect(w.average.known && Math.round(w.average.value)).toBe(86);
  });
  it('never mixes the car’s kWh in', () => {
    const v = visit(...charge, [400, 'reading', { screen: 'car', kWh: '5.1' }], [480, 'stop_asked', { by: 'button' }]);
    expect(v.delivered.known).toBe(false);
  });
  it('falls back on the bill’s kWh', () => {
    const v = visit(
      ...charge,
      [480, 'stop_asked', { by: 'button' }],
      [600, 'pulled_out', { reason: 'enough' }],
      [700, 'bill', { sessions: [], amount: '3.77', currency: 'EUR', kWh: '5.8', state: 'charged' }],
    );
    expect(v.delivered).toEqual({ known: true, value: '5.8' });
    // 5.8 kWh for 3.77 is 0.65 a kWh: common practice, no source.
    expect(v.allIn).toEqual({ known: true, value: { perKWh: '0.65', currency: 'EUR' } });
  });
  it('29 kWh for 8.99 is 0.31 per kWh', () => {
    // Common practice, no source.
    const v = visit(
      ...charge,
      [1800, 'reading', { screen: 'stall', kWh: '29' }],
      [1801, 'stop_asked', { by: 'button' }],
      [1900, 'bill', { sessions: [], amount: '8.99', currency: 'EUR', state: 'charged' }],
    );
    expect(v.allIn.known && Number(v.allIn.value.perKWh).toFixed(2)).toBe('0.31');
  });
  it('adds bills in one currency, takes refunds off, and adds none across currencies', () => {
    const bill = (at: number, amount: string, currency = 'EUR', state = 'charged'): Step => [at, 'bill', { sessions: [], amount, currency, state }];
    expect(visit(...charge, bill(600, '10.10'), bill(700, '0.46')).paid).toEqual({ known: true, value: { amount: '10.56', currency: 'EUR' } });
    expect(visit(...charge, bill(600, '10.10'), bill(700, '0.46', 'EUR', 'refunded')).paid).toMatchObject({ value: { amount: '9.64' } });
    expect(visit(...charge, bill(600, '10.10'), bill(700, '3', 'CHF')).paid.known).toBe(false);
  });
});
