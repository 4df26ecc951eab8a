import type { SheetColumn, SheetField } from './sheet-columns';
import { type DatePart, type TimePart, whenOf, type Ymd } from './sheet-dates';
import type { RowAsk, SheetRules, Warning } from './sheet-rules';
import { disagree, instantsOf, MOST_SPAN_MS, readings } from './sheet-times';

const FIRST = Date.UTC(1990, 0, 1);
const FUTURE_MS = 48 * 3_600_000;
const NOON: TimePart = { h: 12, min: 0, s: 0, ms: 0, precision: 'min', offset_min: null };

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
type Timed = Part & { time: TimePart };
/** A start as far as it can be told by itself. `time`: null where only the day is known. `fine`: within bounds. */
type Beginning = { c: SheetColumn; day: Ymd; time: TimePart | null; starts: number[]; fine: boolean };

/**
 * When a row began and ended, by its date, start, end and minutes; `null` where that cannot be told, which is then said or asked.
 * What is wrong with one of them hides nothing of the others. An end is never worked out.
 */
export function rowTimes({ line, zone, now, minutes, minutesWritten, rules, column, cellOf, no, ask, warn }: TimedRow): RowTimes | null {
  const [date, start, end] = [part('date'), part('start'), part('end')];
  const stop = end !== 'wrong' && end?.time ? (end as Timed) : null;
  const first = beginning();
  const dated = stop?.date ? instants(stop, stop.date) : null;
  const last = stop && dated?.length ? within(dated, stop.c, false) : null;
  if (first === 'wrong' || end === 'wrong' || dated?.length === 0) return null;
  if (!first) return fromEnd();
  const { starts, time } = first;
  if (!time) return first.fine ? { start: starts[0] as number, precision: 'day', end: null } : null;
  const told = stop ? endsOf(stop, first.day, time, starts, dated) : null;
  if (told && stop && told.ends.length === 0) return no(stop.c.n, 'time_skipped');
  const pairs = told ? readings(starts, told.ends, minutes) : [];
  if (told && stop && pairs.length === 0) {
    const [s, e] = [Math.min(...starts), Math.max(...told.ends)];
    return no(stop.c.n, e - s > MOST_SPAN_MS ? 'out_of_bounds' : 'end_before_start');
  }
  const begun = pick([...new Set(told ? pairs.map(([s]) => s) : starts)], first.c.n);
  if (begun === null) return null;
  let ended: number | null = null;
  if (told && stop) {
    ended = pick([...new Set(readings([begun], told.ends, minutes).map(([, e]) => e))], stop.c.n);
    if (ended === null) return null;
    if (told.nextDay.has(ended)) warn('end_next_day');
    if (minutes !== null && disagree(begun, ended, minutes)) warn('times_disagree');
  }
  const fine = last ?? (ended === null || within([ended], stop?.c as SheetColumn, false));
  return first.fine && fine ? { start: begun, precision: time.precision, end: ended } : null;

  function part(field: 'date' | 'start' | 'end'): Part | 'wrong' | null {
    const c = column(field);
    const cell = cellOf(c);
    if (!c || cell === null) return null;
    const wrong = (code: string): 'wrong' => {
      no(c.n, code);
      return 'wrong';
    };
    const read = whenOf(cell);
    if ('code' in read) return wrong(read.code);
    const time = read.time && c.unit === 'UTC' && read.time.offset_min === null ? { ...read.time, offset_min: 0 } : read.time;
    if (!read.date) return field === 'date' ? wrong('bad_date') : { c, date: null, time };
    const day = dayOf(read.date);
    if (day === 'none') return wrong('bad_date');
    if (day === 'open') {
      ask('date_order', null, ['dmy', 'mdy']);
      return 'wrong';
    }
    return { c, date: day, time };
  }
  function dayOf(d: DatePart): Ymd | 'open' | 'none' {
    if ('plain' in d) return d.plain;
    if (d.dmy && d.mdy && d.dmy.join() === d.mdy.join()) return d.dmy;
    if (rules.order === null) return 'open';
    return d[rules.order] ?? 'none';
  }
  function instants(at: Timed, day: Ymd): number[] {
    const all = instantsOf(day, at.time, zone);
    if (all.length === 0) no(at.c.n, 'time_skipped');
    return all;
  }
  /** Whether one of the readings of a time lies where it can. */
  function within(all: readonly number[], c: SheetColumn, from: boolean): boolean {
    if (from && all.every((at) => at < FIRST)) no(c.n, 'out_of_bounds');
    else if (all.every((at) => at > now + FUTURE_MS)) no(c.n, 'in_future');
    else return true;
    return false;
  }

  /** By the start, else by a date that tells the time too, else a day alone. */
  function beginning(): Beginning | 'wrong' | null {
    if (start === 'wrong' || (!start && date === 'wrong')) return 'wrong';
    const day = start?.date ?? (date === 'wrong' ? null : date?.date) ?? null;
    const at = start ?? (date as Part | null);
    if (start && !day) {
      if (date === null) no(start.c.n, 'bad_date');
      return 'wrong';
    }
    if (!at || !day || (!start && !at.time && (end === 'wrong' || end?.time))) return null;
    const { c, time } = at;
    const starts = time ? instants(at as Timed, day) : instantsOf(day, NOON, zone).slice(0, 1);
    return starts.length === 0 ? 'wrong' : { c, day, time, starts, fine: within(starts, c, true) };
  }

  /** A start that is not written, by the end and the minutes. */
  function fromEnd(): RowTimes | null {
    const day = stop?.date ?? (date as Part | null)?.date;
    if (!stop || !day || !minutesWritten) return no((column('start') ?? column('date') ?? column('end'))?.n ?? 1, 'no_time');
    const ends = dated ?? instants(stop, day);
    const ended = minutes === null || ends.length === 0 ? null : pick(ends, stop.c.n);
    if (minutes === null || ended === null) return null;
    warn('start_from_end');
    const begun = Math.round(ended - minutes * 60_000);
    const fine = last ?? within([ended], stop.c, false);
    return fine && within([begun], stop.c, true) ? { start: begun, precision: 'min', end: ended } : null;
  }

  /** Every reading of an end: on its own day, else on the start's, or the next where it would lie before it. */
  function endsOf(at: Timed, day: Ymd, time: TimePart, starts: readonly number[], dated: number[] | null): { ends: number[]; nextDay: ReadonlySet<number> } {
    if (dated) return { ends: dated, nextDay: new Set() };
    const clock = (t: TimePart) => ((t.h * 60 + t.min) * 60 + t.s) * 1000 + t.ms;
    const same = instantsOf(day, at.time, zone);
    if (clock(at.time) >= clock(time)) return { ends: same, nextDay: new Set() };
    const back = same.filter((e) => starts.some((s) => e >= s));
    const next = instantsOf(day, at.time, zone, 1);
    return { ends: [...back, ...next], nextDay: new Set(next) };
  }

  function pick(all: readonly number[], c: number): number | null {
    const rising = [...all].sort((a, b) => a - b);
    const answer = rising.length > 1 ? rules.timeTwice(line, c) : 'first';
    return answer === null ? ask('time_twice', c, ['first', 'second']) : ((answer === 'first' ? rising[0] : rising.at(-1)) as number);
  }
}
