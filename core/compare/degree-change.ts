import type { Degree } from '../evidence/share-evidence';
import { printMonth } from '../units/zoned';
import { pairDegreesUntil } from './pair-degree';
import type { Start } from './start';

/** Month ends that are looked back to. */
const MONTHS_BACK = 6;
const WORDS: Readonly<Record<Degree, string>> = { clearly: 'it was clearly so', probably: 'it was probably so', cannot_tell: 'it could not be told' };

/** How the degree of a pair stood at the end of the last month at which it was another one, or the other led; `null` where it has not changed. */
export type DegreeChange = { until: string; was: Degree; otherLed: boolean };

/**
 * When what is said of a pair last changed: a degree is today's and is never held on to, so that one reads that it is new.
 * @param better group that leads today @param looked among how many it was found
 */
export function degreeChange(starts: readonly Start[], better: string, worse: string, today: Degree, looked: number): DegreeChange | null {
  const of = (group: string) => starts.filter((s) => s.group === group);
  const [ofBetter, ofWorse] = [of(better), of(worse)];
  const months = [...new Set([...ofBetter, ...ofWorse].map((s) => s.month))].sort();
  const then = pairDegreesUntil(ofBetter, ofWorse, looked);
  for (const [i, until] of months.slice(0, -1).reverse().entries()) {
    if (i >= MONTHS_BACK) return null;
    const pair = then?.(until);
    const was = pair?.degree ?? 'cannot_tell';
    const otherLed = was !== 'cannot_tell' && pair?.better.group === worse;
    if (was !== today || otherLed) return { until, was, otherLed };
  }
  return null;
}

/** The same in words. @param other what the one that led then is called */
export const changeText = ({ until, was, otherLed }: DegreeChange, other: string): string =>
  `until the end of ${printMonth(until)} ${WORDS[was]}${otherLed ? `, with ${other} ahead` : ''}`;
