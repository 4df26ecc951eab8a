import words from './sheet-words.json';

export type Ymd = readonly [y: number, m: number, d: number];
/** A date as written: the day it is, or the days it can be by the order of day and month. A weekday written with it fits. */
export type DatePart = { plain: Ymd } | { dmy: Ymd | null; mdy: Ymd | null };
export type TimePart = { h: number; min: number; s: number; ms: number; precision: 'min' | 's' | 'ms'; offset_min: number | null };
export type When = { date: DatePart | null; time: TimePart | null } | { code: 'bad_date' | 'bad_time' | 'formula' };

const MONTHS = words.months as Record<string, number>;
const WEEKDAYS = words.weekdays as Record<string, number>;
export const isDay = ([y, m, d]: Ymd): boolean => {
  const date = new Date(Date.UTC(y, m - 1, d));
  return date.getUTCFullYear() === y && date.getUTCMonth() === m - 1 && date.getUTCDate() === d;
};
export const weekdayOf = ([y, m, d]: Ymd): number => new Date(Date.UTC(y, m - 1, d)).getUTCDay() || 7;
const year = (text: string): number => (text.length === 2 ? 2000 + Number(text) : Number(text));
const monthOf = (text: string): number | undefined => MONTHS[text.toLowerCase().replace(/\.$/, '')];

/** Reads a cell of date, time or both. @param kind what must be in it: a date column has a date, a start or end column a time or both */
export function whenOf(cell: string): When {
  const raw = cell.normalize('NFKC').trim();
  if (raw.startsWith('=')) return { code: 'formula' };
  const serial = /^(\d{5})(?:[.,](\d+))?$/.exec(raw);
  if (serial && Number(serial[1]) >= 20_000 && Number(serial[1]) <= 79_999) return serialOf(Number(serial[1]), serial[2]);
  let text = raw;
  let weekday: number | null = null;
  const named = /^([\p{L}]+)\.?,?\s+/u.exec(text);
  if (named && WEEKDAYS[(named[1] ?? '').toLowerCase()] !== undefined) {
    weekday = WEEKDAYS[(named[1] ?? '').toLowerCase()] as number;
    text = text.slice(named[0].length);
  }
  const found = dateAt(text);
  if (!found) {
    if (weekday !== null) return { code: 'bad_date' };
    const time = timeOf(text);
    if (time) return { date: null, time };
    return { code: /^\d{1,2}\s*[:h]/i.test(text) || /^0[.,]\d+$/.test(text) ? 'bad_time' : 'bad_date' };
  }
  const { date, length } = found;
  const fits = (day: Ymd | null): Ymd | null => (day && isDay(day) && (weekday === null || weekdayOf(day) === weekday) ? day : null);
  const whole = 'plain' in date ? date : { dmy: fits(date.dmy), mdy: fits(date.mdy) };
  if ('plain' in whole ? !fits(whole.plain) : !whole.dmy && !whole.mdy) return { code: 'bad_date' };
  const rest = text.slice(length).replace(/^(?:\s*[,T]\s*|\s+)(?:(?:um|à|ob|at)\s+)?/i, '');
  if (rest.trim() === '') return { date: whole, time: null };
  if (rest.length === text.length - length) return { code: 'bad_date' };
  const time = timeOf(rest.trim());
  return time ? { date: whole, time } : { code: 'bad_time' };
}

/** The date that a text begins with, and how much of it that is. */
export function dateAt(text: string): { date: DatePart; length: number } | null {
  const ymd = /^(\d{4})([-/.])(\d{1,2})\2(\d{1,2})(?!\d)/.exec(text);
  if (ymd) return { date: { plain: [Number(ymd[1]), Number(ymd[3]), Number(ymd[4])] }, length: ymd[0].length };
  const dots = /^(\d{1,2})\.\s*(\d{1,2})\.\s*(\d{4}|\d{2})(?!\d)/.exec(text);
  if (dots) return { date: { plain: [year(dots[3] as string), Number(dots[2]), Number(dots[1])] }, length: dots[0].length };
  const dayName = /^(\d{1,2})\.?[\s-]+(\p{L}+\.?)[\s-]+(\d{4}|\d{2})(?!\d)/u.exec(text);
  const m1 = dayName && monthOf(dayName[2] as string);
  if (dayName && m1) return { date: { plain: [year(dayName[3] as string), m1, Number(dayName[1])] }, length: dayName[0].length };
  const nameDay = /^(\p{L}+\.?)\s+(\d{1,2}),?\s+(\d{4}|\d{2})(?!\d)/u.exec(text);
  const m2 = nameDay && monthOf(nameDay[1] as string);
  if (nameDay && m2) return { date: { plain: [year(nameDay[3] as string), m2, Number(nameDay[2])] }, length: nameDay[0].length };
  const ab = /^(\d{1,2})([/-])(\d{1,2})\2(\d{4}|\d{2})(?!\d)/.exec(text);
  if (!ab) return null;
  const [a, b, y] = [Number(ab[1]), Number(ab[3]), year(ab[4] as string)];
  const day = (d: Ymd) => (isDay(d) ? d : null);
  return { date: { dmy: day([y, b, a]), mdy: day([y, a, b]) }, length: ab[0].length };
}

/** Days since 30 December 1899, to the nearest second. */
function serialOf(days: number, fraction: string | undefined): When {
  const seconds = Math.round(Number(`0.${fraction ?? '0'}`) * 86_400);
  const at = new Date(Date.UTC(1899, 11, 30) + days * 86_400_000 + seconds * 1000);
  const date: DatePart = { plain: [at.getUTCFullYear(), at.getUTCMonth() + 1, at.getUTCDate()] };
  if (fraction === undefined) return { date, time: null };
  const s = at.getUTCSeconds();
  return { date, time: { h: at.getUTCHours(), min: at.getUTCMinutes(), s, ms: 0, precision: s === 0 ? 'min' : 's', offset_min: null } };
}

/** Reads a time; `null` where it is none. 24:00 is the day's end. */
export function timeOf(text: string): TimePart | null {
  const fraction = /^0[.,](\d+)$/.exec(text);
  if (fraction) {
    const s = Math.round(Number(`0.${fraction[1]}`) * 86_400);
    return { h: Math.floor(s / 3600), min: Math.floor((s % 3600) / 60), s: s % 60, ms: 0, precision: s % 60 === 0 ? 'min' : 's', offset_min: null };
  }
  const found =
    /^(\d{1,2})(?::|h)(\d{2})(?::(\d{2})(?:[.,](\d{1,9}))?)?\s*(a\.?m\.?|p\.?m\.?)?\s*(?:uhr)?\s*(z|utc|gmt|[+\-\u2212]\d{2}:?\d{2})?$/i.exec(text) ??
    /^(\d{1,2})()()()\s*(a\.?m\.?|p\.?m\.?)\s*()$/i.exec(text);
  if (!found) return null;
  const [, hh = '', mm = '', ss, fr, half, zone] = found;
  let h = Number(hh);
  const [min, s] = [Number(mm || '0'), Number(ss || '0')];
  if (min > 59 || s > 59) return null;
  if (half) {
    if (h < 1 || h > 12) return null;
    h = (h % 12) + (half.toLowerCase().startsWith('p') ? 12 : 0);
  } else if (h > 24 || (h === 24 && (min > 0 || s > 0))) return null;
  return {
    h,
    min,
    s,
    ms: fr ? Math.round(Number(`0.${fr}`) * 1000) : 0,
    precision: fr ? 'ms' : ss ? 's' : 'min',
    offset_min: offsetOf(zone || null),
  };
}

function offsetOf(zone: string | null): number | null {
  if (zone === null) return null;
  const found = /^([+\-\u2212])(\d{2}):?(\d{2})$/.exec(zone);
  return found ? (found[1] === '+' ? 1 : -1) * (Number(found[2]) * 60 + Number(found[3])) : 0;
}
