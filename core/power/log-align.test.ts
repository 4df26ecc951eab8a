import { randomLcg } from 'd3-random';
import fc from 'fast-check';
import { alignLog, hasSession, isTold, keptSamples, type Look, type Sample, tapErrors } from './log-align';

/** A car of 60 kWh that tapers, at a stall of 120 kW, from 15 to 75 %: its power every five seconds. */
const CURVE: readonly (readonly [pct: number, kW: number])[] = [
  [0, 100],
  [20, 120],
  [50, 90],
  [80, 45],
];
const takes = (pct: number): number => {
  const i = CURVE.findIndex(([at]) => at > pct);
  const [[a, x], [c, y]] = [CURVE[i - 1] as readonly [number, number], CURVE[i] as readonly [number, number]];
  return x + ((y - x) * (pct - a)) / (c - a);
};
const truth: { t_s: number; kW: number }[] = [];
for (let [t_s, pct] = [0, 15]; pct < 75; t_s += 5) {
  const kW = takes(pct);
  truth.push({ t_s, kW });
  pct += ((kW * 5) / 3600 / 60) * 100;
}
const END = truth.at(-1)?.t_s as number;
/** What the recorder wrote, begun so long before power, every so many seconds. */
const logOf = (before_s: number, step_s = 2, noise = 0, random = randomLcg(0.5)): Sample[] =>
  Array.from({ length: Math.floor((before_s + END + 300) / step_s) }, (_, i) => {
    const t = i * step_s - before_s;
    const kW = t < 0 || t > END ? 0.2 : (truth.findLast((x) => x.t_s <= t)?.kW ?? 0);
    return { s: i * step_s, kW: kW + noise * (random() - 0.5) };
  });
/** What a driver read: whole kW, some seconds after they stood there. */
const looksAt = (times: readonly number[], late_s = 0): Look[] =>
  times.map((t) => ({ t_s: t + late_s, kW: Math.round(truth.findLast((x) => x.t_s <= t)?.kW ?? 0) }));
const SIX = [60, 240, 480, 720, 960, 1200].filter((t) => t < END);

describe('a log laid beside a session', () => {
  it.each([0, 37, 600, 5400])('is found where it was begun %s s before power', (before) => {
    const found = alignLog(looksAt(SIX), END, logOf(before));
    expect(Math.abs((found?.offset_s as number) + before)).toBeLessThan(10);
    expect(found && isTold(found)).toBe(true);
    expect(found?.looks).toBe(SIX.length);
  });
  it('with noise, and taps that come seconds late', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 3000 }), fc.integer({ min: 0, max: 8 }), fc.integer({ min: 1, max: 1_000_000 }), (before, late, seed) => {
        const found = alignLog(looksAt(SIX, late), END, logOf(before, 3, 6, randomLcg(seed / 1_000_001)));
        return found !== null && isTold(found) && Math.abs(found.offset_s + before) < 25;
      }),
      { numRuns: 40, seed: 7 },
    );
  });
  it('of a week is found beside a charge of ten hours, by when it began and ended', () => {
    const [end, before] = [36_000, 3 * 86_400];
    const week = Array.from({ length: (7 * 86_400) / 60 }, (_, i) => ({ s: i * 60, kW: i * 60 >= before && i * 60 <= before + end ? 10.8 : 0 }));
    const found = alignLog(
      [3600, 7200, 30_000].map((t_s) => ({ t_s, kW: 11 })),
      end,
      week,
    );
    expect(Math.abs((found?.offset_s as number) + before)).toBeLessThanOrEqual(60);
    expect(found && isTold(found)).toBe(true);
  });
  // Power that falls evenly to next to nothing fits itself wherever it is laid.
  const falls = (t_s: number): number => 120 - (110 * t_s) / END;
  const even = (from: number, to: number, step: number): Sample[] =>
    Array.from({ length: Math.floor((to - from) / step) + 1 }, (_, i) => ({ s: i * step, kW: falls(from + i * step) }));
  const seen = SIX.map((t_s): Look => ({ t_s, kW: Math.round(falls(t_s)) }));
  it.each([
    ['to the second', 0, 0, 2],
    ['a few seconds late', 15, 0, 2],
    ['at a line a minute', 0, 0, 60],
    ['with an end some seconds early', 0, 20, 5],
  ])('written only while it charged is found by where it begins and ends, %s', (_, late, early, step) => {
    const found = alignLog(seen, END, even(late, END - early, step));
    expect(Math.abs((found?.offset_s as number) - late)).toBeLessThan(35);
    expect(found && isTold(found)).toBe(true);
    expect(found?.looks).toBe(SIX.length);
  });
  it.each([
    ['begins', 60, 0],
    ['ends', 0, 60],
  ])('that %s in the midst of a charge has no edge there', (_, late, early) => {
    const found = alignLog(seen, END, even(late, END - early, 2));
    expect(found && isTold(found)).toBe(false);
  });
  it.each([2, 15, 60])('with a line every %i s is told rightly or not at all, and always where it has both ends of the charge', (step) => {
    const shapes: ((t_s: number) => number)[] = [
      falls,
      () => 50,
      (t) => 120 - (40 * t) / END,
      (t) => (t < 500 ? 120 : 120 - (100 * (t - 500)) / 800),
      (t) => 60 + 60 * Math.min(1, t / 600),
    ];
    const parts = [
      [0, 0],
      [20, 0],
      [60, 0],
      [120, 0],
      [300, 0],
      [0, 60],
      [0, 200],
      [200, 200],
      [-100, 0],
      [-100, -100],
      [-100, 100],
      [100, -100],
      [-20, 40],
    ] as const;
    const odd = shapes.flatMap((f, shape) =>
      parts.flatMap(([late, early]) => {
        const log = Array.from({ length: Math.floor((END - late - early) / step) + 1 }, (_, i): Sample => {
          const t = late + i * step;
          return { s: i * step, kW: t < 0 || t > END ? 0.2 : f(t) };
        });
        const looks = SIX.map((t_s): Look => ({ t_s, kW: Math.round(f(t_s)) }));
        const found = alignLog(looks, END, log);
        const told = found !== null && isTold(found);
        const right = told && Math.abs(found.offset_s - late) <= Math.max(30, step);
        return (told && !right) || (late < 0 && early < 0 && !told) ? [{ shape, late, early, found }] : [];
      }),
    );
    expect(odd).toEqual([]);
  });
  it.each([2, 30])('of several charges with nothing written between, a line every %i s, is told rightly or not at all', (step) => {
    const shapes: ((t_s: number) => number)[] = [falls, () => 50, (t) => (t < 500 ? 120 : 120 - (100 * (t - 500)) / 800)];
    let told = 0;
    const odd = shapes.flatMap((f, own) =>
      shapes.flatMap((other, beside) =>
        [700, 3600].flatMap((gap) => {
          const log: Sample[] = [];
          let [s, lies] = [0, 0];
          for (const [k, long] of [900, END, 1500].entries()) {
            if (k === 1) lies = s;
            for (let t = 0; t <= long; t += step) log.push({ s: s + t, kW: k === 1 ? f(t) : other((t * END) / long) });
            s += long + gap;
          }
          const looks = SIX.map((t_s): Look => ({ t_s, kW: Math.round(f(t_s)) }));
          const found = alignLog(looks, END, log);
          if (!found || !isTold(found)) return [];
          told += 1;
          return Math.abs(found.offset_s + lies) <= 30 ? [] : [{ own, beside, gap, found, lies }];
        }),
      ),
    );
    expect(odd).toEqual([]);
    expect(told).toBeGreaterThan(5);
  });
  it('that is of another charge is not told to belong there', () => {
    const other = logOf(100).map((s, i) => ({ ...s, kW: 40 + 30 * Math.sin(i / 25) }));
    const found = alignLog(looksAt(SIX), END, other);
    expect(found === null || !isTold(found)).toBe(true);
  });
  it('of a power that never changes tells no place', () => {
    const flat = logOf(100).map((s) => ({ ...s, kW: 50 }));
    const found = alignLog(
      SIX.map((t) => ({ t_s: t, kW: 50 })),
      END,
      flat,
    );
    expect(found === null || !isTold(found)).toBe(true);
  });
  it('asks for three looks, for some of the session, and for power', () => {
    expect(alignLog(looksAt(SIX.slice(0, 2)), END, logOf(60))).toBeNull();
    expect(alignLog(looksAt(SIX), END, logOf(0).slice(0, Math.floor(END / 8)))).toBeNull();
    expect(
      alignLog(
        looksAt(SIX),
        END,
        logOf(60).map(({ s }) => ({ s })),
      ),
    ).toBeNull();
    expect(alignLog(looksAt(SIX), 0, logOf(60))).toBeNull();
    expect(alignLog([], END, [])).toBeNull();
  });
});

describe('the error of each tap', () => {
  it('is seconds at the edges, and kW at each look', () => {
    // Power was tapped 7 s late and the end 12 s late: on the session's own line the log begins before it.
    const late = 7;
    const log = logOf(100, 1);
    const errors = tapErrors([{ t_s: 240 - late, kW: 100 }], END - late + 12, log, -100 - late);
    expect(errors.power_s).toBeCloseTo(late, 5);
    expect(errors.end_s).toBeCloseTo(12, 0);
    expect(errors.looks).toHaveLength(1);
    expect(errors.looks[0]?.log_kW).toBeCloseTo(truth.findLast((x) => x.t_s <= 240)?.kW as number, 0);
  });
  it('edges that the log does not have are not told; a pause is none', () => {
    const inside = logOf(0, 1).filter((s) => s.s > 30 && s.s < END - 30);
    expect(tapErrors([], END, inside, 0)).toEqual({ power_s: null, end_s: null, looks: [] });
    const paused = logOf(100, 1).map((s) => (s.s > 500 && s.s < 560 ? { ...s, kW: 0 } : s));
    expect(tapErrors([], END, paused, -100).power_s).toBeCloseTo(0, 5);
    expect(tapErrors([], END, paused, -100).end_s).toBeCloseTo(0, 0);
  });
});

describe('an edge of a log, and a place that is told', () => {
  // Power flows in the log from one moment to another, a sample a second; the session was tapped from 0 to 1000 s.
  const edges = (from: number, to: number, kW = 1) =>
    tapErrors(
      [],
      1000,
      Array.from({ length: 1601 }, (_, i) => ({ s: i - 300, kW: i - 300 >= from && i - 300 <= to ? kW : 0.9 })),
      0,
    );
  it('is one within two minutes of its tap, where a kilowatt begins or ends', () => {
    expect([edges(-120, 1120), edges(-121, 1121)].map((e) => [e.power_s, e.end_s])).toEqual([
      [120, -120],
      [null, null],
    ]);
    expect(edges(3, 990, 0.99)).toMatchObject({ power_s: null, end_s: null });
    // Each edge on its own side of the middle.
    expect([edges(499, 501), edges(500, 500)].map((e) => [e.power_s, e.end_s])).toEqual([
      [-499, 499],
      [null, null],
    ]);
  });
  it('looks within the session are held against it, where the log has power then', () => {
    const log = [0, 500, 1000, 1001].map((s) => ({ s, ...(s === 500 ? {} : { kW: 50 }) }));
    const looks = [-1, 0, 1000, 1001].map((t_s) => ({ t_s, kW: 48 }));
    expect(tapErrors(looks, 1000, log, 0).looks).toEqual([0, 1000].map((t_s) => ({ t_s, kW: 48, log_kW: 50 })));
    expect(tapErrors(looks, 1000, [], 0).looks).toEqual([]);
    expect(
      tapErrors(
        looks,
        1000,
        [
          { s: 990, kW: 50 },
          { s: 995, kW: 50 },
        ],
        0,
      ).looks,
    ).toEqual([]);
  });
  it('is told from r 0.8 on, three hundredths ahead of any other', () => {
    const told = (r: number, next: number) => isTold({ offset_s: 0, looks: 6, r, next });
    expect([told(0.8, 0.5), told(0.79, 0.5), told(0.9, 0.87), told(0.9, 0.88), told(0.9, -1)]).toEqual([true, false, true, false, true]);
  });
});

describe('what is kept of a log', () => {
  it('is of a session where power flows for half of what the log has within it', () => {
    const log = (...kWs: (number | undefined)[]) => kWs.map((kW, i) => ({ s: i, kW }));
    const has = (...kWs: (number | undefined)[]) => hasSession(log(...kWs), 0, 5);
    // At 0 and from 5 on is outside; what is not told is not looked at.
    expect([has(0, 1, 1, 0, 0), has(9, 1, 0.9, 0, 0, 9), has(0, 1, 0, undefined, undefined)]).toEqual([true, false, true]);
    expect([has(9, undefined, undefined), has()]).toEqual([false, false]);
    expect([hasSession(log(0, 9, 9), 4, 5), hasSession(log(9, 0, 0), 4, 5)]).toEqual([false, true]);
  });
  it('lies within the session, at least ten seconds apart, three hundred at most', () => {
    const kept = keptSamples(logOf(100, 1), -100, END);
    expect(kept.every((s) => s.t_s > 0 && s.t_s < END)).toBe(true);
    expect(kept.slice(1).every((s, i) => s.t_s - (kept[i]?.t_s as number) >= 10)).toBe(true);
    expect(kept.length).toBeGreaterThan(END / 10 - 3);
    expect(
      keptSamples(
        Array.from({ length: 40_000 }, (_, i) => ({ s: i, kW: 3 })),
        0,
        40_000,
      ).length,
    ).toBe(299);
    expect(keptSamples(logOf(100, 1), 90_000, END)).toEqual([]);
  });
});
