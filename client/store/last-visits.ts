import type { LedgerRow } from '@/core/compare/ledger-row';
import { deriveVisit, type Visit, visitState } from '@/core/visit/derive';
import type { PayloadCheck } from '@/core/visit/kinds';
import { type HeldEvents, waitingOf } from './held-events';
import type { KeptEvent, PhoneStore } from './phone-store';

/** One line of the visits at hand. `onPhone`: its events are here, so that it opens without a network. */
export type LastVisit = Pick<LedgerRow, 'id' | 'at' | 'zone' | 'siteName' | 'state' | 'ended' | 'handshake_s' | 'kWh' | 'paid' | 'currency'> & {
  onPhone: boolean;
  siteId: string | null;
};

/** Sent visits older than this leave the phone, milliseconds; the ledger has them. */
const KEEP_MS = 30 * 24 * 3600 * 1000;
const MOST = 20;
const notChecked: PayloadCheck = () => ({ path: '', reason: 'not checked here' });

/** Takes old visits off the phone that are wholly sent. */
export async function pruneSent(store: PhoneStore, now: number): Promise<void> {
  const tx = store.transaction('event', 'readwrite');
  const byVisit = visitsOf(await tx.store.getAll());
  for (const list of byVisit.values())
    if (list.every((k) => k.state === 'sent' && now - k.event.at > KEEP_MS)) for (const k of list) await tx.store.delete(k.event.id);
  await tx.done;
}

function row(v: Visit, now: number): LastVisit {
  return {
    id: v.id,
    at: v.pulledInAt ?? v.line[0]?.t ?? v.lastEventAt,
    zone: v.zone,
    siteName: null,
    siteId: v.siteId,
    state: visitState(v, now),
    ended: v.ended,
    handshake_s: ((h) => (h?.known ? h.s : null))(v.attempts.find((a) => a.proof)?.times.handshake),
    kWh: v.delivered.known ? v.delivered.value : null,
    paid: v.paid.known ? v.paid.value.amount : null,
    currency: v.paid.known ? v.paid.value.currency : null,
    onPhone: true,
  };
}

function visitsOf(kept: readonly KeptEvent[]): Map<string, KeptEvent[]> {
  const byVisit = new Map<string, KeptEvent[]>();
  for (const k of kept) byVisit.set(k.event.visitId, [...(byVisit.get(k.event.visitId) ?? []), k]);
  return byVisit;
}

/**
 * The last visits, newest first: as the ledger said last, and as this phone's own events say where the ledger does
 * not know them yet.
 */
export async function visitsAtHand(store: PhoneStore | null, held: HeldEvents, rows: readonly LedgerRow[], now: number): Promise<LastVisit[]> {
  const out = new Map(rows.map((r): [string, LastVisit] => [r.id, { ...r, siteId: null, onPhone: false }]));
  for (const [id, list] of visitsOf([...(store ? await store.getAll('event') : []), ...waitingOf(held)])) {
    const there = out.get(id);
    const whole = list.some((k) => k.event.kind === 'pulled_in');
    if (there && (!whole || list.every((k) => k.state === 'sent'))) {
      out.set(id, { ...there, onPhone: whole });
      continue;
    }
    const visit = deriveVisit(
      id,
      list.map((k) => k.event),
      notChecked,
    );
    if (visit.withdrawn) out.delete(id);
    else if (visit.line.length > 0) out.set(id, row(visit, now));
  }
  return [...out.values()].sort((a, b) => b.at - a.at).slice(0, MOST);
}
