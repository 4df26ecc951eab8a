'use client';
import { MEANS_KINDS, meansPad } from '@/core/records/means-kind';
import { Sheet } from '@/ui/pads/sheet';
import type { Draft, Records } from '../stall-state';
import { Plate, PlateList } from './plate-list';

/** Another means: the press is the showing of it. */
export function MeansSheet({ records, onClose, onAct }: { records: Records; onClose: () => void; onAct: (timeStamp: number, draft: Draft) => void }) {
  const rank = (kind: string) => MEANS_KINDS.findIndex((m) => m.kind === kind);
  const held = [...records.means].sort((a, b) => rank(a.fields.kind) - rank(b.fields.kind) || a.fields.label.localeCompare(b.fields.label));
  const kinds = new Set(held.map((m) => m.fields.kind));
  return (
    <Sheet title="Which means?" onClose={onClose} hint="Press as you show it: the time is that of your touch. Each further card shown may mean another hold.">
      {held.length > 0 ? (
        <>
          <h3 className="mb-1.5 text-[15px]">Yours</h3>
          <PlateList>
            {held.map((m) => (
              <Plate key={m.id} onPress={(t) => onAct(t, { kind: 'means_shown', payload: { meansKind: m.fields.kind, meansId: m.id } })}>
                {meansPad(m.fields.kind)}: {m.fields.label}
              </Plate>
            ))}
          </PlateList>
        </>
      ) : null}
      <h3 className="mb-1.5 mt-4 text-[15px]">Any other</h3>
      <PlateList>
        {MEANS_KINDS.filter((m) => !kinds.has(m.kind)).map((m) => (
          <Plate key={m.kind} onPress={(t) => onAct(t, { kind: 'means_shown', payload: { meansKind: m.kind } })}>
            {m.pad}
          </Plate>
        ))}
      </PlateList>
      <p className="mt-3 text-[14px] text-ink-2">A code to scan may be a sticker: compare the address with the post.</p>
    </Sheet>
  );
}
