'use client';
import { useEffect, useRef, useState } from 'react';
import { type FileDoor, fileKind, LOOKED_AT_BYTES, saidOf, wrongDoor } from '@/core/formats/file-kind';
import { useDroppedFile } from './use-dropped-file';

/** What is said where the server cannot be reached, by what the work does. */
const CUT = {
  reads: 'The server could not be reached. Nothing was changed.',
  'takes in': 'The server could not be reached. What came in so far is here; the same again goes on from there.',
  'takes back': 'The server could not be reached. What was taken back so far is gone; the same again goes on from there.',
} as const;
/** A browser hands out a long file as it was when it was chosen, or not at all. */
const CHANGED = {
  reads: 'The file was changed or moved since it was chosen: choose it again. Nothing was changed here.',
  'takes in': 'The file was changed or moved since it was chosen: choose it again. What came in so far is here.',
  'takes back': 'The file was changed or moved since it was chosen: choose it again. What was taken back so far is gone.',
} as const;
const isReadable = (file: Blob): Promise<boolean> =>
  file
    .slice(0, 1)
    .arrayBuffer()
    .then(
      () => true,
      () => false,
    );

/**
 * What a page says while a file is read, taken in or taken back, one thing at a time. What belongs elsewhere is told so, and not sent.
 * `reading`: with the file that was chosen; `working`: with it or without. Where the server or the file cannot be reached they say what became of the work.
 */
export function useFileWork(door: FileDoor) {
  const [busy, setBusy] = useState(false);
  const [said, say] = useState('');
  const chosen = useRef<Blob | null>(null);
  const working = async (work: () => Promise<void>, does: keyof typeof CUT): Promise<void> => {
    setBusy(true);
    say('');
    try {
      await work();
    } catch {
      say((chosen.current === null || (await isReadable(chosen.current)) ? CUT : CHANGED)[does]);
    } finally {
      setBusy(false);
    }
  };
  const reading = (file: Blob, work: () => Promise<void>): Promise<void> => {
    chosen.current = file;
    return working(async () => {
      const kind = fileKind(new Uint8Array(await file.slice(0, LOOKED_AT_BYTES).arrayBuffer()));
      const wrong = wrongDoor(kind, door);
      if (wrong) return say(wrong);
      if (kind === 'own_table') say(saidOf(kind));
      await work();
    }, 'reads');
  };
  return { busy, said, say, working, reading };
}

type RefusedFile = { error?: string; refused?: { code?: string; where?: { pointer?: string; byte?: number } | null } };
/** Why a file was not read, and where in it. @param words of its codes */
export function refusedText({ error, refused }: RefusedFile, words: Readonly<Record<string, string>>): string {
  const { pointer, byte } = refused?.where ?? {};
  const why = refused?.code === undefined ? '' : (words[refused.code] ?? refused.code.replaceAll('_', ' '));
  return [error, why, pointer || (byte === undefined ? '' : `byte ${byte}`)].filter(Boolean).join(' ');
}

/** No door but that of whole ledgers takes more. */
const HELD_BYTES = 25 * 1024 * 1024;
/** A file as it is now: what is taken in is what was shown, whatever becomes of it on the disk meanwhile. One that is longer, or cannot be read, as the browser has it. */
const heldNow = (file: File): Promise<File> =>
  file.size > HELD_BYTES
    ? Promise.resolve(file)
    : file.arrayBuffer().then(
        (bytes) => new File([bytes], file.name, { type: file.type }),
        () => file,
      );

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
  const input = useRef<HTMLInputElement>(null);
  const before = useRef<DataTransfer | null>(null);
  const latest = useRef(0);
  useDroppedFile(input);
  // Who chooses nothing keeps what was chosen.
  useEffect(() => {
    const own = input.current;
    const back = () => {
      if (own && before.current) own.files = before.current.files;
    };
    own?.addEventListener('cancel', back);
    return () => own?.removeEventListener('cancel', back);
  }, []);
  return (
    <>
      <label className="mb-1 block text-[15px] font-semibold">
        {label}
        <input
          ref={input}
          type="file"
          accept={accept}
          disabled={busy}
          className="mt-1 block min-h-[44px] w-full max-w-full"
          // The same file, mended, is another one: a browser tells of it only where nothing stands there.
          onClick={(e) => {
            before.current = new DataTransfer();
            for (const file of e.currentTarget.files ?? []) before.current.items.add(file);
            e.currentTarget.value = '';
          }}
          onChange={async (e) => {
            const file = e.target.files?.[0];
            latest.current += 1;
            const mine = latest.current;
            const held = file ? await heldNow(file) : null;
            if (mine === latest.current) onChoose(held);
          }}
        />
      </label>
      <p className="mb-2 text-[13px] text-ink-2 max-sm:hidden">or drop it anywhere on this page</p>
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
