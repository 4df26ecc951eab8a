import type { LedgerRow } from '@/core/compare/ledger-row';
import { VISIT_FIGURES } from '@/core/figures/visit-figures';
import { deriveVisit, type Visit, visitState } from '@/core/visit/derive';
import type { PayloadCheck } from '@/core/visit/payloads';
import { deviceId } from '../touch/page-life';
import { visitEvents } from '../visits/from-server';
import { type HeldEvents, waitingOf } from './held-events';
import { keepFromServer } from './keep-event';
import type { KeptEvent, PhoneStore } from './phone-store';

/** One line of the visits at hand. `recordedHere`: some of it was recorded on this device. */
export type LastVisit = Pick<
  LedgerRow,
  'id' | 'at' | 'timeKnown' | 'zone' | 'siteId' | 'siteName' | 'state' | 'ended' | 'handshake_s' | 'kWh' | 'kWhAtLeast' | 'paid' | 'currency'
> & {
  recordedHere: boolean;
};

/** Sent visits leave the phone this long after they happened and were recorded, milliseconds; the ledger has them, and until then a ledger that was restored can ask for them again. */
const KEEP_MS = 30 * 24 * 3600 * 1000;
const MOST = 20;
/** So many of the newest come along. */
const ALONG = 10;
const notChecked: PayloadCheck = () => ({ path: '', reason: 'not checked here' });

/**
 * Brings the newest visits of the ledger onto the phone, whoever recorded them, so that they open without a network;
 * of those that the ledger no longer lists it takes what was recorded since: that they were withdrawn.
 * @returns whether any came
 */
export async function bringAlong(store: PhoneStore, rows: readonly LedgerRow[]): Promise<boolean> {
  const here = visitsOf(await store.getAll('event'));
  const listed = new Set(rows.map((r) => r.id));
  const wanted = rows.slice(0, ALONG).flatMap((r) => (here.get(r.id)?.some((k) => k.event.kind === 'pulled_in') ? [] : [r.id]));
  const oldest = rows.at(-1)?.at ?? Number.POSITIVE_INFINITY;
  for (const [id, list] of here)
    if (!listed.has(id) && list.every((k) => k.state === 'sent' && k.event.at >= oldest) && !list.some((k) => k.event.payload.target === id)) wanted.push(id);
  let some = false;
  for (const id of wanted) {
    const events = await visitEvents(id, here.get(id)?.length ?? 0);
    if (!events) continue;
    await keepFromServer(store, events);
    some = true;
  }
  return some;
}

/** When an id was made, UTC ms: the first 48 bits of a UUIDv7 (RFC 9562, 5.7). */
const madeAt = (id: string): number => Number.parseInt(id.slice(0, 8) + id.slice(9, 13), 16);

/** Takes old visits off the phone that are wholly sent, save the newest of the ledger. */
export async function pruneSent(store: PhoneStore, rows: readonly LedgerRow[], now: number): Promise<void> {
  const along = new Set(rows.slice(0, ALONG).map((r) => r.id));
  const tx = store.transaction('event', 'readwrite');
  const byVisit = visitsOf(await tx.store.getAll());
  for (const [id, list] of byVisit)
    if (!along.has(id) && list.every((k) => k.state === 'sent' && now - Math.max(k.event.at, madeAt(k.event.id)) > KEEP_MS))
      for (const k of list) await tx.store.delete(k.event.id);
  await tx.done;
}

function row(v: Visit, recordedHere: boolean, now: number): LastVisit {
  return {
    id: v.id,
    at: v.pulledInAt ?? v.line[0]?.t ?? v.lastEventAt,
    timeKnown: v.pulledInAt !== null && !v.dayOnly,
    zone: v.zone,
    siteName: null,
    siteId: v.siteId,
    state: visitState(v, now),
    ended: v.ended,
    handshake_s: VISIT_FIGURES.handshake_s.value(v),
    kWh: v.delivered.known ? v.delivered.value : null,
    kWhAtLeast: v.delivered.known && v.delivered.atLeast === true,
    paid: VISIT_FIGURES.paid.value(v),
    currency: VISIT_FIGURES.currency.value(v),
    recordedHere,
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
  const here = deviceId();
  const out = new Map(rows.map((r): [string, LastVisit] => [r.id, { ...r, recordedHere: false }]));
  for (const [id, list] of visitsOf([...(store ? await store.getAll('event') : []), ...waitingOf(held)])) {
    const there = out.get(id);
    const recordedHere = list.some((k) => k.event.deviceId === here);
    const whole = list.some((k) => k.event.kind === 'pulled_in');
    if (there && (!whole || list.every((k) => k.state === 'sent'))) {
      out.set(id, { ...there, recordedHere });
      continue;
    }
    const visit = deriveVisit(
      id,
      list.map((k) => k.event),
      notChecked,
    );
    if (visit.withdrawn) out.delete(id);
    else if (visit.line.length > 0) out.set(id, row(visit, recordedHere, now));
  }
  return [...out.values()].sort((a, b) => b.at - a.at).slice(0, MOST);
}
