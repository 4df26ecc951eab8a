import type { StoredEvent } from '@/core/visit/event';
import type { Photo } from '../photos/take-photo';
import { type EventDraft, makeEvent } from './keep-event';
import { type KeptEvent, type PhoneStore, STRICT } from './phone-store';
import type { PhoneWho } from './who';

/**
 * Events and photos that this device could not write down, because its storage is full or refused. They live as long as the
 * page: they are sent from here, and written down as soon as that works again.
 */
export type HeldEvents = {
  all: () => readonly KeptEvent[];
  /** @param known events of the same visit that are written down */
  add: (who: PhoneWho, awake: boolean, drafts: readonly EventDraft[], known: readonly KeptEvent[]) => StoredEvent[];
  /** Takes in what the server has of a visit, where nothing else can keep it. */
  take: (events: readonly StoredEvent[]) => void;
  settle: (id: string, outcome: Pick<KeptEvent, 'state' | 'reason' | 'path'>) => void;
  photos: () => readonly Photo[];
  addPhoto: (photo: Photo) => void;
  dropPhoto: (sha256: string) => void;
  /** Writes everything held into the store after all. @throws when that still fails; nothing is lost then */
  writeDown: (store: PhoneStore) => Promise<void>;
};

/** Begins to hold events for one page. */
export function holdEvents(): HeldEvents {
  let list: KeptEvent[] = [];
  let photos: Photo[] = [];
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
    photos: () => photos,
    addPhoto: (photo) => {
      if (!photos.some((p) => p.sha256 === photo.sha256)) photos = [...photos, photo];
    },
    dropPhoto: (sha256) => {
      photos = photos.filter((p) => p.sha256 !== sha256);
    },
    writeDown: async (store) => {
      const now = list;
      const pictures = photos;
      if (now.length + pictures.length === 0) return;
      const tx = store.transaction(['event', 'outbox', 'photo'], 'readwrite', STRICT);
      try {
        for (const k of now) {
          await tx.objectStore('event').put(k);
          if (k.state === 'kept') await tx.objectStore('outbox').add({ type: 'event', id: k.event.id });
        }
        for (const p of pictures) await tx.objectStore('photo').put({ ...p, state: 'kept' });
        await tx.done;
      } catch (error) {
        tx.done.catch(() => {});
        throw error;
      }
      list = list.filter((k) => !now.includes(k));
      photos = photos.filter((p) => !pictures.includes(p));
    },
  };
}

export const waitingOf = (held: HeldEvents): KeptEvent[] => held.all().filter((k) => k.state === 'kept');
export const refusedOf = (held: HeldEvents): KeptEvent[] => held.all().filter((k) => k.state === 'refused');
