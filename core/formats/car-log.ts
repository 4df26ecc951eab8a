import { type SheetRefused, sheetText } from './sheet-bytes';
import { dateAt, type TimePart, timeOf } from './sheet-dates';
import { MOST_FIGURE } from './sheet-figures';
import { isBlank, type SheetRecord, sheetRecords } from './sheet-records';

/** What a car's own recorder wrote: seconds since its first line, rising. */
export type LogSample = { s: number; kW?: number; socPct?: number; V?: number; A?: number };
export type LogField = 'time' | 'kW' | 'socPct' | 'V' | 'A';
export type CarLog = {
  ok: true;
  samples: LogSample[];
  /** Headings by what they were taken for. */
  columns: Partial<Record<LogField, string>>;
  /** Lines without a time or a figure, or that go back in time. */
  skipped: number;
  /** The recorder counts charging as negative. */
  turned: boolean;
};
export type CarLogRefused = SheetRefused | { code: 'no_time' | 'no_power' | 'too_short' | 'too_long' | 'too_many_days'; where: null };

/** Two samples a second over half a day. */
const MOST_SAMPLES = 100_000;
/** Longer nobody charges, and a clock that was set on the way makes years of a minute. */
const MOST_SECONDS = 8 * 86_400;
const LEAST_SAMPLES = 10;
const BOUNDS = { kW: [-1000, 1000], socPct: [0, 100], V: [0, 1500], A: [-2000, 2000] } as const;

const WORDS: Readonly<Record<LogField, readonly string[]>> = {
  time: [
    'time',
    'timestamp',
    'date',
    'datetime',
    'date time',
    'utc',
    'elapsed',
    'seconds',
    'second',
    't',
    's',
    'ms',
    'device time',
    'local time',
    'gps time',
    'recorded at',
    'logged at',
    'created at',
    'zeit',
    'uhrzeit',
    'datum',
    'datum zeit',
    'zeitstempel',
    'sekunden',
    'čas',
    'datum in čas',
    'sekunde',
    'heure',
    'date heure',
    'date et heure',
    'temps',
    'horodatage',
    'hora',
    'fecha',
    'fecha y hora',
    'tiempo',
    'data',
    'ora',
    'data e ora',
    'tempo',
    'tijd',
    'datum en tijd',
    'tijdstip',
  ],
  kW: ['kw', 'w', 'p', 'power', 'rate', 'leistung', 'ladeleistung', 'moč', 'moč polnjenja', 'puissance', 'potencia', 'potenza', 'vermogen', 'laadvermogen'],
  socPct: [
    'soc',
    'soc display',
    'display soc',
    'state of charge',
    'battery',
    'battery level',
    'usable battery level',
    'level',
    'ladestand',
    'ladezustand',
    'batteriestand',
    'akku',
    'akkustand',
    'stanje baterije',
    'niveau de charge',
    'état de charge',
    'estado de carga',
    'nivel de batería',
    'stato di carica',
    'livello batteria',
    'laadtoestand',
    'batterijniveau',
  ],
  V: ['v', 'u', 'volt', 'volts', 'voltage', 'spannung', 'napetost', 'tension', 'voltaje', 'tensión', 'tensione', 'spanning'],
  A: ['a', 'i', 'amp', 'amps', 'ampere', 'current', 'strom', 'ladestrom', 'tok', 'courant', 'corriente', 'corrente', 'stroom', 'laadstroom'],
};
type Column = { field: LogField; at: number; by: number };

/** What a heading is of, and by how much its figures are multiplied. */
function columnOf(heading: string): Omit<Column, 'at'> | null {
  if (heading.length > MOST_FIGURE) return null;
  // As a program names it, too: ChargePower, but kW and SoC are one word.
  const text = heading
    .normalize('NFKC')
    .replace(/(\p{Ll}{2})(\p{Lu}\p{Ll})/gu, '$1 $2')
    .toLowerCase()
    .trim();
  const unit = /[([]\s*([^)\]]*?)\s*[)\]]\s*$/.exec(text)?.[1] ?? '';
  const words = text
    .replace(/[([].*$/, '')
    .replace(/[_.,:;\-–]+/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
  // A letter is a quantity where its unit stands beside it: i alone may count the lines.
  if (unit === '' && /^[pui]$/.test(words)) return null;
  if (words === '%' || (words === '' && unit === '%')) return { field: 'socPct', by: 1 };
  const last = words.split(' ').at(-1) ?? '';
  const bare = words.replace(/ (kw|w|v|a|ms|s|%|pct|percent|prozent|utc)$/, '');
  // Of which power, volts and amps it tells; of a time it would be another one.
  const whose = bare.replace(/^((hv|dc|pack|battery|charger|charge|charging) )+/, '');
  for (const field of Object.keys(WORDS) as LogField[]) {
    if (![words, bare, ...(field === 'time' ? [] : [whose])].some((w) => WORDS[field].includes(w))) continue;
    const said = unit || (bare === words ? words : last);
    return { field, by: field === 'kW' && said === 'w' ? 0.001 : field === 'time' && said === 'ms' ? 0.001 : 1 };
  }
  return null;
}

/** A plain figure; in a file that is cut by something else a comma may be its decimal mark. */
function figure(cell: string, comma: boolean): number | null {
  if (cell.length > MOST_FIGURE) return null;
  const text = cell
    .normalize('NFKC')
    .replace(/\u2212/g, '-')
    .replace(/\s|%$|[a-z]+$/gi, '');
  const plain = comma ? text.replace(',', '.') : text;
  return /^[+-]?(\d+(\.\d*)?|\.\d+)(e[+-]?\d+)?$/i.test(plain) ? Number(plain) : null;
}

/** A moment in seconds on the recorder's own line. `clock`: of a day that is not told, so that it begins anew at midnight. */
type Moment = { s: number; clock: boolean };
const secondsOf = (t: TimePart): number => t.h * 3600 + t.min * 60 + t.s + t.ms / 1000 - (t.offset_min ?? 0) * 60;

/** A moment of a clock, of the epoch, or counted from a start. */
function momentOf(cell: string, by: number): Moment | null {
  if (cell.length > MOST_FIGURE) return null;
  const text = cell.trim();
  const count = figure(text, true);
  // Milliseconds since 1970 are not counted from a start.
  if (count !== null) return { s: count > 1e11 ? count / 1000 : count * by, clock: false };
  // A log goes by seconds: of two parts they are minutes and seconds.
  const colon = /^(?:(\d{1,3}):)?(\d{1,3}):(\d{2}(?:[.,]\d+)?)$/.exec(text);
  if (colon) return { s: Number(colon[1] ?? 0) * 3600 + Number(colon[2]) * 60 + Number((colon[3] ?? '0').replace(',', '.')), clock: colon[1] !== undefined };
  const alone = timeOf(text);
  if (alone) return { s: secondsOf(alone), clock: true };
  const found = dateAt(text);
  return found && dated(text, text.slice(found.length).replace(/^(?:\s*[,T]\s*|\s+)/i, ''));
}

/** A day and a time of it. */
function dated(date: string, time: string): Moment | null {
  const found = dateAt(date.trim())?.date;
  const day = found && ('plain' in found ? found.plain : (found.dmy ?? found.mdy));
  const at = timeOf(time.trim());
  return day && at ? { s: Date.UTC(day[0], day[1] - 1, day[2]) / 1000 + secondsOf(at), clock: false } : null;
}

/** Of two columns of time one may have the day and the other the time, in either order; else the first that reads. */
function momentIn([a, b]: readonly { cell: string; by: number }[]): Moment | null {
  const both = a && b ? (dated(a.cell, b.cell) ?? dated(b.cell, a.cell)) : null;
  return both ?? (a ? momentOf(a.cell, a.by) : null) ?? (b ? momentOf(b.cell, b.by) : null);
}

const DAY_S = 86_400;
/** So little before the line ahead of it a line is one that came late. */
const LATE_S = 120;
/** Makes one line of moments: a clock that falls back by more than half a day has passed midnight. */
function running(): (m: Moment) => number {
  let [days, last] = [0, Number.NaN];
  return ({ s, clock }) => {
    if (!clock) return s;
    // A line from before midnight that comes after it goes back in time, and is no second day.
    if (days > 0 && s - last > DAY_S - LATE_S) return s + (days - 1) * DAY_S;
    if (last - s > DAY_S / 2) days += 1;
    last = s;
    return s + days * DAY_S;
  };
}

/**
 * Reads the log of a car as CSV: time, kW, battery %, volts, amps, in any order and by any of their usual names; power by volts times amps where it is not told. Only how
 * far apart its lines are is used of its clock: a recorder's clock and zone may be any.
 * @returns why it cannot be read, or the samples, those without anything left out
 */
export function readCarLog(bytes: Uint8Array): CarLog | ({ ok: false } & CarLogRefused) {
  const read = sheetText(bytes);
  if (!read.ok) return read;
  const { text } = read;
  const delimiter = [';', '\t', ',', '|']
    .map((d) => [d, columnsIn(sheetRecords(text, d, 20).records, d)] as const)
    .sort((a, b) => b[1].columns.length - a[1].columns.length)[0];
  const [cut, { columns, from }] = delimiter as [string, ReturnType<typeof columnsIn>];
  if (!columns.some((c) => c.field === 'time')) return { ok: false, code: 'no_time', where: null };
  const has = (f: LogField) => columns.some((c) => c.field === f);
  if (!has('kW') && !(has('V') && has('A'))) return { ok: false, code: 'no_power', where: null };
  const all = sheetRecords(text, cut, MOST_SAMPLES + from + 2);
  if (all.tooLong !== null) return { ok: false, code: 'record_too_long', where: { line: all.tooLong } };
  if (all.tooWide !== null) return { ok: false, code: 'too_many_columns', where: { line: all.tooWide } };
  const rows = all.records.slice(from + 1).filter((r) => !isBlank(r));
  if (rows.length > MOST_SAMPLES) return { ok: false, code: 'too_long', where: null };
  const samples: LogSample[] = [];
  let skipped = 0;
  let first: number | null = null;
  const secondsAt = running();
  for (const row of rows) {
    const sample = sampleOf(row, columns, cut !== ',');
    const at = sample && secondsAt(sample.at);
    first ??= at;
    const s = at !== null && first !== null ? at - first : null;
    if (!sample || s === null || s <= (samples.at(-1)?.s ?? -1)) skipped += 1;
    else samples.push({ s, ...sample.figures });
  }
  if (samples.length < LEAST_SAMPLES) return { ok: false, code: 'too_short', where: null };
  if ((samples.at(-1)?.s ?? 0) > MOST_SECONDS) return { ok: false, code: 'too_many_days', where: null };
  const turned = samples.filter((x) => (x.kW ?? 0) < -0.5).length > samples.filter((x) => (x.kW ?? 0) > 0.5).length;
  if (turned) for (const x of samples) for (const f of ['kW', 'A'] as const) if (x[f] !== undefined) x[f] = 0 - (x[f] as number);
  return {
    ok: true,
    samples,
    columns: headingsOf(columns, all.records[from]?.cells ?? []),
    skipped,
    turned,
  };
}

function headingsOf(columns: readonly Column[], cells: readonly string[]): CarLog['columns'] {
  const out: CarLog['columns'] = {};
  for (const { field, at } of columns) out[field] = [out[field], (cells[at] ?? '').trim()].filter((x) => x !== undefined).join(', ');
  return out;
}

/** The record of headings, and what its columns are of: the first of each, and two of time, since day and time may stand apart. */
function columnsIn(records: readonly SheetRecord[], delimiter: string): { columns: Column[]; from: number } {
  let best: { columns: Column[]; from: number } = { columns: [], from: 0 };
  for (const [from, r] of records.entries()) {
    const columns: Column[] = [];
    for (const [at, cell] of r.cells.entries()) {
      const found = columnOf(cell);
      if (found && columns.filter((c) => c.field === found.field).length < (found.field === 'time' ? 2 : 1)) columns.push({ ...found, at });
    }
    if (columns.length > best.columns.length) best = { columns, from };
  }
  return delimiter === '' ? { columns: [], from: 0 } : best;
}

function sampleOf(row: SheetRecord, columns: readonly Column[], comma: boolean): { at: Moment; figures: Omit<LogSample, 's'> } | null {
  if (row.bad) return null;
  const figures: Omit<LogSample, 's'> = {};
  const times: { cell: string; by: number }[] = [];
  for (const { field, at, by } of columns) {
    const cell = row.cells[at] ?? '';
    if (field === 'time') {
      times.push({ cell, by });
      continue;
    }
    const value = figure(cell, comma);
    const [low, high] = BOUNDS[field];
    if (value !== null && value * by >= low && value * by <= high) figures[field] = value * by;
  }
  if (figures.kW === undefined && figures.V !== undefined && figures.A !== undefined) figures.kW = (figures.V * figures.A) / 1000;
  const at = momentIn(times);
  return at && Number.isFinite(at.s) && (figures.kW !== undefined || figures.socPct !== undefined) ? { at, figures } : null;
}
