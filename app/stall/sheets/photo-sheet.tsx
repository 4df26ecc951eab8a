'use client';
import { useState } from 'react';
import type { Position } from '@/core/records/place-questions';
import { privateNumber } from '@/core/records/private-number';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { Sheet } from '@/ui/pads/sheet';
import type { Draft } from '../stall-state';
import { PhotoButton } from './photo-button';

/** A photo of the receipt, or of anything else with a word to it. */
export function PhotoSheet({
  kind,
  openedAt,
  onPhoto,
  onClose,
  onAct,
}: {
  kind: 'receipt' | 'photo';
  openedAt: number;
  onPhoto: (file: Blob) => Promise<string>;
  onClose: () => void;
  onAct: (timeStamp: number, draft: Draft) => void;
}) {
  const [photo, setPhoto] = useState<{ sha256: string; takenAt: Position | null } | null>(null);
  const [text, setText] = useState('');
  const why = privateNumber(text) ?? undefined;
  return (
    <Sheet title={kind === 'receipt' ? 'Receipt' : 'Photo'} onClose={onClose} hint="Cover card and account numbers before you take it.">
      <PhotoButton onPhoto={onPhoto} onKept={(sha256, takenAt) => setPhoto({ sha256, takenAt })} />
      {kind === 'photo' ? (
        <div className="mt-3">
          <FormField id="photo-text" label="What it shows" error={why}>
            <input {...fieldState('photo-text', why)} value={text} maxLength={500} autoComplete="off" onChange={(e) => setText(e.target.value)} />
          </FormField>
        </div>
      ) : null}
      <button
        type="button"
        className="plate plate-next mt-3 !min-h-[52px] w-full"
        disabled={photo === null || why !== undefined}
        onClick={() => {
          if (!photo) return;
          const where = photo.takenAt ? { takenAt: photo.takenAt } : {};
          onAct(
            openedAt,
            kind === 'receipt'
              ? { kind: 'receipt', payload: { sha256: photo.sha256, ...where } }
              : { kind: 'note', payload: { text: text.trim() || 'Photo', photo: photo.sha256, ...where } },
          );
        }}
      >
        Keep it with the visit
      </button>
    </Sheet>
  );
}
