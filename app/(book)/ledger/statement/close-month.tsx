'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { postJson } from '@/ui/forms/post-json';

/** Closes the books of a month, asked twice: they stay closed. */
export function CloseMonth({ month, words }: { month: string; words: string }) {
  const router = useRouter();
  const [asked, setAsked] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const close = async () => {
    setBusy(true);
    const answer = await postJson('/api/v1/books', { month });
    setBusy(false);
    if (answer.ok) router.refresh();
    else setProblem(answer.error);
  };
  return (
    <section aria-label="Closing the books" className="no-print mt-5 border-t border-rule pt-3 text-[14px]">
      {asked ? (
        <div className="flex flex-wrap items-center gap-3">
          <p className="max-w-[560px]">
            {words} stays as it stands here. What is recorded, corrected or withdrawn later is told as a change to it. It cannot be opened again.
          </p>
          <button type="button" className="plate" disabled={busy} onClick={() => void close()}>
            Close {words} for good
          </button>
          <button type="button" className="plate" onClick={() => setAsked(false)}>
            Leave it open
          </button>
        </div>
      ) : (
        <button type="button" className="plate" onClick={() => setAsked(true)}>
          Close the books of {words}
        </button>
      )}
      {problem ? (
        <p role="alert" className="mt-2 font-semibold text-fault">
          {problem}
        </p>
      ) : null}
    </section>
  );
}
