/**
 * Printing of instants in a site's zone. Only the runtime's own zone data is used;
 * turning a typed local time into an instant lives where such forms are.
 */
const cache = new Map<string, Intl.DateTimeFormat>();
function format(zone: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = zone + JSON.stringify(options);
  let f = cache.get(key);
  if (!f) {
    f = new Intl.DateTimeFormat('en-GB', { ...options, timeZone: zone });
    cache.set(key, f);
  }
  return f;
}

/** True when the runtime knows the IANA zone name. */
export function isZone(zone: string): boolean {
  try {
    format(zone, {});
    return true;
  } catch {
    return false;
  }
}

/** No zone's clock has been put forward and back again within so long. */
const LOOK_MS = 3 * 3_600_000;
/** What a zone's clock is ahead of UTC, as it is written: `+02:00`. */
const offsetText = (ms: number, zone: string): string =>
  format(zone, { timeZoneName: 'longOffset' })
    .formatToParts(ms)
    .find((p) => p.type === 'timeZoneName')
    ?.value.slice('GMT'.length) || '+00:00';
const minutesOf = (offset: string): number => Number(`${offset[0]}1`) * (Number(offset.slice(1, 3)) * 60 + Number(offset.slice(4, 6)));

/** A time of day by the clock of a zone. One that comes twice, as the clock is put back, says which: `02:30 (+01:00)`. */
function printOfDay(ms: number, zone: string, options: Intl.DateTimeFormatOptions): string {
  const print = (at: number) => format(zone, { ...options, hourCycle: 'h23' }).format(at);
  const [before, after] = [offsetText(ms - LOOK_MS, zone), offsetText(ms + LOOK_MS, zone)];
  const text = print(ms);
  if (before === after) return text;
  const back_ms = (minutesOf(before) - minutesOf(after)) * 60_000;
  if (back_ms < 0) return text;
  return print(ms + back_ms) === text || print(ms - back_ms) === text ? `${text} (${offsetText(ms, zone)})` : text;
}
/** `13:52:08`. @param ms UTC ms */
export const printClock = (ms: number, zone: string) => printOfDay(ms, zone, { hour: '2-digit', minute: '2-digit', second: '2-digit' });
/** `13:52`. */
export const printTime = (ms: number, zone: string) => printOfDay(ms, zone, { hour: '2-digit', minute: '2-digit' });
/** British locale data write "Sept"; months here have three letters. */
const threeLetters = (text: string) => text.replace('Sept', 'Sep');

/** `14 Oct`. */
export const printDay = (ms: number, zone: string) => threeLetters(format(zone, { day: 'numeric', month: 'short' }).format(ms));
/** `14 Oct 2025`. */
export const printDate = (ms: number, zone: string) => threeLetters(format(zone, { day: 'numeric', month: 'short', year: 'numeric' }).format(ms));
/** `Tuesday 14 October 2025`. */
export const printLongDate = (ms: number, zone: string) =>
  format(zone, { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' }).format(ms).replace(',', '');

/** `2025-10`: the calendar month of an instant in a zone, for grouping. */
export function localMonth(ms: number, zone: string): string {
  const parts = format(zone, { year: 'numeric', month: '2-digit' }).formatToParts(ms);
  const get = (type: string) => parts.find((p) => p.type === type)?.value ?? '';
  return `${get('year')}-${get('month')}`;
}

/** `2025-10-14`: the calendar day of an instant in a zone, as prices and months are dated. */
export function localDay(ms: number, zone: string): string {
  const parts = format(zone, { year: 'numeric', month: '2-digit', day: '2-digit' }).formatToParts(ms);
  const get = (type: string) => parts.find((p) => p.type === type)?.value ?? '';
  return `${get('year')}-${get('month')}-${get('day')}`;
}

/** Calendar days from one day to another, `2025-10-14`; less than none when the other was before. */
export const daysBetween = (from: string, to: string): number => Math.round((Date.parse(to) - Date.parse(from)) / 86_400_000);

const dayFrom = (day: string, days: number): string => new Date(Date.parse(day) + days * 86_400_000).toISOString().slice(0, 10);
/** The calendar day before another, `2025-10-13`. */
export const dayBefore = (day: string): string => dayFrom(day, -1);
/** The calendar day after another, `2025-10-15`. */
export const dayAfter = (day: string): string => dayFrom(day, 1);

/** Hour of the day by the clock of a zone, 0 to 23. */
export const localHour = (ms: number, zone: string): number =>
  Number(
    format(zone, { hour: '2-digit', hourCycle: 'h23' })
      .formatToParts(ms)
      .find((p) => p.type === 'hour')?.value,
  );

/** `Oct 2025` from `2025-10`. */
export const printMonth = (month: string) => threeLetters(format('UTC', { month: 'short', year: 'numeric' }).format(Date.parse(`${month}-15T12:00:00Z`)));
/** `14 Oct 2025` of a calendar day, `2025-10-14`. */
export const printCalendarDate = (day: string): string => printDate(Date.parse(`${day}T12:00:00Z`), 'UTC');
/** `14 Oct` of a calendar day, `2025-10-14`. */
export const printSeen = (day: string): string => printDay(Date.parse(`${day}T12:00:00Z`), 'UTC');
