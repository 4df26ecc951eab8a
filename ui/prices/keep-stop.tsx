'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { FormAlert } from '../forms/form-alert';
import { postJson } from '../forms/post-json';

/**
 * Keeps the stop that is shown as one's usual one, on every device, or has the ledger propose it again.
 * @param address of the stop that is shown @param kept that of the usual one; `null`: none is kept
 */
export function KeepStop({ address, kept }: { address: string; kept: string | null }) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const keep = async (usualStop: string | null) => {
    setBusy(true);
    const answer = await postJson('/api/v1/wishes', { usualStop }, 'PUT');
    setProblem(answer.ok ? null : (answer.error ?? Object.values(answer.fields)[0] ?? 'The server did not take this.'));
    if (answer.ok) {
      if (usualStop === null) router.push('/compare/same-stop');
      router.refresh();
    }
    setBusy(false);
  };
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1 text-[14px]">
        {kept === address ? (
          <p role="status" className="font-semibold">
            This is your usual stop.
          </p>
        ) : (
          <button type="button" disabled={busy} className="plate !min-h-[44px]" onClick={() => void keep(address)}>
            Keep as my usual stop
          </button>
        )}
        {kept !== null && kept !== address ? (
          <Link href="/compare/same-stop" className="inline-flex min-h-[44px] items-center font-semibold text-shake underline">
            My usual stop
          </Link>
        ) : null}
        {kept === null ? null : (
          <button type="button" disabled={busy} className="min-h-[44px] font-semibold text-shake underline" onClick={() => void keep(null)}>
            Propose one from the ledger again
          </button>
        )}
      </div>
      <FormAlert message={problem} />
    </>
  );
}
