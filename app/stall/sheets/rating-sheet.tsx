'use client';
import { useState } from 'react';
import { privateNumber } from '@/core/records/private-number';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { OneOf } from '@/ui/forms/one-of';
import { Sheet } from '@/ui/pads/sheet';
import type { Draft } from '../stall-state';

const STARS = ['1', '2', '3', '4', '5'].map((n) => [n, n] as const);

/** How the visit was, and a word on it. */
export function RatingSheet({ onClose, onAct }: { onClose: () => void; onAct: (timeStamp: number, ...drafts: Draft[]) => void }) {
  const [stars, setStars] = useState<string | null>(null);
  const [text, setText] = useState('');
  const why = privateNumber(text) ?? undefined;
  return (
    <Sheet title="Rating" onClose={onClose}>
      <OneOf
        label="From 1, never again, to 5, would come for it"
        value={stars}
        choices={STARS}
        mayBeNone
        onChoose={setStars}
        look={() => 'plate num !min-h-[56px] text-[22px]'}
        row="grid grid-cols-5 gap-2"
      />
      <div className="mt-3">
        <FormField id="rating-text" label="Note" error={why}>
          <textarea {...fieldState('rating-text', why)} rows={3} maxLength={2000} value={text} onChange={(e) => setText(e.target.value)} />
        </FormField>
      </div>
      <button
        type="button"
        className="plate plate-next !min-h-[52px] w-full"
        disabled={(stars === null && text.trim() === '') || why !== undefined}
        onClick={(e) =>
          onAct(
            e.timeStamp,
            ...(stars === null ? [] : [{ kind: 'rating' as const, payload: { stars: Number(stars) } }]),
            ...(text.trim() === '' ? [] : [{ kind: 'note' as const, payload: { text: text.trim() } }]),
          )
        }
      >
        Keep it
      </button>
    </Sheet>
  );
}
