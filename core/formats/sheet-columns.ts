import { grouped } from '../units/grouped';
import { onceOf } from '../units/once-of';
import money from './sheet-further-currencies.json';
import further from './sheet-further-words.json';
import words from './sheet-words.json';

/** What a column can be of. */
export const SHEET_FIELDS = [
  'date',
  'start',
  'end',
  'minutes',
  'site',
  'stall',
  'network',
  'kWh',
  'amount',
  'currency',
  'perKWh',
  'handshake_s',
  'socFrom',
  'socTo',
  'means',
  'note',
  'car',
] as const;
export type SheetField = (typeof SHEET_FIELDS)[number];
export type SheetColumn = { n: number; heading: string; field: SheetField | 'price?' | null; unit: string | null; currency: string | null };

const HEADINGS = new Map<string, SheetField | 'price?'>(
  Object.entries(words.headings).flatMap(([field, all]) => all.map((w) => [w.toLowerCase(), field as SheetField])),
);
const UNITS = new Map(Object.entries(words.units));
/** Codes of ISO 4217 and what stands for them, from memory: of a household anywhere. */
const CODES = new Map([...words.currencies, ...money.codes].map((c) => [c.toLowerCase(), c]));
const SIGNS = new Map(Object.entries({ ...words.symbols, ...money.signs }).map(([sign, of]) => [sign.toLowerCase(), { sign, of: of as readonly string[] }]));
const SHARED = new Map<string, readonly string[]>(Object.entries(money.shared));
/** Codes that are words, too: in a heading they are. */
const WORDS_TOO = new Set(money.words);
const SAID_UNITS: ReadonlySet<string> = new Set(Object.values(words.units));
const MINUTE_WORDS = new Set(words.minute_words);

/** The currency codes a sign may stand for; a code stands for itself. */
export function currenciesOf(signOrCode: string): readonly string[] {
  const code = CODES.get(signOrCode.toLowerCase());
  return code ? [code] : (SIGNS.get(signOrCode.toLowerCase())?.of ?? []);
}
/** Whether a sign stands for a currency that somebody names: in more countries than those that are thought of where nobody does. */
export const standsFor = (sign: string, code: string): boolean => currenciesOf(sign).includes(code) || (SHARED.get(sign) ?? []).includes(code);
/** Whether a column can be in it: a unit as headings say it. */
export const isUnit = (unit: string): boolean => SAID_UNITS.has(unit);
export const isCode = (text: string): boolean => CODES.has(text.toLowerCase());
/** A code or a sign in small letters, as it is written. */
export const currencyWord = (word: string): string | null => CODES.get(word) ?? SIGNS.get(word)?.sign ?? null;
const inHeading = (word: string): string | null => (WORDS_TOO.has(word) ? null : currencyWord(word));

/** A heading as its words are looked for. */
const wordsOf = (heading: string): string =>
  heading
    .normalize('NFKC')
    .toLowerCase()
    .replace(/[()[\]{}_*.,;\-–—]/g, ' ')
    .replace(/:(?=\s|$)/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();

/** As networks and other languages write them. Common practice, no source. A start date is the date alone where another column has the start. */
const FURTHER = grouped(
  Object.entries(further).flatMap(([field, all]) => all.map((word) => ({ word, field: field as SheetField }))),
  (f) => f.word,
);

const IN_MONEY: ReadonlySet<SheetField> = new Set(['amount', 'perKWh']);
const MEASURED: Partial<Record<SheetField, readonly string[]>> = {
  date: ['UTC'],
  start: ['UTC'],
  end: ['UTC'],
  kWh: ['kWh', 'Wh'],
  perKWh: ['kWh'],
  minutes: ['h', 'min', 's', 'm:ss'],
  socFrom: ['%'],
  socTo: ['%'],
};

/** What a column that nobody knows may be of, the likeliest first. Words run together, as programs write them, are taken apart. */
function likelyOf(column: SheetColumn): SheetColumn[] {
  const apart = column.heading.replace(/(\p{Ll}{2})(\p{Lu}\p{Ll})/gu, '$1 $2').replace(/[&/]/g, ' ');
  const known = columnOf(apart, column.n);
  if (known.field !== null) return [{ ...known, heading: column.heading }];
  const all = wordsOf(apart).split(' ');
  const unit = all.map((w) => UNITS.get(w)).find((u) => u !== undefined) ?? null;
  const currency = all.map(inHeading).find((c) => c !== null) ?? null;
  const named = all.filter((w) => inHeading(w) === null);
  // As it stands, and "pris per kWh (SEK)" without its currency, and "energy added (kWh)" without its unit too.
  const spellings = [all, named, named.filter((w) => !UNITS.has(w))].map((w) => w.join(' '));
  const found = spellings.map((w) => FURTHER.get(w)).find((f) => f !== undefined) ?? [];
  // What says that it is money, or in which unit, is nothing else.
  const fits = (field: SheetField) => (currency === null || IN_MONEY.has(field)) && (unit === null || (MEASURED[field] ?? []).includes(unit));
  return found.filter(({ field }) => fits(field)).map(({ field }) => ({ ...column, field, unit: field === 'perKWh' ? null : unit, currency }));
}

/** Whose number stands under such a heading: of a card, a tag, a contract. Common practice, no source. */
const OF_CARD =
  /^(rfid|emaid|(rfid |id |auth |charging )?(card|tag|token|contract)( (number|no|nr|id|uid|code))+|(rfid|auth|id) (card|tag|token)|(lade|rfid )?karten ?(nummer|nr)|vertrags?( ?(nummer|nr|id))+|numéro de (carte|contrat|badge)|número de (tarjeta|contrato)|numero (carta|tessera|contratto)|številka (kartice|pogodbe))$/u;
/** Whether what stands in a column is never kept, whatever it looks like: few cards have a check digit that would tell. */
export const isOfCard = onceOf((c: Pick<SheetColumn, 'heading'>): boolean => OF_CARD.test(wordsOf(c.heading)));

/** What somebody said of columns, by their number. */
export type ColumnsSaid = ReadonlyMap<number, Partial<Pick<SheetColumn, 'field' | 'unit' | 'currency'>>>;

/** The columns of a sheet: as somebody said, else as their headings say, and of the others the first that is likely of what no column is. */
export function columnsOf(headings: readonly string[], said: ColumnsSaid = new Map()): SheetColumn[] {
  const columns = headings.map((h, i): SheetColumn => ({ ...columnOf(h, i + 1), ...said.get(i + 1) }));
  const taken = new Set<SheetColumn['field']>(columns.map((c) => (c.field === 'price?' ? 'amount' : c.field)));
  return columns.map((c) => {
    const likely = c.field === null && !said.has(c.n) ? likelyOf(c).find((l) => l.field !== 'price?' && !taken.has(l.field)) : undefined;
    if (likely) taken.add(likely.field);
    return likely ?? c;
  });
}

/** What a heading says its column is of, in which unit and currency. */
export function columnOf(heading: string, n: number): SheetColumn {
  const text = wordsOf(heading);
  const column: SheetColumn = { n, heading: heading.trim(), field: HEADINGS.get(text) ?? null, unit: null, currency: null };
  if (column.field) return { ...column, unit: text.split(' ').some((w) => MINUTE_WORDS.has(w)) ? 'min' : null };
  const all = text.split(' ').filter(Boolean);
  // "Price per kWh (EUR)": the unit is part of the phrase, the currency beside it.
  const phrase = HEADINGS.get(all.filter((w) => !inHeading(w)).join(' ')) ?? null;
  const left: string[] = [];
  let perKWh = false;
  for (const word of all) {
    const currency = inHeading(word);
    const per = /^(.*)\/kwh$/.exec(word)?.[1];
    if (per !== undefined && (per === '' || inHeading(per))) {
      perKWh = true;
      column.currency ??= per === '' ? null : inHeading(per);
    } else if (currency) column.currency ??= currency;
    else if (UNITS.has(word)) column.unit ??= UNITS.get(word) as string;
    else left.push(word);
  }
  // "Minutes (h:mm)": a unit that is written out says more than the word.
  if (all.some((w) => MINUTE_WORDS.has(w))) column.unit ??= 'min';
  const rest = left.join(' ');
  if (phrase === 'perKWh') return { ...column, field: phrase, unit: null };
  if (perKWh) column.field = 'perKWh';
  else if (HEADINGS.has(rest)) column.field = HEADINGS.get(rest) ?? null;
  else if (rest === '')
    column.field =
      column.unit === 'kWh' || column.unit === 'Wh' ? 'kWh' : column.unit === 'min' ? 'minutes' : column.currency && !column.unit ? 'amount' : null;
  if (column.field === null) return { ...column, unit: null, currency: null };
  return column;
}

/** The heading of the reasons in a sheet of refused rows: what stands under it is ours, not of the visit. */
export const REASONS_HEADING = 'why it was refused';

/** The headings of the sheet that rows were refused of, from those of the sheet of its refused rows; any others as they are. */
export function headingsBefore(headings: readonly string[]): readonly string[] {
  if (headings.at(-1) !== REASONS_HEADING) return headings;
  return headings.slice(0, headings.findLastIndex((h, i) => i < headings.length - 1 && h !== '') + 1);
}

/** How many headings of a record are known. */
export const knownHeadings = (cells: readonly string[]): number => columnsOf(cells).filter((c) => c.field !== null).length;
