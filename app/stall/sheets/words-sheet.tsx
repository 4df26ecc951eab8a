'use client';
import { useState } from 'react';
import { v7 } from 'uuid';
import { privateNumber } from '@/core/records/private-number';
import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import { priceFromPost } from '@/core/tariff/post-price';
import { currencySymbol } from '@/core/units/money';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { OneOf } from '@/ui/forms/one-of';
import { Sheet } from '@/ui/pads/sheet';
import { CurrencyChoice } from '../currency-choice';
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

const wrongPrice = (text: string, of: string): string | undefined =>
  text === '' ? undefined : !/^\d+(\.\d{1,6})?$/.test(text) ? 'A price such as 0.59' : Number(text) > 100 ? `At most 100 ${of}` : undefined;

/** What the price was said to be, before it was paid; kept as the price of the place where somebody says so. */
export function PriceSheet({
  currency: usual,
  currencies,
  place,
  prices,
  openedAt,
  onClose,
  onAct,
  onKeep,
  onPrices,
}: {
  currency: string;
  /** Others that are likely. */
  currencies: readonly string[];
  /** Where it can be kept as a price, from which day on; `null`: nowhere, or by nobody who looks. */
  place: { siteId: string; networkId: string; name: string; day: string } | null;
  prices: readonly MileRecord<'tariff'>[];
  openedAt: number;
  onClose: () => void;
  onAct: (timeStamp: number, draft: Draft) => void;
  onKeep: (items: RecordItem[]) => Promise<void>;
  /** Opens the prices of the place: by the minute, by the hour, with fees, for a plan. */
  onPrices: () => void;
}) {
  const [where, setWhere] = useState('Screen');
  const [currency, setCurrency] = useState(usual);
  const [perKWh, setPerKWh] = useState('');
  const [perStart, setPerStart] = useState('');
  const [keep, setKeep] = useState(false);
  const [text, setText] = useState('');
  const [taxIn, setTaxIn] = useState<'in' | 'on_top' | null>(null);
  const [price, start] = [perKWh.trim().replace(',', '.'), perStart.trim().replace(',', '.')];
  const [problem, startProblem] = [wrongPrice(price, 'per kWh'), wrongPrice(start, 'per start')];
  const why = privateNumber(text) ?? undefined;
  // A price on file has its tax in: what comes on top is not known by how much.
  const kept = place && keep && price !== '' && taxIn !== 'on_top';
  const said = [price === '' ? '' : `${price} ${currency} per kWh`, start === '' ? '' : `${start} ${currency} per start`].filter(Boolean).join(', ');
  return (
    <Sheet title="Price shown" onClose={onClose} beside={<CurrencyChoice value={currency} near={[usual, ...currencies]} onChange={setCurrency} />}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (problem || startProblem || why || (said === '' && text.trim() === '')) return;
          const item = kept ? priceFromPost(prices, place, { currency, perKWh: price, startFee: start }, place.day, v7()) : null;
          if (item) void onKeep([item]);
          onAct(openedAt, {
            kind: 'price_shown',
            payload: {
              where,
              text: [text.trim(), start !== '' || text.trim() === '' ? said : ''].filter(Boolean).join('; ').slice(0, 200),
              ...(price === '' ? {} : { perKWh: price, currency }),
              ...(taxIn === null ? {} : { taxIn: taxIn === 'in' }),
            },
          });
        }}
      >
        <OneOf label="Where" value={where} choices={WHERE} onChoose={setWhere} />
        <div className="h-3" />
        <div className="grid grid-cols-2 gap-3">
          <FormField id="price" label={`${currencySymbol(currency)} per kWh`} error={problem}>
            <input {...fieldState('price', problem)} inputMode="decimal" value={perKWh} autoComplete="off" onChange={(e) => setPerKWh(e.target.value)} />
          </FormField>
          <FormField id="per-start" label={`${currencySymbol(currency)} per start`} error={startProblem}>
            <input
              {...fieldState('per-start', startProblem)}
              inputMode="decimal"
              value={perStart}
              autoComplete="off"
              onChange={(e) => setPerStart(e.target.value)}
            />
          </FormField>
        </div>
        <FormField id="price-text" label="Anything else it said" error={why}>
          <input {...fieldState('price-text', why)} value={text} maxLength={200} autoComplete="off" onChange={(e) => setText(e.target.value)} />
        </FormField>
        <OneOf label="Tax" headed={false} value={taxIn} choices={TAX} mayBeNone onChoose={setTaxIn} row="mb-3 flex gap-2" />
        {place ? (
          <label className="mb-3 flex min-h-[44px] items-center gap-3 text-[15px]">
            <input
              type="checkbox"
              className="size-6 shrink-0 accent-ink"
              checked={kept === true}
              disabled={price === '' || taxIn === 'on_top'}
              onChange={(e) => setKeep(e.target.checked)}
            />
            <span>
              Guests’ price at {place.name} from today
              {taxIn === 'on_top' ? <span className="block text-[13px] text-ink-2">Tax on top: with its rate, below.</span> : null}
            </span>
          </label>
        ) : null}
        {place ? (
          <button type="button" className="mb-3 min-h-[44px] w-full text-left text-[14px] font-semibold text-shake underline" onClick={onPrices}>
            By the minute, by the hour, with fees, or for a plan: the prices here
          </button>
        ) : null}
        <button type="submit" className="plate plate-next !min-h-[52px] w-full" disabled={said === '' && text.trim() === ''}>
          Record it
        </button>
      </form>
    </Sheet>
  );
}
