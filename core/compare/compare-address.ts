import { GROUPING_NAMES, type Grouping } from '../figures/groupings';
import { isDay } from '../records/moment';
import { type LedgerFilter, mistyped, PART_NAMES, readLedgerFilter, writeLedgerFilter } from './ledger-filter';
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

/** Groups with so many visits at least: more is asked by nobody. */
export const MOST_LEAST = 1000;
const oneOf = <T extends string>(list: readonly T[], value: string | null | undefined): T | undefined => list.find((x) => x === value);
type Get = (name: string) => string | null | undefined;

/** The names by which a comparison is asked. What a number was counted of and what changed on a day are told by pages alone. */
export const COMPARE_NAMES: readonly string[] = ['by', 'and', 'look', 'sort', 'least', ...PART_NAMES.filter((name) => name !== 'counted')];

/** Reads it from an address; what is not understood is left out, never an error. Two groupings: `by=site&and=hour`, or `by=site,hour`. */
export function readCompareAsk(get: Get): CompareAsk {
  const [one, other] = (get('by') ?? '').split(',');
  const first = oneOf(GROUPING_NAMES, one) ?? 'network';
  const second = oneOf(GROUPING_NAMES, get('and') || other);
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
    change: change && isDay(change) ? change : null,
  };
}

/** The names in an address that say something which is not understood: a program is told so, where the page leaves them out. */
export function mistypedCompare(get: Get): string[] {
  const [first, second, ...more] = (get('by') ?? '').split(',');
  const none = (list: readonly string[], value: string | null | undefined) => !!value && !list.includes(value);
  const least = get('least');
  const wrong = {
    by: none(GROUPING_NAMES, first) || none(GROUPING_NAMES, second) || more.length > 0 || (!!second && !!get('and')),
    and: none(GROUPING_NAMES, get('and')),
    look: none(LOOK_NAMES, get('look')),
    sort: none(LOOKS[readCompareAsk(get).look].measures, get('sort')),
    least: !!least && !(Number.isInteger(Number(least)) && Number(least) >= 0 && Number(least) <= MOST_LEAST),
  };
  return [...mistyped(get), ...Object.entries(wrong).flatMap(([name, is]) => (is ? [name] : []))];
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
