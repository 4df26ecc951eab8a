'use client';
import { Sheet } from '@/ui/pads/sheet';

export const DANGER = 'Do not unplug. Move away, call for help, then the operator. The emergency stop only if you need not touch cable or car to reach it.';
export const STUCK =
  'End it at the stall and in the app, unlock the car, wait a minute or two. The manual release only as the car’s manual says, then the helpline. Never pull.';
const HOT = 'A hot handle is a fault of the contact: end the charge at the stall and in the app before you touch it. Report it to the operator.';
const DAMAGED = 'Do not plug in a damaged connector, nor one that is wet inside.';
export const ADAPTER = 'Adapters only within their rated amps and volts, approved by the car’s maker, never two in a row.';

const BY_FAULT: Readonly<Record<string, string>> = {
  handle_stuck: STUCK,
  does_not_stop: STUCK,
  cable_locked: STUCK,
  hot_connector: HOT,
  connector_damaged: DAMAGED,
  adapter_not_recognised: ADAPTER,
  emergency_stop: 'Do not start it again before somebody of the operator has said why it was pressed.',
  sticker_over_code: 'Do not pay by that code. Compare the address with the post, and tell the operator.',
};
/** The caution that belongs to a fault; `null` where there is none. */
export const cautionFor = (code: string): string | null => BY_FAULT[code] ?? null;

const ALL: [string, string][] = [
  ['While it charges', 'Treat every connector as live until stall and car both say the charge has ended. Never force, pull or bridge a connector.'],
  ['Connectors', DAMAGED],
  ['Adapters', ADAPTER],
  ['Hot handle', HOT],
  ['Does not stop, or stuck', STUCK],
  ['Smoke, smell, arcing, shock', DANGER],
  ['The cable', 'It is a trip hazard: keep it off the way, and stow it afterwards.'],
  ['At the wheel', 'Nothing is tapped at the wheel. The time of arrival can be set back by minutes.'],
  ['Paying', 'A code to scan may be a sticker: compare the address with the post. Each further card shown may mean another hold.'],
];

/** Every caution, to be read again. */
export function CautionsSheet({ onClose }: { onClose: () => void }) {
  return (
    <Sheet title="Cautions" onClose={onClose} hint="The signs on the stall, the car’s manual and local rules go first.">
      <dl>
        {ALL.map(([where, what]) => (
          <div key={where} className="mb-3">
            <dt className="font-bold">{where}</dt>
            <dd className="text-[15px]">{what}</dd>
          </div>
        ))}
      </dl>
      <p className="text-[14px] text-ink-2">This tool gives estimates and is not a safety device. Wiring, adapters and repairs are for qualified people.</p>
      <button type="button" className="plate mt-3 !min-h-[52px] w-full" onClick={onClose}>
        Read
      </button>
    </Sheet>
  );
}

export function Caution({ children }: { children: string }) {
  return <p className="mb-3 border-l-4 border-fault bg-fault-card px-3 py-2 text-[15px] font-semibold">{children}</p>;
}
