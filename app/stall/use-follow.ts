'use client';
import { useEffect } from 'react';
import type { VisitSession } from '@/client/visit-session/session';

/** How often an open visit is looked at for what other phones recorded. */
export const FOLLOW_MS = 15_000;

/** Looks every quarter of a minute for what other phones recorded of the open visit, and at once when the page is looked at again. */
export function useFollow(session: VisitSession | null, visitId: string | null): void {
  useEffect(() => {
    if (!session || !visitId) return;
    const look = () => {
      if (document.visibilityState === 'visible') void session.look().catch(() => {});
    };
    const timer = setInterval(look, FOLLOW_MS);
    document.addEventListener('visibilitychange', look);
    return () => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', look);
    };
  }, [session, visitId]);
}
