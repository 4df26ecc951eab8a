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
const ALWAYS = ['danger'];

/** What went wrong: the likely ones first, every other one below. One press records it. */
export function FaultSheet({ charging, onClose, onFault }: { charging: boolean; onClose: () => void; onFault: (fault: Fault) => void }) {
  const [all, setAll] = useState(false);
  const short = [...(charging ? CHARGING : BEFORE), ...ALWAYS];
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

const DANGER = 'Do not unplug. Move away, call the fire service and the operator. Emergency stop is for emergencies.';
const STUCK =
  'End it at the stall and in the app, unlock the car, wait a minute or two. The manual release only as the car’s manual says, then the helpline. Never pull.';
const WARM = 'A hot handle is a fault of the contact: end the charge at the stall and in the app before you touch it. Report it to the operator.';

/** Cautions where the hazard is. */
export const cautionFor = (code: string): string | null =>
  code === 'danger'
    ? DANGER
    : code === 'handle_stuck' || code === 'does_not_stop'
      ? STUCK
      : code === 'hot_connector'
        ? WARM
        : code === 'connector_damaged'
          ? 'Do not plug in a damaged connector, nor one that is wet inside.'
          : null;

/** After a fault: what next. */
export function AfterFaultSheet({
  fault,
  onClose,
  onOtherStall,
  onLeave,
}: {
  fault: Fault;
  onClose: () => void;
  onOtherStall: () => void;
  onLeave: () => void;
}) {
  const caution = cautionFor(fault.code);
  return (
    <Sheet title={fault.label} onClose={onClose} hint="Recorded. What next?">
      {caution ? <p className="mb-3 border-l-4 border-fault bg-fault-card px-3 py-2 text-[15px] font-semibold">{caution}</p> : null}
      <div className="grid gap-2">
        <button type="button" className="plate !min-h-[56px]" onClick={onClose}>
          Stay at this stall
        </button>
        <button type="button" className="plate !min-h-[56px]" onClick={onOtherStall}>
          Another stall
        </button>
        <button type="button" className="plate !min-h-[56px]" onClick={onLeave}>
          Leave without a charge
        </button>
      </div>
    </Sheet>
  );
}
