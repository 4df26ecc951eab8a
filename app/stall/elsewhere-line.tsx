'use client';
import { useEffect, useState } from 'react';
import { keptElsewhere } from '@/client/store/kept-elsewhere';
import { printCount } from '@/core/units/print';

/** That this phone keeps what does not go from here: of another sign-in, or of another household. Nothing where there is none. */
export function ElsewhereLine({ householdId, personId }: { householdId: string; personId: string }) {
  const [unsent, setUnsent] = useState(0);
  useEffect(() => {
    void keptElsewhere({ householdId, personId }).then((all) => setUnsent(all.reduce((n, k) => n + k.unsent, 0)));
  }, [householdId, personId]);
  if (unsent === 0) return null;
  return (
    <p role="status" className="mb-3 border-l-4 border-paint bg-card px-3 py-2 text-[14px]">
      {printCount(unsent, 'thing')} recorded on this phone by another sign-in, or for another household, {unsent === 1 ? 'is' : 'are'} not sent.{' '}
      <a href="/settings#elsewhere" className="inline-block min-h-6 font-semibold text-shake underline">
        Look
      </a>
    </p>
  );
}
