'use client';
import { Sheet } from '@/ui/pads/sheet';
import { SettleChanges } from '../../settle/settle-changes';

/** Changes of places and garage made on this phone that wait for a choice. */
export function SettleSheet({ onClose, onSettled }: { onClose: () => void; onSettled: () => void }) {
  return (
    <Sheet title="Changes to settle" onClose={onClose} hint="Both versions are kept until you choose.">
      <SettleChanges names={{}} onSettled={onSettled} />
    </Sheet>
  );
}
