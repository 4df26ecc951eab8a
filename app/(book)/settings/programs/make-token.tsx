'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';

/** Makes a token, and shows it for the only time. */
export function MakeToken({ households, here }: { households: readonly { id: string; name: string }[]; here: string }) {
  const router = useRouter();
  const [name, setName] = useState('');
  const [write, setWrite] = useState(false);
  const [chosen, setChosen] = useState<readonly string[]>([here]);
  const [token, setToken] = useState('');
  const [said, setSaid] = useState('');
  const [busy, setBusy] = useState(false);
  const make = async () => {
    setBusy(true);
    setSaid('');
    setToken('');
    try {
      const answer = await fetch('/api/v1/tokens', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ name, write, households: chosen }),
      });
      const body = (await answer.json()) as { token?: string; error?: string; fields?: Record<string, string> };
      if (body.token) {
        setToken(body.token);
        setName('');
        router.refresh();
      } else setSaid(body.error ?? Object.values(body.fields ?? {})[0] ?? 'It was refused.');
    } catch {
      setSaid('The server could not be reached. No token was made that you could see: look in the list before you try again.');
    } finally {
      setBusy(false);
    }
  };
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        void make();
      }}
    >
      <label className="mb-3 block text-[15px] font-semibold">
        What it is for
        <input className="field mt-0.5" value={name} maxLength={60} placeholder="spreadsheet at home" onChange={(e) => setName(e.target.value)} />
      </label>
      <fieldset className="mb-3">
        <legend className="text-[15px] font-semibold">What it may</legend>
        {[false, true].map((w) => (
          <label key={String(w)} className="flex min-h-[44px] items-center gap-3 text-[15px]">
            <input type="radio" name="write" className="size-5 accent-ink" checked={write === w} onChange={() => setWrite(w)} />
            {w ? 'read, and send events in your name' : 'only read'}
          </label>
        ))}
      </fieldset>
      <fieldset className="mb-3">
        <legend className="text-[15px] font-semibold">In which household</legend>
        {households.map((h) => (
          <label key={h.id} className="flex min-h-[44px] items-center gap-3 text-[15px]">
            <input
              type="checkbox"
              className="size-5 accent-ink"
              checked={chosen.includes(h.id)}
              onChange={(e) => setChosen(e.target.checked ? [...chosen, h.id] : chosen.filter((id) => id !== h.id))}
            />
            {h.name}
          </label>
        ))}
      </fieldset>
      <button type="submit" className="plate plate-next !min-h-[44px]" disabled={busy || name.trim() === '' || chosen.length === 0}>
        Make a token
      </button>
      <p role="status" className="mt-2 text-[15px] font-semibold">
        {said || (token ? 'This is it. It is shown this once: keep it where the program reads it.' : '')}
      </p>
      {token ? <code className="num mt-1 block select-all break-all border-2 border-ink bg-card px-3 py-2 text-[14px]">{token}</code> : null}
    </form>
  );
}
