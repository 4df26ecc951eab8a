'use client';
import { useState } from 'react';
import { readingDoubt } from '@/core/power/sense-check';
import { currencySymbol } from '@/core/units/money';
import type { Attempt } from '@/core/visit/attempts';
import { type DigitField, DigitPad } from '@/ui/pads/digit-pad';
import { Sheet } from '@/ui/pads/sheet';
import type { Draft } from './use-stall';

/** A reading by the digit pad. Its time is the touch that opened it; Now stamps it anew. */
export function ReadingSheet({
  attempt,
  ratedKW,
  currency,
  openedAt,
  onClose,
  onSave,
}: {
  attempt: Attempt | undefined;
  ratedKW: number | null;
  currency: string;
  openedAt: number;
  onClose: () => void;
  onSave: (timeStamp: number, draft: Draft<'reading'>) => void;
}) {
  const [values, setValues] = useState<Record<string, string>>({});
  const [screen, setScreen] = useState<'stall' | 'car'>('stall');
  const [stamp, setStamp] = useState(openedAt);
  const [asked, setAsked] = useState<string | null>(null);
  const readings = attempt?.readings ?? [];
  const last = <K extends 'socPct' | 'kW' | 'kWh' | 'cost'>(key: K) => readings.filter((r) => r[key] !== undefined).at(-1)?.[key];
  const fields: DigitField[] = [
    { key: 'socPct', label: 'Battery', unit: '%', max: 100, decimals: 0, last: last('socPct')?.toString() },
    { key: 'kW', label: 'Power', unit: 'kW', max: 1000, decimals: 0, last: last('kW')?.toString() },
    { key: 'kWh', label: 'Delivered', unit: 'kWh', max: 999, decimals: 2, last: last('kWh') },
    { key: 'cost', label: 'Cost', unit: currencySymbol(currency), max: 9999, decimals: 2, last: last('cost') },
  ];
  const save = () => {
    const { socPct, kW, kWh, cost } = values;
    if (!socPct && !kW && !kWh && !cost) return setAsked('Type at least one figure.');
    const figures = { ...(socPct ? { socPct: Number(socPct) } : {}), ...(kW ? { kW: Number(kW) } : {}), ...(kWh ? { kWh: kWh.replace(/\.$/, '') } : {}) };
    const doubt = readingDoubt(figures, readings, ratedKW);
    if (doubt && asked !== `${doubt} Save again if so.`) return setAsked(`${doubt} Save again if so.`);
    onSave(stamp, { kind: 'reading', payload: { screen, ...figures, ...(cost ? { cost: cost.replace(/\.$/, ''), currency } : {}) } });
  };
  return (
    <Sheet title="Reading" onClose={onClose}>
      <div className="mb-3 flex items-center gap-2">
        <fieldset className="flex gap-2">
          <legend className="sr-only">Whose screen</legend>
          {(['stall', 'car'] as const).map((s) => (
            <button key={s} type="button" aria-pressed={screen === s} className="plate !min-h-[44px]" onClick={() => setScreen(s)}>
              {s === 'stall' ? 'Stall’s screen' : 'Car’s screen'}
            </button>
          ))}
        </fieldset>
        <span className="grow" />
        <button type="button" className="plate !min-h-[44px]" onClick={(e) => setStamp(e.timeStamp)} aria-pressed={stamp !== openedAt}>
          Now
        </button>
      </div>
      <DigitPad
        fields={fields}
        values={values}
        onChange={(v) => {
          setValues(v);
          setAsked(null);
        }}
        onSave={save}
        saveLabel="Save the reading"
        problem={asked}
      />
    </Sheet>
  );
}
