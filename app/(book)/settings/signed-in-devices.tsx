'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { postJson } from '@/ui/forms/post-json';

export type DeviceLine = { id: string; device: string; since: string; seen: string; here: boolean };

/** Where a person is signed in; each can be ended from here, or all others at once. */
export function SignedInDevices({ devices }: { devices: DeviceLine[] }) {
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const router = useRouter();
  const end = async (which: { id: string } | { others: true }) => {
    setBusy(true);
    const answer = await postJson('/api/v1/sessions', which, 'DELETE');
    setProblem(answer.ok ? null : answer.error);
    setBusy(false);
    router.refresh();
  };
  return (
    <>
      <ul aria-label="Signed-in devices">
        {devices.map((d) => (
          <li key={d.id} className="flex flex-wrap items-center gap-3 border-b border-rule-2 py-2">
            <span className="min-w-0 grow text-[14.5px]">
              <b>{d.device || 'A device'}</b>
              {d.here ? ' (this one)' : ''}
              <span className="block text-[13px] text-ink-2">
                signed in {d.since}, last used {d.seen}
              </span>
            </span>
            {d.here ? null : (
              <button
                type="button"
                className="plate"
                disabled={busy}
                onClick={() => void end({ id: d.id })}
                aria-label={`End ${d.device}, signed in ${d.since}`}
              >
                End
              </button>
            )}
          </li>
        ))}
      </ul>
      {devices.length > 1 ? (
        <button type="button" className="plate mt-3" disabled={busy} onClick={() => void end({ others: true })}>
          End all others
        </button>
      ) : null}
      <p className="mt-2 text-[13px] text-ink-2">A device that is ended keeps what it has not sent yet, and sends it when its person signs in there again.</p>
      {problem ? (
        <p role="alert" className="mt-2 text-sm font-semibold text-fault">
          {problem}
        </p>
      ) : null}
    </>
  );
}
