import type { SheetColumn, SheetField } from './sheet-columns';
import { type DatePart, isDay, type TimePart, whenOf, type Ymd } from './sheet-dates';
import type { RowAsk, SheetRules, Warning } from './sheet-rules';
import { disagree, instantsOf, MOST_SPAN_MS, readings } from './sheet-times';

const FIRST = Date.UTC(1990, 0, 1);
const FUTURE_MS = 48 * 3_600_000;

export type StartPrecision = 'ms' | 's' | 'min' | 'day';
/** UTC ms. */
export type RowTimes = { start: number; precision: StartPrecision; end: number | null };
/** A row whose times are read. `minutes`: as read; `minutesWritten`: something stands in their cell. `no`, `ask`, `warn`: what is said of it. */
export type TimedRow = {
  line: number;
  zone: string;
  now: number;
  minutes: number | null;
  minutesWritten: boolean;
  rules: Pick<SheetRules, 'order' | 'timeTwice'>;
  column: (field: SheetField) => SheetColumn | undefined;
  cellOf: (c: SheetColumn | undefined) => string | null;
  no: (column: number, code: string) => null;
  ask: (code: RowAsk['code'], column: number | null, options: readonly string[]) => null;
  warn: (w: Warning) => void;
};
type Part = { c: SheetColumn; date: Ymd | null; time: TimePart | null };

/** When a row began and ended, by its date, start, end and minutes; `null` where that cannot be told, which is then said or asked. An end is never worked out. */
export function rowTimes({ line, zone, now, minutes, minutesWritten, rules, column, cellOf, no, ask, warn }: TimedRow): RowTimes | null {
  const [date, start, end] = [part('date'), part('start'), part('end')];
  if (date === 'wrong' || start === 'wrong' || end === 'wrong') return null;
  const late = (at: number, c: SheetColumn) => (at > now + FUTURE_MS ? no(c.n, 'in_future') : at);
  const early = (at: number, c: SheetColumn) => (at < FIRST ? no(c.n, 'out_of_bounds') : at);
  const day = start?.date ?? date?.date ?? null;
  const time = start?.time ?? (start ? null : (date?.time ?? null));
  const at = start ?? date;
  if (start && !start.date && !date?.date) return no(start.c.n, 'bad_date');
  // A start is told, or a day alone.
  if (at && day && (start || !end?.time || date?.time || !minutesWritten)) {
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
    if (!minutesWritten) return noTime();
    if (minutes === null) return null;
    const ends = instantsOf((end.date ?? date?.date) as Ymd, end.time, zone);
    if (ends.length === 0) return no(end.c.n, 'time_skipped');
    const stop = ends.length > 1 ? pick(ends, end.c.n) : (ends[0] as number);
    if (stop === null) return null;
    warn('start_from_end');
    const begun = Math.round(stop - minutes * 60_000);
    return early(begun, end.c) === null || late(stop, end.c) === null ? null : { start: begun, precision: 'min', end: stop };
  }
  return noTime();

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
  ): RowTimes | null {
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
      if (told.nextDay.has(stop)) warn('end_next_day');
      if (minutes !== null && disagree(start, stop, minutes)) warn('times_disagree');
    }
    // Each of the two is told, not the first alone.
    const fine = [early(start, startColumn), late(start, startColumn), ...(stop !== null && endColumn ? [late(stop, endColumn)] : [])];
    return fine.includes(null) ? null : { start, precision, end: stop };
  }
}
