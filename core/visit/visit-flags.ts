import { kWhBilledForAll } from './billed';
import { stallKWhOf } from './delivered';
import type { Visit } from './derive';
import { billDoubt, readingDoubt } from './sense-check';

/** Nothing but the visit itself: what is on file of stall and car is asked of whole sessions, once. @see sessionDoubts */
const ALONE = { ratedKW: null, usableKWh: null, charging_s: null, expectedCost: null };

/**
 * What looks wrong within a visit, each as the question that was or would have been asked: a reading that contradicts one
 * before it or itself, a bill for less than the stall showed. It changes no figure; somebody looks, and corrects or lets it be.
 */
export function visitFlags(v: Pick<Visit, 'attempts' | 'bills' | 'billed'>): string[] {
  const readings = v.attempts.flatMap((a) =>
    a.readings.flatMap(
      (r, i) =>
        readingDoubt(
          r,
          a.readings.slice(0, i).filter((b) => b.screen === r.screen),
          ALONE,
        ) ?? [],
    ),
  );
  const sessions = v.attempts.filter((a) => a.proof);
  const billed = kWhBilledForAll(
    sessions.map((a) => a.n),
    v.billed,
  );
  const bill = billed === undefined ? null : billDoubt({ amount: '0', kWh: billed }, { lastKWh: stallKWhOf(sessions) ?? null, expected: null });
  // The same question is asked once.
  return [...new Set([...(bill ? [bill] : []), ...readings])];
}
