import { localIso } from '../units/local-iso';
import { localDay } from '../units/zoned';
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
  const clock = localIso(at, zone, 'min').slice('2025-10-14T'.length, '2025-10-14T13:52'.length);
  return objectsIn(hours, 'regular_hours').some((h) => {
    const day = member(h, 'weekday');
    const [begin, end] = [textOf(h, 'period_begin') ?? '', textOf(h, 'period_end') ?? ''];
    return Number((day as { value?: number } | undefined)?.value) === weekday && begin <= clock && (end === '00:00' || clock < end);
  });
}

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
/** More than a sign says, and than a site can hold. */
const MOST_LETTERS = 120;

/** The week's hours in a line, days with the same hours together: `Mon–Fri 07:00–19:00, Sat 08:00–12:00`. `null` where none are told, or they do not fit in one. */
export function hoursText(hours: JsonObject | null): string | null {
  if (!hours) return null;
  if (member(hours, 'twentyfourseven') === true) return '24 hours';
  const byDay = DAYS.map((_, i) =>
    objectsIn(hours, 'regular_hours')
      .filter((h) => Number((member(h, 'weekday') as { value?: number } | undefined)?.value) === i + 1)
      .map((h) => `${textOf(h, 'period_begin')}–${textOf(h, 'period_end') === '00:00' ? '24:00' : textOf(h, 'period_end')}`)
      .sort()
      .join(' and '),
  );
  const runs: { from: number; to: number; said: string }[] = [];
  for (const [i, said] of byDay.entries()) {
    const last = runs.at(-1);
    if (last && last.said === said) last.to = i;
    else runs.push({ from: i, to: i, said });
  }
  const text = runs
    .filter((r) => r.said !== '')
    .map((r) => `${DAYS[r.from]}${r.to > r.from ? `–${DAYS[r.to]}` : ''} ${r.said}`)
    .join(', ');
  return text === '' || text.length > MOST_LETTERS ? null : text;
}
