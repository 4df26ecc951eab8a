'use client';
import { useEffect, useRef } from 'react';
import { KEYS_STORE } from '@/ui/road/use-place-keys';

/** What shutter-buttons, clickers and presenters send. Enter and Space press whatever has the focus by themselves. */
const SHUTTER = new Set([
  'Enter',
  'AudioVolumeUp',
  'AudioVolumeDown',
  'VolumeUp',
  'VolumeDown',
  'PageDown',
  'PageUp',
  'ArrowRight',
  'MediaPlayPause',
  'Camera',
]);

/** A shutter-button as the yellow pad. Rests while a field, a pad or a dialog has the focus, and can be switched off with the single keys. */
export function useShutter(onPress: (timeStamp: number) => void): void {
  const press = useRef(onPress);
  press.current = onPress;
  useEffect(() => {
    const down = (e: KeyboardEvent) => {
      if (e.repeat || e.ctrlKey || e.altKey || e.metaKey || !SHUTTER.has(e.key)) return;
      const on = e.target as HTMLElement | null;
      if (on?.closest('input, textarea, select, [role="dialog"]')) return;
      if (e.key === 'Enter' && on?.closest('button, a')) return;
      let off = false;
      try {
        off = localStorage.getItem(KEYS_STORE) === 'off';
      } catch {
        // Not remembered: on.
      }
      if (off) return;
      e.preventDefault();
      press.current(e.timeStamp);
    };
    addEventListener('keydown', down);
    return () => removeEventListener('keydown', down);
  }, []);
}
