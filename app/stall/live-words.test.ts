import '@/client/store/fixtures/memory-storage';
import { rememberMeans } from '@/client/store/habits';
import type { MileRecord } from '@/core/records/record-schema';
import { deriveVisit } from '@/core/visit/derive';
import { APP, CARD, IN, idOf, KW, STALL_A, type Step, story, T0, VISIT } from '@/core/visit/fixtures/story';
import { payloadProblem } from '@/core/visit/payloads';
import { clockOf, lastReading, markOf, runningPaint } from './live-words';
import type { Records } from './stall-state';
import { usualMeans } from './usual-means';

const visit = (...steps: Step[]) => deriveVisit(VISIT, story(IN, ...steps), payloadProblem);
const STALL: Step = [30, 'stall_chosen', { stallId: STALL_A }];
const clock = (...steps: Step[]) => {
  const c = clockOf(visit(...steps));
  return [c.label, (c.from - T0) / 1000];
};

describe('which clock runs at the stall', () => {
  it('at the site, in the queue, since the first act', () => {
    expect(clock()).toEqual(['At the site', 0]);
    expect(clock([20, 'queue_joined'])).toEqual(['Queue, running', 20]);
    expect(clock(STALL, [40, 'plugged'])).toEqual(['Since the first act', 40]);
  });
  it('the handshake from the driver’s last act, as the figure will count it', () => {
    const steps: Step[] = [STALL, [40, 'plugged'], [50, 'means_shown', CARD], [58, 'means_refused', CARD], [65, 'means_shown', CARD]];
    expect(clock(...steps)).toEqual(['Handshake, running', 65]);
    const v = visit(...steps, [90, 'power_seen', KW]);
    expect(v.attempts[0]?.times.handshake).toMatchObject({ s: 25 });
  });
  it('since the fault; idle once power is gone and the plug is in', () => {
    expect(clock(STALL, [40, 'plugged'], [80, 'fault', { code: 'start_error', side: 'network' }])).toEqual(['Since the fault', 80]);
    expect(clock(STALL, [40, 'plugged'], [50, 'means_shown', CARD], [60, 'power_seen', KW], [900, 'stop_asked', { by: 'button' }])).toEqual([
      'Idle, running',
      900,
    ]);
  });
});

describe('what the road is painted with below the last mark', () => {
  it.each([
    [[STALL], null],
    [[STALL, [40, 'plugged']], 'handshake'],
    [[STALL, [40, 'plugged'], [60, 'power_seen', KW]], 'energy'],
    [[STALL, [40, 'plugged'], [60, 'power_seen', KW], [90, 'stop_asked', { by: 'car' }]], 'idle'],
    [[STALL, [40, 'plugged'], [80, 'fault', { code: 'start_error', side: 'network' }]], 'fault'],
  ] as [Step[], string | null][])('%#', (steps, paint) => expect(runningPaint(visit(...steps))).toBe(paint));
});

describe('the words on pads and marks', () => {
  it('a reading grows old', () => {
    const a = visit(STALL, [40, 'plugged'], [60, 'power_seen', KW], [100, 'reading', { screen: 'stall', socPct: 61, kW: 66 }]).attempts[0];
    expect(lastReading(a, T0 + 100_000 + 125_000)).toBe('last 61 % and 66 kW, 2 min ago');
    expect(lastReading(undefined, T0)).toBe('battery, kW, kWh, cost');
  });
  it('a mark says when the server refused it and when the clock jumped', () => {
    const v = visit([3700, 'queue_joined', {}, { mono: 30_000 }]);
    const marks = v.line.map((e) => markOf(e, [{ event: story(IN)[0] as never, state: 'refused' }], () => ''));
    expect(marks.map((m) => m.flag)).toEqual(['refused', 'clock jumped 3680 s']);
  });
});

describe('the means that Card shown takes', () => {
  const record = (n: number, kind: string, label: string) => ({ type: 'means', id: idOf(n), rev: 1, archived: false, fields: { kind, label } }) as MileRecord;
  const records = { means: [record(41, 'rfid', 'Workshop tag'), record(42, 'contactless', 'Bank card')] } as unknown as Records;
  it('of this visit, else the last at this network, else a contactless card', () => {
    expect(usualMeans(visit(), records, 'n')).toEqual({ meansKind: 'contactless', meansId: idOf(42), label: 'Bank card' });
    rememberMeans('n', { meansKind: 'rfid', meansId: idOf(41) });
    expect(usualMeans(visit(), records, 'n').label).toBe('Workshop tag');
    expect(usualMeans(visit(STALL, [40, 'means_shown', APP]), records, 'n').meansKind).toBe('app');
  });
  it('with none held, a contactless card all the same', () =>
    expect(usualMeans(visit(), { means: [] } as unknown as Records, undefined)).toEqual({ meansKind: 'contactless' }));
});
