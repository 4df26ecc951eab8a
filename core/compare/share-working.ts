import { CLEARLY, type Counted, PROBABLY } from '../evidence/share-evidence';
import { chanceGreater, clopperPearson, jeffreysInterval } from '../evidence/share-intervals';
import { type Stratum, stratifiedDifference } from '../evidence/stratified';
import { wilsonInterval } from '../evidence/wilson';
import { grouped } from '../units/grouped';
import { printCount, printShare } from '../units/print';
import { type CalledBy, countedText, timesText } from './called';
import { changeText, degreeChange } from './degree-change';
import type { PairDegree, Side } from './pair-degree';
import type { Start } from './start';

/** Line by line, how something was worked out. */
export type Working = [head: string, text: string][];

/** What evidence it is held to. */
export const heldTo = (looked: number): string =>
  looked > 1
    ? `found among ${looked} pairs and figures: probably from ${PROBABLY * looked}, clearly from ${CLEARLY * looked}`
    : `probably from ${PROBABLY}, clearly from ${CLEARLY}`;

const range = ([low, high]: readonly [number, number]): string => `${printShare(low)} to ${printShare(high)}`;
/** Nothing is certain. */
const chance = (c: number): string => (c > 0.99 ? 'over 99 %' : printShare(c));
const points = (d: number): string => `${Math.round(d * 100)} points`;
/** A difference within strata that is off the raw one by so much, or to the other side, disagrees with it. */
const DISAGREES = 0.05;

/** Starts of both by the same means and car, where that says other than all together do. */
function alike(pair: PairDegree, starts: readonly Start[]): Working {
  const [a, b] = [pair.better.group, pair.worse.group];
  const both = starts.filter((s) => s.group === a || s.group === b);
  const count = (of: readonly Start[]): Counted => ({ yes: of.filter((s) => s.yes).length, n: of.length });
  const strata = [...grouped(both, (s) => s.stratum ?? '').values()].map(
    (of): Stratum => [count(of.filter((s) => s.group === a)), count(of.filter((s) => s.group === b))],
  );
  const within = stratifiedDifference(strata);
  const raw = pair.better.all.yes / pair.better.all.n - pair.worse.all.yes / pair.worse.all.n;
  if (!within || !Number.isFinite(raw) || (Math.abs(within.difference - raw) < DISAGREES && within.difference * raw >= 0)) return [];
  return [
    [
      'By the same means and car',
      `${points(within.difference)} apart (95 %: ${points(within.limits[0])} to ${points(within.limits[1])}), from ${printCount(within.n, 'visit')}; all together ${points(raw)}: part of it is what one paid with and drove`,
    ],
  ];
}

/** How a sentence about shares was worked out: counts, what was left out, what each remedy took away, the evidence and what it is held to. */
export function shareWorking(pair: PairDegree, looked: number, starts: readonly Start[], names: CalledBy): Working {
  const sides = [pair.better, pair.worse];
  const each = (say: (s: Side) => string) => sides.map((s) => `${names.group(s.group)} ${say(s)}`).join('; ');
  const taken = (name: keyof Side['taken']) => each((s) => String(s.taken[name]));
  const intervals = (of: (yes: number, n: number) => [number, number]) => each(({ counted: { yes, n } }) => (n === 0 ? 'none' : range(of(yes, n))));
  const change = degreeChange(starts, pair.better.group, pair.worse.group, pair.degree, looked);
  return [
    ['All visits', each((s) => countedText(s.all))],
    ['First visits of a person, apart', taken('firstVisits')],
    ['Failures of a stall before it worked again, beyond the first', taken('outages')],
    ['Months in which only one was visited', taken('months')],
    ['Counted', each((s) => `${countedText(s.counted)}, ${printCount(s.sites.length, 'site')}`)],
    ['95 % intervals (Wilson)', intervals((yes, n) => wilsonInterval(yes, n))],
    ['the same, exact (Clopper–Pearson)', intervals(clopperPearson)],
    ['the same, Jeffreys', intervals(jeffreysInterval)],
    [
      'Were every visit like every other',
      `${names.group(pair.better.group)} starts more often with chance ${chance(chanceGreater(pair.better.counted, pair.worse.counted))}`,
    ],
    ...alike(pair, starts),
    [
      'Evidence',
      `each its own share is ${timesText(pair.logWhole)} times as likely as one share for both${pair.leastWithout === null ? '' : `; ${timesText(pair.logFactor)} times without ${names.site(pair.leastWithout)}, and that counts`}`,
    ],
    ['Held to', heldTo(looked)],
    ...(change ? [['Changed', changeText(change, names.group(pair.worse.group))] as Working[number]] : []),
  ];
}
