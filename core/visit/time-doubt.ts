import { printClock } from '../units/zoned';
import type { Placed } from './timeline/placed';

/** Before one is there, a stall can be reserved, an app opened and a price read. */
const BEFORE_ARRIVAL: ReadonlySet<string> = new Set(['reserved', 'released', 'first_act', 'price_shown', 'stall_named', 'note']);
/** After one has left, a bill comes and words are added. */
const AFTER_LEAVING: ReadonlySet<string> = new Set([
  'bill',
  'receipt',
  'rating',
  'note',
  'figure_given',
  'mark',
  'danger_cleared',
  'help_called',
  'help_answered',
  'help_ended',
]);

/** When something of a visit happened. */
export type Moment = Pick<Placed, 'id' | 'kind' | 't' | 'precision'>;
export const momentOf = ({ id, kind, t, precision }: Placed): Moment => ({ id, kind, t, precision });

/**
 * What looks wrong about a time given to an event: asked about once, never blocked.
 * @param line the visit's events in order
 * @param target the event that is corrected @param at its new time, UTC ms
 * @returns a question, or `null`
 */
export function timeDoubt(line: readonly Moment[], target: { id: string; kind: string }, at: number, zone: string): string | null {
  // Of what has only a day, no time says before or after.
  const others = line.filter((e) => e.id !== target.id && e.precision !== 'day');
  if (target.kind === 'pulled_in') {
    const next = others.find((e) => !BEFORE_ARRIVAL.has(e.kind));
    return next && at > next.t ? `Something was recorded at ${printClock(next.t, zone)} already, before that arrival.` : null;
  }
  if (target.kind === 'pulled_out') {
    const last = others.findLast((e) => !AFTER_LEAVING.has(e.kind));
    return last && at < last.t ? `Something was still recorded at ${printClock(last.t, zone)}, after that leaving.` : null;
  }
  const arrival = others.find((e) => e.kind === 'pulled_in');
  if (arrival && at < arrival.t && !BEFORE_ARRIVAL.has(target.kind)) return `That is before the arrival at ${printClock(arrival.t, zone)}.`;
  const leaving = others.findLast((e) => e.kind === 'pulled_out');
  if (leaving && at > leaving.t && !AFTER_LEAVING.has(target.kind)) return `That is after the leaving at ${printClock(leaving.t, zone)}.`;
  return null;
}
