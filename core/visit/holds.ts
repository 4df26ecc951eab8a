import { daysBetween, localDay } from '../units/zoned';
import type { Visit } from './derive';
import { idsOf } from './timeline/placed';

/** What a means held back, and when that was seen to be free again. `released`: the day; `days`: from the hold to its release, or to today while it stands. */
export type Hold = { id: string; t: number; amount: string; currency: string | null; released: string | null; days: number };

/**
 * The holds of a visit: each showing of a card may hold anew. They are released by the bank, which the ledger does not see: somebody says so, the last word counts.
 * @param today local day, `2025-10-14`
 */
export const holdsOf = (v: Pick<Visit, 'line' | 'zone'>, today: string): Hold[] =>
  v.line.flatMap((e): Hold[] => {
    if ((e.kind !== 'means_shown' && e.kind !== 'means_accepted') || e.payload.holdAmount === undefined || Number(e.payload.holdAmount) <= 0) return [];
    const { holdAmount: amount, currency = null } = e.payload;
    const ids = idsOf(e);
    const said = v.line.findLast((o) => o.kind === 'hold_released' && ids.includes(o.payload.hold));
    const released = said?.kind === 'hold_released' ? said.payload.on : null;
    return [{ id: e.id, t: e.t, amount, currency, released, days: Math.max(0, daysBetween(localDay(e.t, v.zone), released ?? today)) }];
  });
