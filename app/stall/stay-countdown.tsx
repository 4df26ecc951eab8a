'use client';
import { useEffect, useState } from 'react';
import { printDuration } from '@/core/units/print';
import type { StayClock } from '@/core/visit/stay-clocks';

/** What counts down while the car stands here: idle grace, overstay, max stay. Past its end it counts up, and says so. */
export function StayCountdown({ clocks, now }: { clocks: StayClock[]; now: () => number }) {
  const [at, setAt] = useState(now);
  useEffect(() => {
    const timer = setInterval(() => setAt(now()), 1000);
    return () => clearInterval(timer);
  }, [now]);
  return (
    <dl className="flex border-b-2 border-ink bg-card" aria-label="Limits of the stay">
      {clocks.map((c) => {
        const left_s = Math.ceil((c.until - at) / 1000);
        const past = left_s < 0;
        return (
          <div key={c.kind} className="grow border-rule px-4 py-1.5 [&:not(:first-child)]:border-l">
            <dt className="text-[12px] font-semibold text-ink-2">{past ? `${c.label}, over by` : `${c.label}, left`}</dt>
            <dd className={`num text-[20px] font-semibold leading-tight ${past ? 'text-fault' : ''}`}>{whole(Math.abs(left_s))}</dd>
          </div>
        );
      })}
    </dl>
  );
}

/** A countdown has no tenths. */
const whole = (s: number) => (s < 60 ? `0:${String(s).padStart(2, '0')}` : printDuration(s));
