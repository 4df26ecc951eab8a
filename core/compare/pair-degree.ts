import { type Counted, type Degree, degreeOf, logShareFactor } from '../evidence/share-evidence';
import { monthsOfBoth, outagesOnce, type Start, withoutFirstVisits } from './start';

/** Fewer sites than this, or more than half of the visits at one, and what is said is said of sites, not of the network. */
export const LEAST_SITES = 3;

/** How one network stands in a pair: what counts after every remedy, and what each took away. */
export type Side = {
  networkId: string;
  counted: Counted;
  /** Of all its visits, before anything was taken away. */
  all: Counted;
  sites: string[];
  /** Too few sites, or one that has over half of the visits: the sites are meant. */
  bySites: boolean;
  taken: { firstVisits: number; outages: number; months: number };
};

/** Two networks by how often they start at the first try, and how surely they differ. The one with the greater share comes first. */
export type PairDegree = {
  better: Side;
  worse: Side;
  degree: Degree;
  /** Log of the evidence: the least over leaving out each site in turn. */
  logFactor: number;
  /** The same with all sites. */
  logWhole: number;
  /** The site without which the evidence is least; `null` where leaving none out is. */
  leastWithout: string | null;
};

const count = (starts: readonly Start[]): Counted => ({ yes: starts.filter((s) => s.yes).length, n: starts.length });
const share = ({ yes, n }: Counted): number => (n === 0 ? 0 : yes / n);

/**
 * How surely two networks differ in starts at the first try.
 * Each person's first visit to a network stands apart; repeated failures of a stall before it worked again are one; only months
 * in which both were visited count; and the degree is the lowest over leaving out each site of a network that has several.
 * Where a network has fewer than three sites, or over half of its visits at one, what is said is said of its sites.
 * @param looked among how many comparisons this one was found: it needs so many times more evidence
 */
export function pairDegree(a: readonly Start[], b: readonly Start[], looked: number): PairDegree | null {
  const [idA, idB] = [a[0]?.networkId, b[0]?.networkId];
  if (idA === undefined || idB === undefined) return null;
  const firsts = [withoutFirstVisits(a), withoutFirstVisits(b)] as const;
  const outages = [outagesOnce(firsts[0].starts), outagesOnce(firsts[1].starts)] as const;
  const months = monthsOfBoth(outages[0].starts, outages[1].starts);
  const side = (i: 0 | 1, networkId: string, all: readonly Start[], left: { starts: Start[]; taken: number }): Side => {
    const bySite = new Map<string, number>();
    for (const s of left.starts) bySite.set(s.siteId, (bySite.get(s.siteId) ?? 0) + 1);
    return {
      networkId,
      counted: count(left.starts),
      all: count(all),
      sites: [...bySite.keys()].sort((x, y) => (bySite.get(y) ?? 0) - (bySite.get(x) ?? 0) || (x < y ? -1 : 1)),
      bySites: bySite.size < LEAST_SITES || Math.max(...bySite.values()) * 2 > left.starts.length,
      taken: { firstVisits: firsts[i].taken, outages: outages[i].taken, months: left.taken },
    };
  };
  const [sideA, sideB] = [side(0, idA, a, months.a), side(1, idB, b, months.b)];
  const aLeads = share(sideA.counted) > share(sideB.counted) || (share(sideA.counted) === share(sideB.counted) && idA < idB);
  /** Evidence that the leading one leads; none where the other does. */
  const evidence = (of: readonly Start[], against: readonly Start[]): number => {
    const [x, y] = [count(of), count(against)];
    const leads = aLeads ? share(x) > share(y) : share(y) > share(x);
    const log = logShareFactor([x, y]);
    return leads ? log : Math.min(0, log);
  };
  const logWhole = evidence(months.a.starts, months.b.starts);
  let [logFactor, leastWithout]: [number, string | null] = [logWhole, null];
  const without = (own: Side, log: (site: string) => number) => {
    // Of a network with one site nothing would be left: what is said is said of that site.
    if (own.sites.length < 2) return;
    for (const site of own.sites) {
      const left = log(site);
      if (left < logFactor) [logFactor, leastWithout] = [left, site];
    }
  };
  const not = (all: readonly Start[], site: string) => all.filter((s) => s.siteId !== site);
  without(sideA, (site) => evidence(not(months.a.starts, site), months.b.starts));
  without(sideB, (site) => evidence(months.a.starts, not(months.b.starts, site)));
  return {
    better: aLeads ? sideA : sideB,
    worse: aLeads ? sideB : sideA,
    degree: degreeOf(logFactor, looked),
    logFactor,
    logWhole,
    leastWithout,
  };
}

/** Every pair of networks among some visits, the surest first. Each is held to as many times the evidence as there are pairs. */
export function pairDegrees(starts: readonly Start[]): { pairs: PairDegree[]; looked: number } {
  const groups = new Map<string, Start[]>();
  for (const s of starts) groups.set(s.networkId, [...(groups.get(s.networkId) ?? []), s]);
  const ids = [...groups.keys()].sort();
  const looked = (ids.length * (ids.length - 1)) / 2;
  const pairs = ids.flatMap((a, i) => ids.slice(i + 1).flatMap((b) => pairDegree(groups.get(a) as Start[], groups.get(b) as Start[], looked) ?? []));
  return { pairs: pairs.sort((x, y) => y.logFactor - x.logFactor), looked };
}
