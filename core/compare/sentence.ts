import { CLEARLY, degreeOf, PROBABLY } from '../evidence/share-evidence';
import { printCount } from '../units/print';
import { MOST_AHEAD, visitsToTell } from './more-visits';
import { type PairDegree, pairDegrees, type Side } from './pair-degree';
import type { Start } from './start';

/** Below this many counted visits a network is named as too thin to be judged at all. */
export const LEAST_VISITS = 5;
/** Networks that are held against each other: the most visited. Each more asks more evidence of every pair. */
const MOST_NETWORKS = 12;
/** Sentences shown: the surest. */
const MOST_SENTENCES = 3;

/** What is compared, and what groups and sites are called. */
/** `place`: a group is a place itself, and has no sites to name. */
export type CalledBy = { one: string; many: string; group: (key: string) => string; site: (id: string) => string; place?: boolean };
/** `working`: how it was worked out, line by line; empty where nothing was. */
export type CompareSentence = {
  kind: 'empty' | 'one' | 'thin' | 'clearly' | 'probably' | 'cannot_tell';
  text: string;
  working: [head: string, text: string][];
};

const listed = (names: readonly string[]): string => (names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`);
const of = ({ yes, n }: { yes: number; n: number }): string => `${yes} of ${printCount(n, 'visit')}`;
/** Up to so many sites are named. */
const NAMED = 3;

/** The group, or its sites where there are too few to speak of it. */
function called(side: Side, names: CalledBy): string {
  const group = names.group(side.group);
  if (names.place || !side.bySites || side.sites.length === 0) return group;
  const sites = side.sites.map(names.site);
  const shown = sites.length > NAMED ? [...sites.slice(0, NAMED - 1), `${sites.length - NAMED + 1} more sites`] : sites;
  return `${listed(shown)} (${group})`;
}

const times = (log: number): string => {
  const factor = Math.exp(log);
  return factor > 10_000 ? 'over 10,000' : factor < 10 ? factor.toFixed(1) : String(Math.round(factor));
};

function working(pair: PairDegree, looked: number, names: CalledBy): [string, string][] {
  const sides = [pair.better, pair.worse];
  const each = (say: (s: Side) => string) => sides.map((s) => `${names.group(s.group)} ${say(s)}`).join('; ');
  const taken = (name: keyof Side['taken']) => each((s) => String(s.taken[name]));
  return [
    ['All visits', each((s) => of(s.all))],
    ['First visits of a person, apart', taken('firstVisits')],
    ['Failures of a stall before it worked again, beyond the first', taken('outages')],
    ['Months in which only one was visited', taken('months')],
    ['Counted', each((s) => `${of(s.counted)}, ${printCount(s.sites.length, 'site')}`)],
    [
      'Evidence',
      `each its own share is ${times(pair.logWhole)} times as likely as one share for both${pair.leastWithout === null ? '' : `; ${times(pair.logFactor)} times without ${names.site(pair.leastWithout)}, and that counts`}`,
    ],
    [
      'Held to',
      looked > 1
        ? `found among ${looked} pairs: probably from ${PROBABLY * looked}, clearly from ${CLEARLY * looked}`
        : `probably from ${PROBABLY}, clearly from ${CLEARLY}`,
    ],
  ];
}

const sitesOnly = (one: string) => `This is said of the sites named: of a ${one} only with three or more, none of which has over half of the visits.`;

/**
 * The sentences above the comparison: which networks start more often at the first try, and how surely, never surer than the
 * degree; else that it cannot be told yet, and how many visits would probably tell. The degree is today's: it can go again.
 * @param starts visits that count for the first try
 */
export function compareSentences(starts: readonly Start[], names: CalledBy): CompareSentence[] {
  const counts = new Map<string, { yes: number; n: number }>();
  for (const s of starts) {
    const c = counts.get(s.group) ?? { yes: 0, n: 0 };
    counts.set(s.group, { yes: c.yes + Number(s.yes), n: c.n + 1 });
  }
  const plain = (kind: CompareSentence['kind'], text: string): CompareSentence[] => [{ kind, text, working: [] }];
  const [only] = counts;
  if (!only) return plain('empty', 'No visit with an attempt yet: nothing to compare.');
  if (counts.size === 1) return plain('one', `${names.group(only[0])} started at the first try at ${of(only[1])}. A comparison needs a second ${names.one}.`);
  const enough = new Set(
    [...counts]
      .filter(([, c]) => c.n >= LEAST_VISITS)
      .sort(([x, a], [y, b]) => b.n - a.n || (x < y ? -1 : 1))
      .slice(0, MOST_NETWORKS)
      .map(([id]) => id),
  );
  if (enough.size < 2) return plain('thin', `Cannot tell yet: fewer than two ${names.many} have ${LEAST_VISITS} counted visits.`);
  const { pairs, looked } = pairDegrees(starts.filter((s) => enough.has(s.group)));
  const sure = pairs.filter((p) => p.degree !== 'cannot_tell').slice(0, MOST_SENTENCES);
  if (sure.length === 0) return [cannotTell(mostSeen(pairs), looked, names)];
  return sure.map((p) => ({
    kind: p.degree,
    text: `${called(p.better, names)} ${p.degree} started at the first try more often than ${called(p.worse, names)}: ${of(p.better.counted)} against ${of(p.worse.counted)}.${!names.place && (p.better.bySites || p.worse.bySites) ? ` ${sitesOnly(names.one)}` : ''}`,
    working: working(p, looked, names),
  }));
}

/** Of pairs that cannot be told apart the one with most to go by: enough visits on both sides, then the evidence. */
function mostSeen(pairs: readonly PairDegree[]): PairDegree {
  const lesser = (p: PairDegree) => Math.min(LEAST_VISITS, p.better.counted.n, p.worse.counted.n);
  return pairs.reduce((best, p) => (lesser(p) > lesser(best) ? p : best));
}

function cannotTell(pair: PairDegree, looked: number, names: CalledBy): CompareSentence {
  const { better, worse } = pair;
  const more = visitsToTell(better.counted, worse.counted, looked);
  const ahead =
    degreeOf(pair.logWhole, looked) !== 'cannot_tell'
      ? ` One site bears the difference alone: other sites of the same ${names.one} would tell.`
      : more === null
        ? ` Going on like this, even ${MOST_AHEAD} more visits to each would probably not tell.`
        : ` Going on like this, some ${printCount(more, 'more visit')} to each would probably tell.`;
  return {
    kind: 'cannot_tell',
    text: `Cannot tell yet which ${names.one} starts more often at the first try: ${called(better, names)} at ${of(better.counted)}, ${called(worse, names)} at ${of(worse.counted)}.${ahead}`,
    working: working(pair, looked, names),
  };
}
