import type { Condition } from './charge-conditions';
import { type LimitStall, limitsOf } from './limits';
import { type ChartPoint, chartLine, chartOf, chartTop, kWOn, limitLine, lineFrom } from './power-chart';
import { type SeriesReading, seriesOf } from './series';
import type { SessionPower } from './session-power';

/** From 20 % on, ten per cent in six minutes, 62 kW; read every ten per cent. */
const READINGS: SeriesReading[] = [0, 1, 2, 3, 4].map((i) => ({ t_s: i * 360, from: 'stall', socPct: 20 + 10 * i, kW: 62, kWh: 6.2 * i }));
const CHARGE = { readings: READINGS, end: { t_s: 1440, kWh: 24.8 } };
const series = seriesOf(CHARGE);
const session = (more: Partial<SessionPower> = {}): SessionPower =>
  ({ n: 1, series, readings: READINGS, conditions: [], events: [], limits: null, curveBy: null, held: [], ...more }) as unknown as SessionPower;
const condition = (what: Condition['what'], from: number | null, to: number | null, more: Partial<Condition> = {}): Condition => ({
  what,
  from,
  to,
  noted: 'during',
  kW: null,
  ...more,
});

describe('the line of a charge', () => {
  it('passes every reading, with even steps between, to the end and not beyond', () => {
    const { label, points } = chartLine(series, 'Lipa Barn');
    expect(label).toBe('Lipa Barn');
    expect(points[0]).toMatchObject({ min: 0, socPct: 20, kWh: 0 });
    expect(points.at(-1)).toMatchObject({ min: 24, socPct: 60, kWh: 24.8 });
    const at = (min: number) => points.find((p) => Math.abs(p.min - min) < 1e-9);
    for (const [i, r] of READINGS.entries()) expect(at(i * 6)).toMatchObject({ socPct: r.socPct, kW: 62 });
    // Half way between two looks, by arithmetic.
    expect(at(3)?.socPct).toBeCloseTo(25, 9);
    expect(at(3)?.kWh).toBeCloseTo(3.1, 9);
    expect(points.map((p) => p.min)).toEqual([...points.map((p) => p.min)].sort((a, b) => a - b));
    expect(points.length).toBeGreaterThanOrEqual(240);
    expect(points.length).toBeLessThan(260);
  });
  it('has a dot for each look at the power, and where volts or amps were read', () => {
    const { looks } = chartLine(series, '', [{ t_s: 360, V: 380 }, { t_s: 720, A: 160 }, { t_s: 1080 }, { t_s: 1440, V: 400, A: 155 }]);
    expect(looks.filter((l) => l.kW !== null).map((l) => [l.min, l.socPct, l.kW, l.V, l.A])).toEqual(
      [0, 6, 12, 18, 24].map((min, i) => [min, 20 + 10 * i, 62, null, null]),
    );
    expect(looks.filter((l) => l.kW === null)).toEqual([
      { min: 6, socPct: 30, kW: null, V: 380, A: null },
      { min: 12, socPct: 40, kW: null, V: null, A: 160 },
      { min: 24, socPct: 60, kW: null, V: 400, A: 155 },
    ]);
    expect(chartLine(series, '').looks).toHaveLength(5);
  });
  it('has pauses in its minutes, and nothing flows in them', () => {
    const paused = seriesOf({
      readings: READINGS.map((r) => (r.t_s < 720 ? r : { ...r, t_s: r.t_s + 600 })),
      pauses: [[400, 1000]],
      end: { t_s: 2040, kWh: 24.8 },
    });
    const { points } = chartLine(paused, '');
    expect(points.at(-1)).toMatchObject({ min: 34, socPct: 60 });
    expect(points.find((p) => Math.abs(p.min - 22) < 1e-9)).toMatchObject({ socPct: 40 });
  });
  it('draws no power of one step of the meter: it would be a peak that never was', () => {
    // The first tenth after two seconds would be 180 kW. Of six minutes it is as good as its neighbours.
    const kWs = (readings: SeriesReading[], end?: { t_s: number; kWh?: number }) =>
      chartLine(seriesOf({ readings, end }), '').points.map((p) => [p.how, p.kW === null ? null : Math.round(p.kW)] as const);
    const metered = (...looks: [number, number][]) => looks.map(([t_s, kWh]) => ({ t_s, from: 'stall' as const, kWh }));
    const first = kWs(metered([2, 0.1], [360, 6.2]));
    expect(first[0]).toEqual(['not_read', null]);
    expect(Math.max(...first.map(([, kW]) => kW ?? 0))).toBe(61);
    expect(kWs(metered([360, 6.2])).every(([how, kW]) => how === 'meter' && kW === 62)).toBe(true);
    // Two steps are worth a line; what the bill says to the watt-hour makes the screen no finer.
    expect(kWs(metered([12, 0.2], [360, 6.2]))[0]).toEqual(['meter', 60]);
    expect(kWs(metered([2, 0.1], [360, 6.2]), { t_s: 400, kWh: 6.905 })[0]).toEqual(['not_read', null]);
    // A meter of whole kWh; one that stands still says so; and little in all is little.
    expect(kWs(metered([60, 1], [120, 2], [240, 4]))[0]).toEqual(['not_read', null]);
    expect(kWs(metered([360, 6.2], [500, 6.2])).at(-1)).toEqual(['meter', 0]);
    expect(kWs([], { t_s: 360, kWh: 0.1 })[0]).toEqual(['not_read', null]);
    expect(kWs([], { t_s: 360, kWh: 0.62 })[0]).toEqual(['meter', 6]);
  });
  it('ends at the last reading where no end was seen, and of nothing read is one point', () => {
    expect(chartLine(seriesOf({ readings: READINGS.slice(0, 3) }), '').points.at(-1)).toMatchObject({ min: 12, socPct: 40 });
    expect(chartLine(seriesOf({ readings: [] }), '').points).toEqual([{ min: 0, socPct: null, kW: null, kWh: 0, how: expect.anything() }]);
  });
});

describe('what is laid over it', () => {
  const stall: LimitStall = { kind: 'dc', plateKW: 100 };
  const limits = limitsOf({
    car: {
      curve: [
        [0, 120],
        [50, 120],
        [100, 20],
      ],
    },
    stall,
  });
  it('the limits corner by corner, within the stretch that is asked for', () => {
    // The car falls from 120 kW at half full by 2 kW for each per cent: at 60 % it meets the plate.
    const whole = limitLine(limits, 0, 100);
    expect(whole[0]).toEqual([0, 100]);
    expect(whole.at(-1)).toEqual([100, 20]);
    const near = (list: readonly (readonly [number, number])[]) => list.map(([pct, kW]) => [Number(pct.toFixed(6)), Number(kW.toFixed(6))]);
    expect(near(limitLine(limits, 70, 80))).toEqual([
      [70, 80],
      [80, 60],
    ]);
    expect(near(whole)).toContainEqual([60, 100]);
    expect(limitLine(limits, 80, 80)).toEqual([]);
  });
  it('gives a figure at each level, and is cut where the picture begins', () => {
    const line = limitLine(limits, 0, 100);
    expect([0, 30, 60, 70, 100].map((pct) => Number(kWOn(line, pct)?.toFixed(6)))).toEqual([100, 100, 100, 80, 20]);
    expect([kWOn(line, 101), kWOn([], 50), kWOn(line.slice(1), -1)]).toEqual([null, null, null]);
    expect(
      kWOn(
        [
          [20, 50],
          [20, 80],
        ],
        20,
      ),
    ).toBe(50);
    expect(lineFrom(line, 70)[0]?.map((x) => Number(x.toFixed(6)))).toEqual([70, 80]);
    expect(lineFrom(line, 70).at(-1)).toEqual([100, 20]);
    expect(lineFrom(line, 0)[0]).toEqual([0, 100]);
    // One that begins later begins there.
    expect(
      lineFrom(
        [
          [40, 60],
          [50, 50],
        ],
        30,
      ),
    ).toEqual([
      [40, 60],
      [50, 50],
    ]);
  });
  it('says by what car and stall are held to it', () => {
    const all = { all: limits } as SessionPower['limits'];
    expect(chartOf(session(), 'x', [])).toMatchObject({ expected: [], expectedText: 'car and stall can' });
    expect(chartOf(session({ limits: all, curveBy: { from: 'typed' } }), 'x', []).expectedText).toBe('car and stall can, by the typed curve');
    const learnt = chartOf(session({ limits: all, curveBy: { from: 'learnt', sessions: 4 } }), 'x', []);
    expect(learnt.expectedText).toBe('car and stall can, by 4 sessions');
    expect(learnt.expected).toEqual(limitLine(limits, 0, 100));
  });
  it('what held it back, where it lies along both axes', () => {
    const held = [{ by: 'car_curve', text: 'car', evidence: 'fits', sure: 'fits', kW: 62, minutes: 1, from: 25, to: 45 }] as unknown as SessionPower['held'];
    expect(chartOf(session({ held }), 'x', []).held).toEqual([{ by: 'car_curve', text: 'car', evidence: 'fits', from: 25, to: 45, fromMin: 3, toMin: 15 }]);
    const beyond = [{ ...held[0], from: 10, to: 90 }] as unknown as SessionPower['held'];
    expect(chartOf(session({ held: beyond }), 'x', []).held[0]).toMatchObject({ fromMin: 0, toMin: null });
  });
  it('other charges beneath, after its own', () => {
    const other = chartLine(series, 'other');
    expect(chartOf(session(), 'own', [other]).lines.map((l) => l.label)).toEqual(['own', 'other']);
  });
  it('what was noted, as it began and as it ended within the charge', () => {
    const marks = (...conditions: Condition[]) => chartOf(session({ conditions }), 'x', []).marks.map((m) => [m.text, m.socPct, m.min]);
    expect(marks(condition('neighbour', 25, 45))).toEqual([
      ['Neighbour plugs in', 25, 3],
      ['Neighbour leaves', 45, 15],
    ]);
    expect(marks(condition('climate', 25, 60))).toEqual([['Heating or cooling on', 25, 3]]);
    expect(marks(condition('derate', 30, 40), condition('cold', 20, 60), condition('hot', 20, 60))).toEqual([
      ['Derated', 30, 6],
      ['Cold noted', 20, 0],
    ]);
    // One that was there before is seen to leave, and not to come.
    expect(marks(condition('neighbour', 20, 45, { noted: 'on arrival' }))).toEqual([['Neighbour leaves', 45, 15]]);
    expect(marks(condition('neighbour', 20, 60, { noted: 'on arrival' }))).toEqual([]);
    // What else was noted stands where the clock was: in a pause the battery stands still.
    const events = [
      { text: 'Paused', t_s: 300, socPct: 28 },
      { text: 'Resumed', t_s: 900, socPct: 28 },
      { text: 'Rain', t_s: 960, socPct: null },
    ];
    expect(chartOf(session({ events }), 'x', []).marks).toEqual([
      { text: 'Paused', socPct: 28, min: 5 },
      { text: 'Resumed', socPct: 28, min: 15 },
      { text: 'Rain', socPct: null, min: 16 },
    ]);
    expect(marks(condition('climate', null, null))).toEqual([['Heating or cooling on', null, null]]);
  });
});

describe('the highest power that is shown', () => {
  const points = (how: ChartPoint['how'], ...kWs: (number | null)[]) => kWs.map((kW, min): ChartPoint => ({ min, socPct: null, kW, kWh: null, how }));
  const top = (expected: readonly (readonly [number, number])[], ...lines: ChartPoint[][]) =>
    chartTop({ expected, lines: lines.map((of) => ({ label: '', points: of, looks: [] })) });
  it('is the highest of what was read and what car and stall can', () => {
    expect(top([[20, 120]], points('read', 62, null, 90))).toEqual({ highest: 120, beyond: null });
    expect(top([[20, 50]], points('read', 62), points('VxA', 200))).toEqual({ highest: 200, beyond: null });
    expect(top([])).toEqual({ highest: 0, beyond: null });
  });
  it('leaves out what a mistyped meter makes, and says so; without anything to hold it against nothing is left out', () => {
    const mistyped = points('meter', 61, 7_000_000, 360);
    expect(top([[20, 120]], mistyped)).toEqual({ highest: 360, beyond: 7_000_000 });
    expect(top([[20, 119]], mistyped)).toEqual({ highest: 119, beyond: 7_000_000 });
    expect(top([], points('read', 400, 7_000_000), mistyped)).toEqual({ highest: 7_000_000, beyond: null });
    expect(top([], mistyped)).toEqual({ highest: 7_000_000, beyond: null });
  });
});
