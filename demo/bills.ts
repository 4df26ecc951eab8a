import Big from 'big.js';
import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import { type CheckedBill, checkedBill } from '@/core/tariff/checked-bill';
import { deriveVisit, type Visit } from '@/core/visit/derive';
import type { StoredEvent } from '@/core/visit/event';
import { payloadProblem } from '@/core/visit/payloads';

/** How a network billed what it should not have: so much more, so many times as much, or as for guests. */
export type WrongBill = { over: string } | { times: string } | { guest: true };

/** A visit set against the prices on file, as its page does; `null` where there is none. */
export function checkedInDemo(visit: Visit, items: readonly RecordItem[]): CheckedBill | null {
  const of = <T extends RecordItem['type']>(type: T): MileRecord<T>[] =>
    items.flatMap((r) => (r.type === type ? [{ ...r, rev: 1, archived: false } as unknown as MileRecord<T>] : []));
  const site = of('site').find((s) => s.id === visit.siteId);
  if (!site) return null;
  const { networkId } = site.fields;
  return checkedBill(visit, {
    site,
    network: of('network').find((n) => n.id === networkId)?.fields.name ?? '',
    stalls: of('stall').filter((s) => s.fields.siteId === site.id),
    tariffs: of('tariff').filter((t) => t.fields.networkId === networkId),
    sites: of('site').filter((s) => s.fields.networkId === networkId),
    plans: of('plan'),
    means: of('means'),
    providers: of('provider'),
  });
}

/**
 * The visits with bills as the prices on file make them, but for those that were wrong.
 * @param visits events of each visit; one that has a bill has some amount in it @param wrong by visit, how
 */
export const billed = (visits: readonly StoredEvent[][], items: readonly RecordItem[], wrong: ReadonlyMap<string, WrongBill>): StoredEvent[][] =>
  visits.map((events) => {
    const bill = events.find((e) => e.kind === 'bill');
    if (!bill) return events;
    const checked = checkedInDemo(deriveVisit(bill.visitId, events, payloadProblem), items);
    if (!checked || 'unpriced' in checked) throw new Error(`the demo has no price for the visit of ${new Date(bill.at).toISOString()}`);
    const amount = charged(checked.total, checked.guest, wrong.get(bill.visitId));
    return events.map((e) => (e === bill ? { ...e, payload: { ...e.payload, amount } } : e));
  });

function charged(total: string, guest: string | null, wrong: WrongBill | undefined): string {
  if (!wrong) return total;
  if ('guest' in wrong) return guest ?? total;
  return ('over' in wrong ? new Big(total).plus(wrong.over) : new Big(total).times(wrong.times)).toFixed(2);
}
