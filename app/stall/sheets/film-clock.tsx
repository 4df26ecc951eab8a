'use client';
import * as Dialog from '@radix-ui/react-dialog';
import { useEffect, useState } from 'react';
import { phoneNow } from '@/client/touch/touch-time';
import { printStopwatch } from '@/core/units/print';
import { printClock, printDate } from '@/core/units/zoned';
import type { Visit } from '@/core/visit/derive';
import { eventLabel } from '@/core/visit/kinds/registry';
import { visitCode } from '@/core/visit/visit-code';

/**
 * The phone's clock over the whole screen, with the visit's code: filmed for a second, it ties the film to the tape.
 * It is the same clock by which events are timed. A touch anywhere closes it.
 */
export function FilmClock({ visit, onClose }: { visit: Visit; onClose: () => void }) {
  const [at, setAt] = useState(phoneNow);
  useEffect(() => {
    const timer = setInterval(() => setAt(phoneNow()), 50);
    return () => clearInterval(timer);
  }, []);
  const last = visit.line.findLast((e) => e.t <= at);
  return (
    <Dialog.Root open onOpenChange={onClose}>
      <Dialog.Portal>
        <Dialog.Content aria-describedby={undefined} className="fixed inset-0 z-50 flex flex-col bg-black text-white">
          <Dialog.Title className="sr-only">Clock for filming</Dialog.Title>
          <button type="button" className="grid grow place-content-center gap-3 p-3 text-center" onClick={onClose} aria-label="Close the clock">
            <span className="text-[22px]">{printDate(at, visit.zone)}</span>
            <span className="num text-[min(17vw,200px)] font-semibold leading-none tracking-[-0.06em]">
              {printClock(at, visit.zone)}
              <span className="text-[0.6em]">.{Math.floor((at % 1000) / 100)}</span>
            </span>
            <span className="text-[18px]">{visit.zone}</span>
            <span className="num mt-4 text-[min(11vw,96px)] font-semibold leading-none">{visitCode(visit.id)}</span>
            <span className="text-[18px]">code of this visit</span>
            {last ? (
              <span className="num text-[22px]">
                {printStopwatch((at - last.t) / 1000)} since {eventLabel(last).toLowerCase()}
              </span>
            ) : null}
          </button>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
