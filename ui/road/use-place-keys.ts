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
 * Single keys: 1, 2, 3 for the places, N to pull in, and whatever else the page knows. Can be switched off.
 * @param go opens a place @param more handles a further key; true when it did
 */
export function usePlaceKeys(go: (href: string) => void, more: (key: string) => boolean = () => false): void {
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey || keysRest(e.target) || localStorage.getItem(KEYS_STORE) === 'off') return;
      const place = PLACES.find((p) => p.key === e.key || (e.key.toLowerCase() === 'n' && p.shell));
      if (place) go(place.href);
      else if (!more(e.key)) return;
      e.preventDefault();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [go, more]);
}
