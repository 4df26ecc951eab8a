import { printCount } from '../units/print';
import type { LeagueRow } from './league';

/** Below this many counted visits a network is named as too thin to be judged at all. */
export const LEAST_VISITS = 5;

export type LeagueSentence = { kind: 'empty' | 'one' | 'thin' | 'apart' | 'cannot_tell'; text: string };

/**
 * The one sentence above the league: best against worst by the first try, and only what the intervals bear.
 * Says that shares differ only where the 95 % intervals do not overlap; that is a cautious mark, not a test, and
 * a table looked at after every visit will show such a gap by chance now and then. Hence no stronger word.
 */
export function leagueSentence(rows: readonly LeagueRow[], nameOf: (networkId: string) => string): LeagueSentence {
  const counted = (r: LeagueRow) => r.firstTry.yes + r.firstTry.no;
  const withAny = rows.filter((r) => counted(r) > 0);
  if (withAny.length === 0) return { kind: 'empty', text: 'No visit with an attempt yet: nothing to compare.' };
  const of = (r: LeagueRow) => `${r.firstTry.yes} of ${printCount(counted(r), 'visit')}`;
  const [only] = withAny;
  if (withAny.length === 1 && only)
    return { kind: 'one', text: `${nameOf(only.networkId)} started at the first try at ${of(only)}. A comparison needs a second network.` };
  const enough = withAny.filter((r) => counted(r) >= LEAST_VISITS);
  if (enough.length < 2) return { kind: 'thin', text: `Cannot tell yet: fewer than two networks have ${LEAST_VISITS} counted visits.` };
  const best = enough.reduce((a, b) => ((b.firstTry.interval as number[])[0]! > (a.firstTry.interval as number[])[0]! ? b : a));
  const worst = enough.reduce((a, b) => ((b.firstTry.interval as number[])[1]! < (a.firstTry.interval as number[])[1]! ? b : a));
  const bestLow = best.firstTry.interval?.[0] ?? 0;
  const worstHigh = worst.firstTry.interval?.[1] ?? 1;
  if (best !== worst && bestLow > worstHigh) {
    return {
      kind: 'apart',
      text: `${nameOf(best.networkId)} started at the first try more often than ${nameOf(worst.networkId)}: ${of(best)} against ${of(worst)}, and the 95 % intervals do not overlap.`,
    };
  }
  const other = best !== worst ? worst : enough.filter((r) => r !== best).reduce((a, b) => (b.firstTry.yes / counted(b) < a.firstTry.yes / counted(a) ? b : a));
  return {
    kind: 'cannot_tell',
    text: `Cannot tell yet which network starts more often at the first try: ${nameOf(best.networkId)} at ${of(best)}, ${nameOf(other.networkId)} at ${of(other)}, and the 95 % intervals overlap.`,
  };
}
