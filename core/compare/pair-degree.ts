import { type Counted, type Degree, degreeOf, logShareFactor } from '../evidence/share-evidence';
import { grouped } from '../units/grouped';
import { type BySite, countAt } from './by-site';
import { outagesOnce, type Start, withoutFirstVisits } from './start';

/** Fewer sites than this, or more than half of the visits at one, and what is said is said of sites, not of the network. */
export const LEAST_SITES = 3;

/** How one network, or whatever else is compared, stands in a pair: what counts after every remedy, and what each took away. */
export type Side = {
  group: string;
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

const NOTHING: Counted = { yes: 0, n: 0 };
const and = (a: Counted, b: Counted): Counted => ({ yes: a.yes + b.yes, n: a.n + b.n });
const less = (a: Counted, b: Counted): Counted => ({ yes: a.yes - b.yes, n: a.n - b.n });
const count = (starts: readonly Start[]): Counted => ({ yes: starts.filter((s) => s.yes).length, n: starts.length });
const share = ({ yes, n }: Counted): number => (n === 0 ? 0 : yes / n);

/** What is left of a network's starts by itself, in whatever pair: counted by site, and by month and site. */
type Network = { id: string; all: Counted; firstVisits: number; outages: number; sites: BySite; byMonth: Map<string, BySite> };
function networkOf(id: string, starts: readonly Start[]): Network {
  const firsts = withoutFirstVisits(starts);
  const outages = outagesOnce(firsts.starts);
  const sites: BySite = new Map();
  const byMonth = new Map<string, BySite>();
  for (const { month, siteId, yes } of outages.starts) {
    const here = byMonth.get(month);
    if (here) countAt(here, siteId, yes);
    else byMonth.set(month, new Map([[siteId, { yes: yes ? 1 : 0, n: 1 }]]));
    countAt(sites, siteId, yes);
  }
  return { id, all: count(starts), firstVisits: firsts.taken, outages: outages.taken, sites, byMonth };
}

/** A network's counts by site in the months in which the other was visited, too; `taken`: what lies in the others. */
function inMonthsOf(of: Network, other: Network): { sites: BySite; taken: number } {
  const sites = new Map(of.sites);
  let taken = 0;
  // Most months are shared: those that are not are taken away.
  for (const [month, here] of of.byMonth) {
    if (other.byMonth.has(month)) continue;
    for (const [site, counted] of here) {
      taken += counted.n;
      const left = less(sites.get(site) ?? NOTHING, counted);
      if (left.n === 0) sites.delete(site);
      else sites.set(site, left);
    }
  }
  return { sites, taken };
}

function sideOf(network: Network, { sites, taken }: ReturnType<typeof inMonthsOf>): Side {
  const counted = [...sites.values()].reduce(and, NOTHING);
  const most = [...sites].sort(([x, a], [y, b]) => b.n - a.n || (x < y ? -1 : 1));
  return {
    group: network.id,
    counted,
    all: network.all,
    sites: most.map(([site]) => site),
    bySites: sites.size < LEAST_SITES || (most[0]?.[1].n ?? 0) * 2 > counted.n,
    taken: { firstVisits: network.firstVisits, outages: network.outages, months: taken },
  };
}

function compared(a: Network, b: Network, looked: number): PairDegree {
  // Winter at the one and summer at the other compare nothing.
  const [inA, inB] = [inMonthsOf(a, b), inMonthsOf(b, a)];
  const [sideA, sideB] = [sideOf(a, inA), sideOf(b, inB)];
  const aLeads = share(sideA.counted) > share(sideB.counted) || (share(sideA.counted) === share(sideB.counted) && a.id < b.id);
  /** Evidence that the leading one leads; none where the other does. */
  const evidence = (x: Counted, y: Counted): number => {
    const leads = aLeads ? share(x) > share(y) : share(y) > share(x);
    const log = logShareFactor([x, y]);
    return leads ? log : Math.min(0, log);
  };
  const logWhole = evidence(sideA.counted, sideB.counted);
  let [logFactor, leastWithout]: [number, string | null] = [logWhole, null];
  const without = (own: Side, log: (site: string) => number) => {
    // Of a network with one site nothing would be left: what is said is said of that site.
    if (own.sites.length < 2) return;
    for (const site of own.sites) {
      const left = log(site);
      if (left < logFactor) [logFactor, leastWithout] = [left, site];
    }
  };
  without(sideA, (site) => evidence(less(sideA.counted, inA.sites.get(site) ?? NOTHING), sideB.counted));
  without(sideB, (site) => evidence(sideA.counted, less(sideB.counted, inB.sites.get(site) ?? NOTHING)));
  return {
    better: aLeads ? sideA : sideB,
    worse: aLeads ? sideB : sideA,
    degree: degreeOf(logFactor, looked),
    logFactor,
    logWhole,
    leastWithout,
  };
}

/**
 * How surely two networks differ in starts at the first try.
 * Each person's first visit to a network stands apart; repeated failures of a stall before it worked again are one; only months
 * in which both were visited count; and the degree is the lowest over leaving out each site of a network that has several.
 * Where a network has fewer than three sites, or over half of its visits at one, what is said is said of its sites.
 * @param looked among how many comparisons this one was found: it needs so many times more evidence
 */
export function pairDegree(a: readonly Start[], b: readonly Start[], looked: number): PairDegree | null {
  const [idA, idB] = [a[0]?.group, b[0]?.group];
  return idA === undefined || idB === undefined ? null : compared(networkOf(idA, a), networkOf(idB, b), looked);
}

/** A network as it stood at the end of a month. What stands apart and what is one outage looks back alone, so that it was the same then. */
function upTo(of: Network, until: string): Network {
  const byMonth = new Map([...of.byMonth].filter(([month]) => month <= until));
  const sites: BySite = new Map();
  for (const here of byMonth.values()) for (const [site, counted] of here) sites.set(site, and(sites.get(site) ?? NOTHING, counted));
  return { ...of, sites, byMonth };
}

/** How the same pair stood at the end of earlier months, each asked for without counting anew; `null` without starts of both. */
export function pairDegreesUntil(a: readonly Start[], b: readonly Start[], looked: number): ((until: string) => Pick<PairDegree, 'degree' | 'better'>) | null {
  const [idA, idB] = [a[0]?.group, b[0]?.group];
  if (idA === undefined || idB === undefined) return null;
  const [ofA, ofB] = [networkOf(idA, a), networkOf(idB, b)];
  return (until) => compared(upTo(ofA, until), upTo(ofB, until), looked);
}

/** Every pair of groups among some visits, the surest first. Each is held to as many times the evidence as there are pairs and `figures` looked at. */
export function pairDegrees(starts: readonly Start[], figures = 1): { pairs: PairDegree[]; looked: number } {
  const networks = [...grouped(starts, (s) => s.group)].sort(([a], [b]) => (a < b ? -1 : 1)).map(([id, of]) => networkOf(id, of));
  const looked = ((networks.length * (networks.length - 1)) / 2) * figures;
  const pairs = networks.flatMap((a, i) => networks.slice(i + 1).map((b) => compared(a, b, looked)));
  return { pairs: pairs.sort((x, y) => y.logFactor - x.logFactor), looked };
}
