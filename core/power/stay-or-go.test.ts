import type { LimitCar, LimitStall } from './limits';
import { limitsOf } from './limits';
import { paceSoFar, project } from './projection';
import { projectionRatio, spreadOf } from './projection-error';
import { type NextStop, type StayAsked, stayOrGo } from './stay-or-go';
import { leaveBelow, stayHeadline, stayReason } from './stay-words';

const car: LimitCar & { usableKWh: number } = {
  usableKWh: 62,
  curve: [
    [0, 120],
    [40, 120],
    [80, 60],
    [100, 20],
  ],
};
const dc = (plateKW: number): LimitStall => ({ kind: 'dc', plateKW });
const battery = { usableKWh: 62 };
const NOW = Date.parse('2025-10-14T12:00:00Z');

const next = (plateKW: number, more: Partial<NextStop> = {}): NextStop => ({
  name: 'Hollin Bridge',
  stall: { stall: dc(plateKW) },
  outlook: { n: 12, startShare: 0.9, handshake_min: 1.5, loss_min: 10, pace: 1, paced: 5, lastSeen: '2025-10-10' },
  toThere: { km: 84, min: 63 },
  thereToEnd: { km: 150, min: 112 },
  direct: null,
  seenDaysAgo: 4,
  ...more,
});
const asked = (more: Partial<StayAsked> = {}): StayAsked => ({
  setting: { car, stall: dc(150) },
  battery,
  curved: true,
  // 20 to 40 % of 62 kWh at 120 kW: 12.4 kWh, 6.2 min.
  levels: [
    { min: 0, socPct: 20 },
    { min: 3.1, socPct: 30 },
    { min: 6.2, socPct: 40 },
  ],
  now_min: 6.2,
  connected_min: 8,
  kWhPer100km: 18,
  kWhPer100kmRange: [16.2, 20.7],
  reservePct: 10,
  leg: null,
  fallback_km: null,
  next: null,
  cost: (kWh) => kWh * 0.5,
  deadlines: [],
  spread: null,
  ...more,
});
const say = (a: StayAsked) => {
  const advice = stayOrGo(a);
  return advice && stayHeadline(advice, a, NOW, 'Europe/Ljubljana');
};
const why = (a: StayAsked) => {
  const advice = stayOrGo(a);
  return advice ? stayReason(advice, a).join(' ') : '';
};

describe('stay or go', () => {
  it('says nothing under two readings', () => {
    expect(stayOrGo(asked({ levels: [{ min: 0, socPct: 20 }] }))).toBeNull();
    expect(stayOrGo(asked({ levels: [] }))).toBeNull();
  });
  it('without a leg it says when the battery will be at 80 %, with a band where past sessions give one', () => {
    // 40 to 80 % from 120 to 60 kW: 24.8 kWh over a mean of 60 / ln 2 = 86.6 kW are 17.2 min.
    expect(say(asked())).toBe('About 80 % at 14:17.');
    expect(say(asked({ spread: { low: 0.9, high: 1.2, n: 8, held: 0.75 } }))).toBe('About 80 % at 14:17, between 14:15 and 14:20.');
    expect(say(asked({ curved: false }))).toBe('At best about 80 % at 14:17.');
    expect(why(asked({ curved: false }))).toContain('No curve of this car is on file');
    expect(
      say(
        asked({
          levels: [
            { min: 0, socPct: 60 },
            { min: 8, socPct: 80 },
          ],
          now_min: 8,
        }),
      ),
    ).toMatch(/^About 100 % at/);
    expect(
      say(
        asked({
          levels: [
            { min: 0, socPct: 80 },
            { min: 30, socPct: 100 },
          ],
          now_min: 30,
        }),
      ),
    ).toBe('As full as it gets.');
  });
  it('each reading corrects it: half of the power expected takes twice as long', () => {
    const slow = asked({
      levels: [
        { min: 0, socPct: 20 },
        { min: 6.2, socPct: 30 },
        { min: 12.4, socPct: 40 },
      ],
      now_min: 12.4,
    });
    expect(stayOrGo(slow)?.pace).toBeCloseTo(0.5, 6);
    expect(say(slow)).toBe('About 80 % at 14:34.');
    expect(why(slow)).toContain('This session has had 50 % of the power expected.');
    // A neighbour who came lately counts, not the whole session.
    const lately = asked({
      levels: [
        { min: 0, socPct: 20 },
        { min: 3.1, socPct: 30 },
        { min: 9.3, socPct: 40 },
      ],
      now_min: 9.3,
    });
    expect(stayOrGo(lately)?.pace).toBeCloseTo(0.5, 6);
  });
  it('a next leg asks for its way and the reserve, or the way to the fallback', () => {
    // 180 km × 18 / 62 = 52.3 %, and 10 %.
    const leg = { km: 180, name: 'the next 180 km' };
    expect(say(asked({ leg }))).toBe('Stay until 63 %, about 8 min.');
    expect(stayOrGo(asked({ leg }))?.need?.neededPct).toBeCloseTo(62.258, 3);
    expect(why(asked({ leg }))).toContain('Left now, it would not get there.');
    expect(why(asked({ leg: { km: 120, name: 'the next 120 km' } }))).toContain('Left now, it would arrive with 5 %, between 0 and 9.');
    expect(stayOrGo(asked({ leg, fallback_km: 60 }))?.need?.reserveFrom).toBe('fallback');
    expect(say(asked({ leg: { km: 80, name: 'the next 80 km' } }))).toBe('Enough for the next 80 km now.');
    expect(say(asked({ leg: { km: 400, name: 'the next 400 km' } }))).toBe('Not on one battery: 27 % short.');
    const late = asked({ leg, deadlines: [{ why: 'Max stay ends', in_min: 5 }] });
    expect(stayOrGo(late)?.conflict).toEqual({ why: 'Max stay ends', in_min: 5 });
    expect(why(late)).toContain('Max stay ends in 5 min, before that.');
  });
  it('a known next site: go when it gives more, stay when it gives less, and say so when it makes no difference', () => {
    const slowHere = asked({
      setting: { car, stall: dc(30) },
      levels: [
        { min: 0, socPct: 20 },
        { min: 24.8, socPct: 40 },
      ],
      now_min: 24.8,
    });
    expect(say({ ...slowHere, next: next(150) })).toBe('Go on to Hollin Bridge now.');
    expect(say({ ...slowHere, next: next(150, { seenDaysAgo: 90 }) })).toBe('Go on to Hollin Bridge, if it stands as noted.');
    expect(why({ ...slowHere, next: next(150, { seenDaysAgo: 90 }) })).toContain('Hollin Bridge was not seen for 90 days');
    expect(say(asked({ next: next(22) }))).toMatch(/^Stay until \d+ %, about \d+ min\.$/);
    expect(say(asked({ next: next(150) }))).toBe('Go on to Hollin Bridge now.');
    // The same power at any level here and there: it makes no difference when one leaves.
    const flat = { ...car, curve: [[0, 60]] as [number, number][] };
    const even = asked({
      setting: { car: flat, stall: dc(150) },
      levels: [
        { min: 0, socPct: 20 },
        { min: 12.4, socPct: 40 },
      ],
      now_min: 12.4,
    });
    expect(say({ ...even, next: next(150) })).toBe('Staying or going is the same: do as you like.');
    const stay = stayOrGo(asked({ next: next(50) }));
    // Leave when the car's taper falls to what the next post gives.
    expect(stay && leaveBelow(stay)).toMatch(/^50 kW/);
    expect(say(asked({ next: next(150, { toThere: { km: 400, min: 300 } }) }))).toMatch(/^Not on one battery/);
  });
  it('costs follow the pricing handed in, and every row adds to the sum so far', () => {
    const rows = stayOrGo(asked())?.rows ?? [];
    expect(rows.map((r) => r.to)).toEqual([50, 60, 70, 80, 90, 100]);
    expect(rows[0]?.money).toBeCloseTo(3.1, 9);
    expect(rows.at(-1)?.moneySoFar).toBeCloseTo(18.6, 9);
  });
});

describe('projections', () => {
  it('between readings the level goes on at the session’s pace', () => {
    const levels = [
      { min: 0, socPct: 20 },
      { min: 3.1, socPct: 30 },
    ];
    expect(project(limitsOf({ car, stall: dc(150) }), battery, levels, 6.2)?.nowPct).toBeCloseTo(40, 6);
  });
  it('too little of the battery or the clock says nothing of the pace', () => {
    const limits = limitsOf({ car, stall: dc(150) });
    expect(
      paceSoFar(limits, battery, [
        { min: 0, socPct: 20 },
        { min: 1.9, socPct: 30 },
      ]),
    ).toBe(1);
    expect(
      paceSoFar(limits, battery, [
        { min: 0, socPct: 20 },
        { min: 9, socPct: 22 },
      ]),
    ).toBe(1);
    expect(
      paceSoFar(limits, battery, [
        { min: 0, socPct: 20 },
        { min: 900, socPct: 40 },
      ]),
    ).toBe(0.15);
    expect(paceSoFar(limits, battery, [])).toBe(1);
  });
});

describe('how projections held', () => {
  it('is said from five sessions on, and tried on the sessions that came after', () => {
    expect(spreadOf([1, 1, 1, 1])).toBeNull();
    expect(spreadOf([1, 1, 1, 1, 1])).toEqual({ low: 1, high: 1, n: 5, held: Number.NaN });
    const spread = spreadOf([0.9, 1, 1.1, 1.2, 0.95, 1.05, 3]);
    expect(spread?.n).toBe(7);
    expect(spread?.held).toBe(0.5);
    expect(spread?.low).toBeLessThan(1);
    expect(spread?.high).toBeGreaterThan(1.2);
  });
  it('a session that goes on as it began has a ratio of one', () => {
    const limits = limitsOf({ car, stall: dc(60) });
    const levels = [20, 30, 40, 50, 60].map((socPct, i) => ({ min: i * 6.2, socPct }));
    expect(projectionRatio(limits, battery, levels)).toBeCloseTo(1, 6);
    expect(projectionRatio(limits, battery, levels.slice(0, 3))).toBeNull();
    const slower = [...levels.slice(0, 3), { min: 24.8, socPct: 50 }, { min: 37.2, socPct: 60 }];
    expect(projectionRatio(limits, battery, slower)).toBeCloseTo(2, 6);
  });
});
