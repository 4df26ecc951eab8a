'use client';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { type OutboxStatus, startOutbox } from '@/client/outbox/outbox-loop';
import { holdEvents } from '@/client/store/held-events';
import { pullChanges } from '@/client/store/keep-record';
import { openOwnStore, type PhoneStore } from '@/client/store/phone-store';
import { printCount } from '@/core/units/print';

/**
 * While a page with data is open, what this device still keeps is sent and its copy follows the household's.
 * Says so only when something waits for a person.
 */
export function KeepInStep({ who }: { who: Parameters<typeof openOwnStore>[0] }) {
  const [status, setStatus] = useState<OutboxStatus | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: one store a person and household, whatever either is called
  useEffect(() => {
    let gone = false;
    let store: PhoneStore | null = null;
    let loop: ReturnType<typeof startOutbox> | null = null;
    void openOwnStore(who).then(
      (opened) => {
        store = opened;
        if (gone) return opened.close();
        loop = startOutbox(opened, holdEvents(), (s) => !gone && setStatus(s));
        void pullChanges(opened).then(
          () => loop?.wake(),
          () => {},
        );
      },
      // A browser that keeps nothing can still read the ledger.
      () => {},
    );
    return () => {
      gone = true;
      loop?.stop();
      store?.close();
    };
  }, [who.householdId, who.personId]);
  if (!status || status.unsettled === 0) return null;
  return (
    <p role="status" className="no-print border-l-[6px] border-paint bg-picked px-4 py-2 text-sm font-semibold">
      {printCount(status.unsettled, 'change')} made on this device {status.unsettled === 1 ? 'waits' : 'wait'} for your choice.{' '}
      <Link href="/settings#settle" className="text-shake underline">
        Choose
      </Link>
    </p>
  );
}
