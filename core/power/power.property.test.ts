import fc from 'fast-check';
import { longestRising } from '../units/longest-rising';
import { bandOf, bandsOf } from './bands';
import { chargingClock } from './charging-clock';
import { expectedStretch, levelAfter } from './expected';
import { limitsOf, type Setting } from './limits';
import { curveAt, firstAt, monotoneCurve } from './monotone-curve';
import { seriesOf } from './series';
import { seriesAt, socAt } from './series-at';
import { type LeaveAsked, whenToLeave } from './when-to-leave';

const NO_RANGE = { usableKWh: null, kWhPer100km: null };
const rising = fc
  .array(fc.record({ dx: fc.integer({ min: 1, max: 300 }), dy: fc.integer({ min: 0, max: 14 }) }), { minLength: 2, maxLength: 12 })
  .map((steps) => {
    let [x, y] = [0, 5];
    const points = [[0, 5] as [number, number]];
    for (const s of steps) {
      [x, y] = [x + s.dx, Math.min(100, y + s.dy)];
      points.push([x, y]);
    }
    return points;
  });
const curve = fc
  .array(fc.tuple(fc.integer({ min: 0, max: 100 }), fc.integer({ min: 8, max: 250 })), { minLength: 1, maxLength: 8 })
  .map((points) => points.sort((a, b) => a[0] - b[0]));
const setting: fc.Arbitrary<Setting> = fc.record({
  car: fc.record({ usableKWh: fc.integer({ min: 20, max: 110 }), V0: fc.constant(320), V100: fc.integer({ min: 320, max: 420 }), curve }),
  stall: fc.record({
    kind: fc.constant('dc' as const),
    plateKW: fc.integer({ min: 20, max: 350 }),
    maxA: fc.option(fc.integer({ min: 80, max: 500 })),
    deratedKW: fc.option(fc.integer({ min: 15, max: 150 })),
    paired: fc.boolean(),
    shareKW: fc.option(fc.integer({ min: 15, max: 150 })),
  }),
});
const battery = (s: Setting) => ({ usableKWh: s.car.usableKWh as number, efficiency: 0.95 });

describe('what holds of every charge', () => {
  it('a curve through readings never falls, meets them, and reaches each level where it is first at or above it', () => {
    fc.assert(
      fc.property(rising, fc.integer({ min: 5, max: 100 }), (points, level) => {
        const c = monotoneCurve(
          points.map(([x]) => x),
          points.map(([, y]) => y),
        );
        const last = points.at(-1)?.[0] as number;
        const along = Array.from({ length: 101 }, (_, i) => curveAt(c, (last * i) / 100) as number);
        expect(along.every((y, i) => i === 0 || y >= (along[i - 1] as number) - 1e-9)).toBe(true);
        expect(points.map(([x]) => curveAt(c, x))).toEqual(points.map(([, y]) => y));
        const first = firstAt(c, level);
        if (first === null) return expect(level).toBeGreaterThan(points.at(-1)?.[1] as number);
        expect(curveAt(c, first) as number).toBeGreaterThanOrEqual(level - 1e-6);
        if (first > 1e-3) expect(curveAt(c, first - 1e-3) as number).toBeLessThan(level + 1e-9);
      }),
      { seed: 13, numRuns: 200 },
    );
  });

  it('bands add up to the whole, in minutes and energy', () => {
    fc.assert(
      fc.property(rising, fc.integer({ min: 1, max: 60 }), (points, kWhPerPct) => {
        const end = points.at(-1) as [number, number];
        const s = seriesOf({
          readings: points.map(([t_s, socPct]) => ({ t_s, from: 'stall' as const, socPct, kWh: ((socPct - 5) * kWhPerPct) / 100 })),
          end: { t_s: end[0], kWh: ((end[1] - 5) * kWhPerPct) / 100 },
          gaps: { kWh_s: 1e6 },
        });
        const whole = bandOf(s, 5, end[1], NO_RANGE);
        if (whole.covered === 'none') return;
        const parts = bandsOf(s, NO_RANGE).flatMap((b) => (b.covered === 'none' ? [] : [b]));
        expect(parts.reduce((sum, b) => sum + b.minutes, 0)).toBeCloseTo(whole.minutes, 9);
        expect(parts.reduce((sum, b) => sum + (b.kWh as number), 0)).toBeCloseTo(whole.kWh as number, 9);
      }),
      { seed: 14, numRuns: 300 },
    );
  });

  it('one more reading on the curve changes only its neighbourhood', () => {
    fc.assert(
      fc.property(rising, fc.nat(), (points, where) => {
        const readings = points.map(([t_s, socPct]) => ({ t_s, from: 'car' as const, socPct }));
        const before = seriesOf({ readings, gaps: { soc_pct: 100 } });
        const k = where % (points.length - 1);
        const mid = ((points[k]?.[0] as number) + (points[k + 1]?.[0] as number)) / 2;
        const after = seriesOf({ readings: [...readings, { t_s: mid, from: 'car', socPct: socAt(before, mid) as number }], gaps: { soc_pct: 100 } });
        // A slope hangs on its neighbours, and its scaling on the interval before: three intervals further nothing has moved.
        for (const i of points.keys())
          if (i < k - 3 || i > k + 4) expect(after.soc?.slopes[i > k ? i + 1 : i]).toBeCloseTo(before.soc?.slopes[i] as number, 12);
        for (const [x, y] of points) expect(socAt(after, x)).toBeCloseTo(y, 9);
      }),
      { seed: 15, numRuns: 300 },
    );
  });

  it('a pause bends no curve: what is charged after it is as without it, later', () => {
    fc.assert(
      fc.property(rising, fc.integer({ min: 1, max: 900 }), (points, paused) => {
        const at = points[1]?.[0] as number;
        const of = (shift: number) => points.map(([t_s, socPct]) => ({ t_s: t_s > at ? t_s + shift : t_s, from: 'car' as const, socPct }));
        const [without, with_] = [seriesOf({ readings: of(0) }), seriesOf({ readings: of(paused), pauses: [[at, at + paused]] })];
        expect(with_.soc).toEqual(without.soc);
        const t = (points.at(-1)?.[0] as number) + paused;
        expect(seriesAt(with_, t)).toEqual(seriesAt(without, t - paused));
        expect(chargingClock([[at, at + paused]]).momentOf(at)).toBe(at + paused);
      }),
      { seed: 16, numRuns: 200 },
    );
  });

  it('the longest rising subsequence is that of trying them all, the earliest of equals', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 6 }), { maxLength: 9 }), (values) => {
        const all: number[][] = [];
        for (let bits = 0; bits < 1 << values.length; bits++) {
          const at = values.flatMap((_, i) => (bits & (1 << i) ? [i] : []));
          if (at.every((i, k) => k === 0 || (values[i] as number) >= (values[at[k - 1] as number] as number))) all.push(at);
        }
        const longest = Math.max(...all.map((a) => a.length));
        const first = all.filter((a) => a.length === longest).sort((a, b) => a.map((x, i) => x - (b[i] as number)).find((d) => d !== 0) ?? 0)[0];
        expect(longestRising(values)).toEqual(first);
      }),
      { seed: 17, numRuns: 300 },
    );
  });
});

describe('what holds of every expectation', () => {
  it('minutes are those of a fine sum, stretches add up, and their limits fill them', () => {
    fc.assert(
      fc.property(setting, fc.integer({ min: 0, max: 60 }), fc.integer({ min: 61, max: 100 }), (s, from, to) => {
        const limits = limitsOf(s);
        const whole = expectedStretch(limits, from, to, battery(s));
        const steps = 400;
        let sum = 0;
        for (let i = 0; i < steps; i++) {
          const level = from + ((to - from) * (i + 0.5)) / steps;
          sum += (60 * ((battery(s).usableKWh / 100 / 0.95) * (to - from))) / steps / (limits.kWAt(level)?.kW as number);
        }
        expect(Math.abs((whole.minutes as number) - sum)).toBeLessThan(0.2 + sum * 0.004);
        const mid = (from + to) / 2;
        const halves = [expectedStretch(limits, from, mid, battery(s)), expectedStretch(limits, mid, to, battery(s))];
        expect((halves[0]?.minutes as number) + (halves[1]?.minutes as number)).toBeCloseTo(whole.minutes as number, 9);
        expect(whole.heldBackBy.reduce((m, h) => m + (h.minutes as number), 0)).toBeCloseTo(whole.minutes as number, 9);
        expect(((whole.mean_kW as number) * (whole.minutes as number)) / 60).toBeCloseTo(whole.meter_kWh, 9);
        expect(levelAfter(limits, from, whole.minutes as number, battery(s))).toBeCloseTo(to, 6);
      }),
      { seed: 18, numRuns: 80 },
    );
  });

  it('a lower limit never gives more', () => {
    fc.assert(
      fc.property(setting, fc.integer({ min: 10, max: 200 }), fc.integer({ min: 0, max: 100 }), (s, deratedKW, level) => {
        const lower = limitsOf({ ...s, stall: { ...s.stall, deratedKW: Math.min(deratedKW, s.stall.deratedKW ?? 999) } });
        const [before, after] = [limitsOf(s).kWAt(level), lower.kWAt(level)];
        expect(after?.kW as number).toBeLessThanOrEqual((before?.kW as number) + 1e-9);
      }),
      { seed: 19, numRuns: 300 },
    );
  });

  it('advice is never worse than a plan it could have listed', () => {
    const asked: fc.Arbitrary<LeaveAsked> = fc.tuple(setting, setting, fc.integer({ min: 5, max: 70 }), fc.boolean()).map(([a, b, nowPct, extra]) => ({
      car: { ...a.car, usableKWh: a.car.usableKWh as number },
      here: { stall: a.stall },
      there: { stall: b.stall, handshake_min: 1.5, startShare: 0.8, loss_min: 12 },
      nowPct,
      mode: extra ? 'extra' : 'anyway',
      legs: { toThere: { km: 40, min: 30 }, thereToEnd: { km: 90, min: 60 }, direct: { km: 125, min: 84 } },
      kWhPer100km: 18,
      reservePct: 10,
    }));
    fc.assert(
      fc.property(asked, (a) => {
        const advice = whenToLeave(a);
        if (!advice.best) return expect(advice.shortByPct).toBeGreaterThanOrEqual(0);
        for (const t of advice.totalAt)
          for (const total of [t.via, t.direct]) if (total !== null) expect(advice.best.total_min).toBeLessThanOrEqual(total + 1e-9);
        expect(advice.leaveOk[0]).toBeLessThanOrEqual(advice.best.leavePct);
        expect(advice.leaveOk[1]).toBeGreaterThanOrEqual(advice.best.leavePct);
      }),
      { seed: 20, numRuns: 200 },
    );
  });
});
