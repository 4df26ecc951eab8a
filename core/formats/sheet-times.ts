import { tzOffset } from '@date-fns/tz/tzOffset';
import type { TimePart, Ymd } from './sheet-dates';

const DAY_MS = 86_400_000;
/** Longer no session lasts. */
export const MOST_SPAN_MS = 2 * DAY_MS;
/** Start, end and minutes that differ by no more are one session's. */
const SAME_MS = 2 * 60_000;

/** Every instant at which a wall clock shows a time, rising: none where it is skipped, two where it comes twice. @param days further */
export function instantsOf([y, m, d]: Ymd, t: TimePart, zone: string, days = 0): number[] {
  const local = Date.UTC(y, m - 1, d + days, t.h, t.min, t.s, t.ms);
  if (t.offset_min !== null) return [local - t.offset_min * 60_000];
  const offsets = new Set([local - DAY_MS, local, local + DAY_MS].map((at) => tzOffset(zone, new Date(at)) * 60_000));
  return [...offsets]
    .map((o) => local - o)
    .filter((at) => tzOffset(zone, new Date(at)) * 60_000 === local - at)
    .sort((a, b) => a - b);
}

/** Of the readings of a start and an end those that one session can have. @param minutes its duration where it is known */
export function readings(starts: readonly number[], ends: readonly number[], minutes: number | null): [start: number, end: number][] {
  const all = starts.flatMap((s) => ends.flatMap((e): [number, number][] => (e >= s && e - s <= MOST_SPAN_MS ? [[s, e]] : [])));
  const fits = minutes === null ? [] : all.filter(([s, e]) => Math.abs(e - s - minutes * 60_000) <= SAME_MS);
  return fits.length > 0 ? fits : all;
}
export const disagree = (start: number, end: number, minutes: number): boolean => Math.abs(end - start - minutes * 60_000) > SAME_MS;
