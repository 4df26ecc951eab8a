import { session, standsAt } from './fixtures/past-session';
import type { OwnCurve } from './own-curve';
import { classesOf, curvesLearnt, curveToJudgeBy, joinedCurve, type PastSession } from './past-sessions';

describe('the second rapid charge of a day', () => {
  const classes = (...all: PastSession[]) => [...classesOf(all)].map(([p, c]) => [p.visitId, c]);
  const at = (visitId: string, t: number, more: Partial<PastSession> = {}, looks: Partial<PastSession['looks']> = {}) =>
    session(18, { visitId, at: t, ...more }, looks);
  it('is told in the order of time, whatever the weather', () => {
    expect(classes(at('late', 9, {}, { klass: 'cold' }), at('early', 1))).toEqual([
      ['early', 'usual'],
      ['late', 'second'],
    ]);
    expect(classes(at('b', 1, { n: 2 }), at('a', 1))).toEqual([
      ['a', 'usual'],
      ['b', 'second'],
    ]);
  });
  it('is of one car and one day', () => {
    expect(classes(at('1', 1), at('2', 2, { carId: 'd' }), at('3', 3, { day: '2025-10-02' })).map(([, c]) => c)).toEqual(['usual', 'usual', 'usual']);
  });
  it.each([
    ['5 kWh at 43 kW', { kWh: 5, peak_kW: 43 }, 'second'],
    ['less than 5 kWh', { kWh: 4.9 }, 'usual'],
    ['less than 43 kW', { peak_kW: 42.9 }, 'usual'],
    ['kWh not known', { kWh: null }, 'usual'],
    ['power not read', { peak_kW: null }, 'usual'],
  ])('after one of %s', (_what, first, then) => {
    expect(classes(at('1', 1, {}, first), at('2', 2))[1]).toEqual(['2', then]);
  });
});

describe('what sessions teach', () => {
  const LOOKS = [22, 37, 52].map((pct, i) => [100 + 300 * i, pct, 90 - i] as const);
  const taught = (...more: Partial<PastSession>[]) =>
    more.map((m, i) => session(18, { visitId: String(i), day: `2025-10-0${i + 1}`, ...m }, { looks: LOOKS, ...m.looks }));
  it('comes from DC sessions with what they stood at, and of the class that is asked for', () => {
    const curve = (all: PastSession[], klass: 'usual' | 'cold' = 'usual', except?: string) => curvesLearnt(all)(klass, except).curve;
    expect(curve(taught({}, {}, {}))).toEqual([
      [22.5, 90],
      [37.5, 89],
      [52.5, 88],
    ]);
    expect(curve(taught({}, {}, { stands: null }))).toEqual([]);
    expect(curve(taught({}, {}, { stands: standsAt('ac') }))).toEqual([]);
    expect(curve(taught({}, {}, {}), 'cold')).toEqual([]);
    expect(curve(taught({}, {}, {}, { networkId: 'n2' }), 'usual', 'n2')).toHaveLength(3);
    expect(curve(taught({}, {}, {}, { networkId: 'n2' }), 'usual', 'n1')).toEqual([]);
    expect(curvesLearnt(taught({}, { networkId: 'n2' }))('usual').sessionsUsed).toEqual(['0 1', '1 1']);
  });
  it('not from a look at which something else was the limit', () => {
    const limited = taught({}, {}, {}).map((p) => ({ ...p, looks: { ...p.looks, looks: [...p.looks.looks, [900, 62, 145] as const] } }));
    // 145 kW are within a twentieth of the plate’s 150.
    expect(curvesLearnt(limited)('usual').curve.map(([pct]) => pct)).toEqual([22.5, 37.5, 52.5]);
  });
});

describe('a learnt curve', () => {
  const typed = [
    [0, 100],
    [20, 100],
    [40, 90],
    [60, 50],
    [100, 10],
  ] as const;
  const points = [
    [20, 80],
    [40, 70],
    [60, 60],
  ] as const;
  const learnt = (curve: OwnCurve['curve']): OwnCurve => ({ sessionsUsed: ['1', '2'], bins: [], curve });
  it('goes on below and above by what was typed', () => {
    expect(joinedCurve(points, typed)).toEqual([[0, 100], ...points, [100, 10]]);
    expect(joinedCurve([], typed)).toBe(typed);
    expect(joinedCurve(points, [])).toEqual(points);
  });
  it('judges what lies within ten per cent of its points, else the typed one does, else none', () => {
    const by = (within: [number, number] | null, own = learnt(points), known: typeof typed | readonly [] = typed) => curveToJudgeBy(own, known, within).by;
    expect(by([10, 70])).toEqual({ from: 'learnt', sessions: 2 });
    expect(by([9.9, 70])).toEqual({ from: 'typed' });
    expect(by([10, 70.1])).toEqual({ from: 'typed' });
    expect(by(null)).toEqual({ from: 'typed' });
    expect(by([30, 35], learnt(points.slice(0, 2)))).toEqual({ from: 'typed' });
    expect(by([30, 35], learnt([]))).toEqual({ from: 'typed' });
    expect(by([9, 70], learnt(points), [])).toBeNull();
    expect(curveToJudgeBy(learnt(points), typed, [9, 70]).points).toBe(typed);
  });
});
