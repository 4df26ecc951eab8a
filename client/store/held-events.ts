import type { StoredEvent } from '@/core/visit/event';
import { type EventDraft, makeEvent } from './keep-event';
import { type KeptEvent, type PhoneStore, STRICT } from './phone-store';
import type { PhoneWho } from './who';

/**
 * Events that this device could not write down, because its storage is full or refused. They live as long as the
 * page: they are sent from here, and written down as soon as that works again.
 */
export type HeldEvents = {
  all: () => readonly KeptEvent[];
  /** @param known events of the same visit that are written down */
  add: (who: PhoneWho, awake: boolean, drafts: readonly EventDraft[], known: readonly KeptEvent[]) => StoredEvent[];
  /** Takes in what the server has of a visit, where nothing else can keep it. */
  take: (events: readonly StoredEvent[]) => void;
  settle: (id: string, outcome: Pick<KeptEvent, 'state' | 'reason' | 'path'>) => void;
  /** Writes everything held into the store after all. @throws when that still fails; nothing is lost then */
  writeDown: (store: PhoneStore) => Promise<void>;
};

/** Begins to hold events for one page. */
export function holdEvents(): HeldEvents {
  let list: KeptEvent[] = [];
  return {
    all: () => list,
    add: (who, awake, drafts, known) =>
      drafts.map((d) => {
        const seqs = [...known, ...list].filter((k) => k.event.visitId === d.visitId).map((k) => k.event.seq);
        const event = makeEvent(d, Math.max(0, d.knownSeq ?? 0, ...seqs) + 1, { who, awake });
        list = [...list, { event, state: 'kept' }];
        return event;
      }),
    take: (events) => {
      const here = new Set(list.map((k) => k.event.id));
      list = [...list, ...events.filter((e) => !here.has(e.id)).map((event): KeptEvent => ({ event, state: 'sent' }))];
    },
    settle: (id, outcome) => {
      list = list.map((k) => (k.event.id === id ? { event: k.event, ...outcome } : k));
    },
    writeDown: async (store) => {
      const now = list;
      if (now.length === 0) return;
      const tx = store.transaction(['event', 'outbox'], 'readwrite', STRICT);
      try {
        for (const k of now) {
          await tx.objectStore('event').put(k);
          if (k.state === 'kept') await tx.objectStore('outbox').add({ type: 'event', id: k.event.id });
        }
        await tx.done;
      } catch (error) {
        tx.done.catch(() => {});
        throw error;
      }
      list = list.filter((k) => !now.includes(k));
    },
  };
}

export const waitingOf = (held: HeldEvents): KeptEvent[] => held.all().filter((k) => k.state === 'kept');
export const refusedOf = (held: HeldEvents): KeptEvent[] => held.all().filter((k) => k.state === 'refused');
