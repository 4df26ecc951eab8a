'use client';
import { useState } from 'react';

/** What is said where the server cannot be reached, by what the work does. */
const CUT = {
  reads: 'The server could not be reached. Nothing was changed.',
  'takes in': 'The server could not be reached. What came in so far is here; the same again goes on from there.',
  'takes back': 'The server could not be reached. What was taken back so far is gone; the same again goes on from there.',
} as const;

/** What a page says while a file is read, taken in or taken back, one thing at a time. `working`: does a piece of work; where the server cannot be reached it says what became of it. */
export function useFileWork() {
  const [busy, setBusy] = useState(false);
  const [said, say] = useState('');
  const working = async (work: () => Promise<void>, does: keyof typeof CUT): Promise<void> => {
    setBusy(true);
    say('');
    try {
      await work();
    } catch {
      say(CUT[does]);
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
      {/* What is pressed often stands below a long list: the line stays in sight. */}
      <p
        role="status"
        className={`mb-2 min-h-6 border-b-2 py-1 text-[15px] font-semibold ${said || busy ? 'sticky top-0 z-10 border-ink bg-sheet' : 'border-transparent'}`}
      >
        {said || (busy ? 'Reading …' : '')}
      </p>
    </>
  );
}
