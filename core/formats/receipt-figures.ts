import { isCode, standsFor } from './sheet-columns';
import type { Mark } from './sheet-figures';
import { figureOf, isOpen, markAlone, valueOf } from './sheet-figures';
import money from './sheet-further-currencies.json';
import words from './sheet-words.json';

/** Why a figure of a receipt is not told. */
export type ReceiptWhy = 'not_printed' | 'several' | 'mark' | 'bounds' | 'form' | 'symbol' | 'date_order' | 'unknown';
/** A figure as found: its value as a decimal, or why it has none. `key`: what tells two apart. */
export type Found = { value: string; key: string } | { why: 'mark'; key: string };

const NUMBER = String.raw`\d{1,3}(?:[ '’]\d{3})+(?:[.,]\d+)?|\d[\d.,]*\d|\d`;
const SIGN_OF: Record<string, string[]> = { ...words.symbols, ...money.signs };
/** Codes and signs as a pattern. */
const oneOf = (codes: readonly string[], signs: readonly string[]): string =>
  `(?:${codes.join('|')})(?!\\p{L})|(?:${signs.map((s) => s.replace('$', '\\$')).join('|')})(?!\\p{L})`;
const usual = new Set(words.currencies);
const USUAL = oneOf(words.currencies, Object.keys(words.symbols));
// A code that is a word of receipts too (a cup, the top, all) is none here.
const FURTHER = oneOf(
  money.codes.filter((code) => !money.words.includes(code.toLowerCase())),
  // “Lei 12.741/2012” is a law, named on each receipt where that is the word for one.
  Object.keys(money.signs).map((sign) => (sign === 'lei' ? String.raw`lei(?!\s*[\d.]+\/)` : sign)),
);
const RARE = new RegExp(`^(?:${FURTHER})$`, 'iu');
const CURRENCY = `${USUAL}|${FURTHER}`;
const EDGE = String.raw`(?<![\p{L}\p{N}.,:/])`;
const KWH = new RegExp(`${EDGE}(${NUMBER})\\s*(kwh|wh)(?![\\p{L}\\p{N}]|\\s*/)`, 'giu');
const MONEY = new RegExp(
  `(?<![\\p{L}\\p{N}])([+\\-\u2212]?)\\s*(${CURRENCY})\\s*([+\\-\u2212]?)\\s*(${NUMBER})(-?)(?![\\p{L}\\p{N}%:]|[.,]\\d)|${EDGE}([+\\-\u2212]?)\\s*(${NUMBER})([\\-\u2212]?)\\s*(${CURRENCY})`,
  'giu',
);
const BARE = new RegExp(`(?<![\\p{L}\\p{N}.,:/\\-\u2212+])([+\\-\u2212]?)(${NUMBER})(?![\\p{L}\\p{N}:/]|\\s*(?:%|k?wh|min|h\\b))`, 'giu');

/** A figure without a mark and four digits or more may have lost it. */
const lostMark = (digits: string): boolean => /^\d{4,}$/.test(digits);

function decimal(digits: string, negative: boolean, openMark: Mark | null): Found {
  const figure = figureOf(digits, 'time');
  if (!figure || (isOpen(figure) && openMark === null)) return { why: 'mark', key: digits };
  // The mark that both can be is the decimal one.
  const mark = markAlone(figure);
  const value = valueOf(figure, mark).times(negative ? -1 : 1);
  // As many decimals as are printed: 12.20 stays 12.20.
  const decimals = digits.includes(mark) ? digits.length - digits.lastIndexOf(mark) - 1 : 0;
  return { value: value.toFixed(Math.min(6, decimals)), key: value.toString() };
}

/** Energies of a line: a figure before kWh or Wh that is no price and no consumption. In kWh. */
export function energies(text: string): Found[] {
  return [...text.matchAll(KWH)].map(([, digits = '', unit = '']) => {
    const wh = unit.toLowerCase() === 'wh';
    if (lostMark(digits) && !wh) return { why: 'mark', key: digits };
    const found = decimal(digits, false, '.');
    if (!wh || !('value' in found)) return found;
    const kWh = figureOf(found.value, 'time');
    const value = kWh ? valueOf(kWh, '.').div(1000) : null;
    return value ? { value: value.toFixed(), key: value.toString() } : found;
  });
}

/** Amounts of a line: a figure beside a currency. */
export function amounts(text: string): Found[] {
  return [...text.matchAll(MONEY)].flatMap((m): Found[] => {
    const digits = m[4] ?? m[7] ?? '';
    // A stall's name is no amount.
    if (RARE.test(m[2] ?? m[9] ?? '') && !/[.,]\d{2}/.test(digits)) return [];
    const minus = [m[1], m[3], m[5], m[6], m[8]].some((s) => s === '-' || s === '\u2212');
    return [lostMark(digits) ? { why: 'mark', key: digits } : decimal(digits, minus, null)];
  });
}

/** The figure of a line that has no other and no currency, where it has two decimals. */
export function bareAmount(text: string): Found | null {
  const all = [...text.matchAll(BARE)];
  const [, sign, digits = ''] = all[0] ?? [];
  return all.length === 1 && /[.,]\d{2}$/.test(digits) ? decimal(digits, sign === '-' || sign === '\u2212', null) : null;
}
export const hasFigure = (text: string): boolean => /\d/.test(text);

/** What stands behind or before a currency: of those that are rarer here a figure with decimals or a price, since three letters before a number may be a stall's name. */
const BESIDE = {
  usual: { one: USUAL, before: '\\d[\\s\\-\u2212]{0,4}', after: '[\\d/+\\-\u2212]' },
  further: { one: FURTHER, before: '\\d[.,]\\d{2,3}[ \\t\\-\u2212]{0,4}', after: "(?:/|[+\\-\u2212]?\\d[\\d .,'’]{0,12}[.,]\\d{2})" },
};

/** Currencies of a text: codes where they stand beside a figure or a price, else in capitals; signs, those of several apart. */
export function currencies(text: string): { told: Set<string>; shared: boolean } {
  const told = new Set<string>();
  const shared = new Set<string>();
  const take = (word: string) => {
    const sign = Object.keys(SIGN_OF).find((s) => s.toLowerCase() === word.toLowerCase());
    const of = isCode(word) ? [word.toUpperCase()] : sign ? (SIGN_OF[sign] as string[]) : [];
    if (of.length > 1) shared.add(sign as string);
    // Beside a sign that several share counts what it may stand for.
    else if (of[0] && [...shared].every((s) => usual.has(of[0] as string) || standsFor(s, of[0] as string))) told.add(of[0]);
  };
  const beside = ({ one, before, after }: (typeof BESIDE)['usual']) => {
    for (const [word] of text.matchAll(new RegExp(`(?<![\\p{L}])(?:${one})(?=\\s*${after})|(?<=${before})(?:${one})`, 'giu'))) take(word.trim());
  };
  beside(BESIDE.usual);
  if (told.size === 0) beside(BESIDE.further);
  if (told.size === 0 && shared.size === 0)
    for (const [word] of text.matchAll(new RegExp(`(?<![\\p{L}\\p{N}])(?:${words.currencies.join('|')})(?![\\p{L}\\p{N}]|[ \\t]+\\p{L})|\\p{Sc}`, 'gu')))
      take(word);
  return { told, shared: shared.size > 0 };
}
