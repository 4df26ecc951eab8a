'use client';
import { useState } from 'react';
import { FAULTS, type Fault } from '@/core/faults/fault-list';
import { Sheet } from '@/ui/pads/sheet';

const ALWAYS = ['danger'];

/** What went wrong: the likely ones first, every other one below. One press records it. @param likely codes of those that are likely now */
export function FaultSheet({ likely, onClose, onFault }: { likely: readonly string[]; onClose: () => void; onFault: (fault: Fault) => void }) {
  const [all, setAll] = useState(false);
  const short = [...likely, ...ALWAYS];
  const shown = all ? FAULTS : short.flatMap((code) => FAULTS.filter((f) => f.code === code));
  return (
    <Sheet title="Fault" onClose={onClose} hint="The time is that of your touch on Fault.">
      <ul className="grid grid-cols-2 gap-2">
        {shown.map((f) => (
          <li key={f.code} className={f.danger ? 'col-span-2' : ''}>
            <button type="button" onClick={() => onFault(f)} className={`plate !min-h-[56px] w-full !text-[15px] ${f.danger ? 'plate-bad' : ''}`}>
              {f.label}
            </button>
          </li>
        ))}
      </ul>
      {all ? null : (
        <button type="button" className="plate mt-3 !min-h-[48px] w-full" onClick={() => setAll(true)}>
          Every other fault
        </button>
      )}
    </Sheet>
  );
}
