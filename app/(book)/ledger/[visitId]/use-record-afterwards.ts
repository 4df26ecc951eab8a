'use client';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { sendOutbox } from '@/client/outbox/send-outbox';
import { writePhoto } from '@/client/photos/photo-outbox';
import type { Photo } from '@/client/photos/take-photo';
import { eventsOfVisit, keepEvents } from '@/client/store/keep-event';
import { openOwnStore } from '@/client/store/phone-store';
import { askWho, readWho } from '@/client/store/who';
import { touchTime } from '@/client/touch/touch-time';
import type { Origin } from '@/core/visit/event';
import type { Payload } from '@/core/visit/payloads';

export type VisitContext = { visitId: string; siteId: string | null; zone: string; knownSeq: number };
/** What can be said of a visit on its page. */
type Said = 'correction' | 'withdrawal' | 'danger_cleared' | 'bill' | 'receipt' | 'hold_released';
export type Afterwards = { [K in Said]: { kind: K; payload: Payload<K>; origin?: Origin } }[Said];

/** It is kept, and needs nobody to say it again. */
export const KEPT_HERE = 'Kept on this device: it is sent when the server can be reached.';

/**
 * Records what is said of a visit afterwards, on a page of the book, by the same way as at the stall: kept here first,
 * then sent. @returns `record`, giving the refusal's reason or null, and whether it is at work. What is said together is kept together, or not at all.
 */
export function useRecordAfterwards(context: VisitContext) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  /** What is kept here and not sent yet: said again, it is sent and not kept a second time. */
  const waiting = useRef<{ text: string; ids: Set<string> } | null>(null);
  const record = async (timeStamp: number, drafts: Afterwards | readonly Afterwards[], photo?: Photo): Promise<string | null> => {
    setBusy(true);
    try {
      const asked = await askWho();
      const who = typeof asked === 'object' ? asked : readWho();
      if (!who || asked === 'signed_out') return 'Sign in again, then repeat this.';
      const store = await openOwnStore(who);
      // The picture before what speaks of it: an event never waits for a picture that nobody has.
      if (photo) await writePhoto(store, photo);
      const text = JSON.stringify(drafts);
      if (waiting.current?.text !== text) {
        const made = await keepEvents(
          store,
          who,
          [drafts].flat().map((draft) => ({ ...draft, visitId: context.visitId, zone: context.zone, touch: touchTime(timeStamp), knownSeq: context.knownSeq })),
        );
        waiting.current = { text, ids: new Set(made.map((e) => e.id)) };
      }
      const { ids } = waiting.current;
      const outcome = await sendOutbox(store);
      if (outcome === 'sent') waiting.current = null;
      const kept = (await eventsOfVisit(store, context.visitId)).find((k) => ids.has(k.event.id) && k.state === 'refused');
      store.close();
      if (kept?.state === 'refused') return `${kept.path ?? ''} ${kept.reason ?? 'was refused'}`.trim();
      router.refresh();
      return outcome === 'sent' ? null : KEPT_HERE;
    } catch (error) {
      return `This browser could not keep it: ${error instanceof Error ? error.message : String(error)}`;
    } finally {
      setBusy(false);
    }
  };
  return { record, busy };
}
