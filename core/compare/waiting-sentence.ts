import { logRank } from '../evidence/log-rank';
import { rankSum } from '../evidence/rank-sum';
import { restrictedMean, stillWaiting, type Wait } from '../evidence/still-waiting';
import { grouped } from '../units/grouped';
import { printCount, printDuration } from '../units/print';
import { type CalledBy, called, sitesOnly, timesText } from './called';
import { LEAST_SITES } from './pair-degree';
import { type CompareSentence, LEAST_VISITS, MOST_GROUPS, MOST_SENTENCES } from './sentence';
import { heldTo, type Working } from './share-working';
import { type Waited, type WaitingPair, waitingPair, waitingPairs } from './waiting-pairs';

/** Means are taken up to so many seconds: who waited longer gave up. */
const HORIZON_S = 180;
/** Ranks are taken of so many starts of each, the latest: of more they tell no more. */
const MOST_RANKED = 60;
/** Beyond every time. */
const NEVER_S = 1e12;

const p = (value: number | null): string => (value === null ? 'not defined' : value < 0.001 ? 'under 0.001' : value.toFixed(3));
const side = (group: string, sites: readonly string[]) => ({ group, sites, bySites: sites.length < LEAST_SITES });

type Waits = { waits: Wait[]; mean: { mean: number; se: number } };
/** What is worked out of one group's starts, once for all the pairs it is in. */
function waitsOf(starts: readonly Waited[]): (group: string) => Waits {
  const byGroup = grouped(starts, (s) => s.group);
  const done = new Map<string, Waits>();
  return (group) => {
    const found = done.get(group);
    if (found) return found;
    const waits = (byGroup.get(group) ?? []).map((s): Wait => (s.s === null ? { time: NEVER_S, event: false } : { time: s.s, event: true }));
    const made = { waits, mean: restrictedMean(stillWaiting(waits), HORIZON_S) };
    done.set(group, made);
    return made;
  };
}

function waitingWorking(pair: WaitingPair, looked: number, waits: (group: string) => Waits, names: CalledBy): Working {
  const [quick, slow] = [waits(pair.quicker), waits(pair.slower)];
  const latest = (of: Waits) => of.waits.slice(-MOST_RANKED).map((w) => w.time);
  const sooner = rankSum(latest(slow), latest(quick));
  const [{ mean: mq }, { mean: ms }] = [quick, slow];
  const finite = (s: number) => Math.abs(s) < NEVER_S / 2;
  return [
    [
      'Starts',
      (
        [
          [pair.quicker, quick],
          [pair.slower, slow],
        ] as const
      )
        .map(([g, of]) => `${names.group(g)} ${of.waits.length}, of them ${of.waits.filter((w) => !w.event).length} never`)
        .join('; '),
    ],
    ['In pairs by the same car, means and end mark, within 60 days', `${pair.won} of ${pair.decided} decided; ${pair.undecided} within their ±`],
    [
      'Evidence',
      `${timesText(pair.logWhole)} times as likely as by a fair coin${pair.leastWithout === null ? '' : `; ${timesText(pair.logFactor)} times without ${names.site(pair.leastWithout)}, and that counts`}`,
    ],
    ['Held to', heldTo(looked)],
    ['Mean up to 3 min', `${printDuration(mq.mean)} ± ${printDuration(1.96 * mq.se)} against ${printDuration(ms.mean)} ± ${printDuration(1.96 * ms.se)}`],
    ...(finite(sooner.shift) && sooner.limits?.every(finite)
      ? ([
          [
            'Sooner in the middle of all pairs of starts (Hodges–Lehmann)',
            `${printDuration(sooner.shift)}, ${Math.round(sooner.level * 100)} % ${printDuration(sooner.limits[0])} to ${printDuration(sooner.limits[1])}`,
          ],
        ] as Working)
      : []),
    ['For those who want p-values, were this the only look', `log-rank ${p(logRank([quick.waits, slow.waits]).p)}, rank sum ${p(sooner.p)}`],
  ];
}

const said = (pair: WaitingPair, names: CalledBy): string => {
  const [quick, slow] = [side(pair.quicker, pair.quickerSites), side(pair.slower, pair.slowerSites)];
  const bySites = !names.place && (quick.bySites || slow.bySites);
  return `${called(quick, names)} ${pair.degree} gave power sooner than ${called(slow, names)}: in ${pair.won} of ${printCount(pair.decided, 'pair')} of starts.${bySites ? ` ${sitesOnly(names.one)}` : ''}`;
};

/**
 * Which groups give power sooner, and how surely; nothing where no pair tells: the sentences about starts say what is not known yet.
 * @param figures how many the page looks at
 */
export function waitingSentences(starts: readonly Waited[], names: CalledBy, figures = 1): CompareSentence[] {
  const { pairs, looked } = waitingPairs(starts, figures, MOST_GROUPS);
  const waits = waitsOf(starts);
  return pairs
    .filter((pair) => pair.degree !== 'cannot_tell')
    .slice(0, MOST_SENTENCES)
    .map((pair) => ({ kind: pair.degree, text: said(pair, names), working: waitingWorking(pair, looked, waits, names) }));
}

/** The same of a pair that was put on watch: held to 24 and 7 from then on. */
export function watchedWaiting(starts: readonly Waited[], a: string, b: string, names: CalledBy): CompareSentence {
  const pair = waitingPair(starts, a, b, 1);
  if (pair.degree !== 'cannot_tell') return { kind: pair.degree, text: said(pair, names), working: waitingWorking(pair, 1, waitsOf(starts), names) };
  const most = pair.decided === 0 ? 'no pair of starts yet' : `${names.group(pair.quicker)} in ${pair.won} of ${printCount(pair.decided, 'pair')} of starts`;
  return {
    kind: 'cannot_tell',
    text: `Cannot tell yet whether ${names.group(a)} or ${names.group(b)} gives power sooner: ${most}.`,
    working: pair.decided < LEAST_VISITS ? [] : waitingWorking(pair, 1, waitsOf(starts), names),
  };
}
