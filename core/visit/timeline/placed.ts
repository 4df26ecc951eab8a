import type { VisitEvent } from '../event';

/** An event as the corrections leave it. `touchedAt`: the wall time of the touch, where a correction gave it another time. */
export type Corrected = VisitEvent & { touchedAt?: number };

/** The same act as another phone saw it, taken into this one. */
export type Look = { eventId: string; personId: string /** Seconds between the two, the clocks put level. */; differs_s: number };

/** An event with its place in time. */
export type Placed = Corrected & {
  /** Its place in the order: which came first is never asked of clocks. */
  place: number;
  /** Time used for every duration, UTC ms: wall time put right by the page's own clock and put level with the recorder's. */
  t: number;
  /** ± from precision and from other looks at the same act, seconds. */
  pm_s: number;
  /** ± of this device's clock against the recorder's, seconds: counts in durations between two devices. */
  clock_s: number;
  /** Grows each time the device's wall clock ran back between page lives: durations across are unknown. −1 for typed and corrected times. */
  seam: number;
  /** Seconds by which the wall clock jumped here, when it did. */
  jumped_s?: number;
  /** How other phones saw the same act. */
  looks?: readonly Look[];
  /** Only somebody looking on saw it: it opens, cuts and ends nothing. */
  onlySeen?: true;
};

/** The ids by which an event is spoken of: what another phone saw of the same act is named by its own, too. */
export const idsOf = (e: Pick<Placed, 'id' | 'looks'>): string[] => [e.id, ...(e.looks ?? []).map((l) => l.eventId)];

/** A touch on the device's own clock, or a time that somebody wrote down. */
export const isTouch = (e: Corrected): boolean => (e.origin === 'tap' || e.origin === 'simulated') && e.touchedAt === undefined;
