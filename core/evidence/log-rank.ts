import type { Wait } from './still-waiting';
import { chiSquareAbove } from './tails';

/** `null`: not defined. */
export type LogRank = { chiSquare: number | null; df: number | null; p: number | null; observed: number[]; expected: number[] };

/**
 * Solves A x = b by elimination with the greatest pivot; `null` where A is singular.
 */
function solved(a: readonly (readonly number[])[], b: readonly number[]): number[] | null {
  const n = b.length;
  const rows = a.map((row, i) => [...row, b[i] as number]);
  const scale = Math.max(...rows.flat().map(Math.abs), 0);
  for (let i = 0; i < n; i++) {
    const at = rows.reduce((best, row, r) => (r >= i && Math.abs(row[i] as number) > Math.abs(rows[best]?.[i] ?? 0) ? r : best), i);
    [rows[i], rows[at]] = [rows[at] as number[], rows[i] as number[]];
    const pivot = rows[i] as number[];
    if (Math.abs(pivot[i] as number) <= 1e-12 * scale) return null;
    for (let r = 0; r < n; r++) {
      if (r === i) continue;
      const row = rows[r] as number[];
      const times = (row[i] as number) / (pivot[i] as number);
      for (let c = i; c <= n; c++) row[c] = (row[c] as number) - times * (pivot[c] as number);
    }
  }
  return rows.map((row, i) => (row[n] as number) / (row[i] as number));
}

/**
 * Whether groups of waits end alike: unweighted log-rank with the hypergeometric variance.
 * A group at risk at no event is left out. No event anywhere: df and p are not defined; all at one moment: neither chi-square nor p.
 * Source: N. Mantel, Cancer Chemotherapy Reports 50 (1966); R. Peto & J. Peto, JRSS A 135 (1972); as survival::survdiff(rho = 0).
 */
export function logRank(groups: readonly (readonly Wait[])[]): LogRank {
  const sorted = groups.map((g) => [...g].sort((a, b) => a.time - b.time));
  const ended = new Set<number>();
  for (const g of sorted) for (const w of g) if (w.event) ended.add(w.time);
  const times = [...ended].sort((a, b) => a - b);
  const observed = groups.map((g) => g.filter((w) => w.event).length);
  const expected = groups.map(() => 0);
  const variance = groups.map(() => groups.map(() => 0));
  /** How many of each group are over before the time that is looked at. */
  const past = groups.map(() => 0);
  for (const time of times) {
    let d = 0;
    const atRisk = sorted.map((g, i) => {
      let at = past[i] as number;
      while (at < g.length && (g[at] as Wait).time < time) at += 1;
      past[i] = at;
      for (let j = at; j < g.length && (g[j] as Wait).time === time; j++) if ((g[j] as Wait).event) d += 1;
      return g.length - at;
    });
    const n = atRisk.reduce((a, b) => a + b, 0);
    const spread = n > 1 ? (d * (n - d)) / (n - 1) : 0;
    for (const [i, ni] of atRisk.entries()) {
      expected[i] = (expected[i] as number) + (d * ni) / n;
      for (const [j, nj] of atRisk.entries()) {
        const row = variance[i] as number[];
        row[j] = (row[j] as number) + spread * ((i === j ? ni / n : 0) - (ni * nj) / (n * n));
      }
    }
  }
  const used = groups.map((_, i) => i).filter((i) => (expected[i] as number) > 0);
  if (used.length === 0) return { chiSquare: 0, df: null, p: null, observed, expected };
  const df = used.length - 1;
  // They add to nothing: one of them says no more.
  const free = used.slice(1);
  const off = free.map((i) => (observed[i] as number) - (expected[i] as number));
  const x = solved(
    free.map((i) => free.map((j) => variance[i]?.[j] as number)),
    off,
  );
  if (x === null || df === 0) return { chiSquare: df === 0 ? 0 : null, df, p: null, observed, expected };
  const chiSquare = x.reduce((sum, v, i) => sum + v * (off[i] as number), 0);
  return { chiSquare, df, p: chiSquareAbove(chiSquare, df), observed, expected };
}
