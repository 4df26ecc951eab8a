import { type Group, type Grouping, groupOfAttempt, groupOfVisit } from '../figures/groupings';
import type { Asked } from '../figures/populations';
import { POPULATIONS, visitTest } from '../figures/populations';

import type { Cell, Grouped } from './cells';
import { counted } from './cells';
import { type Cells, MEASURES, type Measure } from './measures';
import type { Start } from './start';
import type { VisitRow } from './visit-row';

/** One line of a comparison: a group and what was counted of it, by the rules of docs/definitions.md. */
export type ComparedGroup = {
  /** One a grouping, in their order. */
  groups: Group[];
  /** Visits that count for starts, and all that are compared. */
  visits: number;
  allVisits: number;
  sites: number;
  /** Share of the visits at the commonest site: visits to one site are not independent. */
  commonestSite: number;
  /** Of the charges that were billed, those whose start was recorded: bad stops are recorded more often than good ones. */
  coverage: { noted: number; billed: number };
  cells: Cells;
};
export type Compared = { rows: ComparedGroup[] /** Visits in no group, for what they are grouped by was not noted. */; ungrouped: number };

const SEPARATOR = '\u0000';
const keyOf = (by: readonly Grouping[], of: (by: Grouping) => string | null): string | null => {
  const [only] = by;
  // One grouping is asked ten thousand times: without a list made for each.
  if (only !== undefined && by.length === 1) return of(only);
  const keys = by.map(of);
  return keys.includes(null) ? null : keys.join(SEPARATOR);
};

/**
 * Visits grouped by one or two things, or all together by none, and what is asked counted of each group. A figure of whole visits counts where the first attempt was, one of
 * attempts where each was.
 * @param asked by which definition and end mark; amounts in another currency are left out of the price: they are never added without a rate
 * @returns rows ordered by the lower end of the interval of their first share, so that a few lucky visits do not lead
 */
export function comparedGroups(visits: readonly VisitRow[], asked: Asked, by: readonly Grouping[], measures: readonly Measure[]): Compared {
  const kept = visits.filter((v) => !v.leftOut);
  const groups = new Map<string, { visits: VisitRow[]; attempts: VisitRow['attempts'][number][] }>();
  const at = (key: string) => {
    const found = groups.get(key);
    if (found) return found;
    const made = { visits: [], attempts: [] };
    groups.set(key, made);
    return made;
  };
  let ungrouped = 0;
  for (const v of kept) {
    const key = keyOf(by, (g) => groupOfVisit(g, v));
    if (key === null) ungrouped += 1;
    else at(key).visits.push(v);
    for (const a of v.attempts) {
      const own = keyOf(by, (g) => groupOfAttempt(g, v, a));
      if (own !== null) at(own).attempts.push(a);
    }
  }
  const rows = [...groups].map(([key, g]) => {
    const keys = key.split(SEPARATOR);
    return line(
      by.map((grouping, n) => ({ by: grouping, key: keys[n] ?? '' })),
      g,
      asked,
      measures,
    );
  });
  return { rows: rows.sort(inOrder(measures[0])), ungrouped };
}

const text = (r: ComparedGroup): string => r.groups.map((g) => g.key).join(SEPARATOR);
/** How good a cell is at worst, the greater the better; `null`: nothing is known. */
function worth(cell: Cell | undefined): number | null {
  switch (cell?.is) {
    case 'share':
      return cell.interval?.[0] ?? null;
    case 'bays':
      return cell.interval ? -cell.interval[1] : null;
    case 'wait':
    case 'times':
      return cell.median.known ? -cell.median.value : null;
    case 'mean':
      return cell.mean.known ? -cell.mean.value : null;
    case 'rate':
      return cell.rate.known ? -cell.rate.value : null;
    case 'price':
      return cell.perKWh.known ? -Number(cell.perKWh.value) : null;
    case 'repair':
      return cell.least.known ? -cell.least.value : null;
    default:
      return null;
  }
}
/** The better first by a measure; what is not known last. */
export const inOrder =
  (measure: Measure | undefined) =>
  (a: ComparedGroup, b: ComparedGroup): number => {
    if (!measure) return b.visits - a.visits || (text(a) < text(b) ? -1 : 1);
    const of = (r: ComparedGroup) => {
      const cell = r.cells[measure];
      const upper =
        (MEASURES[measure] as { lessIsBetter?: true }).lessIsBetter && cell?.is === 'share' ? (cell.interval ? -cell.interval[1] : null) : worth(cell);
      return upper ?? Number.NEGATIVE_INFINITY;
    };
    const [x, y] = [of(a), of(b)];
    return (x === y ? 0 : y - x) || b.visits - a.visits || (text(a) < text(b) ? -1 : 1);
  };

function line(groups: Group[], g: Grouped, asked: Asked, measures: readonly Measure[]): ComparedGroup {
  const tried = g.visits.filter(visitTest(POPULATIONS.attempted.who({ time: asked.time, mark: asked.mark, currency: asked.currency })));
  const bySite = new Map<string, number>();
  for (const v of tried) bySite.set(v.siteId, (bySite.get(v.siteId) ?? 0) + 1);
  return {
    groups,
    visits: tried.length,
    allVisits: g.visits.length,
    sites: bySite.size,
    commonestSite: tried.length === 0 ? 0 : Math.max(...bySite.values()) / tried.length,
    coverage: { noted: counted('billed_noted', g, asked), billed: counted('billed', g, asked) },
    cells: Object.fromEntries(measures.map((m) => [m, MEASURES[m].cell(g, asked)])),
  };
}

const PLAIN: Asked = { time: 'handshake', mark: 'kW', currency: '' };
const isYes = visitTest(POPULATIONS.first_yes.who(PLAIN));
const isNo = visitTest(POPULATIONS.first_no.who(PLAIN));

/** The visits that count for the first try, faults of every side in, each with the group it is compared in. */
export function startsOf(visits: readonly VisitRow[], by: Grouping = 'network'): Start[] {
  const starts: Start[] = [];
  for (const v of visits) {
    const { networkId, siteId, stallId, workedAt, driverId, at, month } = v;
    const yes = isYes(v);
    const group = groupOfVisit(by, v);
    if (group === null || !(yes || isNo(v))) continue;
    const stratum = `${v.carId ?? ''} ${v.attempts[0]?.meansKind ?? ''}`;
    starts.push({ group, stratum, networkId, siteId, stallId, workedAt, driverId, at, month, yes });
  }
  return starts;
}

/** Rows with at least so many visits. */
export const withLeast = (rows: readonly ComparedGroup[], least: number): ComparedGroup[] => rows.filter((r) => Math.max(r.visits, r.allVisits) >= least);
