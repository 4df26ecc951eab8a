import { randomLcg } from 'd3-random';
import { type Counted, logShareFactor, PROBABLY } from '../evidence/share-evidence';

const RUNS = 200;
/** Further visits to each that are looked ahead to: beyond, nobody plans. */
export const MOST_AHEAD = 100;
const SEED = 0.37;

/**
 * How many further visits to each of two networks would probably tell them apart: in half of the runs forward from today's shares
 * (with half a visit of each kind added, so that a share of all or none is not taken for a law) the evidence reaches "probably".
 * Same counts, same answer: the runs are seeded. @returns visits to each, or `null` for more than a hundred
 */
export function visitsToTell(a: Counted, b: Counted, looked: number): number | null {
  const bar = Math.log(PROBABLY) + Math.log(Math.max(1, looked));
  const random = randomLcg(SEED);
  const share = ({ yes, n }: Counted) => (yes + 0.5) / (n + 1);
  const [pa, pb] = [share(a), share(b)];
  const told: number[] = [];
  for (let run = 0; run < RUNS; run++) {
    const [x, y] = [{ ...a }, { ...b }];
    let k = 0;
    while (k < MOST_AHEAD && logShareFactor([x, y]) < bar) {
      k += 1;
      x.n += 1;
      y.n += 1;
      if (random() < pa) x.yes += 1;
      if (random() < pb) y.yes += 1;
    }
    told.push(logShareFactor([x, y]) < bar ? Number.POSITIVE_INFINITY : k);
  }
  const median = told.sort((m, n) => m - n)[RUNS / 2] as number;
  return Number.isFinite(median) ? median : null;
}
