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

/** `13:52:08`. @param ms UTC ms */
export const printClock = (ms: number, zone: string) => format(zone, { hour: '2-digit', minute: '2-digit', second: '2-digit', hourCycle: 'h23' }).format(ms);
/** `13:52`. */
export const printTime = (ms: number, zone: string) => format(zone, { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' }).format(ms);
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

/** The calendar day before another, `2025-10-13`. */
export const dayBefore = (day: string): string => new Date(Date.parse(day) - 86_400_000).toISOString().slice(0, 10);

/** Hour of the day by the clock of a zone, 0 to 23. */
export const localHour = (ms: number, zone: string): number =>
  Number(
    format(zone, { hour: '2-digit', hourCycle: 'h23' })
      .formatToParts(ms)
      .find((p) => p.type === 'hour')?.value,
  );

/** `Oct 2025` from `2025-10`. */
export const printMonth = (month: string) => threeLetters(format('UTC', { month: 'short', year: 'numeric' }).format(Date.parse(`${month}-15T12:00:00Z`)));
/** `14 Oct` of a calendar day, `2025-10-14`. */
export const printSeen = (day: string): string => printDay(Date.parse(`${day}T12:00:00Z`), 'UTC');
