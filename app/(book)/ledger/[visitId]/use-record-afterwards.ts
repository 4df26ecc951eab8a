'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { sendOutbox } from '@/client/outbox/send-outbox';
import { eventsOfVisit, keepEvents } from '@/client/store/keep-event';
import { openPhoneStore } from '@/client/store/phone-store';
import { askWho, readWho } from '@/client/store/who';
import { touchTime } from '@/client/touch/touch-time';
import type { Payload } from '@/core/visit/payloads';

export type VisitContext = { visitId: string; siteId: string | null; zone: string; knownSeq: number };
type Afterwards =
  | { kind: 'correction'; payload: Payload<'correction'> }
  | { kind: 'withdrawal'; payload: Payload<'withdrawal'> }
  | { kind: 'danger_cleared'; payload: Payload<'danger_cleared'> };

/**
 * Records what is said of a visit afterwards, on a page of the book, by the same way as at the stall: kept here first,
 * then sent. @returns `record`, giving the refusal's reason or null, and whether it is at work
 */
export function useRecordAfterwards(context: VisitContext) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const record = async (timeStamp: number, draft: Afterwards): Promise<string | null> => {
    setBusy(true);
    try {
      const asked = await askWho();
      const who = typeof asked === 'object' ? asked : readWho();
      if (!who || asked === 'signed_out') return 'Sign in again, then repeat this.';
      const store = await openPhoneStore(who.householdId, who.personId);
      const [made] = await keepEvents(store, who, [
        { ...draft, visitId: context.visitId, zone: context.zone, touch: touchTime(timeStamp), knownSeq: context.knownSeq },
      ]);
      const outcome = await sendOutbox(store);
      const kept = (await eventsOfVisit(store, context.visitId)).find((k) => k.event.id === made?.id);
      store.close();
      if (kept?.state === 'refused') return `${kept.path ?? ''} ${kept.reason ?? 'was refused'}`.trim();
      router.refresh();
      return outcome === 'sent' ? null : 'Kept on this device: it is sent when the server can be reached.';
    } catch (error) {
      return `This browser could not keep it: ${error instanceof Error ? error.message : String(error)}`;
    } finally {
      setBusy(false);
    }
  };
  return { record, busy };
}
