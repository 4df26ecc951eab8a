'use client';
import { useEffect, useState } from 'react';
import { OneOf } from '@/ui/forms/one-of';
import { KEYS_STORE } from '@/ui/road/use-place-keys';

const SHEETS = [
  ['system', 'As the system says'],
  ['day', 'Day'],
  ['night', 'Night'],
] as const;

/** What this device remembers for itself: the set of colours and the single keys. */
export function PhoneSettings() {
  const [sheet, setSheet] = useState<(typeof SHEETS)[number][0] | null>(null);
  const [keys, setKeys] = useState(true);
  useEffect(() => {
    setSheet(SHEETS.find(([value]) => value === localStorage.getItem('mile.sheet'))?.[0] ?? 'system');
    setKeys(localStorage.getItem(KEYS_STORE) !== 'off');
  }, []);
  return (
    <section id="keys" className="mt-4 border-t-2 border-ink bg-card p-4">
      <h2 className="text-[16px]">This device</h2>
      <div id="sheet">
        <OneOf
          label="Colours"
          value={sheet}
          choices={SHEETS}
          onChoose={(value) => {
            localStorage.setItem('mile.sheet', value);
            setSheet(value);
            dispatchEvent(new Event('mile:sheet'));
          }}
        />
      </div>
      <OneOf
        label="Single keys"
        value={keys ? 'on' : 'off'}
        choices={[
          ['on', 'On'],
          ['off', 'Off'],
        ]}
        onChoose={(value) => {
          localStorage.setItem(KEYS_STORE, value);
          setKeys(value === 'on');
        }}
      />
      <p className="mt-2 text-[13px] text-ink-2">
        Press ? on any page of the ledger for the list. At the Stall a shutter-button, volume or page key presses the yellow pad.
      </p>
    </section>
  );
}
