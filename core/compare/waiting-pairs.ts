import { type Counted, type Degree, degreeOf, logPairEvidence } from '../evidence/share-evidence';
import { type Grouping, groupOfAttempt } from '../figures/groupings';
import { type Asked, attemptTest, NEVER, timedBy } from '../figures/populations';
import { grouped } from '../units/grouped';
import { type BySite, countAt } from './by-site';
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

/** Which of two starts was the longer; 0 within their ±, or where neither ever came. */
function longer(a: Waited, b: Waited): -1 | 0 | 1 {
  if (a.s === null || b.s === null) return a.s === b.s ? 0 : a.s === null ? 1 : -1;
  const apart = a.s - b.s;
  // Decimals subtracted leave dust: a billionth is none.
  return Math.abs(apart) <= a.pm_s + b.pm_s + 1e-9 ? 0 : apart > 0 ? 1 : -1;
}

/** Starts by one car and means that are not paired yet, in the order in which they arose; `rising`: they came in that order, too. */
type Free = { starts: Waited[]; rising: boolean };

/** The starts of one group that are not paired yet. Only the same car and means are held against each other: they lie together. */
class Unpaired {
  private readonly byCar = new Map<string | null, Map<string | null, Free>>();

  add(x: Waited): void {
    const byMeans = this.byCar.get(x.carId);
    const free = byMeans?.get(x.means);
    if (free) {
      if ((free.starts.at(-1)?.at ?? x.at) > x.at) free.rising = false;
      free.starts.push(x);
      return;
    }
    const first: Free = { starts: [x], rising: true };
    if (byMeans) byMeans.set(x.means, first);
    else this.byCar.set(x.carId, new Map([[x.means, first]]));
  }

  /** Takes the latest that a start of the other group can be held against: within 60 days, and by no other end mark; what never came has none. */
  take(x: Waited): Waited | null {
    const free = this.byCar.get(x.carId)?.get(x.means);
    if (!free) return null;
    const { starts, rising } = free;
    for (let i = starts.length - 1; i >= 0; i--) {
      const y = starts[i] as Waited;
      // All before are older still.
      if (rising && x.at - y.at > APART_MS) return null;
      if ((x.mark !== null && y.mark !== null && x.mark !== y.mark) || Math.abs(x.at - y.at) > APART_MS) continue;
      if (i === starts.length - 1) starts.pop();
      else starts.splice(i, 1);
      return y;
    }
    return null;
  }
}

/**
 * Two groups by their starts in pairs: each start, as it arises, is held against the other's latest that is not paired yet, by the same car, means and
 * end mark within 60 days, and the pair stays so whatever comes later. Never is longer than every time; within their ± it is undecided.
 * @param starts in the order in which they arose, of other groups, too @param looked among how many pairs and figures this one was found
 */
export function waitingPair(starts: readonly Waited[], a: string, b: string, looked: number): WaitingPair {
  const of = (group: string) => starts.filter((s) => s.group === group);
  return pairOf({ group: a, starts: of(a) }, { group: b, starts: of(b) }, looked);
}

/** The starts of a group, in the order in which they arose. */
type GroupStarts = { group: string; starts: readonly Waited[] };

function pairOf({ group: a, starts: allA }: GroupStarts, { group: b, starts: allB }: GroupStarts, looked: number): WaitingPair {
  const [freeA, freeB] = [new Unpaired(), new Unpaired()];
  // Pairs by the sites of either side: of how many the first group won how many.
  const [bySiteA, bySiteB]: [BySite, BySite] = [new Map(), new Map()];
  let [aQuicker, decided, undecided] = [0, 0, 0];
  const pair = (ofA: Waited, ofB: Waited) => {
    const which = longer(ofA, ofB);
    if (which === 0) {
      undecided += 1;
      return;
    }
    decided += 1;
    if (which < 0) aQuicker += 1;
    countAt(bySiteA, ofA.siteId, which < 0);
    countAt(bySiteB, ofB.siteId, which < 0);
  };
  for (let i = 0, j = 0; i < allA.length || j < allB.length; ) {
    const [x, y] = [allA[i], allB[j]];
    if (x && (!y || x.n < y.n)) {
      i += 1;
      const other = freeB.take(x);
      if (other) pair(x, other);
      else freeA.add(x);
    } else if (y) {
      j += 1;
      const other = freeA.take(y);
      if (other) pair(other, y);
      else freeB.add(y);
    }
  }
  const aLeads = aQuicker * 2 > decided || (aQuicker * 2 === decided && a < b);
  /** Evidence that the leading one is quicker, of so many pairs that the first won; none where the other is. */
  const evidence = ({ yes, n }: Counted): number => {
    const won = aLeads ? yes : n - yes;
    const log = logPairEvidence(won, n);
    return won * 2 > n ? log : Math.min(0, log);
  };
  const logWhole = evidence({ yes: aQuicker, n: decided });
  let [logFactor, leastWithout]: [number, string | null] = [logWhole, null];
  /** Those with most pairs first. */
  const inOrder = (sites: BySite) => [...sites].sort(([x, m], [y, n]) => n.n - m.n || (x < y ? -1 : 1));
  const [ofA, ofB] = [inOrder(bySiteA), inOrder(bySiteB)];
  for (const sites of [ofA, ofB]) {
    if (sites.length < 2) continue;
    for (const [site, { yes, n }] of sites) {
      const left = evidence({ yes: aQuicker - yes, n: decided - n });
      if (left < logFactor) [logFactor, leastWithout] = [left, site];
    }
  }
  const [sitesA, sitesB] = [ofA.map(([site]) => site), ofB.map(([site]) => site)];
  return {
    quicker: aLeads ? a : b,
    slower: aLeads ? b : a,
    quickerSites: aLeads ? sitesA : sitesB,
    slowerSites: aLeads ? sitesB : sitesA,
    won: aLeads ? aQuicker : decided - aQuicker,
    decided,
    undecided,
    logFactor,
    logWhole,
    leastWithout,
    degree: degreeOf(logFactor, looked),
  };
}

/** Every pair of groups, the surest first. @param most groups that are held against each other: those with most starts */
export function waitingPairs(starts: readonly Waited[], figures: number, most: number): { pairs: WaitingPair[]; looked: number } {
  const groups = [...grouped(starts, (s) => s.group)].sort(([x, a], [y, b]) => b.length - a.length || (x < y ? -1 : 1)).slice(0, most);
  const looked = ((groups.length * (groups.length - 1)) / 2) * figures;
  const pairs = groups.flatMap(([group, of], i) =>
    groups.slice(i + 1).map(([other, ofOther]) => pairOf({ group, starts: of }, { group: other, starts: ofOther }, looked)),
  );
  return { pairs: pairs.sort((x, y) => y.logFactor - x.logFactor), looked };
}
