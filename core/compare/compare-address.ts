import { GROUPING_NAMES, type Grouping } from '../figures/groupings';
import { type LedgerFilter, readLedgerFilter, writeLedgerFilter } from './ledger-filter';
import { LOOK_NAMES, LOOKS, type Look, MEASURE_NAMES, type Measure } from './measures';

/** What a comparison is asked: which visits, grouped by what, looked at how. Lives in the address. */
export type CompareAsk = {
  filter: LedgerFilter;
  /** One or two. */
  by: readonly Grouping[];
  look: Look;
  /** The measure whose best stands first. */
  sort: Measure;
  /** Groups with fewer visits are not shown. */
  least: number;
  /** Before and after this day apart, where the driver says that something changed. */
  change: string | null;
};

const MOST_LEAST = 1000;
const oneOf = <T extends string>(list: readonly T[], value: string | null | undefined): T | undefined => list.find((x) => x === value);
const isDay = (v: string | null | undefined): v is string => !!v && /^\d{4}-\d{2}-\d{2}$/.test(v) && !Number.isNaN(Date.parse(`${v}T00:00:00Z`));

/** Reads it from an address; what is not understood is left out, never an error. */
export function readCompareAsk(get: (name: string) => string | null | undefined): CompareAsk {
  const first = oneOf(GROUPING_NAMES, get('by')) ?? 'network';
  const second = oneOf(GROUPING_NAMES, get('and'));
  const look = oneOf(LOOK_NAMES, get('look')) ?? 'starts';
  const measures: readonly Measure[] = LOOKS[look].measures;
  const sort = oneOf(MEASURE_NAMES, get('sort'));
  const least = Number(get('least') ?? 0);
  const change = get('change');
  // A comparison is of all visits under the filter: what a number counted is asked by its list alone.
  const { counted: _, groups: __, ...filter } = readLedgerFilter(get);
  return {
    filter,
    by: second && second !== first ? [first, second] : [first],
    look,
    sort: sort && measures.includes(sort) ? sort : (measures[0] as Measure),
    least: Number.isInteger(least) && least > 0 ? Math.min(least, MOST_LEAST) : 0,
    change: isDay(change) ? change : null,
  };
}

/** The address of a comparison; defaults are not written. */
export function writeCompareAsk(ask: CompareAsk): string {
  const q = new URLSearchParams(writeLedgerFilter(ask.filter).slice(1));
  const [first, second] = ask.by;
  if (first && first !== 'network') q.set('by', first);
  if (second) q.set('and', second);
  if (ask.look !== 'starts') q.set('look', ask.look);
  if (ask.sort !== LOOKS[ask.look].measures[0]) q.set('sort', ask.sort);
  if (ask.least > 0) q.set('least', String(ask.least));
  if (ask.change) q.set('change', ask.change);
  const text = q.toString();
  return text === '' ? '' : `?${text}`;
}
