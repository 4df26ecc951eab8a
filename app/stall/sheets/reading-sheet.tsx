'use client';
import { useState } from 'react';
import type { Attempt, Reading } from '@/core/visit/attempts/attempt';
import { readingDoubt, type SenseFacts } from '@/core/visit/sense-check';
import { OneOf } from '@/ui/forms/one-of';
import { type DigitField, DigitPad } from '@/ui/pads/digit-pad';
import { Sheet } from '@/ui/pads/sheet';
import { CurrencyChoice } from '../currency-choice';
import { moneyField } from '../money-field';
import type { Draft } from '../stall-state';

const plain = (text: string | undefined): string | undefined => text?.replace(/\.$/, '') || undefined;
const number = (text: string | undefined): number | undefined => (plain(text) === undefined ? undefined : Number(text));

const SCREENS = [
  ['stall', 'Stall’s screen'],
  ['car', 'Car’s screen'],
] as const;
const SMALL_PLATE = 'plate !min-h-[44px] !px-2.5 !text-[14px]';

/** A reading by the digit pad. Its time is the touch that opened it; Now stamps it anew. */
export function ReadingSheet({
  attempt,
  facts,
  expected,
  currency: usual,
  currencies,
  openedAt,
  onClose,
  onSave,
}: {
  attempt: Attempt | undefined;
  facts: Omit<SenseFacts, 'expectedCost'>;
  /** What the tariff says so many kWh cost, in a currency of its own. */
  expected: (kWh: string | undefined, currency: string) => string | null;
  currency: string;
  /** Others that are likely. */
  currencies: readonly string[];
  openedAt: number;
  onClose: () => void;
  onSave: (timeStamp: number, draft: Draft<'reading'>) => void;
}) {
  const [values, setValues] = useState<Record<string, string>>({});
  const [screen, setScreen] = useState<'stall' | 'car'>('stall');
  const [currency, setCurrency] = useState(usual);
  const [stamp, setStamp] = useState(openedAt);
  const [asked, setAsked] = useState<string | null>(null);
  const [electric, setElectric] = useState(false);
  const readings = attempt?.readings ?? [];
  const last = <K extends keyof Reading>(key: K) => {
    const r = readings.findLast((x) => x[key] !== undefined && (x.screen === screen || key === 'socPct'));
    return r === undefined ? undefined : String(r[key]);
  };
  const fields: DigitField[] = [
    { key: 'socPct', label: 'Battery', unit: '%', max: 100, decimals: 0, last: last('socPct') },
    { key: 'kW', label: 'Power', unit: 'kW', max: 1000, decimals: 1, last: last('kW') },
    { key: 'kWh', label: 'Delivered', unit: 'kWh', max: 999, decimals: 2, last: last('kWh') },
    ...(screen === 'stall' ? [{ ...moneyField('cost', 'Cost', currency), last: last('cost') }] : []),
    ...(electric
      ? [
          { key: 'V', label: 'Volts', unit: 'V', max: 1500, decimals: 0, last: last('V') },
          { key: 'A', label: 'Amps', unit: 'A', max: 3000, decimals: 0, last: last('A') },
        ]
      : []),
  ];
  const save = () => {
    const [socPct, kW, V, A] = [number(values.socPct), number(values.kW), number(values.V), number(values.A)];
    const [kWh, cost] = [plain(values.kWh), screen === 'stall' ? plain(values.cost) : undefined];
    const figures = {
      ...(socPct === undefined ? {} : { socPct }),
      ...(kW === undefined ? {} : { kW }),
      ...(kWh === undefined ? {} : { kWh }),
      ...(cost === undefined ? {} : { cost }),
      ...(electric && V !== undefined ? { V } : {}),
      ...(electric && A !== undefined ? { A } : {}),
    };
    if (Object.keys(figures).length === 0) return setAsked('Type at least one figure.');
    const total = expected(kWh, currency);
    const doubt = readingDoubt(figures, readings, { ...facts, expectedCost: total === null ? null : Number(total) });
    if (doubt && asked !== `${doubt} Save again if so.`) return setAsked(`${doubt} Save again if so.`);
    onSave(stamp, { kind: 'reading', payload: { screen, ...figures, ...(cost === undefined ? {} : { currency }) } });
  };
  return (
    <Sheet
      title="Reading"
      onClose={onClose}
      beside={screen === 'stall' ? <CurrencyChoice value={currency} near={[usual, ...currencies]} onChange={setCurrency} /> : null}
    >
      <div className="mb-3 flex items-center gap-1.5">
        <OneOf label="Whose screen" headed={false} value={screen} choices={SCREENS} onChoose={setScreen} look={() => SMALL_PLATE} row="flex gap-1.5" />
        <button type="button" aria-pressed={electric} className={SMALL_PLATE} onClick={() => setElectric(!electric)}>
          volts, amps
        </button>
        <span className="grow" />
        <button type="button" className={SMALL_PLATE} onClick={(e) => setStamp(e.timeStamp)} aria-pressed={stamp !== openedAt}>
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
