'use client';
import { useEffect, useRef, useState } from 'react';
import { phoneNow } from '@/client/touch/touch-time';
import type { Alarm } from '@/core/visit/alarms';

const MUTE = 'mile.alarms';
const muted = (): boolean => {
  try {
    return localStorage.getItem(MUTE) === 'off';
  } catch {
    return false;
  }
};

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

/** What is due now, told once by sound and buzz, and shown until it is answered. */
export function AlarmStrip({
  alarms,
  onReading,
  onStopped,
}: {
  alarms: Alarm[];
  onReading: (timeStamp: number) => void;
  onStopped: (timeStamp: number) => void;
}) {
  const [at, setAt] = useState(phoneNow);
  const [answered, setAnswered] = useState<ReadonlySet<string>>(new Set());
  const [quiet, setQuiet] = useState(muted);
  const told = useRef(new Set<string>());
  useEffect(() => {
    const timer = setInterval(() => setAt(phoneNow()), 1000);
    return () => clearInterval(timer);
  }, []);
  const due = alarms.filter((a) => a.due <= at && at < (a.until ?? Number.POSITIVE_INFINITY) && !answered.has(a.key));
  const keys = due.map((a) => `${a.soft ? 'soft ' : ''}${a.key}`).join(' | ');
  useEffect(() => {
    const fresh = keys.split(' | ').filter((k) => k !== '' && !told.current.has(k));
    if (fresh.length === 0) return;
    for (const k of fresh) told.current.add(k);
    const soft = fresh.every((k) => k.startsWith('soft '));
    navigator.vibrate?.(soft ? 60 : [200, 100, 200]);
    if (!soft) sound();
  }, [keys]);
  const first = due[0];
  if (!first) return null;
  const plate = (text: string, then?: (timeStamp: number) => void) => (
    <button
      type="button"
      className="plate !min-h-[44px]"
      onClick={(e) => {
        setAnswered((before) => new Set([...before, first.key]));
        then?.(e.timeStamp);
      }}
    >
      {text}
    </button>
  );
  const mute = () => {
    try {
      localStorage.setItem(MUTE, quiet ? 'on' : 'off');
    } catch {
      // Not remembered.
    }
    setQuiet(!quiet);
  };
  return (
    <section role="alert" aria-label="Alarm" className="border-b-2 border-ink bg-picked px-4 py-2">
      <p className="text-[17px] font-bold">{first.text}</p>
      <div className="mt-1.5 flex flex-wrap gap-2">
        {first.ask === 'stopped' ? (
          <>
            {plate('Still charging', onReading)}
            {plate('It has stopped', onStopped)}
          </>
        ) : first.ask === 'reading' ? (
          <>
            {plate('Read it', onReading)}
            {plate('Not now')}
          </>
        ) : (
          plate('Seen')
        )}
        {first.soft ? null : (
          <button type="button" aria-pressed={quiet} className="plate !min-h-[44px]" onClick={mute}>
            No sound
          </button>
        )}
      </div>
    </section>
  );
}
