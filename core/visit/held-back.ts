import { chargingEnd } from './attempt-times';
import type { Attempt, Reading } from './attempts/attempt';
import type { Placed } from './timeline/placed';
import { type Mark, markOf, span, type Timing } from './timing';

/** How old a reading may be when something begins, for it to say what there was before. */
const BEFORE_MS = 10 * 60_000;

/**
 * A stretch of a charge in which somebody shared the power or the climate ran. `before_kW`: the last reading ahead of it;
 * `during_kW`: the mean of those meanwhile, of the same screen. The car's own taper is in the difference: it is told, not taken off.
 */
export type HeldBack = {
  what: 'neighbour' | 'climate';
  attempt: number;
  from: Mark;
  to: Mark | null;
  lasted: Timing | null;
  before_kW: number | null;
  during_kW: number | null;
};

const BEGINS = { neighbour_in: 'neighbour', climate_on: 'climate' } as const;
const ENDS = { neighbour: 'neighbour_out', climate: 'climate_off' } as const;
const isStart = (what: string): what is keyof typeof BEGINS => what in BEGINS;

/** What sharing and climate cost while they lasted, in the order in which they began. What began before power has nothing to be held against. */
export function heldBack(line: readonly Placed[], attempts: readonly Attempt[]): HeldBack[] {
  const changes = line.flatMap((e) => (e.kind === 'change' ? [e] : []));
  return attempts.flatMap((a): HeldBack[] => {
    const { proof } = a;
    if (!proof) return [];
    const over = chargingEnd(a) ?? a.ended?.at ?? null;
    return changes.flatMap((e): HeldBack[] => {
      if (!isStart(e.payload.what) || e.place < proof.place || (over && e.place > over.place)) return [];
      const what = BEGINS[e.payload.what];
      const last = changes.findLast((o) => o.place < e.place && o.place > proof.place && [e.payload.what, ENDS[what]].includes(o.payload.what));
      // Told a second time while it lasts.
      if (last?.payload.what === e.payload.what) return [];
      const out = changes.find((o) => o.place > e.place && o.payload.what === ENDS[what]);
      const from = markOf(e);
      const to = out && (!over || out.place < over.place) ? markOf(out) : over;
      return [{ what, attempt: a.n, from, to, lasted: to && span(from, to), ...powerAround(a.readings, from, to) }];
    });
  });
}

/** The stall's screen first: it says what was given, the car's what arrived. */
function powerAround(readings: readonly Reading[], from: Mark, to: Mark | null): Pick<HeldBack, 'before_kW' | 'during_kW'> {
  const of = (screen: 'stall' | 'car') => {
    const read = readings.flatMap((r) => (r.screen === screen && r.kW !== undefined ? [{ kW: r.kW, mark: r.mark }] : []));
    const before = read.findLast((r) => r.mark.place < from.place && from.t - r.mark.t <= BEFORE_MS)?.kW ?? null;
    const during = read.filter((r) => r.mark.place > from.place && (!to || r.mark.place <= to.place));
    return { before_kW: before, during_kW: during.length === 0 ? null : during.reduce((sum, r) => sum + r.kW, 0) / during.length };
  };
  const stall = of('stall');
  return stall.before_kW !== null && stall.during_kW !== null ? stall : ([of('car'), stall].find((p) => p.before_kW !== null && p.during_kW !== null) ?? stall);
}
