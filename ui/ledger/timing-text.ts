import { NOT_READ, printDuration } from '@/core/units/print';
import type { Timing } from '@/core/visit/timing';

/** A duration as it is shown: with its bound; unknown is "not read". */
export const timingText = (t: Timing): string =>
  t.known ? `${t.bound === 'at_most' ? '≤ ' : t.bound === 'at_least' ? '≥ ' : ''}${printDuration(t.s)}` : NOT_READ;

/** ± in the same form, empty when the ends are known to the millisecond. */
export const plusMinusText = (t: Timing): string => (t.known && t.pm_s > 0 ? `± ${printDuration(t.pm_s)}` : '');
