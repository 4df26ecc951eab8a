'use client';
import { useEffect, useRef } from 'react';
import { eventsOfVisit, keepFromServer } from '@/client/store/keep-event';
import type { PhoneStore } from '@/client/store/phone-store';
import { visitEvents } from '@/client/visits/from-server';

/** How often an open visit is looked at for what other phones recorded. */
const FOLLOW_MS = 15_000;

/** Takes what other phones recorded of the open visit into this one's store. @param onMore something came */
export function useFollow(store: PhoneStore | null, visitId: string | null, onMore: () => Promise<void>): void {
  const more = useRef(onMore);
  more.current = onMore;
  useEffect(() => {
    if (!store || !visitId) return;
    const look = async () => {
      if (document.visibilityState !== 'visible') return;
      const have = (await eventsOfVisit(store, visitId)).filter((k) => k.state === 'sent').length;
      // Before anything is sent the server knows nothing of it.
      const events = have === 0 ? null : await visitEvents(visitId, have);
      if (!events) return;
      await keepFromServer(store, events);
      await more.current();
    };
    const timer = setInterval(() => void look().catch(() => {}), FOLLOW_MS);
    return () => clearInterval(timer);
  }, [store, visitId]);
}
