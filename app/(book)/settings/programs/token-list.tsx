'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';

/** A person's tokens, each to be ended at once. */
export function TokenList({ tokens }: { tokens: readonly { id: string; name: string; text: string }[] }) {
  const router = useRouter();
  const [asked, setAsked] = useState<string | null>(null);
  const [said, setSaid] = useState('');
  const end = async (id: string) => {
    setSaid('');
    try {
      const answer = await fetch('/api/v1/tokens', { method: 'DELETE', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ id }) });
      setSaid(answer.ok ? 'Ended: it opens nothing any more.' : 'It could not be ended just now. It still opens your ledger.');
      setAsked(null);
      router.refresh();
    } catch {
      setSaid('The server could not be reached. The token still opens your ledger.');
    }
  };
  return (
    <>
      {tokens.length === 0 ? <p className="text-sm">None yet.</p> : null}
      <ul>
        {tokens.map((t) => (
          <li key={t.id} className="flex flex-wrap items-center gap-2 border-b border-rule-2 py-2">
            <span className="min-w-0 grow basis-[12rem]">
              <b className="block break-words font-semibold">{t.name}</b>
              <span className="text-[13px] text-ink-2">{t.text}</span>
            </span>
            {asked === t.id ? (
              <>
                <button type="button" className="plate plate-bad !min-h-[44px]" onClick={() => void end(t.id)}>
                  End {t.name} now
                </button>
                <button type="button" className="plate !min-h-[44px]" onClick={() => setAsked(null)}>
                  Keep it
                </button>
              </>
            ) : (
              <button type="button" className="plate !min-h-[44px]" onClick={() => setAsked(t.id)}>
                End it<span className="sr-only">: {t.name}</span>
              </button>
            )}
          </li>
        ))}
      </ul>
      <p role="status" className="mt-2 text-sm font-semibold">
        {said}
      </p>
    </>
  );
}
