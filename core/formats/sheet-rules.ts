import type { SheetColumn } from './sheet-columns';
import type { Duration, DurationForm } from './sheet-durations';
import type { Mark } from './sheet-figures';

export type SheetSettings = { zone: string /** UTC ms. */; now: number; currency: string | null };
export type Warning = 'end_next_day' | 'start_from_end' | 'times_disagree' | 'amount_not_computed' | 'network_differs' | 'soc_falls';
export type RowReason = { column: number; code: string };
export type RowAsk = {
  code: 'date_order' | 'decimal_mark' | 'energy_unit' | 'duration_form' | 'currency' | 'currency_symbol' | 'time_twice';
  column: number | null;
  options: readonly string[];
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
