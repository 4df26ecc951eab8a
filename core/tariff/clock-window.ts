import type { ByClock } from './compiled-tariff';
import type { ClockStretch } from './local-clock';

/**
 * Whether an element holds on a stretch by the clock of the place. Day and date are those of the moment itself, inside a window over midnight, too:
 * Friday 22:00 to 02:00 is Friday from 00:00 to 02:00 and from 22:00 to 24:00.
 */
export function holdsBy(clock: ByClock | null, at: ClockStretch): boolean {
  if (!clock) return true;
  if (clock.weekdays && !clock.weekdays.has(at.weekday)) return false;
  if (clock.from !== null && at.day < clock.from) return false;
  if (clock.until !== null && at.day >= clock.until) return false;
  const { start, end } = clock;
  return start < end ? at.minute >= start && at.minute < end : at.minute >= start || at.minute < end;
}
