'use client';
import { useEffect } from 'react';
import { PLACES } from './places';

export const KEYS_STORE = 'mile.keys';

/** True while keys belong to what has the focus: a field, a pad, a dialog (WCAG 2.1.4). */
function keysRest(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  return (
    target.closest('input, textarea, select, [role=dialog], [contenteditable], [data-resting]') !== null || document.querySelector('[role=dialog]') !== null
  );
}

/**
 * Single keys: a number for each place, N to pull in, and whatever else the page knows; they can be switched off. Ctrl K finds.
 * @param go opens a place @param more handles a further key; true when it did @param find opens the find box
 */
export function usePlaceKeys(go: (href: string) => void, more: (key: string) => boolean, find: () => void): void {
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      // With Ctrl it is no single key: it works in fields too, and cannot be switched off.
      if ((e.ctrlKey || e.metaKey) && !e.altKey && e.key.toLowerCase() === 'k') {
        e.preventDefault();
        return find();
      }
      if (e.ctrlKey || e.metaKey || e.altKey || keysRest(e.target) || localStorage.getItem(KEYS_STORE) === 'off') return;
      const place = PLACES.find((p) => p.key === e.key || (e.key.toLowerCase() === 'n' && p.shell));
      if (place) go(place.href);
      else if (!more(e.key)) return;
      e.preventDefault();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [go, more, find]);
}
