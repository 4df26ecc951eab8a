import { tzOffset } from '@date-fns/tz/tzOffset';

const DAY_MS = 86_400_000;
/** How far local time is ahead of UTC, ms. */
const offset = (zone: string, at: number) => tzOffset(zone, new Date(at)) * 60_000;

/**
 * A local date and time in a zone as an instant, UTC ms; `null` when it is none. A time that a clock change leaves out moves on
 * with it, and one that comes twice is the first: as Temporal's "compatible" has it (ECMA-262, Temporal).
 */
export function localInstant(day: string, time: string, zone: string): number | null {
  const text = `${day}T${time.padStart(5, '0')}`;
  const local = Date.parse(`${text}Z`);
  // The thirtieth of February is no day, though a parser may know better.
  if (Number.isNaN(local) || !new Date(local).toISOString().startsWith(text)) return null;
  const [before, after] = [offset(zone, local - DAY_MS), offset(zone, local + DAY_MS)];
  if (Number.isNaN(before)) return null;
  const fits = [before, after].map((o) => ({ o, at: local - o })).filter(({ o, at }) => offset(zone, at) === o);
  return fits.length > 0 ? Math.min(...fits.map((f) => f.at)) : local - before;
}

/** An instant as a date-and-time field of the browser wants it, `2025-10-14T13:52:08`. */
export const localText = (at: number, zone: string): string => new Date(at + offset(zone, at)).toISOString().slice(0, 19);
