'use client';
import { useState } from 'react';
import { privateNumber } from '@/core/records/private-number';
import { CHANGE_LABELS } from '@/core/visit/kinds/change';
import type { Payload } from '@/core/visit/payloads';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { Sheet } from '@/ui/pads/sheet';
import type { Draft } from '../stall-state';
import { Plate, PlateList } from './plate-list';

/** Things that explain the curve. */
export function ChangeSheet({ openedAt, onClose, onAct }: { openedAt: number; onClose: () => void; onAct: (timeStamp: number, draft: Draft) => void }) {
  const [text, setText] = useState('');
  const why = privateNumber(text) ?? undefined;
  return (
    <Sheet title="Something changed" onClose={onClose}>
      <PlateList>
        {Object.entries(CHANGE_LABELS)
          .filter(([what]) => what !== 'other')
          .map(([what, label]) => (
            <Plate key={what} onPress={(t) => onAct(t, { kind: 'change', payload: { what: what as Payload<'change'>['what'] } })}>
              {label}
            </Plate>
          ))}
      </PlateList>
      <form
        className="mt-4 border-t border-rule pt-3"
        onSubmit={(e) => {
          e.preventDefault();
          if (text.trim() !== '' && !why) onAct(openedAt, { kind: 'change', payload: { what: 'other', text: text.trim() } });
        }}
      >
        <FormField id="change-text" label="Something else, in words" error={why}>
          <input {...fieldState('change-text', why)} value={text} maxLength={500} onChange={(e) => setText(e.target.value)} autoComplete="off" />
        </FormField>
        <button type="submit" className="plate !min-h-[52px] w-full" disabled={text.trim() === '' || why !== undefined}>
          Record it
        </button>
      </form>
    </Sheet>
  );
}
