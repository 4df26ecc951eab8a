'use client';
import { useEffect, useState } from 'react';
import { phoneNow } from '@/client/touch/touch-time';
import { printTime } from '@/core/units/zoned';
import { limitText } from '@/core/visit/matter';
import type { StayClock } from '@/core/visit/stay-clocks';
import { Sheet } from '@/ui/pads/sheet';
import { mute, muted } from '../alarm-sound';

/** Every limit of the stay, and whether they sound. */
export function StaySheet({ clocks, zone, onClose }: { clocks: readonly StayClock[]; zone: string; onClose: () => void }) {
  const [at, setAt] = useState(phoneNow);
  const [quiet, setQuiet] = useState(muted);
  useEffect(() => {
    const timer = setInterval(() => setAt(phoneNow()), 1000);
    return () => clearInterval(timer);
  }, []);
  return (
    <Sheet title="Limits of the stay" onClose={onClose} hint="By what is noted of the site. The signs there go first.">
      <dl>
        {clocks.map((c) => {
          const { words, time, past } = limitText(c, at);
          return (
            <div key={c.kind} className="flex items-baseline gap-3 border-b border-rule-2 py-2">
              <dt className="grow text-[15px] font-semibold">
                {words}
                <span className="block text-[13px] font-normal text-ink-2">{printTime(c.until, zone)}</span>
              </dt>
              <dd className={`num text-[24px] font-semibold ${past ? 'text-fault' : ''}`}>{time}</dd>
            </div>
          );
        })}
      </dl>
      <button
        type="button"
        aria-pressed={quiet}
        className="plate mt-3 !min-h-[52px] w-full"
        onClick={() => {
          mute(!quiet);
          setQuiet(!quiet);
        }}
      >
        No sound
      </button>
    </Sheet>
  );
}
