'use client';
import { useState } from 'react';
import type { AttemptChoice } from '@/core/visit/billed';
import { billDoubt } from '@/core/visit/sense-check';
import { AttemptsBilled } from '@/ui/forms/attempts-billed';
import { type DigitField, DigitPad } from '@/ui/pads/digit-pad';
import { Sheet } from '@/ui/pads/sheet';
import { CurrencyChoice } from '../currency-choice';
import { moneyField } from '../money-field';
import type { Draft } from '../stall-state';

/** What was charged, and on how many kWh when the receipt says. */
export function BillSheet({
  currency: usual,
  currencies,
  attempts,
  charged,
  shown,
  expectedFor,
  onClose,
  onSave,
  onReceipt,
}: {
  currency: string;
  /** Others that are likely. */
  currencies: readonly string[];
  attempts: AttemptChoice[];
  /** Those that got power, by their first events. */
  charged: string[];
  /** What the stall showed of the attempts that are named, kWh. */
  shown: (named: readonly string[]) => string | null;
  /** What the tariff says of a bill for these attempts in a currency of its own, with the kWh on it, and in print. */
  expectedFor: (named: readonly string[], kWh: string | undefined, currency: string) => { amount: string; text: string } | null;
  onClose: () => void;
  onSave: (timeStamp: number, draft: Draft<'bill'>) => void;
  onReceipt: () => void;
}) {
  const [values, setValues] = useState<Record<string, string>>({});
  const [named, setNamed] = useState(charged);
  const [problem, setProblem] = useState<string | null>(null);
  const [currency, setCurrency] = useState(usual);
  const fields: DigitField[] = [moneyField('amount', 'Amount paid', currency), { key: 'kWh', label: 'kWh on the bill', unit: 'kWh', max: 999, decimals: 3 }];
  const billed = attempts.length < 2 ? charged : named;
  const expected = expectedFor(billed, undefined, currency)?.text;
  return (
    <Sheet
      title="Bill"
      onClose={onClose}
      hint={expected ? `By tariff it should be about ${expected}.` : 'The amount that was charged, tax in.'}
      beside={<CurrencyChoice value={currency} near={[usual, ...currencies]} onChange={setCurrency} />}
    >
      {attempts.length < 2 ? null : <AttemptsBilled attempts={attempts} named={named} onChange={setNamed} />}
      <DigitPad
        fields={fields}
        values={values}
        onChange={(v) => {
          setValues(v);
          setProblem(null);
        }}
        problem={problem}
        saveLabel="Save the bill"
        onSave={(timeStamp) => {
          if (!values.amount) return setProblem('Type the amount. Free of charge is 0.');
          const [amount, kWh] = [values.amount.replace(/\.$/, ''), values.kWh?.replace(/\.$/, '') || undefined];
          const lastKWh = shown(billed);
          // Where the charge was not read to its end, what was read last is as good as there is.
          const doubt = billDoubt(
            { amount, kWh },
            { lastKWh, expected: expectedFor(billed, kWh, currency) ?? expectedFor(billed, lastKWh ?? undefined, currency) },
          );
          if (doubt && problem !== `${doubt} Save again if so.`) return setProblem(`${doubt} Save again if so.`);
          // With one attempt a bill is for the visit.
          const sessions = attempts.length < 2 ? [] : named;
          onSave(timeStamp, { kind: 'bill', payload: { sessions, amount, currency, ...(kWh ? { kWh } : {}), state: 'charged' } });
        }}
      />
      <button type="button" className="plate mt-3 !min-h-[44px] w-full" onClick={onReceipt}>
        Photo of the receipt
      </button>
    </Sheet>
  );
}
