'use client';
import { useState } from 'react';
import { askWho } from '@/client/store/who';
import { postJson } from '@/ui/forms/post-json';

export function DemoPlate({ to }: { to: string }) {
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const open = async () => {
    setBusy(true);
    const answer = await postJson('/api/v1/session', { demo: true });
    if (!answer.ok) {
      setProblem(answer.error);
      return setBusy(false);
    }
    await askWho();
    location.assign(to);
  };
  return (
    <>
      <button type="button" className="plate plate-next !min-h-[52px] w-full text-[17px]" disabled={busy} onClick={() => void open()}>
        Open the demo
      </button>
      {problem ? (
        <p role="alert" className="mt-2 text-sm font-semibold text-fault">
          {problem}
        </p>
      ) : null}
    </>
  );
}
