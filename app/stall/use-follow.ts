'use client';
import { useEffect, useRef } from 'react';
import { eventsOfVisit, keepFromServer } from '@/client/store/keep-event';
import type { PhoneStore } from '@/client/store/phone-store';
import { visitEvents } from '@/client/visits/from-server';

/** How often an open visit is looked at for what other phones recorded. */
const FOLLOW_MS = 15_000;

/**
 * Takes what other phones recorded of the open visit into this one's store, and what other pages of this phone did.
 * Looks every quarter of a minute, and at once when the page is looked at again.
 * @param shown how many of the visit's events the page shows @param onMore there are others now
 */
export function useFollow(store: PhoneStore | null, visitId: string | null, shown: number, onMore: () => Promise<void>): void {
  const more = useRef(onMore);
  more.current = onMore;
  const seen = useRef(shown);
  seen.current = shown;
  useEffect(() => {
    if (!store || !visitId) return;
    const look = async () => {
      if (document.visibilityState !== 'visible') return;
      const here = await eventsOfVisit(store, visitId);
      if (here.length !== seen.current) await more.current();
      const have = here.filter((k) => k.state === 'sent').length;
      // Before anything is sent the server knows nothing of it.
      const events = have === 0 ? null : await visitEvents(visitId, have);
      if (!events) return;
      await keepFromServer(store, events);
      await more.current();
    };
    const start = () => void look().catch(() => {});
    const timer = setInterval(start, FOLLOW_MS);
    document.addEventListener('visibilitychange', start);
    return () => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', start);
    };
  }, [store, visitId]);
}
