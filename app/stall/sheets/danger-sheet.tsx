'use client';
import { Sheet } from '@/ui/pads/sheet';
import type { Plain } from '../open-sheet';
import { Plate, PlateList } from './plate-list';

const call = (number: string) => `tel:${number.replaceAll(/[^\d+]/g, '')}`;

const RULES: [string, string][] = [
  [
    'Touch nothing',
    'Neither cable, car nor post, while it arcs, smokes or smells, where water stands, or after anybody felt a shock. Keep others away, and come back only when the fire service or the operator says so.',
  ],
  ['Emergency stop', 'It cuts the power of the stall, or of all of them. Press it only if you need not touch cable or car to reach it.'],
  ['Somebody hurt', 'Do not touch who still touches cable, car or post. Call first, then do what you are told.'],
];

/** What can hurt: who to call, when the emergency stop helps, and when nothing is to be touched. Nothing here leads back to the post. */
export function DangerSheet({
  emergency,
  helpline,
  where,
  onClose,
  onGo,
}: {
  /** The number for an emergency here, as noted or proposed. */
  emergency: string;
  /** The operator's, `null` where it is not noted. */
  helpline: string | null;
  /** What to say of the place, read aloud. */
  where: string;
  onClose: () => void;
  onGo: (sheet: Plain) => void;
}) {
  return (
    <Sheet title="Danger: move away first" onClose={onClose} hint="Recorded. Do not unplug.">
      <a className="plate plate-bad !min-h-[64px] w-full text-[22px] font-extrabold" href={call(emergency)}>
        Call {emergency}
      </a>
      <p className="mt-1.5 text-[15px] font-semibold">or your local number. You are at {where}.</p>
      {helpline ? (
        <a className="plate mt-3 !min-h-[52px] w-full text-[17px]" href={call(helpline)}>
          Then the operator: {helpline}
        </a>
      ) : (
        <p className="mt-3 border-l-4 border-fault bg-fault-card px-3 py-2 text-[15px]">
          The operator’s number is not noted. Do not go back to the post for it: it is asked for after the visit.
        </p>
      )}
      <dl className="mt-4">
        {RULES.map(([what, how]) => (
          <div key={what} className="mb-3">
            <dt className="font-bold">{what}</dt>
            <dd className="text-[15px]">{how}</dd>
          </div>
        ))}
      </dl>
      <PlateList>
        <Plate onPress={() => onGo('help')}>What to read aloud</Plate>
        <Plate onPress={() => onGo('leave')}>Left the site</Plate>
      </PlateList>
      <p className="mt-3 text-[14px] text-ink-2">
        Local rules, the signs on the stall and the car’s manual go first. This is an estimate and no safety device.
      </p>
    </Sheet>
  );
}
