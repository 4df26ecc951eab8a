import type { Attempt } from '../visit/attempts/attempt';
import { powerOf } from '../visit/shown-power';
import type { Shown } from './projection';
import type { Series } from './series';

/** Power as a running charge showed it last; `null` where it was not read. That there was none before a pause, or in it, says nothing of what comes after. */
export function lastShown({ paused, pauses, readings }: Pick<Attempt, 'paused' | 'pauses' | 'readings'>, power: Series['power']): Shown | null {
  const last = power.at(-1);
  if (!last) return null;
  const look = readings.findLast((r) => powerOf(r) !== null);
  const resumed = pauses.at(-1)?.to.t ?? Number.NEGATIVE_INFINITY;
  const old = paused !== undefined || (look !== undefined && look.mark.t <= resumed);
  return last.kW === 0 && old ? null : { min: last.s / 60, kW: last.kW };
}
