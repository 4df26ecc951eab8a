'use client';
import { useEffect } from 'react';

/** How often what other phones recorded is looked at. */
const FOLLOW_MS = 15_000;

/** Looks every quarter of a minute for what other phones recorded, and at once when the page is looked at again. @param look nothing to look at without */
export function useFollow(look: (() => Promise<unknown>) | null): void {
  useEffect(() => {
    if (!look) return;
    const now = () => {
      if (document.visibilityState === 'visible') void look().catch(() => {});
    };
    const timer = setInterval(now, FOLLOW_MS);
    document.addEventListener('visibilitychange', now);
    return () => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', now);
    };
  }, [look]);
}
