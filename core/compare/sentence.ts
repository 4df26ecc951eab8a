import { degreeOf } from '../evidence/share-evidence';
import { printCount } from '../units/print';
import { type CalledBy, called, countedText, sitesOnly } from './called';
import { MOST_AHEAD, visitsToTell } from './more-visits';
import { type PairDegree, pairDegrees } from './pair-degree';
import { shareWorking } from './share-working';
import type { Start } from './start';

/** Below this many counted visits a network is named as too thin to be judged at all. */
export const LEAST_VISITS = 5;
/** Networks that are held against each other: the most visited. Each more asks more evidence of every pair. */
export const MOST_GROUPS = 12;
/** Sentences shown: the surest. */
export const MOST_SENTENCES = 3;

/** `working`: how it was worked out, line by line; empty where nothing was. */
export type CompareSentence = {
  kind: 'empty' | 'one' | 'thin' | 'clearly' | 'probably' | 'cannot_tell';
  text: string;
  working: [head: string, text: string][];
};

/**
 * The sentences above the comparison: which networks start more often at the first try, and how surely, never surer than the
 * degree; else that it cannot be told yet, and how many visits would probably tell. The degree is today's: it can go again.
 * @param starts visits that count for the first try @param figures how many the page looks at: each more asks more evidence
 */
export function compareSentences(starts: readonly Start[], names: CalledBy, figures = 1): CompareSentence[] {
  const counts = new Map<string, { yes: number; n: number }>();
  for (const s of starts) {
    const c = counts.get(s.group) ?? { yes: 0, n: 0 };
    c.n += 1;
    if (s.yes) c.yes += 1;
    counts.set(s.group, c);
  }
  const plain = (kind: CompareSentence['kind'], text: string): CompareSentence[] => [{ kind, text, working: [] }];
  const [only] = counts;
  if (!only) return plain('empty', 'No visit with an attempt yet: nothing to compare.');
  if (counts.size === 1)
    return plain('one', `${names.group(only[0])} started at the first try at ${countedText(only[1])}. A comparison needs a second ${names.one}.`);
  const enough = new Set(
    [...counts]
      .filter(([, c]) => c.n >= LEAST_VISITS)
      .sort(([x, a], [y, b]) => b.n - a.n || (x < y ? -1 : 1))
      .slice(0, MOST_GROUPS)
      .map(([id]) => id),
  );
  if (enough.size < 2) return plain('thin', `Cannot tell yet: fewer than two ${names.many} have ${LEAST_VISITS} counted visits.`);
  const { pairs, looked } = pairDegrees(
    starts.filter((s) => enough.has(s.group)),
    figures,
  );
  const sure = pairs.filter((p) => p.degree !== 'cannot_tell').slice(0, MOST_SENTENCES);
  if (sure.length === 0) return [cannotTell(mostSeen(pairs), looked, starts, names)];
  return sure.map((p) => ({
    kind: p.degree,
    text: `${called(p.better, names)} ${p.degree} started at the first try more often than ${called(p.worse, names)}: ${countedText(p.better.counted)} against ${countedText(p.worse.counted)}.${!names.place && (p.better.bySites || p.worse.bySites) ? ` ${sitesOnly(names.one)}` : ''}`,
    working: shareWorking(p, looked, starts, names),
  }));
}

/** Of pairs that cannot be told apart the one with most to go by: enough visits on both sides, then the evidence. */
function mostSeen(pairs: readonly PairDegree[]): PairDegree {
  const lesser = (p: PairDegree) => Math.min(LEAST_VISITS, p.better.counted.n, p.worse.counted.n);
  return pairs.reduce((best, p) => (lesser(p) > lesser(best) ? p : best));
}

function cannotTell(pair: PairDegree, looked: number, starts: readonly Start[], names: CalledBy): CompareSentence {
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
    text: `Cannot tell yet which ${names.one} starts more often at the first try: ${called(better, names)} at ${countedText(better.counted)}, ${called(worse, names)} at ${countedText(worse.counted)}.${ahead}`,
    working: shareWorking(pair, looked, starts, names),
  };
}
