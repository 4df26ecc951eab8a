'use client';
import { useCallback, useEffect, useState } from 'react';
import { dropUnsettled, keepAndSend, unsettledHere } from '@/client/outbox/keep-and-send';
import type { Unsettled } from '@/client/store/phone-store';
import { TYPES } from '@/core/records/types/registry';
import { DifferenceSheet } from '@/ui/records/difference-sheet';
import type { Names } from '@/ui/records/form-fields';

/** Changes made on this device that met others or were refused: each waits for a choice. */
export function SettleChanges({ names, onSettled }: { names: Names; onSettled?: () => void }) {
  const [all, setAll] = useState<Unsettled[] | null>(null);
  const [open, setOpen] = useState<Unsettled | null>(null);
  const read = useCallback(() => void unsettledHere().then(setAll), []);
  useEffect(read, [read]);
  const done = () => {
    setOpen(null);
    read();
    onSettled?.();
  };
  return (
    <>
      {all === null ? null : all.length === 0 ? (
        <p className="text-sm text-ink-2">Nothing waits for a choice on this device.</p>
      ) : (
        <ul>
          {all.map((u) => (
            <li key={`${u.type} ${u.id}`} className="flex items-center gap-3 border-b border-rule-2 py-2">
              <span className="min-w-0 grow text-[14.5px]">
                <b>
                  {TYPES[u.type].one} {'name' in u.mine.fields ? u.mine.fields.name : 'label' in u.mine.fields ? u.mine.fields.label : ''}
                </b>
                <span className="block text-[13px] text-ink-2">{u.theirs ? 'was changed elsewhere too' : u.reason}</span>
              </span>
              <button type="button" className="plate" onClick={() => setOpen(u)}>
                Choose
              </button>
            </li>
          ))}
        </ul>
      )}
      {open ? (
        <DifferenceSheet
          unsettled={open}
          names={names}
          onClose={() => setOpen(null)}
          onDrop={() => void dropUnsettled(open).then(done)}
          onSettle={(item) => void keepAndSend([item], open.theirs ? [open.theirs] : []).then(done)}
        />
      ) : null}
    </>
  );
}
