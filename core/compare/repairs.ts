import { grouped } from '../units/grouped';
import { known, unknown } from '../units/known';
import { quantile } from '../units/quantile';
import type { RepairCell } from './cells';
import type { VisitRow } from './visit-row';

/** One time a stall was broken, as far as it was seen; seconds. `most`: `null` where it was never seen working before. */
export type Outage = { stallId: string; since: number; least_s: number; most_s: number | null; over: boolean };

type Bad = { first: number; last: number; before: number | null };

/** What a visit says of its stalls: which worked, which failed on another side than the car's, the adapter's, the driver's or the payment's. */
const OF_THE_STALL: ReadonlySet<string> = new Set(['site', 'network']);

/**
 * Outages as seen by the visits: from the first failure at a stall until it was seen working again. Between two looks nobody knows:
 * at least from the first failure to the last, at most from when it last worked to when it next did.
 */
export function outagesSeen(visits: readonly VisitRow[]): Outage[] {
  const looks = visits
    .filter((v) => !v.leftOut)
    .flatMap((v) => {
      const failed = v.attempts.flatMap((a) =>
        a.stallId && (a.outcome === 'failed' || a.outcome === 'gave_up') && a.side && OF_THE_STALL.has(a.side) && !v.workedAt.includes(a.stallId)
          ? [a.stallId]
          : [],
      );
      return [...v.workedAt.map((stallId) => ({ stallId, at: v.at, worked: true })), ...failed.map((stallId) => ({ stallId, at: v.at, worked: false }))];
    })
    .sort((a, b) => a.at - b.at);
  return [...grouped(looks, (l) => l.stallId)].flatMap(([stallId, here]) => {
    const out: Outage[] = [];
    let good: number | null = null;
    let bad: Bad | null = null;
    for (const l of here) {
      if (!l.worked) bad = bad !== null ? { ...(bad as Bad), last: l.at } : { first: l.at, last: l.at, before: good };
      else {
        if (bad)
          out.push({
            stallId,
            since: bad.first,
            least_s: (bad.last - bad.first) / 1000,
            most_s: bad.before === null ? null : (l.at - bad.before) / 1000,
            over: true,
          });
        bad = null;
        good = l.at;
      }
    }
    if (bad) out.push({ stallId, since: bad.first, least_s: (bad.last - bad.first) / 1000, most_s: null, over: false });
    return out;
  });
}

/** Medians of what outages took at least and at most; those not seen to end beside. */
export function repairCell(visits: readonly VisitRow[]): RepairCell {
  const all = outagesSeen(visits);
  const over = all.filter((o) => o.over);
  const most = over.flatMap((o) => (o.most_s === null ? [] : [o.most_s]));
  return {
    is: 'repair',
    n: over.length,
    open: all.length - over.length,
    least:
      over.length === 0
        ? unknown(all.length > 0 ? 'not seen working since' : 'none seen broken')
        : known(
            quantile(
              over.map((o) => o.least_s),
              0.5,
            ),
          ),
    most: most.length === 0 ? unknown('never seen working before') : known(quantile(most, 0.5)),
  };
}
