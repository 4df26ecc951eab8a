import type { VisitRow } from './visit-row';

/** A visit as it counts for starts: where, when, by whom, and whether it started at the first try. */
export type Start = Pick<VisitRow, 'networkId' | 'siteId' | 'stallId' | 'workedAt' | 'driverId' | 'at' | 'month'> & {
  /** What it is compared by: the network, or whatever else. */
  group: string;
  /** By the same means and car; missing where nobody asks. */
  stratum?: string;
  yes: boolean;
};

/** In the order of time, the same whatever order they came in. */
const inTime = (a: Start, b: Start): number => a.at - b.at || (a.siteId < b.siteId ? -1 : a.siteId > b.siteId ? 1 : 0) || Number(a.yes) - Number(b.yes);

/** What is left of some visits, and how many were taken away. */
export type Left = { starts: Start[]; taken: number };

/** Without each person's first visit to each network: how an app is set up tells of no stall. */
export function withoutFirstVisits(all: readonly Start[]): Left {
  const been = new Map<string, Set<string | null>>();
  const starts = [...all].sort(inTime).filter(({ networkId, driverId }) => {
    const who = been.get(networkId);
    if (who?.has(driverId)) return true;
    if (who) who.add(driverId);
    else been.set(networkId, new Set([driverId]));
    return false;
  });
  return { starts, taken: all.length - starts.length };
}

/** Failures at one stall before it is seen working again are one outage: the first of them stands for all. A visit without a stall is by itself. */
export function outagesOnce(all: readonly Start[]): Left {
  const down = new Set<string>();
  const starts = [...all].sort(inTime).filter((s) => {
    const again = !s.yes && s.stallId !== null && down.has(s.stallId);
    if (!s.yes && s.stallId !== null) down.add(s.stallId);
    // At a second attempt of the same visit, too.
    for (const stall of s.workedAt) down.delete(stall);
    return !again;
  });
  return { starts, taken: all.length - starts.length };
}
