import type { Placed } from './timeline/placed';

/** One end of a duration: which event, when, how well known. */
export type Mark = Pick<Placed, 'id' | 'kind' | 'place' | 't' | 'pm_s' | 'clock_s' | 'seam' | 'precision' | 'deviceId' | 'onlySeen'>;

export function markOf(e: Placed): Mark {
  const mark: Mark = {
    id: e.id,
    kind: e.kind,
    place: e.place,
    t: e.t,
    pm_s: e.pm_s,
    seam: e.seam,
    precision: e.precision,
    deviceId: e.deviceId,
    clock_s: e.clock_s,
  };
  if (e.onlySeen) mark.onlySeen = true;
  return mark;
}

/**
 * A duration, or why there is none.
 * `bound` says what a late look makes of it: `at_most` (power was already there), `at_least`.
 */
export type Timing =
  | { known: true; s: number; pm_s: number; bound: 'exact' | 'at_most' | 'at_least'; from: Mark; to: Mark; low_s?: number }
  | { known: false; why: string };

export const noTiming = (why: string): Timing => ({ known: false, why });

/** ± of a duration between two devices is never less, seconds: two people do not touch at one instant. */
const TWO_DEVICES_PM_S = 0.5;

/** ± of a difference: of both ends, and between two devices of their clocks. */
function plusMinus(from: Mark, to: Mark): number {
  const ends = from.pm_s + to.pm_s;
  return from.deviceId === to.deviceId ? ends : Math.max(TWO_DEVICES_PM_S, ends + from.clock_s + to.clock_s);
}

/** Signed difference of two marks in seconds. Unknown across a clock that ran back or when only the day is known. */
export function signedSpan(from: Mark, to: Mark): Timing {
  if (from.precision === 'day' || to.precision === 'day') return noTiming('only the day is known');
  if (from.deviceId === to.deviceId && from.seam !== to.seam && from.seam >= 0 && to.seam >= 0) return noTiming('the phone’s clock ran back in between');
  return { known: true, s: (to.t - from.t) / 1000, pm_s: plusMinus(from, to), bound: 'exact', from, to };
}

/** A difference that cannot be negative: when it is, it is unknown with that reason, never clamped. */
export function span(from: Mark, to: Mark): Timing {
  const d = signedSpan(from, to);
  return d.known && d.s < 0 ? noTiming('the times run backwards') : d;
}

type KnownTiming = Extract<Timing, { known: true }>;

/** The bound of a sum; `null` when one part is at least and another at most. */
function boundOfSum(a: KnownTiming['bound'], b: KnownTiming['bound']): KnownTiming['bound'] | null {
  if (a === b || b === 'exact') return a;
  return a === 'exact' ? b : null;
}

/** Sum of durations; unknown as soon as one is, and unknown with the given reason when there are none. */
export function sumTimings(list: readonly Timing[], emptyWhy: string): Timing {
  let total: KnownTiming | null = null;
  for (const d of list) {
    if (!d.known) return d;
    if (!total) {
      total = { ...d };
      continue;
    }
    const bound = boundOfSum(total.bound, d.bound);
    if (bound === null) return noTiming('one part is at least, another at most');
    const low_s: number | undefined = total.low_s === undefined && d.low_s === undefined ? undefined : (total.low_s ?? total.s) + (d.low_s ?? d.s);
    total = { known: true, s: total.s + d.s, pm_s: total.pm_s + d.pm_s, bound, from: total.from, to: d.to, ...(low_s === undefined ? {} : { low_s }) };
  }
  return total ?? noTiming(emptyWhy);
}
