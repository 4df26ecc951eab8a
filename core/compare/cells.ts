import { wilsonInterval } from '../evidence/wilson';
import type { Side } from '../faults/fault-list';
import { type Asked, attemptTest, NEVER, POPULATIONS, type Population, timedBy, visitTest } from '../figures/populations';
import { known, type Maybe, unknown } from '../units/known';
import { quantiles } from '../units/quantile';
import { sumOf } from '../units/sum';
import type { AttemptRow, VisitRow } from './visit-row';

/** Visits and attempts of one group: a visit is where its first attempt was, each attempt in its own. */
export type Grouped = { visits: readonly VisitRow[]; attempts: readonly AttemptRow[] };

/** So many of so many, with Wilson's 95 % interval. */
export type Share = { yes: number; no: number; interval: [number, number] | null };
export const shareOf = (yes: number, no: number): Share => ({ yes, no, interval: yes + no > 0 ? wilsonInterval(yes, yes + no) : null });
/** The share once more without what failed on one side; `taken`: how many that takes away. */
export type ShareCell = Share & { is: 'share'; leftOut: number; without: (Share & { side: Side; taken: number }) | null };

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
/** Seconds over visits where they are known. */
export type TimesCell = { is: 'times'; n: number; median: Maybe<number>; quarters: [number, number] | null };
export type MeanCell = { is: 'mean'; n: number; mean: Maybe<number> };
/** So many on a hundred visits or hours; `parts`: which, the most frequent first. */
export type RateCell = { is: 'rate'; count: number; per: number; of: 'visits' | 'hours'; rate: Maybe<number>; parts: [name: string, count: number][] };
/** `bills`: those off, of those that could be held against a price on file. `stop`: kWh and hour of a stop in the middle, where they are known. */
export type PriceCell = {
  is: 'price';
  n: number;
  perKWh: Maybe<string>;
  currency: string;
  bills: { off: number; checked: number };
  stop: { kWh: number; hour: number | null } | null;
};
/** Bays out of order of those looked at, over so many looks: looks at one stall are not independent. */
export type BaysCell = Share & { is: 'bays'; looks: number };
/** How long stalls stayed broken, seconds: at least from the first failure seen to the last, at most from the last time it worked to the next. */
export type RepairCell = { is: 'repair'; n: number; open: number; least: Maybe<number>; most: Maybe<number> };
export type Cell = ShareCell | ({ is: 'wait' } & Waiting) | TimesCell | MeanCell | RateCell | PriceCell | BaysCell | RepairCell;

/** Those of a group that a population holds. The groups of `asked` were told apart before. */
export function counted(name: Population, g: Grouped, asked: Asked): number {
  const { groups: _, ...how } = asked;
  const p = POPULATIONS[name];
  return p.of === 'visits' ? countOf(g.visits, visitTest(p.who(how))) : countOf(g.attempts, attemptTest(p.on(how)));
}
function countOf<T>(all: readonly T[], test: (t: T) => boolean): number {
  let n = 0;
  for (const t of all) if (test(t)) n += 1;
  return n;
}
export const visitsIn = (name: Population, g: Grouped, asked: Asked): VisitRow[] => {
  const { groups: _, ...how } = asked;
  return g.visits.filter(visitTest(POPULATIONS[name].who(how)));
};

/** A share of two populations, with and without a side. */
export function shareCell(yes: Population, no: Population, leftOut: Population | null, g: Grouped, asked: Asked): ShareCell {
  const { without, ...whole } = asked;
  const [y, n] = [counted(yes, g, whole), counted(no, g, whole)];
  const kept = without ? { yes: counted(yes, g, asked), no: counted(no, g, asked) } : null;
  return {
    is: 'share',
    ...shareOf(y, n),
    leftOut: leftOut ? counted(leftOut, g, whole) : 0,
    without: without && kept ? { ...shareOf(kept.yes, kept.no), side: without, taken: y + n - kept.yes - kept.no } : null,
  };
}

const isNever = attemptTest(NEVER);

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

/** Median and middle half of what is known. */
export function timesCell(values: readonly number[]): TimesCell {
  if (values.length === 0) return { is: 'times', n: 0, median: unknown('not recorded'), quarters: null };
  const [lower, median, upper] = quantiles(values, [0.25, 0.5, 0.75] as const);
  return { is: 'times', n: values.length, median: known(median), quarters: [lower, upper] };
}

export const meanCell = (values: readonly number[]): MeanCell => ({
  is: 'mean',
  n: values.length,
  mean: values.length === 0 ? unknown('not recorded') : known(values.reduce((a, b) => a + b, 0) / values.length),
});

/** So many on a hundred. @param per visits, or hours */
export function rateCell(names: readonly string[], per: number, of: RateCell['of']): RateCell {
  const parts = new Map<string, number>();
  for (const name of names) parts.set(name, (parts.get(name) ?? 0) + 1);
  return {
    is: 'rate',
    count: names.length,
    per,
    of,
    rate: per > 0 ? known((names.length * 100) / per) : unknown('not recorded'),
    parts: [...parts].sort(([x, a], [y, b]) => b - a || (x < y ? -1 : 1)),
  };
}

/** All-in price: everything paid over everything delivered, not the mean of ratios. */
export function priceCell(visits: readonly VisitRow[], currency: string, bills: PriceCell['bills']): PriceCell {
  const kWh = sumOf(visits.map((v) => v.deliveredKWh as string));
  const perKWh: Maybe<string> = kWh.eq(0)
    ? unknown(visits.length === 0 ? 'no bill and kWh together' : 'nothing delivered')
    : known(
        sumOf(visits.map((v) => v.paid as string))
          .div(kWh)
          .toString(),
      );
  const hours = visits.flatMap((v) => (typeof v.hour === 'number' ? [v.hour] : []));
  const stop =
    visits.length === 0
      ? null
      : {
          kWh: quantiles(
            visits.map((v) => Number(v.deliveredKWh)),
            [0.5] as const,
          )[0],
          hour: hours.length > 0 ? Math.round(quantiles(hours, [0.5] as const)[0]) : null,
        };
  return { is: 'price', n: visits.length, perKWh, currency, bills, stop };
}

/** Bays out of order on arrival. */
export function baysCell(visits: readonly VisitRow[]): BaysCell {
  const [seen, out] = [visits.reduce((s, v) => s + (v.baysSeen ?? 0), 0), visits.reduce((s, v) => s + (v.baysOut ?? 0), 0)];
  return { is: 'bays', ...shareOf(out, seen - out), looks: visits.length };
}
