import type { Population } from '../figures/populations';
import { printPerKWh } from '../units/money';
import { printBetween, printCount, printDuration, printShare } from '../units/print';
import { printLongDate } from '../units/zoned';
import type { ComparedGroup } from './compared-groups';
import type { PlaceRecord } from './place-record';
import { againstYardstick, YARDSTICKS } from './yardsticks';

/** One line of a place's record. `counted`: the visits that its figure is of. */
export type PlaceRow = { label: string; value: string; counted: Population | null };

/** The record of a place in one look, for its page and for paper. */
export function placeRows(r: ComparedGroup | null): PlaceRow[] {
  if (!r) return [];
  const { firstTry, wait, lost, allIn, faults, repair } = r.cells;
  const rows: PlaceRow[] = [];
  const row = (label: string, value: string, counted: Population | null = null) => void rows.push({ label, value, counted });
  if (firstTry) {
    const { yes, no, interval, leftOut } = firstTry;
    row('Starts at the first try', `${yes} of ${yes + no}`, 'attempted');
    row('95 % interval', interval ? `${printShare(interval[0])} to ${printShare(interval[1])}` : 'cannot tell yet');
    if (leftOut > 0) row('Left out: only claimed or open', String(leftOut), 'first_left_out');
  }
  if (wait) row('Handshake, median', wait.median.known ? printDuration(wait.median.value) : wait.median.why, wait.median.known ? 'timed' : null);
  if (lost) row('Lost per visit', lost.mean.known ? printDuration(lost.mean.value) : lost.mean.why, lost.mean.known ? 'lost' : null);
  if (allIn) {
    const { perKWh, bills } = allIn;
    row('Price per kWh with fees', perKWh.known ? printPerKWh(perKWh.value, allIn.currency) : perKWh.why, perKWh.known ? 'priced' : null);
    if (bills.checked > 0) row('Bills off', `${bills.off} of ${bills.checked} checked`, bills.off > 0 ? 'bill_off' : 'bill_checked');
  }
  if (faults?.rate.known) row('Faults per 100 visits', faults.rate.value.toFixed(faults.rate.value >= 100 ? 0 : 1), 'faulty');
  if (repair && (repair.n > 0 || repair.open > 0))
    row(
      'Repaired after, as seen',
      repair.least.known ? printBetween(repair.least.value, repair.most.known ? repair.most.value : null) : `${repair.open} not seen working since`,
    );
  return rows;
}

/** What is said of how the choices differ. */
export const SPREAD_WORDS: Readonly<Record<NonNullable<PlaceRecord['spread']>, string>> = {
  interior: 'Few visits are pulled towards what all of them show, so that one lucky start does not lead.',
  homogeneous: 'They differ no more than chance makes them: no reason yet to prefer one.',
  polarised: 'Each started always or never: too few visits to tell how they differ.',
  same: 'All of them alike: no reason to prefer one.',
  single: 'One visit each: it cannot be told how they differ.',
};

const VERDICT = { above: 'above', below: 'below', cannot_tell: 'cannot tell yet' } as const;
/** What was seen on arrival beside what rules ask as metered. @returns `null` where no bay was looked at */
export function arrivalWords({ arrival }: Pick<PlaceRecord, 'arrival'>): {
  looks: string;
  rest: string;
  share: string;
  interval: string;
  rows: { label: string; source: string; verdict: string }[];
} | null {
  const n = arrival.yes + arrival.no;
  if (!arrival.interval || n === 0) return null;
  const [low, high] = arrival.interval;
  return {
    looks: printCount(arrival.looks, 'look'),
    rest: `${arrival.no} of ${printCount(n, 'bay')} in order`,
    share: printShare(arrival.no / n),
    interval: `${printShare(1 - high)} to ${printShare(1 - low)}`,
    rows: YARDSTICKS.map((s) => ({ label: s.label, source: s.source, verdict: VERDICT[againstYardstick(arrival.no, n, s.share)] })),
  };
}
export const NOT_METERED =
  'As seen by you is not as metered: rules count the time in which a port works over a year, you count bays at the moments you came. Looks at one stall are not independent. 99 looks with none down are needed to say 97 %, 299 to say 99 %.';

/** Of how many visits and when, how they were counted, and who was not asked: stands under every record that names a network. */
export function methodWords(record: PlaceRecord, visits: number, zone: string): string {
  const { from, to, all } = record;
  const when = from !== null && to !== null ? `${printCount(visits, 'visit')}, ${printLongDate(from, zone)} to ${printLongDate(to, zone)}. ` : '';
  const recorded = all && all.coverage.billed > 0 ? `: ${all.coverage.noted} of ${all.coverage.billed} billed charges were recorded` : '';
  return `${when}Method: every visit that was recorded counts, times are taken by the driver at the stall, failed attempts count as never; shares with Wilson’s 95 % interval. Bad stops are recorded more often than good ones${recorded}. The operator was not asked.`;
}
