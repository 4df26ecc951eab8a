import type { SheetSkip } from '@/core/formats/sheet-import';
import type { RowPlan } from '@/core/formats/sheet-plan';

export const REFUSED: Readonly<Record<string, string>> = {
  nul_byte: 'It holds a NUL byte: is it a CSV file?',
  bad_encoding: 'Its characters cannot be read.',
  empty: 'Nothing stands in it.',
  record_too_long: 'A line of it is longer than 1 MB.',
  too_many_columns: 'It has more than 500 columns.',
  too_many_rows: 'It has more than 100,000 rows: send it in parts.',
  too_many_visits: 'More than 20,000 visits here stand near what it tells: send it in parts, such as a year each.',
};
/** Why a row cannot be read. */
export const REASON: Readonly<Record<string, string>> = {
  open_quote: 'a quote that is never closed',
  stray_quote: 'a quote within a quoted cell',
  too_many_cells: 'more cells than headings',
  formula: 'a formula, not its value',
  bad_number: 'no figure',
  bad_duration: 'no duration',
  bad_date: 'no date',
  bad_time: 'no time of day',
  time_skipped: 'a time that the clock skipped',
  no_time: 'no time told',
  no_site: 'no site told',
  end_before_start: 'the end before the start',
  in_future: 'still to come',
  out_of_bounds: 'beyond what can be',
  bad_currency: 'no currency',
  currency_conflict: 'two currencies',
  too_long: 'too long',
  private_number: 'looks like the number of a card or contract, which is never kept',
};
/** What is asked of a file. */
export const ASK: Readonly<Record<string, string>> = {
  encoding: 'Which letters are these?',
  columns: 'No headings were found: say what the columns are of',
  column_meaning: 'Is this column the amount paid, or a price per kWh?',
  column_twice: 'Two columns say the same: which one counts?',
  date_order: 'Is the day first in a date, or the month?',
  decimal_mark: 'Which is the decimal mark: is 12,345 about twelve, or twelve thousand?',
  energy_unit: 'Energy in kWh or in Wh?',
  duration_form: 'Durations in which form?',
  currency: 'In which currency?',
  currency_symbol: 'Which currency is meant by the sign?',
  time_twice: 'The clock went back: this time came twice',
  duplicate: 'The same visit twice, or two visits?',
};
export const OPTION: Readonly<Record<string, string>> = {
  dmy: 'day first',
  mdy: 'month first',
  amount: 'amount paid',
  perKWh: 'price per kWh',
  first: 'the first time',
  second: 'the second time',
  same: 'the same visit',
  different: 'two visits',
  ',': 'the comma',
  '.': 'the point',
  min: 'minutes',
  h: 'hours',
  s: 'seconds',
  'h:mm': 'hours and minutes, h:mm',
  'm:ss': 'minutes and seconds, m:ss',
  'windows-1252': 'of Western Europe: é, ñ, ø',
  'windows-1250': 'of Central Europe: č, ś, ő',
};
export const PLAN: Readonly<Record<RowPlan, string>> = {
  new: 'a new visit',
  there: 'in the ledger',
  near: 'recorded here already?',
  merge: 'beside the visit recorded here, as its bill',
  twice: 'twice in the file?',
  same: 'the same as a row before',
  place: 'site not known here',
  which: 'several sites here have this name: write its network in the file',
  refund: 'a refund: enter it with its visit',
  nothing: 'tells of no charge',
  too_long: 'more than one visit can keep',
};
/** The same of several rows, after their number. */
export const COUNTED: Readonly<Record<RowPlan, string>> = {
  new: 'new',
  there: 'in the ledger',
  near: 'perhaps recorded here',
  merge: 'beside a visit recorded here',
  twice: 'twice in the file',
  same: 'the same as a row before',
  place: 'at a site not known here',
  which: 'at one of several sites of one name',
  refund: 'refunded',
  nothing: 'without a charge',
  too_long: 'too long to keep',
};
/** Lines that are no rows, after their number. */
export const SKIPPED: Readonly<Record<SheetSkip, string>> = {
  preamble: 'above the headings',
  blank: 'blank',
  heading_again: 'of headings again',
  totals: 'of sums',
  withdrawn: 'withdrawn',
};
export const WARNING: Readonly<Record<string, string>> = {
  end_next_day: 'ends the day after',
  start_from_end: 'start worked out from the end',
  times_disagree: 'start, end and minutes disagree',
  amount_not_computed: 'a price but no amount',
  network_differs: 'another network than here',
  soc_falls: 'the battery falls',
};
/** What a column is read as. */
export const FIELD: Readonly<Record<string, string>> = {
  date: 'date',
  start: 'start',
  end: 'end',
  minutes: 'duration',
  site: 'site',
  stall: 'stall',
  network: 'network',
  kWh: 'energy',
  amount: 'amount',
  currency: 'currency',
  perKWh: 'price per kWh',
  handshake_s: 'handshake',
  socFrom: 'battery from',
  socTo: 'battery to',
  means: 'paid with',
  note: 'note',
  car: 'car',
  'price?': 'asked below',
};
/** In what the figures of a column can be, where they do not say it themselves. */
export const UNIT: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  kWh: { kWh: 'kWh', Wh: 'Wh' },
  minutes: { min: 'minutes', h: 'hours, h:mm', 'm:ss': 'm:ss', s: 'seconds' },
  handshake_s: { s: 'seconds', min: 'minutes' },
};
/** What can be said of all dates, and of all figures, whatever single cells prove; and of which. */
export const WHOLE = {
  dates: { label: 'Order of its dates', of: '03/04/2026 and the like', can: { dmy: 'day first', mdy: 'month first' } },
  decimal: { label: 'Decimal mark', of: '12,345 and the like', can: { ',': 'comma', '.': 'point' } },
} as const;
