import type { Visit } from './derive';

/** A visit as far as the stop it belongs to needs it. Seconds; UTC ms. */
export type StopVisit = {
  id: string;
  siteId: string | null;
  zone: string;
  pulledInAt: number | null;
  pulledOutAt: number | null;
  ended: Visit['ended'];
  lost_s: number | null;
};
export type StopTimes = {
  /** Visits of the stop, earliest first. */
  visits: StopVisit[];
  /** Lost at stalls over the stop; unknown as soon as one visit's is. */
  atStalls_s: number | null;
  /** From leaving a site without a charge to pulling in at the next one. */
  onTheWay_s: number | null;
};

/** What a stop of several visits lost: at its stalls, and on the way from a site that gave nothing to the next. */
export function stopTimes(visits: readonly StopVisit[]): StopTimes {
  const inOrder = [...visits].sort((a, b) => (a.pulledInAt ?? 0) - (b.pulledInAt ?? 0) || (a.id < b.id ? -1 : 1));
  let atStalls: number | null = 0;
  let onTheWay: number | null = 0;
  for (const [i, v] of inOrder.entries()) {
    atStalls = atStalls === null || v.lost_s === null ? null : atStalls + v.lost_s;
    const next = inOrder[i + 1];
    if (!next || v.ended === 'charge') continue;
    const way: number | null = v.pulledOutAt === null || next.pulledInAt === null ? null : (next.pulledInAt - v.pulledOutAt) / 1000;
    onTheWay = onTheWay === null || way === null || way < 0 ? null : onTheWay + way;
  }
  return { visits: inOrder, atStalls_s: atStalls, onTheWay_s: onTheWay };
}
