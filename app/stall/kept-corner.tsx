'use client';
import { useState } from 'react';
import type { OutboxStatus } from '@/client/outbox/outbox-loop';
import { later } from './later';
import { laterParts } from './stall-parts';
import type { StallHands } from './stall-state';

const RefusedSheet = later(async () => (await (await laterParts()).eventSheets()).RefusedSheet);
const SettleSheet = later(async () => (await (await laterParts()).recordSheets()).SettleSheet);

/** The corner that says where the record is: on the phone, or sent. Nothing until that is known. */
export function KeptCorner({ outbox, signedOut, hands }: { outbox: OutboxStatus | null; signedOut: boolean; hands: StallHands }) {
  const [open, setOpen] = useState(false);
  const [settling, setSettling] = useState(false);
  return (
    <div className="ml-auto min-w-[62px] shrink-0 sm:ml-4 text-right text-[12px] leading-tight text-line-2" role="status">
      {outbox === null ? null : outbox.inMemory > 0 ? (
        <b className="text-white">
          In memory
          <br />
          only {outbox.inMemory}
        </b>
      ) : outbox.waiting > 0 ? (
        <>
          Kept on
          <br />
          phone {outbox.waiting}
        </>
      ) : outbox.refused > 0 ? null : (
        <>
          All
          <br />
          sent
        </>
      )}
      {outbox !== null && outbox.refused > 0 ? (
        <>
          {outbox.waiting > 0 ? <br /> : null}
          <button type="button" className="min-h-6 font-bold text-white underline" onClick={() => setOpen(true)}>
            {outbox.refused} refused
          </button>
        </>
      ) : null}
      {outbox !== null && outbox.unsettled > 0 ? (
        <>
          <br />
          <button type="button" className="min-h-6 font-bold text-white underline" onClick={() => setSettling(true)}>
            {outbox.unsettled} to settle
          </button>
        </>
      ) : null}
      {signedOut ? (
        <>
          <br />
          <a href="/sign-in" className="font-bold text-white underline">
            Sign in
          </a>
        </>
      ) : null}
      {settling ? <SettleSheet onClose={() => setSettling(false)} onSettled={() => void hands.lookAgain()} /> : null}
      {open ? <RefusedSheet hands={hands} count={outbox?.refused ?? 0} onClose={() => setOpen(false)} /> : null}
    </div>
  );
}
