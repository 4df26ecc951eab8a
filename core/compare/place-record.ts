import { type Shrunk, shrunkShares } from '../evidence/shrinkage';
import type { Grouping } from '../figures/groupings';
import type { Asked } from '../figures/populations';
import { type BaysCell, baysCell, visitsIn } from './cells';
import { type ComparedGroup, comparedGroups } from './compared-groups';
import { figuresRead, type Measure } from './measures';
import type { VisitRow } from './visit-row';

/** What is said of a place in one look. */
export const OF_A_PLACE = ['firstTry', 'wait', 'lost', 'allIn', 'faults', 'repair'] as const satisfies readonly Measure[];
const GROUPED = ['month', 'means', 'stall', 'site'] as const satisfies readonly Grouping[];

/** A stall of a site or a site of a network, by how often it starts at the first try. */
export type Choice = {
  key: string;
  yes: number;
  n: number;
  /** Pulled towards what all of them show, the more the fewer visits there are; `null` where that cannot be told. */
  pulled: number | null;
  interval: [number, number] | null;
};
export type PlaceRecord = {
  all: ComparedGroup | null;
  /** Month by month, the oldest first. */
  trend: { month: string; yes: number; n: number }[];
  byMeans: ComparedGroup[];
  choices: Choice[];
  /** How the choices differ: `homogeneous` says no more than chance makes them. `null`: nothing to choose among. */
  spread: Shrunk['kind'] | null;
  arrival: BaysCell;
  /** Days of the first and the last visit, UTC ms; `null` without any. */
  from: number | null;
  to: number | null;
};

/** The figures that the record of a place reads. */
export const placeFigures = (asked: Asked) => figuresRead([...OF_A_PLACE, 'outOfOrder', 'authorisation'], asked, GROUPED);

const firstTryOf = (r: ComparedGroup) => ({ yes: r.cells.firstTry?.yes ?? 0, n: (r.cells.firstTry?.yes ?? 0) + (r.cells.firstTry?.no ?? 0) });

/**
 * The record of a site or a network from its visits.
 * @param visits all at that place @param choose among what a driver chooses there: the stalls of a site, the sites of a network
 */
export function placeRecord(visits: readonly VisitRow[], asked: Asked, choose: 'stall' | 'site'): PlaceRecord {
  const kept = visits.filter((v) => !v.leftOut);
  const of = (by: Grouping, measures: readonly Measure[]) => comparedGroups(kept, asked, [by], measures).rows;
  const places = of(choose, ['firstTry'])
    .map((r) => ({ key: r.groups[0]?.key ?? '', ...firstTryOf(r) }))
    .filter((c) => c.n > 0);
  const shrunk = places.length > 1 ? shrunkShares(places) : null;
  const times = kept.map((v) => v.at);
  return {
    all: comparedGroups(kept, asked, [], OF_A_PLACE).rows[0] ?? null,
    trend: of('month', ['firstTry'])
      .map((r) => ({ month: r.groups[0]?.key ?? '', ...firstTryOf(r) }))
      .filter((m) => m.n > 0)
      .sort((a, b) => (a.month < b.month ? -1 : 1)),
    byMeans: of('means', ['wait', 'authorisation']),
    choices: places
      .map((c, i) => ({ ...c, pulled: shrunk?.shares[i] ?? null, interval: shrunk?.intervals[i] ?? null }))
      .sort((a, b) => (b.pulled ?? b.yes / b.n) - (a.pulled ?? a.yes / a.n) || b.n - a.n || (a.key < b.key ? -1 : 1)),
    spread: shrunk?.kind ?? null,
    arrival: baysCell(visitsIn('looked', { visits: kept, attempts: [] }, asked)),
    from: times.length > 0 ? times.reduce((a, b) => Math.min(a, b)) : null,
    to: times.length > 0 ? times.reduce((a, b) => Math.max(a, b)) : null,
  };
}
