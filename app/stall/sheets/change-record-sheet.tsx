'use client';
import { keepPhotoHere } from '@/client/outbox/keep-and-send';
import { askAboutPlace } from '@/client/places/position';
import type { RecordItem } from '@/core/records/record-schema';
import { Sheet } from '@/ui/pads/sheet';
import type { Names } from '@/ui/records/form-fields';
import { RecordForm } from '@/ui/records/record-form';
import type { StallState } from '../stall-state';

/** A site or a stall changed on the spot, with or without a network: kept on the phone, sent when it can be. */
export function ChangeRecordSheet({
  state,
  type,
  id,
  today,
  onClose,
  onSave,
}: {
  state: Extract<StallState, { is: 'ready' }>;
  type: 'site' | 'stall';
  id: string;
  today: string;
  onClose: () => void;
  onSave: (items: RecordItem[]) => Promise<void>;
}) {
  const { records } = state;
  const record = records[type].find((r) => r.id === id);
  if (!record) return null;
  const named = (of: { id: string; fields: { name: string } }[]) => of.map((r) => ({ id: r.id, name: r.fields.name }));
  const names: Names = { network: named(records.network), provider: named(records.provider), car: named(records.car) };
  const others = records.site.flatMap((s) =>
    s.id !== id && s.fields.latitude !== null && s.fields.longitude !== null ? [{ latitude: s.fields.latitude, longitude: s.fields.longitude }] : [],
  );
  return (
    <Sheet
      title={type === 'site' ? record.fields.name : `Stall ${record.fields.name}`}
      onClose={onClose}
      hint="Kept on this phone at once, sent when the server can be reached."
    >
      <RecordForm
        type={type}
        record={record}
        names={names}
        today={today}
        person={state.who.name}
        submitText="Keep the change"
        onSave={async (items) => {
          await onSave(items);
          return null;
        }}
        ask={type === 'site' ? (fields) => askAboutPlace(fields, others, state.who.zone) : undefined}
        onPhoto={keepPhotoHere}
        photoSource={(sha256) => `/api/v1/photos/${sha256}`}
      />
    </Sheet>
  );
}
