'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { askWho } from '@/client/store/who';
import { postJson } from '@/ui/forms/post-json';

/** Sends a setting, and lets the page and this device know of it. `problem`: why the last one was not taken. */
export function useSetting() {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const send = async (url: string, body: unknown, method: 'POST' | 'PUT' | 'DELETE') => {
    setBusy(true);
    const answer = await postJson(url, body, method);
    setProblem(answer.ok ? null : (answer.error ?? Object.values(answer.fields)[0] ?? 'The server did not take this.'));
    if (answer.ok) {
      await askWho();
      router.refresh();
    }
    setBusy(false);
    return answer.ok;
  };
  return { send, busy, problem };
}
