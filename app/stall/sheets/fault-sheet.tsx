'use client';
import { useState } from 'react';
import { FAULTS, type Fault } from '@/core/faults/fault-list';
import { Sheet } from '@/ui/pads/sheet';

const BEFORE = [
  'start_error',
  'timed_out',
  'card_refused',
  'claims_no_power',
  'reader_dead',
  'stall_dark',
  'cable_check',
  'bay_blocked',
  'app_unreachable',
  'connector_damaged',
];
const CHARGING = ['stopped_by_itself', 'derated', 'hot_connector', 'shared_drop', 'slow_ramp', 'does_not_stop', 'site_limit', 'handle_stuck'];
const STOPPING = ['does_not_stop', 'handle_stuck', 'cable_locked', 'hot_connector', 'stopped_by_itself', 'wrong_price', 'idle_fee_disputed'];
const SHORT = { starting: BEFORE, charging: CHARGING, stopping: STOPPING };
const ALWAYS = ['danger'];

/** What went wrong: the likely ones first, every other one below. One press records it. */
export function FaultSheet({ phase, onClose, onFault }: { phase: keyof typeof SHORT; onClose: () => void; onFault: (fault: Fault) => void }) {
  const [all, setAll] = useState(false);
  const short = [...SHORT[phase], ...ALWAYS];
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
