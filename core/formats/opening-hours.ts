import { localDay, printTime } from '../units/zoned';
import { member, objectsIn, ocpiInstant, textOf } from './ocpi-check';
import type { JsonObject } from './strict-json';

/** Whether an instant lies in one of the periods, begin included, end not. */
const within = (periods: readonly JsonObject[], at: number): boolean =>
  periods.some((p) => {
    const [from, to] = [ocpiInstant(textOf(p, 'period_begin') ?? ''), ocpiInstant(textOf(p, 'period_end') ?? '')];
    return from !== null && to !== null && from <= at && at < to;
  });

/**
 * Whether a place is open at an instant: an exceptional closing goes before an exceptional opening, both before the
 * week's hours, which go by the wall clock of the zone. `null` without opening times: not known, which is not closed.
 */
export function openAt(hours: JsonObject | null, zone: string, at: number): boolean | null {
  if (!hours) return null;
  if (within(objectsIn(hours, 'exceptional_closings'), at)) return false;
  if (within(objectsIn(hours, 'exceptional_openings'), at)) return true;
  if (member(hours, 'twentyfourseven') === true) return true;
  const weekday = new Date(`${localDay(at, zone)}T12:00:00Z`).getUTCDay() || 7;
  const clock = printTime(at, zone);
  return objectsIn(hours, 'regular_hours').some((h) => {
    const day = member(h, 'weekday');
    const [begin, end] = [textOf(h, 'period_begin') ?? '', textOf(h, 'period_end') ?? ''];
    return Number((day as { value?: number } | undefined)?.value) === weekday && begin <= clock && (end === '00:00' || clock < end);
  });
}
