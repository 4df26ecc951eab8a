import { Temporal } from 'temporal-polyfill';

/** A local date and time in a zone as an instant, UTC ms; `null` when it is none. A time that a clock change leaves out moves on with it. */
export function localInstant(day: string, time: string, zone: string): number | null {
  try {
    return Temporal.PlainDateTime.from(`${day}T${time.padStart(5, '0')}`).toZonedDateTime(zone).epochMilliseconds;
  } catch {
    return null;
  }
}

/** An instant as a date-and-time field of the browser wants it, `2025-10-14T13:52:08`. */
export const localText = (at: number, zone: string): string =>
  Temporal.Instant.fromEpochMilliseconds(at).toZonedDateTimeISO(zone).toPlainDateTime().toString({ smallestUnit: 'second' });
