import { NOT_READ, printDuration } from '../units/print';
import type { Timing } from './timing';

/** A duration as it is shown: with its bound; unknown is "not read". */
export const timingText = (t: Timing): string =>
  t.known ? `${t.bound === 'at_most' ? '≤ ' : t.bound === 'at_least' ? '≥ ' : ''}${printDuration(t.s)}` : NOT_READ;

/** Both edges of what a duration may have been, as far as its ends are known. A sign is kept; what cannot be negative begins at nothing. */
export function edgesText(t: Timing): string {
  if (!t.known || t.pm_s <= 0) return '';
  const [low, high] = [t.s >= 0 ? Math.max(0, t.s - t.pm_s) : t.s - t.pm_s, t.s + t.pm_s];
  if (t.bound === 'at_most') return `at most ${printDuration(high)}`;
  if (t.bound === 'at_least') return `at least ${printDuration(low)}`;
  return `between ${printDuration(low)} and ${printDuration(high)}`;
}

/** ± in the same form, empty when the ends are known to the millisecond. */
export const plusMinusText = (t: Timing): string => (t.known && t.pm_s > 0 ? `± ${printDuration(t.pm_s)}` : '');
