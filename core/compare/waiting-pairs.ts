import { type Counted, type Degree, degreeOf, logPairEvidence } from '../evidence/share-evidence';
import { type Grouping, groupOfAttempt } from '../figures/groupings';
import { type Asked, attemptTest, NEVER, timedBy } from '../figures/populations';
import { grouped } from '../units/grouped';
import type { VisitRow } from './visit-row';

/** A start as it waits for one of the other group to be held against. `s`: `null` for never. */
export type Waited = {
  /** Which it is in the order in which they arose. */
  n: number;
  group: string;
  siteId: string;
  arose: string;
  at: number;
  carId: string | null;
  means: string | null;
  mark: string | null;
  s: number | null;
  pm_s: number;
};
/** A pair further apart in time than this compares two seasons. */
const APART_MS = 60 * 86_400_000;
/** ± of a wait of which nothing more is known, seconds: two people never touch at one instant. */
const LEAST_PM_S = 0.5;

const isNever = attemptTest(NEVER);

/** The starts of some visits that can be paired, in the order in which their visits arose. */
export function waitedStarts(visits: readonly VisitRow[], asked: Pick<Asked, 'time' | 'mark'>, by: Grouping): Waited[] {
  const isTimed = attemptTest(timedBy(asked));
  const starts: Waited[] = [];
  const inOrder = visits
    .filter((v) => !v.leftOut)
    .sort((a, b) => ((a.arose ?? '') < (b.arose ?? '') ? -1 : (a.arose ?? '') > (b.arose ?? '') ? 1 : a.at - b.at));
  for (const v of inOrder)
    for (const a of v.attempts) {
      const never = isNever(a);
      if (!never && !isTimed(a)) continue;
      const group = groupOfAttempt(by, v, a);
      if (group === null) continue;
      starts.push({
        n: starts.length,
        group,
        siteId: v.siteId,
        arose: v.arose ?? '',
        at: v.at,
        carId: v.carId ?? null,
        means: (a.meansKind as string | null | undefined) ?? null,
        mark: never ? null : (a.endMark ?? null),
        s: never ? null : (a[asked.time] as number),
        pm_s: Math.max(LEAST_PM_S, (a.pm as number | null | undefined) ?? 0),
      });
    }
  return starts;
}

/** Which of two groups was quicker in how many pairs, and how surely. */
export type WaitingPair = {
  quicker: string;
  slower: string;
  /** Sites of either, those with most pairs first. */
  quickerSites: string[];
  slowerSites: string[];
  won: number;
  decided: number;
  undecided: number;
  /** Log of the evidence: the least over leaving out each site of a group that has several. */
  logFactor: number;
  logWhole: number;
  leastWithout: string | null;
  degree: Degree;
};

/** Whether two starts can be held against each other: the same car and means, and no other end mark; what never came has none. */
const alike = (a: Waited, b: Waited): boolean =>
  a.carId === b.carId && a.means === b.means && (a.mark === null || b.mark === null || a.mark === b.mark) && Math.abs(a.at - b.at) <= APART_MS;

/** Which of two starts was the longer; 0 within their ±, or where neither ever came. */
function longer(a: Waited, b: Waited): -1 | 0 | 1 {
  if (a.s === null || b.s === null) return a.s === b.s ? 0 : a.s === null ? 1 : -1;
  const apart = a.s - b.s;
  // Decimals subtracted leave dust: a billionth is none.
  return Math.abs(apart) <= a.pm_s + b.pm_s + 1e-9 ? 0 : apart > 0 ? 1 : -1;
}

/**
 * Two groups by their starts in pairs: each start, as it arises, is held against the other's latest that is not paired yet, by the same car, means and
 * end mark within 60 days, and the pair stays so whatever comes later. Never is longer than every time; within their ± it is undecided.
 * @param starts of both, in the order in which they arose @param looked among how many pairs and figures this one was found
 */
export function waitingPair(starts: readonly Waited[], a: string, b: string, looked: number): WaitingPair {
  const free: Record<string, Waited[]> = { [a]: [], [b]: [] };
  const pairs: { ofA: Waited; ofB: Waited; which: -1 | 0 | 1 }[] = [];
  for (const x of starts) {
    const own = free[x.group];
    const others = free[x.group === a ? b : a];
    if (!own || !others) continue;
    const at = others.findLastIndex((y) => alike(x, y));
    const [y] = at < 0 ? [] : others.splice(at, 1);
    if (!y) {
      own.push(x);
      continue;
    }
    const [ofA, ofB] = x.group === a ? [x, y] : [y, x];
    pairs.push({ ofA, ofB, which: longer(ofA, ofB) });
  }
  const decided = pairs.filter((p) => p.which !== 0);
  const aQuicker = decided.filter((p) => p.which < 0).length;
  const aLeads = aQuicker * 2 > decided.length || (aQuicker * 2 === decided.length && a < b);
  /** Evidence that the leading one is quicker, of so many pairs that the first won; none where the other is. */
  const evidence = ({ yes, n }: Counted): number => {
    const won = aLeads ? yes : n - yes;
    const log = logPairEvidence(won, n);
    return won * 2 > n ? log : Math.min(0, log);
  };
  const logWhole = evidence({ yes: aQuicker, n: decided.length });
  let [logFactor, leastWithout]: [number, string | null] = [logWhole, null];
  /** Pairs by the site of one side, those with most first. */
  const bySite = (side: (p: (typeof decided)[number]) => Waited): [site: string, counted: Counted][] =>
    [...grouped(decided, (p) => side(p).siteId)]
      .map(([site, of]): [string, Counted] => [site, { yes: of.filter((p) => p.which < 0).length, n: of.length }])
      .sort(([x, m], [y, n]) => n.n - m.n || (x < y ? -1 : 1));
  const [ofA, ofB] = [bySite((p) => p.ofA), bySite((p) => p.ofB)];
  for (const sites of [ofA, ofB]) {
    if (sites.length < 2) continue;
    for (const [site, { yes, n }] of sites) {
      const left = evidence({ yes: aQuicker - yes, n: decided.length - n });
      if (left < logFactor) [logFactor, leastWithout] = [left, site];
    }
  }
  const [sitesA, sitesB] = [ofA.map(([site]) => site), ofB.map(([site]) => site)];
  return {
    quicker: aLeads ? a : b,
    slower: aLeads ? b : a,
    quickerSites: aLeads ? sitesA : sitesB,
    slowerSites: aLeads ? sitesB : sitesA,
    won: aLeads ? aQuicker : decided.length - aQuicker,
    decided: decided.length,
    undecided: pairs.length - decided.length,
    logFactor,
    logWhole,
    leastWithout,
    degree: degreeOf(logFactor, looked),
  };
}

/** Two lists that are each in their order as one. */
function merged(a: readonly Waited[], b: readonly Waited[]): Waited[] {
  const out: Waited[] = [];
  let [i, j] = [0, 0];
  while (i < a.length || j < b.length) {
    const [x, y] = [a[i], b[j]];
    const first = x !== undefined && (y === undefined || x.n < y.n);
    out.push((first ? x : y) as Waited);
    if (first) i += 1;
    else j += 1;
  }
  return out;
}

/** Every pair of groups, the surest first. @param most groups that are held against each other: those with most starts */
export function waitingPairs(starts: readonly Waited[], figures: number, most: number): { pairs: WaitingPair[]; looked: number } {
  const groups = [...grouped(starts, (s) => s.group)].sort(([x, a], [y, b]) => b.length - a.length || (x < y ? -1 : 1)).slice(0, most);
  const looked = ((groups.length * (groups.length - 1)) / 2) * figures;
  const pairs = groups.flatMap(([a, ofA], i) => groups.slice(i + 1).map(([b, ofB]) => waitingPair(merged(ofA, ofB), a, b, looked)));
  return { pairs: pairs.sort((x, y) => y.logFactor - x.logFactor), looked };
}
