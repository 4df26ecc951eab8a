import { v5 } from 'uuid';
import type { Precision, StoredEvent } from '@/core/visit/event';
import type { Member } from '../accounts/who';
import { now } from '../clock';
import { MAX_ITEMS, takeBatch } from '../outbox/take-batch';

/** Ids that come of what a file says: the same thing said is the same event, in whichever file it stands. RFC 9562, version 5. */
const NAMESPACE = '6ba7b811-9dad-11d1-80b4-00c04fd430c8';
export const idOf = (householdId: string, name: string): string => v5(`${householdId} ${name}`, NAMESPACE);

export type Imported = {
  id: string;
  visitId: string;
  zone: string;
  seq: number;
  kind: string;
  payload: Record<string, unknown>;
  importId: string;
  /** UTC ms; now where nothing says when. */
  at?: number;
  precision?: Precision;
};

/** An event as an import writes it. */
export const importedEvent = (who: Member, e: Imported): StoredEvent => ({
  id: e.id,
  householdId: who.householdId,
  personId: who.personId,
  visitId: e.visitId,
  kind: e.kind,
  v: 1,
  at: e.at ?? now(),
  precision: e.precision ?? 'ms',
  zone: e.zone,
  // An import is a device of its own: it has no page whose clock could be compared with a phone's.
  deviceId: e.importId,
  life: e.importId,
  mono: 0,
  awake: false,
  seq: e.seq,
  origin: 'imported',
  role: 'recorder',
  payload: e.payload,
});

/** Writes events, those of one visit together: a visit comes in whole or not at all. @returns how many were not there before, and the visits of which something was refused */
export async function sendImported(who: Member, events: readonly StoredEvent[]): Promise<{ taken: number; refused: Set<string> }> {
  const byVisit = new Map<string, StoredEvent[]>();
  for (const e of events) byVisit.set(e.visitId, [...(byVisit.get(e.visitId) ?? []), e]);
  const batches: StoredEvent[][] = [];
  for (const of of byVisit.values()) {
    const last = batches.at(-1);
    if (last && last.length + of.length <= MAX_ITEMS) last.push(...of);
    else batches.push([...of]);
  }
  let taken = 0;
  const refused = new Set<string>();
  for (const batch of batches) {
    const answer = await takeBatch(who, { items: batch.map((event) => ({ type: 'event', event })) });
    if (!answer.ok) throw new Error(answer.reason);
    taken += answer.results.filter((r) => r.status === 'taken').length;
    for (const [i, r] of answer.results.entries()) {
      if (r.status !== 'refused') continue;
      refused.add((batch[i] as StoredEvent).visitId);
      console.error(`something imported was refused: ${r.path} ${r.reason}`);
    }
  }
  return { taken, refused };
}
