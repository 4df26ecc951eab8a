import { instantsShowing } from '../units/local-time';
import type { TimePart, Ymd } from './sheet-dates';

/** Longer no session lasts. */
export const MOST_SPAN_MS = 2 * 86_400_000;
/** Start, end and minutes that differ by no more are one session's. */
const SAME_MS = 2 * 60_000;

/** Every instant at which a wall clock shows a time, rising: none where it is skipped, two where it comes twice. @param days further */
export function instantsOf([y, m, d]: Ymd, t: TimePart, zone: string, days = 0): number[] {
  const local = Date.UTC(y, m - 1, d + days, t.h, t.min, t.s, t.ms);
  return t.offset_min === null ? instantsShowing(local, zone) : [local - t.offset_min * 60_000];
}

/** Of the readings of a start and an end those that one session can have. @param minutes its duration where it is known */
export function readings(starts: readonly number[], ends: readonly number[], minutes: number | null): [start: number, end: number][] {
  const all = starts.flatMap((s) => ends.flatMap((e): [number, number][] => (e >= s && e - s <= MOST_SPAN_MS ? [[s, e]] : [])));
  const fits = minutes === null ? [] : all.filter(([s, e]) => Math.abs(e - s - minutes * 60_000) <= SAME_MS);
  return fits.length > 0 ? fits : all;
}
export const disagree = (start: number, end: number, minutes: number): boolean => Math.abs(end - start - minutes * 60_000) > SAME_MS;
