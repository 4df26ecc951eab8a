'use client';
import { useState } from 'react';
import { photoPosition } from '@/client/photos/photo-position';
import { readWho } from '@/client/store/who';
import type { Position } from '@/core/records/place-questions';

/**
 * Takes or chooses one picture. It is scaled down and freed of its position here, and sent when there is a network.
 * Where it was taken is written beside it only when that is asked for.
 */
export function PhotoButton({ onPhoto, onKept }: { onPhoto: (file: Blob) => Promise<string>; onKept: (sha256: string, takenAt: Position | null) => void }) {
  const [wanted, setWanted] = useState(() => readWho()?.wishes.photoPosition ?? false);
  const [said, setSaid] = useState<{ ok: boolean; text: string } | null>(null);
  const take = async (file: File | undefined) => {
    if (!file) return;
    try {
      const read = wanted ? await photoPosition(file) : null;
      const takenAt = read === 'unread' ? null : read;
      onKept(await onPhoto(file), takenAt);
      const position = !wanted
        ? ''
        : takenAt
          ? ' Its position is written beside it.'
          : read === 'unread'
            ? ' Where it was taken could not be read without a network, and is not written down.'
            : ' It does not say where it was taken.';
      setSaid({ ok: true, text: `The photo goes with the record.${position}` });
    } catch (error) {
      setSaid({ ok: false, text: error instanceof Error ? error.message : String(error) });
    }
  };
  return (
    <div>
      <label className="mb-2 flex min-h-[44px] items-center gap-2 text-[14px]">
        <input type="checkbox" className="size-5" checked={wanted} onChange={(e) => setWanted(e.target.checked)} />
        Write down where it was taken
      </label>
      <label className="plate !min-h-[48px] w-full cursor-pointer focus-within:outline focus-within:outline-[3px] focus-within:outline-offset-2">
        Take or choose a photo
        <input type="file" accept="image/*" className="sr-only" onChange={(e) => void take(e.target.files?.[0])} />
      </label>
      <p className="mt-1 text-[13px] text-ink-2">At most 40 MB. Scaled to 1600 pixels; its position is removed from it.</p>
      {said ? (
        <p role={said.ok ? 'status' : 'alert'} className={`mt-1 text-[14px] font-semibold ${said.ok ? '' : 'text-fault'}`}>
          {said.text}
        </p>
      ) : null}
    </div>
  );
}
