import Big from 'big.js';
import { privateNumber } from '../records/private-number';
import { undefused } from '../units/csv-text';
import { firstBy } from '../units/grouped';
import { onceOf } from '../units/once-of';
import { fold } from './match-sessions';
import { currenciesOf, currencyWord, isCode, type SheetColumn, type SheetField } from './sheet-columns';
import { type DatePart, isDay, type TimePart, whenOf, type Ymd } from './sheet-dates';
import { type Duration, type DurationForm, durationOf, inForm } from './sheet-durations';
import { type Figure, figureOf, isOpen, type Mark, valueOf } from './sheet-figures';
import { disagree, instantsOf, MOST_SPAN_MS, readings } from './sheet-times';
import words from './sheet-words.json';

export type SheetWorld = { sites: readonly { name: string; network: string; zone: string; stalls: readonly string[] }[]; networks: readonly string[] };
export type SheetSettings = { zone: string /** UTC ms. */; now: number; currency: string | null };
export type Warning = 'end_next_day' | 'start_from_end' | 'times_disagree' | 'amount_not_computed' | 'network_differs' | 'soc_falls';
export type RowReason = { column: number; code: string };
export type RowAsk = {
  code: 'date_order' | 'decimal_mark' | 'energy_unit' | 'duration_form' | 'currency' | 'currency_symbol' | 'time_twice';
  column: number | null;
  options: readonly string[];
};
export type SheetRow = {
  line: number;
  /** UTC ms. */
  start: number;
  startPrecision: 'ms' | 's' | 'min' | 'day';
  end: number | null;
  site: string;
  stall: string | null;
  network: string | null;
  car: string | null;
  kWh: string | null;
  amount: string | null;
  currency: string | null;
  perKWh: string | null;
  minutes: number | null;
  handshake_s: number | null;
  socFrom: number | null;
  socTo: number | null;
  means: string | null;
  note: string | null;
  rest: Record<string, string>;
  warnings: Warning[];
};
/** What was settled for the sheet as a whole, by its own cells or by an answer. */
export type SheetRules = {
  columns: readonly SheetColumn[];
  mark: (column: number) => Mark | null;
  order: 'dmy' | 'mdy' | null;
  /** `other`: its column's durations are written in another form. */
  form: (column: number, d: Duration) => DurationForm | 'other' | null;
  formOptions: (column: number) => readonly string[];
  energyUnit: (column: number) => 'kWh' | 'Wh' | null;
  currency: string | null;
  symbol: (set: readonly string[]) => string | null;
  timeTwice: (line: number, column: number) => 'first' | 'second' | null;
};
export type ReadRow = { row: SheetRow | null; reasons: RowReason[]; asks: RowAsk[] };

const BOUNDS = { kWh: [0, 2000], amount: [-100_000, 100_000], perKWh: [0, 100], minutes: [0, 2880], handshake: [0, 172_800], soc: [0, 100] } as const;
const LONGEST: Partial<Record<SheetField, number>> = { site: 80, stall: 40, network: 80, car: 80, note: 2000 };
const FIRST = Date.UTC(1990, 0, 1);
const FUTURE_MS = 48 * 3_600_000;
const EMPTY: ReadonlySet<string> = new Set(['', '-', '–', '—', 'n/a', 'null', '?']);
export const isEmpty = (cell: string | undefined): boolean => EMPTY.has((cell ?? '').trim().toLowerCase());
const MEANS = new Map(Object.entries(words.means).flatMap(([kind, all]) => all.map((w) => [fold(w), kind])));
const STALL_WORDS = new Set(words.stall_words.map((w) => w.toLowerCase()));
const within = (n: number | Big, [lo, hi]: readonly [number, number]) => new Big(n).gte(lo) && new Big(n).lte(hi);

/** Whether a value passes the bound of its column: energy, amount or price. */
export function passes(field: 'kWh' | 'amount' | 'perKWh', value: Big, unit: string | null): boolean {
  return !within(field === 'kWh' && unit?.toLowerCase() === 'wh' ? value.div(1000) : value, BOUNDS[field]);
}

/** Sites and networks by their folded names, the first of several of one name, and zones by the site's name as it is written here. */
const indexOf = onceOf((world: SheetWorld) => ({
  sites: firstBy(world.sites, (s) => fold(s.name)),
  networks: firstBy(world.networks, fold),
  zones: firstBy(world.sites, (s) => s.name),
}));

/** The zone of a site that is known by this very name. */
export const zoneAt = (world: SheetWorld, site: string): string | undefined => indexOf(world).zones.get(site)?.zone;
/** Whether a network is known, however it is written. */
export const knowsNetwork = (world: SheetWorld, name: string): boolean => indexOf(world).networks.has(fold(name));

/** Reads one record by the rules of its sheet: every reason for which it is refused, or what is still to be asked, or the row. */
export function readRow(line: number, cells: readonly string[], rules: SheetRules, world: SheetWorld, settings: SheetSettings): ReadRow {
  const reasons: RowReason[] = [];
  const asks: RowAsk[] = [];
  const warnings: Warning[] = [];
  const rest: Record<string, string> = {};
  const no = (column: number, code: string): null => {
    reasons.push({ column, code });
    return null;
  };
  const ask = (code: RowAsk['code'], column: number | null, options: readonly string[]): null => {
    asks.push({ code, column, options });
    return null;
  };
  const column = (field: SheetField) => rules.columns.find((c) => c.field === field);
  const cellOf = (c: SheetColumn | undefined): string | null => (c && !isEmpty(cells[c.n - 1]) ? (cells[c.n - 1] as string).trim() : null);
  const text = (field: SheetField): string | null => {
    const c = column(field);
    const cell = cellOf(c);
    return c && cell !== null ? textOf(cell, c, LONGEST[field] ?? null) : null;
  };
  const textOf = (cell: string, c: SheetColumn, most: number | null): string | null => {
    const plain = undefused(cell).replace(/\r\n?/g, '\n').trim();
    if (most !== null && [...plain].length > most) no(c.n, 'too_long');
    if (privateNumber(plain)) no(c.n, 'private_number');
    return plain;
  };

  const place = placeOf();
  const zone = (place.site === null ? undefined : zoneAt(world, place.site)) ?? settings.zone;
  const kWh = energy();
  const amount = money('amount');
  const perKWh = money('perKWh');
  const currency = currencyOf();
  const minutes = duration();
  const handshake_s = handshake();
  const [socFrom, socTo] = [level('socFrom'), level('socTo')];
  if (socFrom !== null && socTo !== null && socTo < socFrom) warnings.push('soc_falls');
  const when = times();
  if (perKWh !== null && kWh !== null && amount === null && cellOf(column('amount')) === null) warnings.push('amount_not_computed');
  const [note, car] = [text('note'), text('car')];
  const means = meansOf();
  for (const c of rules.columns) {
    const cell = cellOf(c);
    if (cell === null || c.field !== null) continue;
    const plain = textOf(cell, c, null);
    if (plain !== null) rest[keyOf(c)] = plain;
  }
  if (reasons.length > 0) return { row: null, reasons, asks: [] };
  if (asks.length > 0 || !when) return { row: null, reasons, asks };
  return {
    reasons,
    asks,
    row: {
      line,
      start: when.start,
      startPrecision: when.precision,
      end: when.end,
      site: place.site ?? '',
      stall: place.stall,
      network: place.network,
      car,
      kWh: kWh?.toFixed() ?? null,
      amount: amount?.toFixed() ?? null,
      currency,
      perKWh: perKWh?.toFixed() ?? null,
      minutes,
      handshake_s,
      socFrom,
      socTo,
      means,
      note,
      rest,
      warnings,
    },
  };

  function placeOf(): { site: string | null; stall: string | null; network: string | null } {
    const c = column('site');
    const written = text('site');
    let stall = text('stall');
    if (written === null || written === '') {
      no(c?.n ?? column('stall')?.n ?? 1, 'no_site');
      return { site: null, stall, network: text('network') };
    }
    const { sites, networks } = indexOf(world);
    const known = (name: string) => sites.get(fold(name));
    let site = written.replace(/\s+/g, ' ');
    if (!known(site) && stall === null) {
      const parted = partOff(site, (name) => known(name) !== undefined);
      if (parted) [site, stall] = parted;
    }
    const here = known(site);
    if (stall !== null) {
      const plain = withoutStallWords(stall);
      stall = here?.stalls.find((s) => fold(s) === fold(plain)) ?? plain;
    }
    const said = text('network');
    const network = said === null ? (here?.network ?? null) : (networks.get(fold(said)) ?? said.replace(/\s+/g, ' '));
    if (here && said !== null && fold(said) !== fold(here.network)) warnings.push('network_differs');
    return { site: here?.name ?? site, stall, network };
  }

  function figure(c: SheetColumn, cell: string, kind: Parameters<typeof figureOf>[1]): { f: Figure; value: Big } | null {
    if (cell.normalize('NFKC').startsWith('=')) return no(c.n, 'formula');
    const f = figureOf(cell, kind);
    if (!f) return no(c.n, 'bad_number');
    const mark = isOpen(f) ? rules.mark(c.n) : (f.can[0] as Mark);
    return mark === null ? ask('decimal_mark', c.n, [',', '.']) : { f, value: valueOf(f, mark) };
  }

  function energy(): Big | null {
    const c = column('kWh');
    const cell = cellOf(c);
    if (!c || cell === null) return null;
    const read = figure(c, cell, 'kWh');
    if (!read) return null;
    const unit = read.f.unit ?? c.unit?.toLowerCase() ?? rules.energyUnit(c.n)?.toLowerCase() ?? null;
    if (unit === null) return ask('energy_unit', c.n, ['kWh', 'Wh']);
    const value = unit === 'wh' ? new Big(read.value.div(1000).toFixed(6, Big.roundHalfUp)) : read.value;
    return within(value, BOUNDS.kWh) ? value : no(c.n, 'out_of_bounds');
  }

  function money(field: 'amount' | 'perKWh'): Big | null {
    const c = column(field);
    const cell = cellOf(c);
    const read = c && cell !== null ? figure(c, cell, field) : null;
    if (!c || !read) return null;
    return within(read.value, BOUNDS[field]) ? read.value : no(c.n, 'out_of_bounds');
  }

  function level(field: 'socFrom' | 'socTo'): number | null {
    const c = column(field);
    const cell = cellOf(c);
    const read = c && cell !== null ? figure(c, cell, 'soc') : null;
    if (!c || !read) return null;
    return within(read.value, BOUNDS.soc) ? Number(read.value) : no(c.n, 'out_of_bounds');
  }

  function currencyOf(): string | null {
    const paid = (['amount', 'perKWh'] as const).flatMap((field) => {
      const c = column(field);
      const cell = cellOf(c);
      return c && cell !== null ? [{ c, said: figureOf(cell, field)?.currencies ?? [] }] : [];
    });
    const [first] = paid;
    if (!first) return null;
    const own = column('currency');
    const written = cellOf(own);
    const bad = own && written !== null && !currencyWord(written.toLowerCase());
    if (bad) no(own.n, 'bad_currency');
    const said = [...paid.flatMap((p) => p.said), ...(written === null || bad ? [] : [written])];
    const codes = new Set(said.filter(isCode).map((s) => s.toUpperCase()));
    const signs = said.filter((s) => !isCode(s));
    const [code] = codes;
    const common = (of: readonly string[]) => currenciesOf(of[0] as string).filter((x) => of.every((s) => currenciesOf(s).includes(x)));
    const disagree = code ? signs.some((s) => !currenciesOf(s).includes(code)) : signs.length > 0 && common(signs).length === 0;
    if (codes.size > 1 || disagree) return no(first.c.n, 'currency_conflict');
    if (bad) return null;
    if (code) return code;
    const heading = paid.find((p) => p.c.currency)?.c.currency ?? null;
    if (signs.length === 0 && heading && isCode(heading)) return heading;
    if (signs.length > 0 || heading) {
      const set = common(signs.length > 0 ? signs : [heading as string]);
      if (set.length === 1) return set[0] as string;
      const chosen = settings.currency && set.includes(settings.currency) ? settings.currency : rules.symbol(set);
      return chosen ?? ask('currency_symbol', null, set);
    }
    return settings.currency ?? rules.currency ?? ask('currency', null, words.currencies);
  }

  function duration(): number | null {
    const c = column('minutes');
    const cell = cellOf(c);
    if (!c || cell === null) return null;
    if (cell.normalize('NFKC').startsWith('=')) return no(c.n, 'formula');
    const d = durationOf(cell);
    if (!d) return no(c.n, 'bad_duration');
    let value: number | null = null;
    if ('figure' in d) {
      const mark = isOpen(d.figure) ? rules.mark(c.n) : (d.figure.can[0] as Mark);
      if (mark === null) return ask('decimal_mark', c.n, [',', '.']);
      value = Number(valueOf(d.figure, mark));
    }
    const form = 'minutes' in d ? 'min' : ('figure' in d && d.unit) || rules.form(c.n, d);
    if (form === null) return ask('duration_form', c.n, rules.formOptions(c.n));
    if (form === 'other') return no(c.n, 'bad_duration');
    const found = inForm(d, form, value);
    return within(found, BOUNDS.minutes) ? Math.round(found * 1e6) / 1e6 : no(c.n, 'out_of_bounds');
  }

  function handshake(): number | null {
    const c = column('handshake_s');
    const cell = cellOf(c);
    if (!c || cell === null) return null;
    if (cell.normalize('NFKC').startsWith('=')) return no(c.n, 'formula');
    const d = durationOf(cell);
    if (!d) return no(c.n, 'bad_number');
    let seconds: number;
    if ('colon' in d) seconds = d.colon[0] * 60 + d.colon[1];
    else if ('minutes' in d) seconds = d.minutes * 60;
    else {
      const mark = isOpen(d.figure) ? rules.mark(c.n) : (d.figure.can[0] as Mark);
      if (mark === null) return ask('decimal_mark', c.n, [',', '.']);
      const unit = d.unit ?? c.unit?.toLowerCase() ?? 's';
      seconds = Number(valueOf(d.figure, mark)) * (unit === 'min' ? 60 : unit === 'h' ? 3600 : 1);
    }
    return within(seconds, BOUNDS.handshake) ? Math.round(seconds * 1e6) / 1e6 : no(c.n, 'out_of_bounds');
  }

  /** Under its heading; two columns of one heading are both kept, and the name that reaches behind an object is none. */
  function keyOf(c: SheetColumn): string {
    return c.heading === '' || c.heading === '__proto__' || Object.hasOwn(rest, c.heading) ? `column ${c.n}` : c.heading;
  }

  function meansOf(): string | null {
    const c = column('means');
    const written = text('means');
    if (!c || written === null) return null;
    const kind = MEANS.get(fold(written)) ?? null;
    if (kind === null) rest[keyOf(c)] = written;
    return kind;
  }

  type Part = { c: SheetColumn; date: Ymd | null; time: TimePart | null };
  function part(field: 'date' | 'start' | 'end'): Part | 'wrong' | null {
    const c = column(field);
    const cell = cellOf(c);
    if (!c || cell === null) return null;
    const read = whenOf(cell);
    if ('code' in read) {
      no(c.n, read.code);
      return 'wrong';
    }
    const time = read.time && c.unit === 'UTC' && read.time.offset_min === null ? { ...read.time, offset_min: 0 } : read.time;
    if (!read.date) return { c, date: null, time };
    const day = dayOf(read.date);
    if (day === 'none') {
      no(c.n, 'bad_date');
      return 'wrong';
    }
    if (day === 'open') {
      ask('date_order', null, ['dmy', 'mdy']);
      return 'wrong';
    }
    return { c, date: day, time };
  }
  function dayOf(d: DatePart): Ymd | 'open' | 'none' {
    if ('plain' in d) return isDay(d.plain) ? d.plain : 'none';
    if (!d.dmy && !d.mdy) return 'none';
    if (d.dmy && d.mdy && d.dmy.join() === d.mdy.join()) return d.dmy;
    if (rules.order === null) return 'open';
    return d[rules.order] ?? 'none';
  }

  function times(): { start: number; precision: SheetRow['startPrecision']; end: number | null } | null {
    const [date, start, end] = [part('date'), part('start'), part('end')];
    if (date === 'wrong' || start === 'wrong' || end === 'wrong') return null;
    const minutesCell = cellOf(column('minutes'));
    const late = (at: number, c: SheetColumn) => (at > settings.now + FUTURE_MS ? no(c.n, 'in_future') : at);
    const early = (at: number, c: SheetColumn) => (at < FIRST ? no(c.n, 'out_of_bounds') : at);
    const day = start?.date ?? date?.date ?? null;
    const time = start?.time ?? (start ? null : (date?.time ?? null));
    const at = start ?? date;
    if (start && !start.date && !date?.date) return no(start.c.n, 'bad_date');
    // A start is told, or a day alone.
    if (at && day && (start || !end?.time || date?.time || minutesCell === null)) {
      if (!time) {
        if (!start && end?.time) return noTime();
        const noon = instantsOf(day, { h: 12, min: 0, s: 0, ms: 0, precision: 'min', offset_min: null }, zone)[0] as number;
        return early(noon, at.c) === null || late(noon, at.c) === null ? null : { start: noon, precision: 'day', end: null };
      }
      const starts = instantsOf(day, time, zone);
      if (starts.length === 0) return no(at.c.n, 'time_skipped');
      const told = end?.time ? endsOf(end as Part & { time: TimePart }, day, time, starts) : null;
      if (told && told.ends.length === 0) return no((end as Part).c.n, 'time_skipped');
      return settle(starts, told, at.c, end?.c ?? null, time.precision, late, early);
    }
    if (end?.time && (end.date ?? date?.date)) {
      if (minutesCell === null) return noTime();
      if (minutes === null) return null;
      const ends = instantsOf((end.date ?? date?.date) as Ymd, end.time, zone);
      if (ends.length === 0) return no(end.c.n, 'time_skipped');
      const stop = ends.length > 1 ? pick(ends, end.c.n) : (ends[0] as number);
      if (stop === null) return null;
      warnings.push('start_from_end');
      const begun = Math.round(stop - minutes * 60_000);
      return early(begun, end.c) === null || late(stop, end.c) === null ? null : { start: begun, precision: 'min', end: stop };
    }
    return noTime();
  }

  function noTime(): null {
    return no((column('start') ?? column('date') ?? column('end'))?.n ?? 1, 'no_time');
  }

  /** Every reading of an end: on its own day, else on the start's, or the next where it would lie before it. */
  function endsOf(end: Part & { time: TimePart }, day: Ymd, time: TimePart, starts: readonly number[]): { ends: number[]; nextDay: ReadonlySet<number> } {
    if (end.date) return { ends: instantsOf(end.date, end.time, zone), nextDay: new Set() };
    const clock = (t: TimePart) => ((t.h * 60 + t.min) * 60 + t.s) * 1000 + t.ms;
    const same = instantsOf(day, end.time, zone);
    if (clock(end.time) >= clock(time)) return { ends: same, nextDay: new Set() };
    const back = same.filter((e) => starts.some((s) => e >= s));
    const next = instantsOf(day, end.time, zone, 1);
    return { ends: [...back, ...next], nextDay: new Set(next) };
  }

  function pick(all: readonly number[], c: number): number | null {
    const answer = rules.timeTwice(line, c);
    return answer === null ? ask('time_twice', c, ['first', 'second']) : ((answer === 'first' ? all[0] : all.at(-1)) as number);
  }

  function settle(
    starts: readonly number[],
    told: ReturnType<typeof endsOf> | null,
    startColumn: SheetColumn,
    endColumn: SheetColumn | null,
    precision: TimePart['precision'],
    late: (at: number, c: SheetColumn) => number | null,
    early: (at: number, c: SheetColumn) => number | null,
  ): ReturnType<typeof times> {
    const pairs = told ? readings(starts, told.ends, minutes) : [];
    if (told && endColumn && pairs.length === 0) {
      const [s, e] = [Math.min(...starts), Math.max(...told.ends)];
      return no(endColumn.n, e - s > MOST_SPAN_MS ? 'out_of_bounds' : 'end_before_start');
    }
    const possible = [...new Set(told ? pairs.map(([s]) => s) : starts)].sort((a, b) => a - b);
    const start = possible.length > 1 ? pick(possible, startColumn.n) : (possible[0] as number);
    if (start === null) return null;
    let stop: number | null = null;
    if (told && endColumn) {
      const ends = [...new Set(readings([start], told.ends, minutes).map(([, e]) => e))].sort((a, b) => a - b);
      stop = ends.length > 1 ? pick(ends, endColumn.n) : (ends[0] as number);
      if (stop === null) return null;
      if (told.nextDay.has(stop)) warnings.push('end_next_day');
      if (minutes !== null && disagree(start, stop, minutes)) warnings.push('times_disagree');
    }
    // Each of the two is told, not the first alone.
    const fine = [early(start, startColumn), late(start, startColumn), ...(stop !== null && endColumn ? [late(stop, endColumn)] : [])];
    return fine.includes(null) ? null : { start, precision, end: stop };
  }
}

/** Words before a stall's name: "Stall 4" is 4. */
function withoutStallWords(stall: string): string {
  let text = stall.trim();
  for (;;) {
    const found = /^(\S+?)\.?[\s:]+(.+)$/s.exec(text);
    if (text.startsWith('#') && text.length > 1) text = text.slice(1).trim();
    else if (found && STALL_WORDS.has((found[1] ?? '').toLowerCase())) text = (found[2] ?? '').trim();
    else return text;
  }
}

/** A site and its stall written in one cell. */
function partOff(text: string, known: (name: string) => boolean): [site: string, stall: string] | null {
  for (const separator of [' / ', ' – ', ' - ', ', ', ' #', ' | ']) {
    const at = text.lastIndexOf(separator);
    if (at > 0 && known(text.slice(0, at))) return [text.slice(0, at).trim(), text.slice(at + separator.length).trim()];
  }
  const found = /^(.*)(?: \/ | #)([\p{L}\p{N}]{1,4})$/u.exec(text);
  return found ? [(found[1] as string).trim(), found[2] as string] : null;
}
