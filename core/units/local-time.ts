import { tzOffset } from '@date-fns/tz/tzOffset';

const DAY_MS = 86_400_000;
/** How far local time is ahead of UTC, ms. */
const offset = (zone: string, at: number) => tzOffset(zone, new Date(at)) * 60_000;

/** Every instant at which a zone's clock shows a time, rising: none where it is skipped, two where it comes twice. @param local the time as if it were UTC, ms */
export function instantsShowing(local: number, zone: string): number[] {
  const offsets = new Set([local - DAY_MS, local, local + DAY_MS].map((at) => offset(zone, at)));
  // It comes twice only where the offset before was the greater: that instant is the earlier, and stands first.
  return [...offsets].map((o) => local - o).filter((at) => offset(zone, at) === local - at);
}

/**
 * A local date and time in a zone as instants, UTC ms, rising; none when it is no time. One that comes twice is both, and one that
 * a clock change leaves out moves on with it, as Temporal's "compatible" has it (ECMA-262, Temporal).
 */
export function localInstants(day: string, time: string, zone: string): number[] {
  const text = `${day}T${time.padStart(5, '0')}`;
  const local = Date.parse(`${text}Z`);
  // The thirtieth of February is no day, though a parser may know better.
  if (Number.isNaN(local) || !new Date(local).toISOString().startsWith(text)) return [];
  const before = offset(zone, local - DAY_MS);
  if (Number.isNaN(before)) return [];
  const shown = instantsShowing(local, zone);
  return shown.length > 0 ? shown : [local - before];
}

/** The same where one is enough: the first, as Temporal's "compatible" has it; `null` when it is no time. */
export const localInstant = (day: string, time: string, zone: string): number | null => localInstants(day, time, zone)[0] ?? null;

/** An instant as a date-and-time field of the browser wants it, `2025-10-14T13:52:08`. */
export const localText = (at: number, zone: string): string => new Date(at + offset(zone, at)).toISOString().slice(0, 19);
