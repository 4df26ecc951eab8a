import { MOST_FIGURE } from './sheet-figures';
import further from './sheet-further-days.json';
import words from './sheet-words.json';

export type Ymd = readonly [y: number, m: number, d: number];
/** A date as written: the day it is, or the days it can be by the order of day and month. A weekday written with it fits. */
export type DatePart = { plain: Ymd } | { dmy: Ymd | null; mdy: Ymd | null };
export type TimePart = { h: number; min: number; s: number; ms: number; precision: 'min' | 's' | 'ms'; offset_min: number | null };
export type When = { date: DatePart | null; time: TimePart | null } | { code: 'bad_date' | 'bad_time' | 'formula' };

/** Of more languages, too, by the Unicode CLDR (version 48.0, as Node has it). A name that is another month in another language is none. */
const MONTHS = new Map<string, number>(Object.entries({ ...words.months, ...further.months }));
const WEEKDAYS = new Map<string, number>(Object.entries({ ...words.weekdays, ...further.weekdays }));
/** The day of the week that a word names, Monday 1. */
export const weekdayNamed = (word: string): number | undefined => WEEKDAYS.get(word.toLowerCase());
export const isDay = ([y, m, d]: Ymd): boolean => {
  const date = new Date(Date.UTC(y, m - 1, d));
  return date.getUTCFullYear() === y && date.getUTCMonth() === m - 1 && date.getUTCDate() === d;
};
export const weekdayOf = ([y, m, d]: Ymd): number => new Date(Date.UTC(y, m - 1, d)).getUTCDay() || 7;
const year = (text: string): number => (text.length === 2 ? 2000 + Number(text) : Number(text));
/** The month of a name. A few letters that only some language has for one are it beside a whole year: "1 set 20" is of a receipt in English. */
function monthNamed(text: string, year: string): number | undefined {
  const name = text.toLowerCase().replace(/\.$/, '');
  return year.length === 2 && name.length <= 3 && !Object.hasOwn(words.months, name) ? undefined : MONTHS.get(name);
}

/** Reads a cell of a date, a time or both. @returns what stands in it, or why it is neither */
export function whenOf(cell: string): When {
  const raw = cell.normalize('NFKC').trim();
  if (raw.startsWith('=')) return { code: 'formula' };
  if (raw.length > MOST_FIGURE) return { code: 'bad_date' };
  const serial = /^(\d{5})(?:[.,](\d+))?$/.exec(raw);
  if (serial && Number(serial[1]) >= 20_000 && Number(serial[1]) <= 79_999) return serialOf(Number(serial[1]), serial[2]);
  const { weekday, text } = weekdayBefore(raw);
  const found = dateAt(text);
  if (!found) {
    if (weekday !== null) return { code: 'bad_date' };
    const time = timeOf(text);
    if (time) return { date: null, time };
    return { code: /^\d{1,2}\s*[:h]/i.test(text) || /^0[.,]\d+$/.test(text) ? 'bad_time' : 'bad_date' };
  }
  const behind = weekdayBehind(text.slice(found.length));
  const days = [weekday, behind.weekday].filter((d) => d !== null);
  const fits = (day: Ymd | null): Ymd | null => (day && isDay(day) && days.every((d) => d === weekdayOf(day)) ? day : null);
  const { date } = found;
  const whole = 'plain' in date ? date : { dmy: fits(date.dmy), mdy: fits(date.mdy) };
  if ('plain' in whole ? !fits(whole.plain) : !whole.dmy && !whole.mdy) return { code: 'bad_date' };
  const rest = behind.text.replace(BETWEEN, '');
  if (rest.trim() === '') return { date: whole, time: null };
  if (rest.length === behind.text.length) return { code: 'bad_date' };
  const time = timeOf(rest.trim()) ?? timeOf(withColons(rest.trim()));
  return time ? { date: whole, time } : { code: 'bad_time' };
}

/** What stands between a date and its time, in whichever language. */
const BETWEEN = /^(?:\s*[,T]\s*|\s+)(?:(?:um|à|às|as|ob|at|om|kl\.?|klo|ore|alle ore|alle|a las|la|u|v|o)\s+)?/i;
/** Beside a date a point may stand between hours and minutes, as in the north of Europe. */
const withColons = (time: string): string => time.replace(/^(\d{1,2})\.(\d{2})(?:\.(\d{2}))?$/, (_, ...parts) => parts.slice(0, 3).filter(Boolean).join(':'));

type Weekday = { weekday: number | null; text: string };
/** The day of the week before a date, and what is left. */
function weekdayBefore(text: string): Weekday {
  const named = /^([\p{L}-]+)\.?,?\s+(?:den\s+)?/u.exec(text);
  if (!named) return { weekday: null, text };
  const [all, word = ''] = named;
  const left = text.slice(all.length);
  // Mar is March; before a day that has its month, it is mardi, martes or martedì.
  const weekday = weekdayNamed(word) ?? (/^mar$/i.test(word) && /^\d{1,2}\.?\s+\p{L}/u.test(left) ? 2 : null);
  return { weekday, text: weekday === null ? text : left };
}
/** The same behind one, as Hungarian has it. */
function weekdayBehind(text: string): Weekday {
  const [all = '', word = ''] = /^\.?,?\s+([\p{L}-]{3,})(?=,?\s|$)/u.exec(text) ?? [];
  const weekday = weekdayNamed(word) ?? null;
  return { weekday, text: weekday === null ? text : text.slice(all.length) };
}

/** The date that a text begins with, and how much of it that is. */
export function dateAt(text: string): { date: DatePart; length: number } | null {
  const apart = /^(\d{4})\.\s*(\d{1,2})\.\s*(\d{1,2})(?!\d)(?:\.(?=\s|$))?/.exec(text);
  if (apart) return { date: { plain: [Number(apart[1]), Number(apart[2]), Number(apart[3])] }, length: apart[0].length };
  const ymd = /^(\d{4})([-/])(\d{1,2})\2(\d{1,2})(?!\d)/.exec(text);
  if (ymd) return { date: { plain: [Number(ymd[1]), Number(ymd[3]), Number(ymd[4])] }, length: ymd[0].length };
  const dots = /^(\d{1,2})\.\s*(\d{1,2})\.\s*(\d{4}|\d{2})(?!\d)(?:\.(?=\s|$))?/.exec(text);
  if (dots) return { date: { plain: [year(dots[3] as string), Number(dots[2]), Number(dots[1])] }, length: dots[0].length };
  const dayName =
    /^(\d{1,2})(?:\.|st|nd|rd|th|er|o)?[\s-]+(?:(?:de|of|den?) )?(\p{L}+\.?)(?:[\s-]+|,\s*)(?:(?:del?) )?(\d{4}|\d{2})(?!\d)(?:\.(?=\s|$))?/iu.exec(text);
  const m1 = dayName && monthNamed(dayName[2] as string, dayName[3] as string);
  if (dayName && m1) return { date: { plain: [year(dayName[3] as string), m1, Number(dayName[1])] }, length: dayName[0].length };
  const yearName = /^(\d{4})\.?\s+(\p{L}+\.?)\s+(\d{1,2})(?!\d)(?:\.(?=[\s,]|$))?/u.exec(text);
  const m3 = yearName && monthNamed(yearName[2] as string, yearName[1] as string);
  if (yearName && m3) return { date: { plain: [Number(yearName[1]), m3, Number(yearName[3])] }, length: yearName[0].length };
  const nameDay = /^(\p{L}+\.?)\s+(\d{1,2})(?:st|nd|rd|th)?,?\s+(\d{4}|\d{2})(?!\d)/u.exec(text);
  const m2 = nameDay && monthNamed(nameDay[1] as string, nameDay[3] as string);
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
    /^(\d{1,2})(?::|h)(\d{2})(?::(\d{2})(?:[.,](\d{1,9}))?)?\s*(a\.?m\.?|p\.?m\.?)?\s*(?:uhr)?\s*(z|(?:utc|gmt)(?:[+\-\u2212]\d{1,2}(?::?\d{2})?)?|[+\-\u2212]\d{2}:?\d{2}|cet|cest|mez|mesz|wet|west|eet|eest)?$/i.exec(
      text,
    ) ?? /^(\d{1,2})()()()\s*(a\.?m\.?|p\.?m\.?)\s*()$/i.exec(text);
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

/** Zones of Europe by their letters, minutes before UTC. Common practice, no source. */
const BY_LETTERS: Readonly<Record<string, number>> = { cet: 60, cest: 120, mez: 60, mesz: 120, wet: 0, west: 60, eet: 120, eest: 180 };

function offsetOf(zone: string | null): number | null {
  if (zone === null) return null;
  const found = /^(?:utc|gmt)?([+\-\u2212])(\d{1,2}):?(\d{2})?$/i.exec(zone);
  return found ? (found[1] === '+' ? 1 : -1) * (Number(found[2]) * 60 + Number(found[3] ?? 0)) : (BY_LETTERS[zone.toLowerCase()] ?? 0);
}
