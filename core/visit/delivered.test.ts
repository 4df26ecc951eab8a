import { averageKW, deliveredKWh, peakKW, sessionStallKWh } from './delivered';
import { deriveVisit } from './derive';
import { CARD, IN, KW, STALL_A, type Step, story, VISIT } from './fixtures/story';
import { payloadProblem } from './payloads';

const attempts = (...steps: Step[]) => deriveVisit(VISIT, story(IN, [5, 'stall_chosen', { stallId: STALL_A }], ...steps), payloadProblem).attempts;
const ONE: Step[] = [
  [10, 'plugged'],
  [20, 'means_shown', CARD],
  [50, 'power_seen', KW],
];
const two = (first: Record<string, unknown>, second: Record<string, unknown>) =>
  attempts(
    ...ONE,
    [400, 'reading', { screen: 'stall', ...first }],
    [410, 'fault', { code: 'stopped_by_itself', side: 'network' }],
    [450, 'means_shown', CARD],
    [480, 'power_seen', KW],
    [900, 'reading', { screen: 'stall', ...second }],
    [910, 'stop_asked', { by: 'button' }],
  );

describe('energy delivered', () => {
  it('is the sum of the sessions, each its stall’s last figure', () => {
    expect(deliveredKWh(two({ kWh: '8.1' }, { kWh: '12.25' }), [], true)).toEqual({ known: true, value: '20.35' });
  });
  it('is the bill’s where one session was not read, else unknown', () => {
    expect(deliveredKWh(two({ kWh: '8.1' }, { kW: 60 }), [{ attempts: [], kWh: '20.4' }], true)).toEqual({ known: true, value: '20.4' });
    expect(deliveredKWh(two({ kWh: '8.1' }, { kW: 60 }), [], true)).toMatchObject({ known: false });
  });
  it('takes a session that was not read from the bill for it alone, and never a bill that leaves one out', () => {
    expect(deliveredKWh(two({ kWh: '8.1' }, { kW: 60 }), [{ attempts: [2], kWh: '12.3' }], true)).toEqual({ known: true, value: '20.4' });
    expect(deliveredKWh(two({ kW: 40 }, { kW: 60 }), [{ attempts: [2], kWh: '12.3' }], true)).toMatchObject({ known: false });
    expect(deliveredKWh(two({ kW: 40 }, { kW: 60 }), [{ attempts: [1, 2], kWh: '20.5' }], true)).toEqual({ known: true, value: '20.5' });
  });
  it('is a known zero only when the visit is over and nothing was left open', () => {
    const failed = attempts([10, 'plugged'], [60, 'fault', { code: 'start_error', side: 'network' }]);
    expect(deliveredKWh(failed, [], true)).toEqual({ known: true, value: '0' });
    expect(deliveredKWh(failed, [], false)).toMatchObject({ known: false, why: 'the visit is still open' });
    expect(deliveredKWh(attempts([10, 'plugged'], [20, 'claimed', { by: 'app' }]), [], true)).toMatchObject({
      known: false,
      why: 'power was not recorded',
    });
  });
  it('is read from the meter’s ends where the screen shows those', () => {
    expect(sessionStallKWh(attempts(...ONE, [900, 'reading', { screen: 'stall', meterStart: '10250', meterEnd: '10281' }])[0]!)).toBe('31');
  });
});

describe('power', () => {
  // Common practice, no source: 50 kW is 0.83 kWh a minute, 150 kW 2.5 kWh a minute.
  it.each([
    ['0.8333333', 60, 50],
    ['2.5', 60, 150],
    ['5.8', 420, 49.7],
  ])('%s kWh in %i s is %d kW on average', (kWh, s, kW) => expect(averageKW(kWh, s)).toBeCloseTo(kW, 1));
  it('peaks on the stall’s screen, on the car’s only where the stall shows none', () => {
    const both = attempts(...ONE, [100, 'reading', { screen: 'car', kW: 118 }], [110, 'reading', { screen: 'stall', kW: 112 }]);
    expect(peakKW(both)).toEqual({ known: true, value: { kW: 112, screen: 'stall' } });
    expect(peakKW(attempts(...ONE, [100, 'reading', { screen: 'car', kW: 118 }]))).toEqual({ known: true, value: { kW: 118, screen: 'car' } });
    expect(peakKW(attempts(...ONE))).toEqual({ known: false, why: 'no kW was read' });
  });
});
