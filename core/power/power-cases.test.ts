import interp from './fixtures/monotone-interp.json';
import power from './fixtures/power.json';
import { powerCase } from './fixtures/power-case';
import more from './fixtures/power-more.json';
import { curveAt, monotoneCurve } from './monotone-curve';

type Tolerance = { abs: number; rel: number };
/** Where two answers differ: figures by the tolerance of their case, words, true, false and null exactly. */
function differences(got: unknown, want: unknown, by: Tolerance, path = ''): string[] {
  if (typeof want === 'number' && typeof got === 'number')
    return Math.abs(got - want) <= Math.max(by.abs, by.rel * Math.abs(want)) ? [] : [`${path}: ${got}, not ${want}`];
  if (want === null || typeof want !== 'object') return got === want ? [] : [`${path}: ${JSON.stringify(got)}, not ${JSON.stringify(want)}`];
  if (got === null || typeof got !== 'object') return [`${path}: ${JSON.stringify(got)}, not ${JSON.stringify(want)}`];
  if (Array.isArray(want) && (got as unknown[]).length !== want.length) return [`${path}: ${JSON.stringify(got)} has not ${want.length} entries`];
  return Object.entries(want).flatMap(([key, w]) => differences((got as Record<string, unknown>)[key], w, by, `${path}.${key}`));
}

/** Of plans whose whole way takes as long, any may be named: their levels and what hangs on them are compared by their totals. */
type Plan = { leave_pct: number; total_min: number; money?: number } | null;
function asGoodAs(got: unknown, want: unknown): unknown {
  const [g, w] = [got as Record<string, unknown>, want as Record<string, unknown>];
  const [lo, hi] = (w.leave_ok_pct as [number, number] | undefined) ?? [Number.NaN, Number.NaN];
  const same = (a: unknown, b: unknown) => {
    const [x, y] = [a as Plan, b as Plan];
    return x && y && (x.leave_pct === y.leave_pct || (x.leave_pct >= lo && x.leave_pct <= hi) || Math.abs(x.total_min - y.total_min) <= 0.05)
      ? { ...(a as object), leave_pct: y.leave_pct, total_min: y.total_min }
      : a;
  };
  return { ...g, best: same(g.best, w.best), best_via: same(g.best_via, w.best_via), best_direct: same(g.best_direct, w.best_direct) };
}
const valueAt = (of: unknown, path: string): unknown => path.split('.').reduce<unknown>((v, key) => (v as Record<string, unknown> | undefined)?.[key], of);

describe('worked cases of power', () => {
  // Fixture: two methods that share no code; figures of the trade are common practice, no source.
  it.each(power.cases.map((c) => [c.id, c.title, c] as const))('%s: %s', (_id, _title, c) => {
    const got = powerCase(c);
    expect(differences(c.kind === 'leave' ? asGoodAs(got, c.expected) : got, c.expected, c.tolerance)).toEqual([]);
    for (const h of 'hand' in c ? (c.hand ?? []) : []) expect(Math.abs((valueAt(got, h.at) as number) - h.value)).toBeLessThanOrEqual(h.within);
  });
});

describe('further cases of power', () => {
  // Fixture: a second program that shares no code, from the same definitions.
  it.each(more.cases.map((c, i) => [i, c.kind, c] as const))('%d: %s', (_i, kind, c) => {
    const got = powerCase(c);
    expect(differences(kind === 'leave' ? asGoodAs(got, c.expected) : got, c.expected, more.tolerance)).toEqual([]);
  });
});

describe('monotone interpolation', () => {
  // Fixture: R 4.2.2, splinefun(method = "monoH.FC").
  it.each(interp.cases.map((c) => [c.label || c.id, c] as const))('R: %s', (_label, { inputs, expected }) => {
    const curve = monotoneCurve(inputs.x, inputs.y);
    const [first, last] = [inputs.x[0] as number, inputs.x.at(-1) as number];
    const y = inputs.xout.map(
      (x) =>
        curveAt(curve, x) ??
        (x < first
          ? (inputs.y[0] as number) + (x - first) * (curve.slopes[0] as number)
          : (inputs.y.at(-1) as number) + (x - last) * (curve.slopes.at(-1) as number)),
    );
    expect(differences({ y, slopes: curve.slopes }, expected, { abs: 1e-9, rel: 1e-9 })).toEqual([]);
  });
});
