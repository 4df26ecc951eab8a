import { ROWS_A_STEP, type Steps } from '../units/steps';
import { cellAt, isEmpty, plainText } from './sheet-cells';
import type { SheetColumn, SheetField } from './sheet-columns';
import { type DatePart, whenOf, type Ymd } from './sheet-dates';
import { type Duration, type DurationForm, durationOf, inForm } from './sheet-durations';
import { type Figure, type FigureKind, figureOf, isOpen, type Mark, proves, valueBy, valueOf } from './sheet-figures';
import { placeOf, type SheetWorld } from './sheet-place';
import type { SheetRecord } from './sheet-records';
import { passes } from './sheet-row';
import { rowTimes } from './sheet-row-times';
import type { SheetRules, SheetSettings } from './sheet-rules';

// What the cells of a sheet prove of how it is written: where one of them can be read one way alone, so are the others.

const FUTURE_MS = 48 * 3_600_000;
const FIGURES: readonly [SheetField, FigureKind][] = [
  ['kWh', 'kWh'],
  ['amount', 'amount'],
  ['perKWh', 'perKWh'],
  ['minutes', 'time'],
  ['handshake_s', 'time'],
  ['socFrom', 'soc'],
  ['socTo', 'soc'],
];

/** The bare figure in a cell of a field, where there is one. */
function figureIn(cell: string | undefined, kind: FigureKind): Figure | null {
  if (isEmpty(cell)) return null;
  if (kind !== 'time') return figureOf(cell as string, kind);
  const d = durationOf(cell as string);
  return d && 'figure' in d ? d.figure : null;
}

/** The decimal mark of each column: that which somebody said of the sheet, else that which its own cells prove, else that on which all others agree, unless a value would then pass its bound. */
export function* marksOf(
  data: readonly SheetRecord[],
  columns: readonly SheetColumn[],
  answer: (code: string, column?: number | null) => unknown,
): Steps<{ of: Map<number, Mark>; decimal: Mark | 'mixed' | null }> {
  const proved = new Map<number, Set<Mark>>();
  const open = new Map<number, { f: Figure; field: SheetField; unit: string | null }[]>();
  for (const [field, kind] of FIGURES)
    for (const c of columns.filter((x) => x.field === field))
      for (const [i, r] of data.entries()) {
        if (i % ROWS_A_STEP === 0) yield;
        const f = figureIn(r.cells[c.n - 1], kind);
        if (!f) continue;
        const mark = proves(f);
        if (mark) proved.set(c.n, (proved.get(c.n) ?? new Set()).add(mark));
        else if (isOpen(f))
          open
            .set(c.n, open.get(c.n) ?? [])
            .get(c.n)
            ?.push({ f, field, unit: f.unit ?? c.unit });
      }
  const all = new Set([...proved.values()].flatMap((s) => [...s]));
  const [only] = all;
  const of = new Map<number, Mark>();
  const always = answer('decimal');
  for (const c of columns) {
    const said = answer('decimal_mark', c.n);
    const own = proved.get(c.n);
    if (always === ',' || always === '.') of.set(c.n, always);
    else if (own?.size === 1) of.set(c.n, [...own][0] as Mark);
    else if (said === ',' || said === '.') of.set(c.n, said);
    else if (!own && all.size === 1 && only) {
      const beyond = (open.get(c.n) ?? []).some(
        ({ f, field, unit }) => (field === 'kWh' || field === 'amount' || field === 'perKWh') && passes(field, valueOf(f, only), unit),
      );
      if (!beyond) of.set(c.n, only);
    }
  }
  return { of, decimal: all.size > 1 ? 'mixed' : (only ?? null) };
}

/** The order of day and month that the file's own cells prove; `null` where they prove none, or both. */
export function* orderOf(data: readonly SheetRecord[], columns: readonly SheetColumn[], settings: SheetSettings): Steps<'dmy' | 'mdy' | null> {
  const proved = new Set<'dmy' | 'mdy'>();
  const latest = Date.parse(`${new Date(settings.now + FUTURE_MS).toISOString().slice(0, 10)}T00:00:00Z`);
  const fits = (day: Ymd | null) => {
    const at = day && Date.UTC(day[0], day[1] - 1, day[2]);
    return at !== null && at >= Date.UTC(1990, 0, 1) && at <= latest;
  };
  for (const c of columns) {
    if (c.field !== 'date' && c.field !== 'start' && c.field !== 'end') continue;
    for (const [i, r] of data.entries()) {
      if (i % ROWS_A_STEP === 0) yield;
      const cell = r.cells[c.n - 1];
      if (isEmpty(cell)) continue;
      const read = whenOf(cell as string);
      const date: DatePart | null = 'code' in read ? null : read.date;
      if (!date || 'plain' in date) continue;
      const [dmy, mdy] = [fits(date.dmy), fits(date.mdy)];
      if (dmy !== mdy) proved.add(dmy ? 'dmy' : 'mdy');
    }
  }
  return proved.size === 1 ? ([...proved][0] as 'dmy' | 'mdy') : null;
}

const isColon = (form: DurationForm) => form === 'h:mm' || form === 'm:ss';
/** The form of durations that do not say theirs: of two or three the only one under which none is too long or disagrees with a start and end. */
export function* formsOf(
  data: readonly SheetRecord[],
  rules: Pick<SheetRules, 'columns' | 'order'>,
  answer: (code: string, column?: number | null) => unknown,
  marks: { of: Map<number, Mark> },
  world: SheetWorld,
  settings: SheetSettings,
): Steps<{ options: () => readonly DurationForm[]; form: (n: number, d: Duration) => DurationForm | 'other' | null }> {
  const c = rules.columns.find((x) => x.field === 'minutes');
  const heading = c?.unit ?? null;
  const bare: { r: SheetRecord; d: Exclude<Duration, { minutes: number }> }[] = [];
  for (const [i, r] of c ? data.entries() : []) {
    if (i % ROWS_A_STEP === 0) yield;
    const cell = cellAt(r.cells, c);
    const d = cell === null ? null : durationOf(cell);
    if (d && !('minutes' in d || ('figure' in d && d.unit))) bare.push({ r, d });
  }
  const options: readonly DurationForm[] = bare[0] && 'colon' in bare[0].d ? ['h:mm', 'm:ss'] : ['min', 'h', 's'];
  const said = c ? options.find((o) => o === answer('duration_form', c.n)) : undefined;
  const value = (d: Duration): number | null => {
    if (!('figure' in d) || !c) return null;
    const found = valueBy(d.figure, marks.of.get(c.n) ?? null);
    return found && Number(found);
  };
  let possible = options;
  for (const [i, { r, d }] of bare.entries()) {
    if (i % ROWS_A_STEP === 0) yield;
    const span = spanOf(r, rules, world, settings);
    possible = possible.filter((form) => {
      if ('colon' in d !== isColon(form)) return true;
      const bareValue = value(d);
      if ('figure' in d && bareValue === null) return true;
      const minutes = inForm(d, form, bareValue);
      return minutes <= 2880 && (span === null || Math.abs(span - minutes) <= 2);
    });
  }
  const settled = said ?? (possible.length === 1 ? possible[0] : null) ?? null;
  return {
    options: () => options,
    form: (_: number, d: Duration): DurationForm | 'other' | null => {
      if (heading === 'h') return 'colon' in d ? 'h:mm' : 'h';
      if (heading === 'min' || heading === 's' || heading === 'm:ss') return 'colon' in d ? 'm:ss' : heading === 's' ? 's' : 'min';
      return settled !== null && 'colon' in d !== isColon(settled) ? 'other' : settled;
    },
  };
}

/** Minutes between the start and the end of a record that are both known and need no further word. */
function spanOf(r: SheetRecord, rules: Pick<SheetRules, 'columns' | 'order'>, world: SheetWorld, settings: SheetSettings): number | null {
  const column = (field: SheetField) => rules.columns.find((x) => x.field === field);
  const cellOf = (c: SheetColumn | undefined) => cellAt(r.cells, c);
  const text = (field: SheetField) => {
    const cell = cellOf(column(field));
    return cell === null ? null : plainText(cell);
  };
  const place = placeOf({ site: text('site') ?? '', stall: text('stall'), network: null }, world);
  const silent = () => null;
  const when = rowTimes({
    line: r.line,
    zone: place.zone ?? settings.zone,
    now: settings.now,
    minutes: null,
    minutesWritten: false,
    rules: { order: rules.order, timeTwice: silent },
    column,
    cellOf,
    no: silent,
    ask: silent,
    warn: silent,
  });
  return when && when.end !== null ? (when.end - when.start) / 60_000 : null;
}
