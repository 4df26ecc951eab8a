import type { Timed } from './device-line';
import { canBeSameAct, seenByMany } from './same-act';

/** How far a device's line is ahead of the recorder's, ms, and how well that is known, seconds. */
export type ClockOffset = { ms: number; pm_s: number };

/** Acts agree on one offset when they differ by no more: the one looks a little later than the other. */
const AGREE_MS = 5000;
/** Whoever looks on looks later than the recorder by so much, with the same clock. Common practice, no source. */
const LATE_LOOK_MS = 10_000;
/** Fewer acts than this say nothing of a clock: one person may have looked late. */
const ENOUGH = 2;
/** Clocks further apart than a day are not told from acts. */
const FURTHEST_MS = 24 * 3_600_000;
/** ± of a clock known by what its batches said on their way to the server, both ways together, seconds. */
const HEARD_PM_S = 2;
/** Told by batches to differ by no more than this, two clocks are level: so long may a batch be on its way. Common practice, no source. */
const ON_ITS_WAY_MS = 5000;
/** ± of a clock of which nothing is known: phones take their time from the network. Common practice, no source. */
const UNKNOWN_PM_S = 2;
/** ± of a clock known from acts, at the least, seconds: two people do not touch at one instant. */
const ACTS_PM_S = 1;
/** Acts looked at on each side: a visit has fewer, and what has more is not told better. */
const MOST_ACTS = 60;

/**
 * By how much a device's line was ahead of the server's clock when it sent, ms; the batch that came quickest says it best.
 * `null` when none of its events came in a batch that told.
 */
export function aheadOfServer(line: readonly Timed[]): number | null {
  // The last event of a batch was made nearest to its sending.
  const byBatch = new Map<number, Timed>();
  for (const x of line) if (x.e.heard_ms !== undefined) byBatch.set(x.e.heard_ms, x);
  const told = [...byBatch].map(([heard_ms, x]) => -(heard_ms + x.ahead));
  return told.length === 0 ? null : Math.max(...told);
}

/** Pairs of acts that one offset explains: each act of either side at most once. @returns their differences, ms */
function explained(others: readonly Timed[], recorded: readonly Timed[], offset: number): number[] {
  const used = new Set<Timed>();
  return others.flatMap((o) => {
    let best: Timed | null = null;
    const off = (r: Timed) => Math.abs(o.t - r.t - offset);
    for (const r of recorded) if (!used.has(r) && off(r) <= AGREE_MS && canBeSameAct(o.e, r.e) && (!best || off(r) < off(best))) best = r;
    if (!best) return [];
    used.add(best);
    return [o.t - best.t];
  });
}

/**
 * How far another device's line is ahead of the recorder's.
 * What its batches said counts, unless the acts that both saw agree on something else: a clock may have been set in between.
 * @param told_ms by what both devices said when they sent, `null` when one did not
 */
export function clockOffset(other: readonly Timed[], recorder: readonly Timed[], told_ms: number | null): ClockOffset {
  // What a batch took on its way moves no event; the clocks may yet differ by it.
  const level = told_ms !== null && Math.abs(told_ms) <= ON_ITS_WAY_MS;
  const heard_ms = level ? 0 : told_ms;
  const acts = (line: readonly Timed[]) => line.filter((x) => x.seam >= 0 && seenByMany(x.e) && x.e.precision !== 'day').slice(0, MOST_ACTS);
  const [others, recorded] = [acts(other), acts(recorder)];
  const expected = heard_ms ?? 0;
  let best: number[] = [];
  let bestAt = Number.POSITIVE_INFINITY;
  for (const o of others)
    for (const r of recorded) {
      const offset = o.t - r.t;
      if (!canBeSameAct(o.e, r.e) || Math.abs(offset - expected) > FURTHEST_MS) continue;
      const found = explained(others, recorded, offset);
      const far = Math.abs(offset - expected);
      if (found.length > best.length || (found.length === best.length && far < bestAt)) [best, bestAt] = [found, far];
    }
  if (best.length >= ENOUGH) {
    const sorted = [...best].sort((a, b) => a - b);
    const middle = sorted[Math.floor(sorted.length / 2)] as number;
    const spread_s = ((sorted.at(-1) as number) - (sorted[0] as number)) / 1000;
    if (Math.abs(middle - expected) > LATE_LOOK_MS) return { ms: middle, pm_s: ACTS_PM_S + spread_s };
  }
  if (heard_ms !== null) return { ms: heard_ms, pm_s: Math.max(HEARD_PM_S, level ? Math.abs(told_ms) / 1000 : 0) };
  const seen_s = best.reduce((most, d) => Math.max(most, Math.abs(d)), 0) / 1000;
  return { ms: 0, pm_s: Math.max(UNKNOWN_PM_S, seen_s <= LATE_LOOK_MS / 1000 ? seen_s : 0) };
}
