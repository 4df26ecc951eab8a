import { lastShown } from './last-shown';

type Charge = Parameters<typeof lastShown>[0];
const mark = (t: number) => ({ t }) as Charge['readings'][number]['mark'];
const charge = (look: { t: number; kW?: number; V?: number; A?: number }, more: object = {}) =>
  ({
    pauses: [],
    readings: [
      { screen: 'stall', mark: mark(look.t), ...look },
      { screen: 'stall', mark: mark(look.t + 90_000), socPct: 40 },
    ],
    ...more,
  }) as unknown as Charge;
const power = (kW: number) => [{ s: 120, kW, how: 'read' as const, at: 0 }];
const pause = (to: number) => ({ pauses: [{ from: mark(0), to: mark(to) }] });

describe('power as it was shown last', () => {
  it('is where and what it was, and none where nobody read it', () => {
    expect(lastShown(charge({ t: 60_000, kW: 60 }), power(60))).toEqual({ min: 2, kW: 60 });
    expect(lastShown(charge({ t: 60_000 }), [])).toBeNull();
  });
  it('no power is believed, but not for what comes after a pause', () => {
    const none = { t: 60_000, kW: 0 };
    expect(lastShown(charge(none), power(0))).toEqual({ min: 2, kW: 0 });
    expect(lastShown(charge(none, { paused: mark(50_000) }), power(0))).toBeNull();
    expect([59_999, 60_000, 61_000].map((to) => lastShown(charge(none, pause(to)), power(0)))).toEqual([{ min: 2, kW: 0 }, null, null]);
    // By volts and amps as well.
    expect(lastShown(charge({ t: 60_000, V: 400, A: 0 }, pause(60_000)), power(0))).toBeNull();
  });
  it('power that was shown before a pause is the best that is known', () => {
    expect(lastShown(charge({ t: 60_000, kW: 60 }, { paused: mark(70_000) }), power(60))).toEqual({ min: 2, kW: 60 });
    expect(lastShown(charge({ t: 60_000, kW: 60 }, pause(80_000)), power(60))).toEqual({ min: 2, kW: 60 });
  });
});
