'use client';
import { useState } from 'react';
import type { OutboxStatus } from '@/client/outbox/outbox-loop';
import { later } from '../later';
import { laterParts } from './stall-parts';
import type { StallHands } from './stall-state';

const RefusedSheet = later(async () => (await (await laterParts()).eventSheets()).RefusedSheet);
const SettleSheet = later(async () => (await (await laterParts()).recordSheets()).SettleSheet);

/** The corner that says where the record is: on the phone, or sent. Nothing until that is known. */
export function KeptCorner({ outbox, signedOut, hands }: { outbox: OutboxStatus | null; signedOut: boolean; hands: StallHands }) {
  const [open, setOpen] = useState(false);
  const [settling, setSettling] = useState(false);
  if (outbox === null && !signedOut) return null;
  const { inMemory = 0, waiting = 0, refused = 0, unsettled = 0 } = outbox ?? {};
  const words = [
    inMemory > 0 ? `In memory only ${inMemory}` : waiting > 0 ? `Kept on phone ${waiting}` : refused === 0 && unsettled === 0 && !signedOut ? 'All sent' : null,
  ].filter((w) => w !== null);
  const button = 'grid min-h-[44px] min-w-[44px] place-items-center px-1 font-bold text-white underline';
  return (
    <div
      className="ml-auto flex max-w-[40%] shrink-0 flex-wrap items-center justify-end gap-x-2 text-right text-[12px] leading-tight text-line-2 sm:ml-4 sm:max-w-none"
      role="status"
    >
      {words.map((w) => (
        <span key={w} className={`max-w-[72px] ${inMemory > 0 ? 'font-bold text-white' : ''}`}>
          {w}
        </span>
      ))}
      {refused > 0 ? (
        <button type="button" className={button} onClick={() => setOpen(true)}>
          {refused} refused
        </button>
      ) : null}
      {unsettled > 0 ? (
        <button type="button" className={button} onClick={() => setSettling(true)}>
          {unsettled} to settle
        </button>
      ) : null}
      {signedOut ? (
        <a href="/sign-in?to=%2Fstall" className={button}>
          Sign in
        </a>
      ) : null}
      {settling ? <SettleSheet onClose={() => setSettling(false)} onSettled={() => void hands.lookAgain()} /> : null}
      {open ? <RefusedSheet hands={hands} count={refused} onClose={() => setOpen(false)} /> : null}
    </div>
  );
}
