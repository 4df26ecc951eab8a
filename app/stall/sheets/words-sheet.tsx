'use client';
import { useState } from 'react';
import { privateNumber } from '@/core/records/private-number';
import { currencySymbol } from '@/core/units/money';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { OneOf } from '@/ui/forms/one-of';
import { Sheet } from '@/ui/pads/sheet';
import type { Draft } from '../stall-state';

/** A note, or what was typed or pressed in the app or kiosk. The time is that of the touch that opened the sheet. */
export function WordsSheet({
  kind,
  openedAt,
  onClose,
  onAct,
}: {
  kind: 'note' | 'named';
  openedAt: number;
  onClose: () => void;
  onAct: (timeStamp: number, draft: Draft) => void;
}) {
  const [text, setText] = useState('');
  const why = privateNumber(text) ?? undefined;
  const label = kind === 'note' ? 'Note' : 'Number or name you typed or pressed';
  const field = { ...fieldState('words', why), value: text, maxLength: kind === 'note' ? 2000 : 80 };
  return (
    <Sheet title={kind === 'note' ? 'Note' : 'Named in the app or kiosk'} onClose={onClose}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          const said = text.trim();
          if (said === '' || why) return;
          onAct(openedAt, kind === 'note' ? { kind: 'note', payload: { text: said } } : { kind: 'stall_named', payload: { text: said } });
        }}
      >
        <FormField id="words" label={label} error={why}>
          {kind === 'note' ? (
            <textarea {...field} rows={4} onChange={(e) => setText(e.target.value)} />
          ) : (
            <input {...field} autoComplete="off" onChange={(e) => setText(e.target.value)} />
          )}
        </FormField>
        <button type="submit" className="plate plate-next !min-h-[52px] w-full" disabled={text.trim() === '' || why !== undefined}>
          {kind === 'note' ? 'Keep the note' : 'Record it'}
        </button>
      </form>
    </Sheet>
  );
}

const WHERE = ['Screen', 'App', 'Sign on the post', 'Web page'].map((w) => [w, w] as const);
const TAX = [
  ['in', 'Tax in'],
  ['on_top', 'Tax on top'],
] as const;

/** What the price was said to be, before it was paid. */
export function PriceSheet({
  currency,
  openedAt,
  onClose,
  onAct,
}: {
  currency: string;
  openedAt: number;
  onClose: () => void;
  onAct: (timeStamp: number, draft: Draft) => void;
}) {
  const [where, setWhere] = useState('Screen');
  const [perKWh, setPerKWh] = useState('');
  const [text, setText] = useState('');
  const [taxIn, setTaxIn] = useState<'in' | 'on_top' | null>(null);
  const price = perKWh.trim().replace(',', '.');
  const problem = price === '' ? undefined : !/^\d+(\.\d+)?$/.test(price) ? 'A price such as 0.59' : Number(price) > 100 ? 'At most 100 per kWh' : undefined;
  const why = privateNumber(text) ?? undefined;
  return (
    <Sheet title="Price shown" onClose={onClose}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (problem || why || (price === '' && text.trim() === '')) return;
          onAct(openedAt, {
            kind: 'price_shown',
            payload: {
              where,
              text: text.trim() || `${price} ${currency} per kWh`,
              ...(price === '' ? {} : { perKWh: price, currency }),
              ...(taxIn === null ? {} : { taxIn: taxIn === 'in' }),
            },
          });
        }}
      >
        <OneOf label="Where" value={where} choices={WHERE} onChoose={setWhere} />
        <div className="h-3" />
        <FormField id="price" label={`${currencySymbol(currency)} per kWh`} error={problem}>
          <input {...fieldState('price', problem)} inputMode="decimal" value={perKWh} autoComplete="off" onChange={(e) => setPerKWh(e.target.value)} />
        </FormField>
        <FormField id="price-text" label="Anything else it said" error={why}>
          <input {...fieldState('price-text', why)} value={text} maxLength={200} autoComplete="off" onChange={(e) => setText(e.target.value)} />
        </FormField>
        <OneOf label="Tax" headed={false} value={taxIn} choices={TAX} mayBeNone onChoose={setTaxIn} row="mb-3 flex gap-2" />
        <button type="submit" className="plate plate-next !min-h-[52px] w-full" disabled={price === '' && text.trim() === ''}>
          Record it
        </button>
      </form>
    </Sheet>
  );
}
