const MOMENT = /^(\d{4}-\d{2}-\d{2})T(\d{2}):(\d{2}):(\d{2})(\.\d{1,9})?(Z|[+-]\d{2}:\d{2})?$/;
const DAY = /^\d{4}-\d{2}-\d{2}$/;

/** True for a day that is in the calendar, `2024-02-29`. */
export function isDay(text: string): boolean {
  const ms = DAY.test(text) ? Date.parse(`${text}T00:00:00Z`) : Number.NaN;
  return !Number.isNaN(ms) && new Date(ms).toISOString().startsWith(text);
}

/**
 * A moment as OCPI 2.2.1 writes it (RFC 3339, UTC, the Z may be missing); an offset is read, too.
 * @returns UTC ms; `null` for what is no moment
 */
export function momentOf(text: string): number | null {
  const [, day = '', h = '', m = '', s = '', , zone = 'Z'] = MOMENT.exec(text) ?? [];
  if (!isDay(day) || Number(h) > 23 || Number(m) > 59 || Number(s) > 59) return null;
  const ms = Date.parse(zone === 'Z' && !text.endsWith('Z') ? `${text}Z` : text);
  return Number.isNaN(ms) ? null : ms;
}
