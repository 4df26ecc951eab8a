import Big from 'big.js';
import { privateNumber } from '../records/private-number';
import { MOST_AMOUNT, MOST_PRICE, minorDigits } from '../units/money';
import { NOT_KEPT } from './kept-json';
import { fold } from './match-sessions';
import { cellAt, plainText } from './sheet-cells';
import { isOfCard, REASONS_HEADING, type SheetColumn, type SheetField } from './sheet-columns';
import { rowCurrency } from './sheet-currency';
import { durationOf, inForm } from './sheet-durations';
import { type Figure, figureOf, valueBy } from './sheet-figures';
import { placeOf, type RowPlace, type SheetWorld } from './sheet-place';
import { rowTimes, type StartPrecision } from './sheet-row-times';
import type { RowAsk, RowReason, SheetRules, SheetSettings, Warning } from './sheet-rules';
import words from './sheet-words.json';

export type SheetRow = {
  line: number;
  /** UTC ms. */
  start: number;
  startPrecision: StartPrecision;
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
export type ReadRow = { row: SheetRow | null; reasons: RowReason[]; asks: RowAsk[] };

const BOUNDS = { kWh: [0, 2000], amount: [-100_000, 100_000], perKWh: [0, 100], minutes: [0, 2880], handshake: [0, 172_800], soc: [0, 100] } as const;
const LONGEST: Partial<Record<SheetField, number>> = { site: 80, stall: 40, network: 80, car: 80, note: 2000 };
const MEANS = new Map(Object.entries(words.means).flatMap(([kind, all]) => all.map((w) => [fold(w), kind])));
/** Of money that has no smaller coin: a kWh is 55 yen or 230 forint. */
const WHOLE_COINS = { amount: [-MOST_AMOUNT, MOST_AMOUNT], perKWh: [0, MOST_PRICE] } as const;
const within = (n: number | Big, [lo, hi]: readonly [number, number]) => new Big(n).gte(lo) && new Big(n).lte(hi);

/** Whether a value passes the bound of its column: energy, amount or price. */
export function passes(field: 'kWh' | 'amount' | 'perKWh', value: Big, unit: string | null): boolean {
  return !within(field === 'kWh' && unit?.toLowerCase() === 'wh' ? value.div(1000) : value, BOUNDS[field]);
}

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
  const cellOf = (c: SheetColumn | undefined): string | null => cellAt(cells, c);
  const text = (field: SheetField): string | null => {
    const c = column(field);
    const cell = cellOf(c);
    return c && cell !== null ? textOf(cell, c, LONGEST[field] ?? null) : null;
  };
  const textOf = (cell: string, c: SheetColumn, most: number | null): string | null => {
    const plain = plainText(cell);
    if (most !== null && [...plain].length > most) no(c.n, 'too_long');
    if (privateNumber(plain)) no(c.n, 'private_number');
    return plain;
  };

  const place = placeIn();
  const kWh = energy();
  const coin = currencyFound();
  const amount = money('amount');
  const perKWh = money('perKWh');
  reasons.push(...coin.reasons);
  asks.push(...coin.asks);
  const { currency } = coin;
  const minutes = duration();
  const handshake_s = handshake();
  const [socFrom, socTo] = [level('socFrom'), level('socTo')];
  if (socFrom !== null && socTo !== null && socTo < socFrom) warnings.push('soc_falls');
  const when = rowTimes({
    line,
    zone: place?.zone ?? settings.zone,
    now: settings.now,
    minutes,
    minutesWritten: cellOf(column('minutes')) !== null,
    rules,
    column,
    cellOf,
    no,
    ask,
    warn: (w) => warnings.push(w),
  });
  if (perKWh !== null && kWh !== null && amount === null && cellOf(column('amount')) === null) warnings.push('amount_not_computed');
  const [note, car] = [text('note'), text('car')];
  const means = meansOf();
  for (const c of rules.columns) {
    const cell = cellOf(c);
    if (cell === null || c.field !== null || c.heading === REASONS_HEADING) continue;
    const plain = isOfCard(c) ? NOT_KEPT : textOf(cell, c, null);
    if (plain !== null) rest[keyOf(c)] = plain;
  }
  if (reasons.length > 0) return { row: null, reasons, asks: [] };
  if (asks.length > 0 || !when || !place) return { row: null, reasons, asks };
  return {
    reasons,
    asks,
    row: {
      line,
      start: when.start,
      startPrecision: when.precision,
      end: when.end,
      site: place.site,
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

  function placeIn(): RowPlace | null {
    const [site, stall, network] = [text('site'), text('stall'), text('network')];
    if (!site) return no((column('site') ?? column('stall'))?.n ?? 1, 'no_site');
    const found = placeOf({ site, stall, network }, world);
    if (found.differs) warnings.push('network_differs');
    return found;
  }

  function figure(c: SheetColumn, cell: string, kind: Parameters<typeof figureOf>[1]): { f: Figure; value: Big } | null {
    if (cell.normalize('NFKC').startsWith('=')) return no(c.n, 'formula');
    const f = figureOf(cell, kind);
    if (!f) return no(c.n, 'bad_number');
    const value = valueIn(c, f);
    return value && { f, value };
  }

  function valueIn(c: SheetColumn, f: Figure): Big | null {
    const value = valueBy(f, rules.mark(c.n));
    return value ?? ask('decimal_mark', c.n, [',', '.']);
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
    const bounds = coin.currency !== null && minorDigits(coin.currency) === 0 ? WHOLE_COINS : BOUNDS;
    return within(read.value, bounds[field]) ? read.value : no(c.n, 'out_of_bounds');
  }

  function level(field: 'socFrom' | 'socTo'): number | null {
    const c = column(field);
    const cell = cellOf(c);
    const read = c && cell !== null ? figure(c, cell, 'soc') : null;
    if (!c || !read) return null;
    return within(read.value, BOUNDS.soc) ? Number(read.value) : no(c.n, 'out_of_bounds');
  }

  function currencyFound(): ReturnType<typeof rowCurrency> {
    const paid = (['amount', 'perKWh'] as const).flatMap((field) => {
      const c = column(field);
      const cell = cellOf(c);
      return c && cell !== null ? [{ c, said: figureOf(cell, field)?.currencies ?? [] }] : [];
    });
    const own = column('currency');
    const written = cellOf(own);
    return rowCurrency(
      { paid, own: own && written !== null ? { column: own.n, written } : null },
      { usual: settings.currency, said: rules.currency, symbol: rules.symbol },
    );
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
      const read = valueIn(c, d.figure);
      if (!read) return null;
      value = Number(read);
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
      const read = valueIn(c, d.figure);
      if (!read) return null;
      const unit = d.unit ?? c.unit?.toLowerCase() ?? 's';
      seconds = Number(read) * (unit === 'min' ? 60 : unit === 'h' ? 3600 : 1);
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
    if (kind === null) rest[keyOf(c)] = isOfCard(c) ? NOT_KEPT : written;
    return kind;
  }
}
