import Decimal from 'decimal.js';
import { quantiles } from '../evidence/quantile';
import { wilsonInterval } from '../evidence/wilson';
import { known, type Maybe, unknown } from '../units/known';
import type { EndMark } from '../visit/attempts';
import type { AttemptRow, PowerTime, VisitRow } from './visit-row';

export type Waiting = {
  /** Attempts with power that could be timed by this definition and end mark. */
  timed: number;
  /** Attempts that never got power: beyond every time. */
  never: number;
  /** Seen late, without the mark, or not recorded: left out and said so. */
  leftOut: number;
  /** Seconds; unknown when fewer than half started. */
  median: Maybe<number>;
  /** Middle half of all; an end that is never is `null`. */
  quarters: [number, number | null] | null;
};

/** One line of the league: everything counted by the rules of docs/definitions.md. */
export type LeagueRow = {
  networkId: string;
  /** Visits with at least one attempt, and all of them. */
  visits: number;
  allVisits: number;
  sites: number;
  /** Share of the visits at the commonest site: visits to one site are not independent. */
  commonestSite: number;
  firstTry: { yes: number; no: number; leftOut: number; interval: [number, number] | null };
  waiting: Waiting;
  /** Mean seconds lost per visit over the visits where it is known. */
  lost: Maybe<{ perVisit_s: number; visits: number }>;
  /** All-in price: everything paid over everything delivered, not the mean of ratios. */
  allIn: Maybe<{ perKWh: string; currency: string; visits: number }>;
};

/** True for a visit that has a place in the all-in price. */
export const isPriced = (v: Pick<VisitRow, 'paid' | 'deliveredKWh'>): boolean => v.paid !== null && v.deliveredKWh !== null;

/**
 * Waiting for power by one definition and one end mark.
 * Failed and given-up attempts enter as never, so that five failures cannot make a network look quick; attempts
 * still open are left out; late looks say "at most" and stay out.
 */
export function waiting(attempts: readonly AttemptRow[], time: PowerTime, mark: EndMark): Waiting {
  const values: number[] = [];
  let never = 0;
  let leftOut = 0;
  for (const a of attempts) {
    const s = a.seconds[time];
    if (a.outcome === 'failed' || a.outcome === 'gave_up') never += 1;
    else if (a.outcome === 'power' && !a.late && a.endMark === mark && s !== null && s !== undefined) values.push(s);
    else leftOut += 1;
  }
  const timed = values.length;
  const all = [...values, ...Array<number>(never).fill(Number.POSITIVE_INFINITY)];
  if (timed === 0) return { timed, never, leftOut, median: unknown(never > 0 ? 'none got power' : 'nothing timed'), quarters: null };
  const [lower, median, upper] = quantiles(all, [0.25, 0.5, 0.75] as const);
  return {
    timed,
    never,
    leftOut,
    median: Number.isFinite(median) ? known(median) : unknown('fewer than half started'),
    quarters: Number.isFinite(lower) ? [lower, Number.isFinite(upper) ? upper : null] : null,
  };
}

/**
 * Groups visits by network and counts.
 * @param currency amounts in another are left out of the price: they are never added without a rate
 * @returns rows ordered by the lower end of the first-try interval, so that a few lucky visits do not lead
 */
export function league(visits: readonly VisitRow[], time: PowerTime, mark: EndMark, currency: string): LeagueRow[] {
  const groups = new Map<string, VisitRow[]>();
  for (const v of visits) {
    const list = groups.get(v.networkId) ?? [];
    list.push(v);
    groups.set(v.networkId, list);
  }
  const rows = [...groups].map(([networkId, all]): LeagueRow => {
    const tried = all.filter((v) => v.attempts.length > 0);
    const bySite = new Map<string, number>();
    for (const v of tried) bySite.set(v.siteId, (bySite.get(v.siteId) ?? 0) + 1);
    const yes = tried.filter((v) => v.firstTry === 'yes').length;
    const no = tried.filter((v) => v.firstTry === 'no').length;
    const losses = tried.map((v) => v.lost_s).filter((s) => s !== null);
    const priced = all.filter((v) => isPriced(v) && v.currency === currency);
    const kWh = priced.reduce((s, v) => s.plus(v.deliveredKWh as string), new Decimal(0));
    const paid = priced.reduce((s, v) => s.plus(v.paid as string), new Decimal(0));
    return {
      networkId,
      visits: tried.length,
      allVisits: all.length,
      sites: bySite.size,
      commonestSite: tried.length === 0 ? 0 : Math.max(...bySite.values()) / tried.length,
      firstTry: { yes, no, leftOut: tried.length - yes - no, interval: yes + no > 0 ? wilsonInterval(yes, yes + no) : null },
      waiting: waiting(
        tried.flatMap((v) => v.attempts),
        time,
        mark,
      ),
      lost: losses.length === 0 ? unknown('not recorded') : known({ perVisit_s: losses.reduce((a, b) => a + b, 0) / losses.length, visits: losses.length }),
      allIn: kWh.isZero()
        ? unknown(priced.length === 0 ? 'no bill and kWh together' : 'nothing delivered')
        : known({ perKWh: paid.div(kWh).toString(), currency, visits: priced.length }),
    };
  });
  return rows.sort(
    (a, b) => (b.firstTry.interval?.[0] ?? -1) - (a.firstTry.interval?.[0] ?? -1) || b.visits - a.visits || (a.networkId < b.networkId ? -1 : 1),
  );
}
