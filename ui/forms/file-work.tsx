'use client';
import { useState } from 'react';

/**
 * What a page says while a file is read or taken in, one thing at a time. `working`: does a piece of work; where the server cannot be reached it says whether anything may
 * have been written.
 */
export function useFileWork() {
  const [busy, setBusy] = useState(false);
  const [said, say] = useState('');
  const working = async (work: () => Promise<void>, writes: boolean): Promise<void> => {
    setBusy(true);
    say('');
    try {
      await work();
    } catch {
      say(
        writes
          ? 'The server could not be reached. What came in so far is here; the same again goes on from there.'
          : 'The server could not be reached. Nothing was changed.',
      );
    } finally {
      setBusy(false);
    }
  };
  return { busy, said, say, working };
}

type RefusedFile = { error?: string; refused?: { code?: string; where?: { pointer?: string; byte?: number } | null } };
/** Why a file was not read, and where in it. @param words of its codes */
export function refusedText({ error, refused }: RefusedFile, words: Readonly<Record<string, string>>): string {
  const { pointer, byte } = refused?.where ?? {};
  const why = refused?.code === undefined ? '' : (words[refused.code] ?? refused.code.replaceAll('_', ' '));
  return [error, why, pointer || (byte === undefined ? '' : `byte ${byte}`)].filter(Boolean).join(' ');
}

/** The file that is chosen, and below it what is said of it. */
export function ChooseFile({
  label,
  accept,
  busy,
  said,
  onChoose,
}: {
  label: string;
  accept: string;
  busy: boolean;
  said: string;
  onChoose: (file: File | null) => void;
}) {
  return (
    <>
      <label className="mb-3 block text-[15px] font-semibold">
        {label}
        <input
          type="file"
          accept={accept}
          disabled={busy}
          className="mt-1 block min-h-[44px] w-full max-w-full"
          onChange={(e) => onChoose(e.target.files?.[0] ?? null)}
        />
      </label>
      <p role="status" className="mb-3 min-h-6 text-[15px] font-semibold">
        {said || (busy ? 'Reading …' : '')}
      </p>
    </>
  );
}
