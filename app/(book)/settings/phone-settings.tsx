'use client';
import { useEffect, useState } from 'react';
import { KEYS_STORE } from '@/ui/road/use-place-keys';

const SHEETS = [
  ['system', 'As the system says'],
  ['day', 'Day'],
  ['night', 'Night'],
] as const;

/** What this device remembers for itself: the set of colours and the single keys. */
export function PhoneSettings() {
  const [sheet, setSheet] = useState<string | null>(null);
  const [keys, setKeys] = useState(true);
  useEffect(() => {
    setSheet(localStorage.getItem('mile.sheet') ?? 'system');
    setKeys(localStorage.getItem(KEYS_STORE) !== 'off');
  }, []);
  return (
    <section id="keys" className="mt-4 border-t-2 border-ink bg-card p-4">
      <h2 className="text-[16px]">This device</h2>
      <fieldset id="sheet" className="mt-3">
        <legend className="mb-1.5 text-sm font-semibold">Colours</legend>
        <div className="flex flex-wrap gap-2">
          {SHEETS.map(([value, label]) => (
            <button
              key={value}
              type="button"
              className="plate !min-h-[44px]"
              aria-pressed={sheet === value}
              onClick={() => {
                localStorage.setItem('mile.sheet', value);
                setSheet(value);
                dispatchEvent(new Event('mile:sheet'));
              }}
            >
              {label}
            </button>
          ))}
        </div>
      </fieldset>
      <fieldset className="mt-4">
        <legend className="mb-1.5 text-sm font-semibold">Single keys</legend>
        <div className="flex flex-wrap gap-2">
          {([true, false] as const).map((on) => (
            <button
              key={String(on)}
              type="button"
              className="plate !min-h-[44px]"
              aria-pressed={keys === on}
              onClick={() => {
                localStorage.setItem(KEYS_STORE, on ? 'on' : 'off');
                setKeys(on);
              }}
            >
              {on ? 'On' : 'Off'}
            </button>
          ))}
        </div>
        <p className="mt-2 text-[13px] text-ink-2">
          Press ? on any page of the ledger for the list. At the Stall a shutter-button, volume or page key presses the yellow pad.
        </p>
      </fieldset>
    </section>
  );
}
