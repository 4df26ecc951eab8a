'use client';
import { useEffect, useState } from 'react';
import { printStopwatch } from '@/core/units/print';

/** Seconds from an instant to now, ten times a second. @param now gives UTC ms on the same clock as `from` */
export function RunningClock({ from, now, label }: { from: number; now: () => number; label: string }) {
  const [s, setS] = useState(() => Math.max(0, (now() - from) / 1000));
  useEffect(() => {
    const tick = () => setS(Math.max(0, (now() - from) / 1000));
    tick();
    const timer = setInterval(tick, 100);
    return () => clearInterval(timer);
  }, [from, now]);
  return (
    <div role="timer" aria-label={label}>
      <div className="text-[13.5px] font-semibold text-ink-2">{label}</div>
      <div className="num text-[60px] short:text-[44px] font-semibold leading-[1.05] tracking-[-0.07em]">{printStopwatch(s)}</div>
    </div>
  );
}
