import type { Precision } from '../visit/event';
import { isDay } from './sheet-dates';

/**
 * A moment as programs write it: RFC 3339 (which lets a blank stand for the T, small letters, and a second have any number of decimals), and of ISO 8601 also a comma before the
 * decimals, no seconds, an offset without its colon or its minutes, and the day alone.
 */
export const WRITTEN_INSTANT = /^(\d{4})-(\d{2})-(\d{2})(?:[Tt ](\d{2}:\d{2})(?:(:\d{2})(?:[.,](\d+))?)?(?:([Zz])|([+-]\d{2})(?::?(\d{2}))?))?$/;

/** `at`: UTC ms, `null` of a day alone. Of decimals of a second three are kept. */
export type WrittenInstant = { day: readonly [year: number, month: number, day: number]; at: number | null; precision: Precision };

/** @returns `null` for what is no moment, or one that there is not: the thirtieth of February, a second too many */
export function writtenInstant(text: string): WrittenInstant | null {
  const found = WRITTEN_INSTANT.exec(text);
  if (!found) return null;
  const [, y, m, d, time, s, decimals = '', utc, hours, minutes = '00'] = found;
  const day = [Number(y), Number(m), Number(d)] as const;
  if (!isDay(day)) return null;
  if (time === undefined) return { day, at: null, precision: 'day' };
  const at = Date.parse(`${y}-${m}-${d}T${time}${s ?? ':00'}.${decimals.slice(0, 3).padEnd(3, '0')}${utc ? 'Z' : `${hours}:${minutes}`}`);
  return Number.isNaN(at) ? null : { day, at, precision: s === undefined ? 'min' : decimals === '' ? 's' : 'ms' };
}
