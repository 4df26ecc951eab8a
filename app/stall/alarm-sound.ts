'use client';
import { useEffect, useRef } from 'react';
import type { Alarm } from '@/core/visit/alarms';
import { dueNow } from '@/core/visit/matter';

const MUTE = 'mile.alarms';
export const muted = (): boolean => {
  try {
    return localStorage.getItem(MUTE) === 'off';
  } catch {
    return false;
  }
};
export function mute(quiet: boolean): void {
  try {
    localStorage.setItem(MUTE, quiet ? 'off' : 'on');
  } catch {
    // Not remembered.
  }
}

/** Two short tones. A browser that has not been touched yet stays silent. */
function sound(): void {
  if (muted() || !('AudioContext' in window)) return;
  const audio = new AudioContext();
  for (const [i, hertz] of [880, 1175].entries()) {
    const tone = audio.createOscillator();
    const volume = audio.createGain();
    tone.frequency.value = hertz;
    volume.gain.value = 0.2;
    tone.connect(volume).connect(audio.destination);
    tone.start(audio.currentTime + i * 0.3);
    tone.stop(audio.currentTime + i * 0.3 + 0.2);
    if (i === 1) tone.onended = () => void audio.close();
  }
}

/** Tells each alarm once as it falls due, by sound and buzz; a soft one only buzzes. @param at UTC ms */
export function useAlarmSound(alarms: readonly Alarm[], at: number): void {
  const told = useRef(new Set<string>());
  const keys = dueNow(alarms, at)
    .map((a) => `${a.soft ? 'soft ' : ''}${a.key}`)
    .join(' | ');
  useEffect(() => {
    const fresh = keys.split(' | ').filter((k) => k !== '' && !told.current.has(k));
    if (fresh.length === 0) return;
    for (const k of fresh) told.current.add(k);
    const soft = fresh.every((k) => k.startsWith('soft '));
    navigator.vibrate?.(soft ? 60 : [200, 100, 200]);
    if (!soft) sound();
  }, [keys]);
}
