'use client';
import { useState } from 'react';
import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import { RECORDS } from '@/core/records/record-schema';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { Sheet } from '@/ui/pads/sheet';

/** The operator's number, asked for once it was missing when it was needed. */
export function HelplineSheet({
  network,
  onClose,
  onSave,
}: {
  network: MileRecord<'network'>;
  onClose: () => void;
  onSave: (items: RecordItem[]) => Promise<void>;
}) {
  const [number, setNumber] = useState('');
  const [error, setError] = useState<string | undefined>();
  const save = async () => {
    const fields = RECORDS.network.safeParse({ ...network.fields, helpline: number });
    if (number.trim() === '') return setError('The number, as on the post or in the app');
    if (!fields.success) return setError(fields.error.issues[0]?.message);
    await onSave([{ type: 'network', id: network.id, baseRev: network.rev, archived: network.archived, fields: fields.data }]);
    onClose();
  };
  return (
    <Sheet title={`Helpline of ${network.fields.name}`} onClose={onClose} hint="It was missing when it was needed.">
      <form
        onSubmit={(e) => {
          e.preventDefault();
          void save();
        }}
      >
        <FormField id="helpline" label="Number on the post or in the app" error={error}>
          <input {...fieldState('helpline', error)} type="tel" value={number} autoComplete="off" onChange={(e) => setNumber(e.target.value)} />
        </FormField>
        <button type="submit" className="plate plate-next mt-4 !min-h-[52px] w-full">
          Keep the number
        </button>
      </form>
    </Sheet>
  );
}
