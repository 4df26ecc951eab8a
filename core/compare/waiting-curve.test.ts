import type { AttemptRow, VisitRow } from './visit-row';
import { LEAST_WAITS, waitingCurves } from './waiting-curve';

const power = (s: number, more: Partial<AttemptRow> = {}): AttemptRow => ({ outcome: 'power', endMark: 'kW', late: false, handshake: s, ...more });
const failed: AttemptRow = { outcome: 'failed', endMark: null, late: false, handshake: null };
const visit = (networkId: string, ...attempts: AttemptRow[]) => ({ networkId, leftOut: false, attempts }) as unknown as VisitRow;
const ASKED = { time: 'handshake', mark: 'kW' } as const;
const of = (...visits: VisitRow[]) => waitingCurves(visits, ASKED);

describe('curves of waiting', () => {
  it('fall at each start, and level off at the share that never got power', () => {
    const { curves, horizon_s, marks_s, tooFew } = of(visit('A', power(10), power(20), power(30)), visit('A', failed, power(40)));
    expect(curves).toHaveLength(1);
    expect(curves[0]).toMatchObject({ group: 'A', starts: 5, never: 1, median: 30, limits: null });
    expect(curves[0]?.steps.map((s) => [s.time, Number(s.still.toFixed(6))])).toEqual([
      [10, 0.8],
      [20, 0.6],
      [30, 0.4],
      [40, 0.2],
    ]);
    expect([horizon_s, marks_s, tooFew]).toEqual([60, [0, 10, 20, 30, 40, 50, 60], 0]);
    expect(curves[0]?.marks.map((m) => [Number(m.still.toFixed(6)), m.atRisk])).toEqual([
      [1, 5],
      [0.8, 5],
      [0.6, 4],
      [0.4, 3],
      [0.2, 2],
      [0.2, 1],
      [0.2, 1],
    ]);
  });
  it('six and more have limits of the median; where half never got power it is beyond what was seen', () => {
    const six = of(visit('A', ...[10, 20, 30, 40, 50, 60].map((s) => power(s)))).curves[0];
    expect(six?.median).toBe(35);
    expect(six?.limits?.[0]).toBeGreaterThan(0);
    expect(of(visit('A', power(10), power(20), failed, failed, failed)).curves[0]?.median).toBeNull();
    expect(of(visit('A', failed, failed, failed, failed, failed, failed)).curves[0]).toMatchObject({ never: 6, steps: [], median: null, limits: [null, null] });
  });
  it('hold what was timed by this definition and mark alone, of visits that are compared', () => {
    const { curves } = of(
      visit('A', ...[10, 20, 30, 40].map((s) => power(s)), power(50, { late: true }), power(60, { endMark: 'kWh' }), { ...failed, outcome: 'open' }),
      { ...visit('A', power(1)), leftOut: true },
    );
    expect(curves).toEqual([]);
  });
  it('one that was left without an outcome is in it until then: it was still waiting, and no more is known', () => {
    const left = (s: number): AttemptRow => ({ outcome: 'open', endMark: null, late: false, handshake: null, openFor: s });
    const curve = of(visit('A', power(10), left(15), power(20), power(30), failed)).curves[0];
    expect(curve).toMatchObject({ starts: 5, never: 1, open: 1 });
    // Kaplan–Meier by hand: 4/5; then of three at risk 2/3; then 1/2.
    expect(curve?.steps.filter((s) => [10, 20, 30].includes(s.time)).map((s) => Number(s.still.toFixed(6)))).toEqual([0.8, 0.533333, 0.266667]);
    // By another definition it is not known since when it waited.
    expect(waitingCurves([visit('A', ...[1, 2, 3, 4, 5].map((s) => power(s, { setUp: s })), left(15))], { time: 'setUp', mark: 'kW' }).curves[0]).toMatchObject(
      { starts: 5, open: 0 },
    );
  });
  it('too few draw none and are counted; the four most visited stand in order', () => {
    const many = (id: string, n: number) => visit(id, ...Array.from({ length: n }, (_, i) => power(10 + i)));
    const { curves, tooFew } = of(many('E', 5), many('B', 8), many('F', LEAST_WAITS - 1), many('A', 9), many('C', 7), many('D', 6));
    expect(curves.map((c) => c.group)).toEqual(['A', 'B', 'C', 'D']);
    expect(tooFew).toBe(1);
    expect(of()).toMatchObject({ curves: [], tooFew: 0 });
  });
  it('of equally many the order is that of the ids, and a network without a wait is not there', () => {
    const five = (id: string) => visit(id, ...[50, 40, 30, 20, 10].map((s) => power(s)));
    const { curves, tooFew } = of(five('B'), visit('C'), five('A'), visit('D', { ...failed, outcome: 'open' }));
    expect([curves.map((c) => c.group), tooFew]).toEqual([['A', 'B'], 0]);
    expect(of(five('A'), five('B')).curves.map((c) => c.group)).toEqual(['A', 'B']);
  });
  it('end at a round time that nine of ten starts fit in, whatever order they came in', () => {
    const horizon = (...s: number[]) => of(visit('A', ...s.map((x) => power(x)))).horizon_s;
    expect(horizon(30, 30, 30, 30, 30)).toBe(30);
    expect(horizon(31, 30, 30, 30, 30)).toBe(60);
    expect(horizon(30, 30, 30, 30, 31)).toBe(60);
    expect(horizon(100, 9, 8, 10, 7, 90, 6)).toBe(180);
  });
  it('limits beyond what was seen are said to be so', () => {
    const { median, limits } = of(visit('A', ...[10, 20, 30, 40].map((s) => power(s)), failed, failed, failed)).curves[0] as never as {
      median: number;
      limits: (number | null)[];
    };
    expect(median).toBe(40);
    expect(limits[1]).toBeNull();
  });
  it('one start that took an hour does not press the rest into a corner', () => {
    const { horizon_s } = of(visit('A', ...Array.from({ length: 19 }, (_, i) => power(20 + i)), power(3600)));
    expect(horizon_s).toBe(60);
    expect(of(visit('A', ...Array.from({ length: 9 }, () => power(4000)))).horizon_s).toBe(3600);
  });
});
