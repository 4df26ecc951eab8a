import Big from 'big.js';
import { quantiles } from '../evidence/quantile';
import { wilsonInterval } from '../evidence/wilson';
import type { Side } from '../faults/fault-list';
import { type Asked, attemptTest, NEVER, POPULATIONS, type Population, timedBy, visitTest } from '../figures/populations';
import { grouped } from '../units/grouped';
import { known, type Maybe, unknown } from '../units/known';
import type { Start } from './start';
import type { AttemptRow, VisitRow } from './visit-row';

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

/** So many of so many, with Wilson's 95 % interval. */
export type Share = { yes: number; no: number; interval: [number, number] | null };
const shareOf = (yes: number, no: number): Share => ({ yes, no, interval: yes + no > 0 ? wilsonInterval(yes, yes + no) : null });

const isNever = attemptTest(NEVER);

/** One line of the league: everything counted by the rules of docs/definitions.md. */
export type LeagueRow = {
  networkId: string;
  /** Visits that count for starts, and all that are compared. */
  visits: number;
  allVisits: number;
  sites: number;
  /** Share of the visits at the commonest site: visits to one site are not independent. */
  commonestSite: number;
  firstTry: Share & {
    leftOut: number /** The same without the failures of one side, when that was asked. */;
    without: (Share & { side: Side; taken: number }) | null;
  };
  waiting: Waiting;
  /** Mean seconds lost per visit over the visits where it is known. */
  lost: Maybe<{ perVisit_s: number; visits: number }>;
  /** All-in price: everything paid over everything delivered, not the mean of ratios. */
  allIn: Maybe<{ perKWh: string; currency: string; visits: number }>;
};

/**
 * Waiting for power by one definition and one end mark.
 * Failed and given-up attempts enter as never, so that five failures cannot make a network look quick; attempts
 * still open are left out; late looks say "at most" and stay out.
 */
export function waiting(attempts: readonly AttemptRow[], asked: Pick<Asked, 'time' | 'mark'>): Waiting {
  const isTimed = attemptTest(timedBy(asked));
  const values: number[] = [];
  let never = 0;
  let leftOut = 0;
  for (const a of attempts) {
    if (isNever(a)) never += 1;
    else if (isTimed(a)) values.push(a[asked.time] as number);
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
 * @param asked by which definition and end mark; amounts in another currency are left out of the price: they are never added without a rate
 * @returns rows ordered by the lower end of the first-try interval, so that a few lucky visits do not lead
 */
export function league(visits: readonly VisitRow[], asked: Asked): LeagueRow[] {
  const { without: _, ...whole } = asked;
  const groups = grouped(
    visits.filter((v) => !v.leftOut),
    (v) => v.networkId,
  );
  return [...groups].map(([networkId, here]) => line(networkId, here, whole, asked)).sort(inOrder);
}

const inOrder = (a: LeagueRow, b: LeagueRow): number =>
  (b.firstTry.interval?.[0] ?? -1) - (a.firstTry.interval?.[0] ?? -1) || b.visits - a.visits || (a.networkId < b.networkId ? -1 : 1);

function line(networkId: string, here: readonly VisitRow[], whole: Asked, asked: Asked): LeagueRow {
  const of = (name: Population, how: Asked = whole): VisitRow[] => {
    return here.filter(visitTest(POPULATIONS[name].who(how)));
  };
  const tried = of('attempted');
  const bySite = new Map<string, number>();
  for (const v of tried) bySite.set(v.siteId, (bySite.get(v.siteId) ?? 0) + 1);
  const [yes, no] = [of('first_yes').length, of('first_no').length];
  const losses = of('lost').map((v) => v.lost_s as number);
  const priced = of('priced');
  const kWh = priced.reduce((s, v) => s.plus(v.deliveredKWh as string), new Big(0));
  const paid = priced.reduce((s, v) => s.plus(v.paid as string), new Big(0));
  const kept = asked.without ? of('first_no', asked).length : no;
  return {
    networkId,
    visits: tried.length,
    allVisits: here.length,
    sites: bySite.size,
    commonestSite: tried.length === 0 ? 0 : Math.max(...bySite.values()) / tried.length,
    firstTry: {
      ...shareOf(yes, no),
      leftOut: of('first_left_out').length,
      without: asked.without ? { ...shareOf(yes, kept), side: asked.without, taken: no - kept } : null,
    },
    waiting: waiting(
      here.flatMap((v) => v.attempts),
      whole,
    ),
    lost: losses.length === 0 ? unknown('not recorded') : known({ perVisit_s: losses.reduce((a, b) => a + b, 0) / losses.length, visits: losses.length }),
    allIn: kWh.eq(0)
      ? unknown(priced.length === 0 ? 'no bill and kWh together' : 'nothing delivered')
      : known({ perKWh: paid.div(kWh).toString(), currency: whole.currency, visits: priced.length }),
  };
}

const isYes = visitTest(POPULATIONS.first_yes.who({ time: 'handshake', mark: 'kW', currency: '' }));
const isNo = visitTest(POPULATIONS.first_no.who({ time: 'handshake', mark: 'kW', currency: '' }));

/** The visits that count for the first try, faults of every side in. */
export const startsOf = (visits: readonly VisitRow[]): Start[] =>
  visits.flatMap((v) => {
    const { networkId, siteId, stallId, workedAt, driverId, at, month } = v;
    const yes = isYes(v);
    return yes || isNo(v) ? [{ networkId, siteId, stallId, workedAt, driverId, at, month, yes }] : [];
  });
