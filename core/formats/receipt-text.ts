import { fold } from './match-sessions';
import { amounts, bareAmount, currencies, energies, type Found, hasFigure, type ReceiptWhy } from './receipt-figures';
import { isNotPaid, type ReceiptLine, receiptLines } from './receipt-lines';
import { dateAt, isDay, weekdayNamed, weekdayOf, type Ymd } from './sheet-dates';
import { type Duration, durationOf, inForm } from './sheet-durations';
import { markAlone, valueOf } from './sheet-figures';

export type ReceiptField = 'kWh' | 'amount' | 'currency' | 'minutes' | 'date' | 'site';
/** What a receipt is proposed to say: kWh and amount as decimals, the date as yyyy-mm-dd. Nothing of it is worked out of anything else. */
export type ReceiptProposal = {
  kWh: string | null;
  amount: string | null;
  currency: string | null;
  minutes: number | null;
  date: string | null;
  site: string | null;
};
export type ReceiptRead = { proposal: ReceiptProposal; emptyBecause: Partial<Record<ReceiptField, ReceiptWhy>> };
type Told<T> = { value: T } | { why: ReceiptWhy };

/** Bounds as for a row of a sheet. */
const MOST = { kWh: 2000, amount: 100_000, minutes: 2880 };
const AHEAD_MS = 48 * 3600_000;

/**
 * Reads the text of a receipt or of a stall's last screen, as somebody typed it or as it was read off a picture. What cannot be told stays empty with its reason:
 * two totals are not chosen from, a lost mark is not put back, and no figure is worked out of others.
 * @param sites names of the household's sites @param nowMs UTC ms: a date more than 48 h ahead is none
 */
export function readReceipt(text: string, sites: readonly string[], nowMs: number): ReceiptRead {
  const lines = receiptLines(text);
  const told: { [F in ReceiptField]: Told<NonNullable<ReceiptProposal[F]>> } = {
    kWh: bounded(one(energyLines(lines)), MOST.kWh),
    amount: bounded(one(amountLines(lines)), MOST.amount),
    currency: currencyOf(lines),
    minutes: minutesOf(lines),
    date: dateOf(lines, nowMs),
    site: siteOf(text, sites),
  };
  const read: ReceiptRead = { proposal: { kWh: null, amount: null, currency: null, minutes: null, date: null, site: null }, emptyBecause: {} };
  for (const [field, of] of Object.entries(told) as [ReceiptField, Told<never>][]) {
    if ('value' in of) read.proposal[field] = of.value;
    else read.emptyBecause[field] = of.why;
  }
  return read;
}

/** The one that is told among what was found. */
function one(found: readonly Found[]): Told<string> {
  const [first, ...others] = [...new Map(found.map((f) => [f.key, f])).values()];
  if (!first) return { why: 'not_printed' };
  if (others.length > 0) return { why: 'several' };
  return 'value' in first ? { value: first.value } : { why: first.why };
}
const bounded = (told: Told<string>, most: number): Told<string> => ('value' in told && Math.abs(Number(told.value)) > most ? { why: 'bounds' } : told);

function energyLines(lines: readonly ReceiptLine[]): Found[] {
  const usable = lines.filter((l) => !l.has('meter'));
  const first = usable.filter((l) => l.has('total') || l.has('delivered')).flatMap((l) => energies(l.text));
  return first.length > 0 ? first : usable.flatMap((l) => energies(l.text));
}

function amountLines(lines: readonly ReceiptLine[]): Found[] {
  const usable = lines.filter((l) => !isNotPaid(l) && !/\/\s*(?:kwh|min)/i.test(l.text));
  const totals: Found[] = [];
  for (const [i, line] of lines.entries()) {
    if (!usable.includes(line) || !line.has('total')) continue;
    // A label without a figure speaks of the next line.
    const label = !hasFigure(withoutPerCent(line.text));
    const next = lines.slice(i + 1).find((l) => l.text !== '');
    const of = label ? next : line;
    if (!of || !usable.includes(of)) continue;
    const found = amounts(of.text);
    const bare = found.length === 0 ? bareAmount(of.text) : null;
    totals.push(...found, ...(bare ? [bare] : []));
  }
  return totals.length > 0 ? totals : usable.flatMap((l) => amounts(l.text));
}
const withoutPerCent = (text: string): string => text.replace(/\d+(?:[.,]\d+)?\s*%/g, '');

function currencyOf(lines: readonly ReceiptLine[]): Told<string> {
  const { told, shared } = currencies(lines.map((l) => l.text).join('\n'));
  const [first] = told;
  if (told.size === 1 && first) return { value: first };
  return { why: told.size > 1 ? 'several' : shared ? 'symbol' : 'not_printed' };
}

const HOURS = 'hours|hour|hr|h|std|ur|u';
const MINUTES = 'minutes|minuten|minute|mins|min';
const LABELLED = new RegExp(
  `(?<![\\p{L}\\p{N}.,:])(?:\\d+:[0-5]\\d:[0-5]\\d|\\d+\\s*min\\.?\\s*[0-5]?\\d\\s*(?:s|sec)(?![\\p{L}\\p{N}])|\\d+\\s*(?:${HOURS})\\.?\\s*[0-5]?\\d(?:\\s*(?:${MINUTES}|m))?(?![\\p{L}\\p{N}])|\\d+:[0-5]\\d(?:\\s*(?:${HOURS}|min)(?![\\p{L}\\p{N}]))?|\\d+(?:[.,]\\d+)?\\s*(?:${HOURS}|${MINUTES}|sec|s)(?![\\p{L}\\p{N}]))(?![:\\d])`,
  'giu',
);
const BY_ITSELF = new RegExp(
  `(?<![\\p{L}\\p{N}.,:])(?:\\d+\\s*(?:${HOURS})\\.?\\s*[0-5]?\\d\\s*(?:${MINUTES}|m)(?![\\p{L}\\p{N}])|\\d+(?:[.,]\\d+)?\\s*(?:${MINUTES})(?![\\p{L}\\p{N}]))`,
  'giu',
);

function minutesOf(lines: readonly ReceiptLine[]): Told<number> {
  const labelled = lines.filter((l) => l.has('duration')).flatMap((l) => [...l.text.matchAll(LABELLED)].map(([m]) => durationOf(m)));
  if (labelled.length > 0) return settled(labelled);
  const rest = lines.filter((l) => !l.has('not_duration') && !/\/\s*min/i.test(l.text));
  return settled(rest.flatMap((l) => [...l.text.matchAll(BY_ITSELF)].map(([m]) => durationOf(m))));
}

function settled(all: readonly ReturnType<typeof durationOf>[]): Told<number> {
  const minutes = new Set(all.flatMap((d) => (d === null ? [] : (told(d) ?? []))));
  const [first] = minutes;
  if (minutes.size > 1) return { why: 'several' };
  if (first === undefined) return { why: all.length > 0 ? 'form' : 'not_printed' };
  return first > MOST.minutes ? { why: 'bounds' } : { value: first };
}

/** Minutes of a duration that says its unit; `null` of one that leaves it open. */
function told(d: Duration): number | null {
  if ('minutes' in d) return d.minutes;
  return 'figure' in d && d.unit ? inForm(d, d.unit, Number(valueOf(d.figure, markAlone(d.figure)))) : null;
}

type Dated = { dmy: Ymd | null; mdy: Ymd | null; begin: boolean };

/** Every date of a line, with the weekday that stands before it. */
function datesIn(line: ReceiptLine, isReal: (d: Ymd) => boolean): Dated[] {
  const out: Dated[] = [];
  const begin = line.has('begin');
  for (let at = 0; at < line.text.length; ) {
    const before = line.text.slice(0, at);
    const found = /[\p{L}\p{N}.,:/-]$/u.test(before) ? null : dateAt(line.text.slice(at));
    if (!found) {
      at += 1;
      continue;
    }
    const day = /([\p{L}]+)\.?,?\s*$/u.exec(before)?.[1] ?? '';
    const weekday = weekdayNamed(day);
    const fits = (d: Ymd | null) => (d && isDay(d) && isReal(d) && (weekday === undefined || weekdayOf(d) === weekday) ? d : null);
    const { date } = found;
    const [dmy, mdy] = 'plain' in date ? [fits(date.plain), fits(date.plain)] : [fits(date.dmy), fits(date.mdy)];
    if (dmy || mdy) out.push({ dmy, mdy, begin });
    at += found.length;
  }
  return out;
}

function dateOf(lines: readonly ReceiptLine[], nowMs: number): Told<string> {
  const last = new Date(nowMs + AHEAD_MS).toISOString().slice(0, 10);
  const isReal = (d: Ymd) => d[0] >= 1990 && iso(d) <= last;
  const all = lines.filter((l) => !l.has('until')).flatMap((l) => datesIn(l, isReal));
  // A date that fits one order alone settles it for the others.
  const proved = new Set(all.flatMap((d) => (d.dmy && !d.mdy ? ['dmy' as const] : d.mdy && !d.dmy ? ['mdy' as const] : [])));
  const [order] = proved.size === 1 ? proved : [];
  const dayOf = (d: Dated): string | null => {
    if (d.dmy && d.mdy && iso(d.dmy) !== iso(d.mdy)) return order ? iso(d[order] as Ymd) : null;
    return iso((d.dmy ?? d.mdy) as Ymd);
  };
  const only = (some: readonly Dated[]): Told<string> => {
    const days = new Set(some.map(dayOf));
    const [first] = days;
    if (days.size === 0) return { why: 'not_printed' };
    if (days.size > 1) return { why: 'several' };
    return first ? { value: first } : { why: 'date_order' };
  };
  const whole = only(all);
  if ('value' in whole || whole.why !== 'several') return whole;
  const begun = only(all.filter((d) => d.begin));
  return 'value' in begun || begun.why === 'date_order' ? begun : whole;
}
const iso = ([y, m, d]: Ymd): string => `${String(y).padStart(4, '0')}-${String(m).padStart(2, '0')}-${String(d).padStart(2, '0')}`;

/** Letters that a reader takes for one another, alike. */
const alike = (text: string): string => fold(text).replace(/o/g, '0').replace(/[li|]/g, '1');

function siteOf(text: string, sites: readonly string[]): Told<string> {
  const within = ` ${alike(text).replace(/[^\p{L}\p{N}]+/gu, ' ')} `;
  const plain = (name: string) =>
    ` ${alike(name)
      .replace(/[^\p{L}\p{N}]+/gu, ' ')
      .trim()} `;
  const found = sites.filter((name) => plain(name).trim() !== '' && within.includes(plain(name)));
  // A name within a longer one that is there is not another site.
  const longest = found.filter((name) => !found.some((other) => other !== name && plain(other).includes(plain(name)) && plain(other) !== plain(name)));
  const [first] = longest;
  if (!first) return { why: 'unknown' };
  return longest.length > 1 ? { why: 'several' } : { value: first };
}
