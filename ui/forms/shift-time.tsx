'use client';
import { printShift } from '@/core/units/print';
import { printClock } from '@/core/units/zoned';

const SHIFTS: [string, number][] = [
  ['−10 s', -10],
  ['−1 s', -1],
  ['+1 s', 1],
  ['+10 s', 10],
  ['1 min earlier', -60],
  ['2 min earlier', -120],
  ['5 min earlier', -300],
];

/** Plates that move a time; nothing is written until it is kept. @param at UTC ms @param original UTC ms as recorded */
export function ShiftTime({ at, original, zone, onChange }: { at: number; original: number; zone: string; onChange: (at: number) => void }) {
  return (
    <div>
      <p className="num text-[28px] font-semibold" aria-live="polite">
        {printClock(at, zone)}
        <span className="ml-3 text-[15px] text-ink-2">{printShift((at - original) / 1000)}</span>
      </p>
      <div className="mt-2 grid grid-cols-4 gap-2">
        {SHIFTS.slice(0, 4).map(([label, s]) => (
          <button key={label} type="button" className="plate !min-h-[48px] !px-1" onClick={() => onChange(at + s * 1000)}>
            {label}
          </button>
        ))}
      </div>
      <div className="mt-2 grid grid-cols-3 gap-2">
        {SHIFTS.slice(4).map(([label, s]) => (
          <button key={label} type="button" className="plate !min-h-[48px] !px-1" onClick={() => onChange(at + s * 1000)}>
            {label}
          </button>
        ))}
      </div>
    </div>
  );
}
