'use client';
import { useEffect, useState } from 'react';
import type { KeptEvent } from '@/client/store/phone-store';
import { printClock, printDay } from '@/core/units/zoned';
import type { VisitEvent } from '@/core/visit/event';
import { eventLabel } from '@/core/visit/event-label';
import { Sheet } from '@/ui/pads/sheet';

/** What the server did not take, of whichever visit, with its reasons. Nothing here is lost. */
export function RefusedSheet({ read, onSendAgain, onClose }: { read: () => Promise<KeptEvent[]>; onSendAgain: () => void; onClose: () => void }) {
  const [events, setEvents] = useState<KeptEvent[] | null>(null);
  useEffect(() => void read().then(setEvents), [read]);
  return (
    <Sheet title="Refused by the server" onClose={onClose} hint="Kept on this phone. Marks of the open visit can be corrected or taken back on its tape.">
      <ul>
        {events?.map((k) => (
          <li key={k.event.id} className="border-b border-rule-2 py-2 text-[14px]">
            <b>{eventLabel(k.event as VisitEvent)}</b>{' '}
            <span className="num text-ink-2">
              {printDay(k.event.at, k.event.zone)} {printClock(k.event.at, k.event.zone)}
            </span>
            <span className="block text-fault">
              {k.path ? `${k.path}: ` : ''}
              {k.reason}
            </span>
          </li>
        ))}
      </ul>
      <button type="button" className="plate mt-3 !min-h-[56px] w-full" onClick={onSendAgain}>
        Send them again
      </button>
    </Sheet>
  );
}
