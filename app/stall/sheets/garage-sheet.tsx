'use client';
import { useState } from 'react';
import { phoneNow } from '@/client/touch/touch-time';
import { newRecordStart } from '@/core/power/new-record-start';
import { GARAGE_TYPES, type GarageType, garageRow } from '@/core/records/garage-row';
import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import { TYPES } from '@/core/records/types/registry';
import { localDay } from '@/core/units/zoned';
import { OneOf } from '@/ui/forms/one-of';
import { Sheet } from '@/ui/pads/sheet';
import type { Names } from '@/ui/records/form-fields';
import { RecordForm } from '@/ui/records/record-form';
import type { StallState } from '../stall-state';

/** The garage at the Stall, from the phone's own copy: looked up, added to and changed with or without a network. */
export function GarageSheet({
  state,
  start,
  onClose,
  onSave,
}: {
  state: Extract<StallState, { is: 'ready' }>;
  /** Opens the form of a new one at once. */
  start?: GarageType;
  onClose: () => void;
  onSave: (items: RecordItem[]) => Promise<void>;
}) {
  const { records, who } = state;
  const [type, setType] = useState<GarageType>(start ?? 'car');
  const [open, setOpen] = useState<MileRecord<GarageType> | 'new' | null>(start ? 'new' : null);
  const today = localDay(phoneNow(), who.zone);
  const named = (of: { id: string; fields: { name: string } }[]) => of.map((r) => ({ id: r.id, name: r.fields.name }));
  const names: Names = { network: named(records.network), provider: named(records.provider), car: named(records.car) };
  const nameOf = (id: string | null) =>
    Object.values(names)
      .flat()
      .find((n) => n?.id === id)?.name ?? '';
  const one = TYPES[type].one.toLowerCase();
  if (open !== null)
    return (
      <Sheet
        title={open === 'new' ? `Add: ${one}` : garageRow(open, nameOf, today).name}
        onClose={() => (start ? onClose() : setOpen(null))}
        hint="Kept on this phone at once, sent when the server can be reached."
      >
        <RecordForm
          type={type}
          record={open === 'new' ? null : open}
          start={newRecordStart(type, { currency: who.currency, today, cars: records.car })}
          names={names}
          today={today}
          person={who.name}
          unit={who.wishes.consumption}
          submitText={open === 'new' ? `Add the ${one}` : 'Keep the change'}
          onSave={async (items) => {
            await onSave(items);
            setOpen(null);
            return null;
          }}
        />
      </Sheet>
    );
  return (
    <Sheet title="Garage" onClose={onClose}>
      <OneOf
        label="What of it"
        headed={false}
        value={type}
        choices={GARAGE_TYPES.map((t) => [t, TYPES[t].many] as const)}
        onChoose={setType}
        row="mb-3 flex flex-wrap gap-2"
      />
      <ul>
        {(records[type] as MileRecord<GarageType>[]).map((r) => {
          const row = garageRow(r, nameOf, today, state.who.wishes.consumption);
          return (
            <li key={r.id}>
              <button type="button" className="block min-h-[52px] w-full border-b border-rule-2 py-2 text-left" onClick={() => setOpen(r)}>
                <b className="block text-[15px]">{row.name}</b>
                <span className="block text-[13px] text-ink-2">{row.line}</span>
                {row.heed ? <span className="block text-[13px] font-semibold text-fault">{row.heed}</span> : null}
              </button>
            </li>
          );
        })}
      </ul>
      <button type="button" className="plate mt-3 !min-h-[52px] w-full" onClick={() => setOpen('new')}>
        Add: {one}
      </button>
    </Sheet>
  );
}
