import { deriveVisit } from '../visit/derive';
import { CARD, IN, KW, STALL_A, type Step, story, VISIT } from '../visit/fixtures/story';
import { payloadProblem } from '../visit/payloads';
import { type OnFile, sessionDoubts } from './session-doubts';

const on = (outlets: { connector: 'CCS2' | 'Type 2'; ratedKW: number }[], usableKWh: number | null = 62): OnFile => ({
  stall: (id) => (id === STALL_A ? { outlets: outlets as never } : undefined),
  usableKWh,
});
const CCS = [{ connector: 'CCS2' as const, ratedKW: 150 }];
const charged = (kWh: string, socPct = 40, stallId = STALL_A): Step[] => [
  [5, 'stall_chosen', { stallId }],
  [10, 'plugged'],
  [20, 'means_shown', CARD],
  [50, 'power_seen', KW],
  [50, 'reading', { screen: 'stall', socPct: 20 }],
  [650, 'reading', { screen: 'stall', socPct, kWh }],
  [650, 'stop_asked', { by: 'button' }],
  [700, 'unplugged'],
];
const doubts = (steps: Step[], onFile: OnFile = on(CCS)) => sessionDoubts(deriveVisit(VISIT, story(IN, ...steps), payloadProblem), onFile);

describe('what looks wrong about whole sessions beside what is on file', () => {
  it('a point that slipped, by time and by battery, with the arithmetic', () => {
    expect(doubts(charged('12.5'))).toEqual([]);
    // 150 kW for ten minutes are 25 kWh; 20 % of 62 kWh are 12.4.
    expect(doubts(charged('125'))).toEqual([
      'kWh against time: 125.0 kWh; 150 kW for 10.0 min, 5 % and 0.1 kWh more: at most 26.4.',
      'kWh against battery: 125.0 kWh for 20 % of 62 kWh: between 10.0 and 16.3, a per cent of doubt at both ends.',
      'A digit: 125 kWh fits neither; 12.5 would, if a point slipped.',
    ]);
  });
  it('what is not on file is not asked', () => {
    expect(doubts(charged('20'), on(CCS, null))).toEqual([]);
    expect(doubts(charged('20'), on([], 62))).toHaveLength(1);
    expect(doubts(charged('200', 40, VISIT), on(CCS, null))).toEqual([]);
    expect(doubts([[5, 'stall_chosen', { stallId: STALL_A }]])).toEqual([]);
  });
  it('before an onboard charger the meter may say more: 35 % and not 25; at a stall of both nobody knows which it was', () => {
    // 1.25 × 62 × 21 % = 16.3; 1.35 of it are 17.6.
    const [ac, dc] = [
      { connector: 'Type 2' as const, ratedKW: 150 },
      { connector: 'CCS2' as const, ratedKW: 150 },
    ];
    expect([[dc], [ac], [dc, ac]].map((outlets) => doubts(charged('17'), on(outlets)).length)).toEqual([1, 0, 0]);
    const noted = charged('17').map(([s, kind, payload]): Step => [s, kind, kind === 'stall_chosen' ? { ...payload, connectorId: 'CCS2' } : payload]);
    expect(doubts(noted, on([dc, ac]))).toHaveLength(1);
  });
  it('each session by itself', () => {
    const again: Step[] = charged('12.5').map(([s, kind, payload]) => [s + 1000, kind, payload]);
    const first = charged('125');
    expect(doubts([...first, ...again]).length).toBeGreaterThan(0);
    expect(doubts([...first, ...again])).toEqual(doubts(first));
  });
});
