import { deriveVisit } from './derive';
import { CARD, IN, KW, type Step, story, VISIT } from './fixtures/story';
import { payloadProblem } from './payloads';
import { visitFlags } from './visit-flags';

const charging: Step[] = [IN, [5, 'plugged'], [10, 'means_shown', CARD], [60, 'power_seen', KW]];
const read = (s: number, payload: object): Step => [s, 'reading', { screen: 'stall', ...payload }];
const bill = (kWh: string): Step => [2000, 'bill', { sessions: [], amount: '5', currency: 'EUR', kWh, state: 'charged' }];
const over: Step[] = [
  [1800, 'stop_asked', {}],
  [1850, 'unplugged'],
  [1900, 'pulled_out', { reason: 'enough' }],
];
const flags = (...steps: Step[]) => visitFlags(deriveVisit(VISIT, story(...charging, ...steps), payloadProblem));

describe('what looks wrong within a visit', () => {
  it('nothing about a plain charge, whatever its plate or price', () =>
    expect(flags(read(100, { socPct: 20, kW: 900, kWh: '1.0' }), read(1790, { socPct: 60, kW: 80, kWh: '25.0', cost: '500' }), ...over, bill('25.0'))).toEqual(
      [],
    ));
  it('a battery that goes down, a counter that runs back; ten times the figure before only at the time', () => {
    expect(flags(read(100, { socPct: 60 }), read(200, { socPct: 40 }))).toEqual(['The battery was at 60 % before. Has it gone down to 40 %?']);
    expect(flags(read(100, { kWh: '9.0' }), read(200, { kWh: '8.0' }))).toEqual(['The stall showed 9.0 kWh before. Is it 8.0 now?']);
    expect(flags(read(100, { kWh: '1.2' }), read(200, { kWh: '13.0' }))).toEqual([]);
  });
  it('volts and amps that make another power', () =>
    expect(flags(read(100, { V: 400, A: 100, kW: 90 }))).toEqual(['400 V × 100 A is 40 kW. Does the screen show 90?']));
  it('each screen against its own, each session against its own', () => {
    expect(flags(read(100, { socPct: 60 }), read(200, { screen: 'car', socPct: 58 }))).toEqual([]);
    const again: Step[] = [
      [300, 'unplugged'],
      [310, 'plugged'],
      [320, 'means_shown', CARD],
      [360, 'power_seen', KW],
    ];
    expect(flags(read(100, { kWh: '9.0' }), ...again, read(400, { kWh: '1.0' }))).toEqual([]);
  });
  it('a bill for less than the stall showed', () => {
    const charged = [read(1790, { kWh: '25.0' }), ...over];
    expect(flags(...charged, bill('24.0'))).toEqual(['The stall showed 25 kWh. Does the bill say 24?']);
    expect(flags(...charged, bill('25.0'))).toEqual([]);
    expect(flags(...charged)).toEqual([]);
    expect(flags(...over, bill('24.0'))).toEqual([]);
  });
});
