'use client';
import { useState } from 'react';
import type { Days, PlainPrice } from '@/core/tariff/plain-price';
import { FormField, fieldState } from '../forms/form-field';

const DAY_WORDS: Readonly<Record<Days, string>> = { all: 'Every day', weekdays: 'Mon to Fri', weekend: 'Sat and Sun' };
type Text = Exclude<keyof PlainPrice, 'windows' | 'byPower'>;

/** What stands on a post, as it is typed: what most posts say first, the rest under one press. */
export function PlainFields({
  plain,
  odd,
  currency,
  onChange,
}: {
  plain: PlainPrice;
  odd: Readonly<Record<string, string>>;
  currency: string;
  onChange: (next: PlainPrice) => void;
}) {
  const more = MORE.some((f) => plain[f] !== '') || plain.byPower.length > 0;
  const [open, setOpen] = useState(more);
  const decimal = (typed: string) => typed.replace(',', '.');
  const field = (name: Text, label: string, hint?: string) => (
    <FormField id={name} label={label} error={odd[name]} {...(hint ? { hint } : {})}>
      <input
        {...fieldState(name, odd[name])}
        inputMode="decimal"
        autoComplete="off"
        value={plain[name]}
        onChange={(e) => onChange({ ...plain, [name]: decimal(e.target.value) })}
      />
    </FormField>
  );
  const window = (i: number, change: Partial<PlainPrice['windows'][number]>) =>
    onChange({ ...plain, windows: plain.windows.map((w, j) => (j === i ? { ...w, ...change } : w)) });
  const step = (i: number, change: Partial<PlainPrice['byPower'][number]>) =>
    onChange({ ...plain, byPower: plain.byPower.map((s, j) => (j === i ? { ...s, ...change } : s)) });
  const inRow = (label: string, value: string, type: 'text' | 'time', path: string, set: (v: string) => void) => (
    <label className="block text-[13px] font-semibold">
      {label}
      <input
        type={type}
        className="field mt-0.5"
        inputMode={type === 'text' ? 'decimal' : undefined}
        aria-invalid={odd[path] ? true : undefined}
        value={value}
        onChange={(e) => set(decimal(e.target.value))}
      />
      {odd[path] ? <span className="font-semibold text-fault">{odd[path]}</span> : null}
    </label>
  );
  return (
    <>
      <div className="grid grid-cols-2 gap-x-4">
        {field('perKWh', `Per kWh, ${currency}`, plain.windows.length > 0 ? 'At all other times' : 'As shown')}
        {field('startFee', 'Per start')}
      </div>
      <fieldset className="mb-3">
        <legend className="mb-1 text-sm font-semibold">By time of day</legend>
        {plain.windows.map((w, i) => (
          <div
            // biome-ignore lint/suspicious/noArrayIndexKey: rows are told apart by their place alone
            key={i}
            className="mb-2 grid grid-cols-2 items-end gap-2 border-b border-rule-2 pb-2 sm:grid-cols-[repeat(2,minmax(124px,1fr))_minmax(124px,1fr)]"
          >
            {inRow('From', w.from, 'time', `windows.${i}.from`, (from) => window(i, { from }))}
            {inRow('To', w.to, 'time', `windows.${i}.to`, (to) => window(i, { to }))}
            <label className="block text-[13px] font-semibold">
              Days
              <select className="field mt-0.5" value={w.days} onChange={(e) => window(i, { days: e.target.value as Days })}>
                {(Object.keys(DAY_WORDS) as Days[]).map((d) => (
                  <option key={d} value={d}>
                    {DAY_WORDS[d]}
                  </option>
                ))}
              </select>
            </label>
            {inRow('Per kWh', w.perKWh, 'text', `windows.${i}.perKWh`, (perKWh) => window(i, { perKWh }))}
            <button
              type="button"
              className="plate !min-h-[44px]"
              aria-label={`Remove time ${i + 1}`}
              onClick={() => onChange({ ...plain, windows: plain.windows.filter((_, j) => j !== i) })}
            >
              Remove
            </button>
          </div>
        ))}
        {plain.windows.length < 8 ? (
          <button
            type="button"
            className="plate !min-h-[44px]"
            onClick={() => onChange({ ...plain, windows: [...plain.windows, { from: '22:00', to: '06:00', days: 'all', perKWh: '' }] })}
          >
            Add a time
          </button>
        ) : null}
      </fieldset>
      <button type="button" className="plate mb-3 !min-h-[44px]" aria-expanded={open} onClick={() => setOpen(!open)}>
        {open ? 'Fewer kinds of fee' : 'Minutes, idle, overstay, tax on top'}
      </button>
      {open ? (
        <div className="grid grid-cols-2 gap-x-4">
          {field('perMin', 'Per minute charging')}
          {field('parkedPerMin', 'Per minute parked')}
          {field('idlePerMin', 'Idle, per minute', 'After charging has ended')}
          {field('idleAfterMin', 'Idle from minute', 'Minutes of grace')}
          {field('overstayFee', 'Overstay fee', 'Once')}
          {field('overstayAfterMin', 'Overstay after, min')}
          {field('freeMin', 'Free minutes', 'Of the minutes, not of kWh')}
          {field('minimum', 'Minimum charge')}
          {field('taxOnTop', 'Tax on top, %', 'Where prices are without it')}
          <fieldset className="col-span-2 mb-3">
            <legend className="mb-1 text-sm font-semibold">Minutes by power</legend>
            {plain.byPower.map((s, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: rows are told apart by their place alone
              <div key={i} className="mb-2 grid grid-cols-3 items-end gap-2">
                {inRow('From kW', s.fromKW, 'text', `byPower.${i}.fromKW`, (fromKW) => step(i, { fromKW }))}
                {inRow('Per minute', s.perMin, 'text', `byPower.${i}.perMin`, (perMin) => step(i, { perMin }))}
                <button
                  type="button"
                  className="plate !min-h-[44px]"
                  aria-label={`Remove step ${i + 1}`}
                  onClick={() => onChange({ ...plain, byPower: plain.byPower.filter((_, j) => j !== i) })}
                >
                  Remove
                </button>
              </div>
            ))}
            {plain.byPower.length < 6 ? (
              <button
                type="button"
                className="plate !min-h-[44px]"
                onClick={() => onChange({ ...plain, byPower: [...plain.byPower, { fromKW: plain.byPower.length === 0 ? '0' : '', perMin: '' }] })}
              >
                Add a step
              </button>
            ) : null}
          </fieldset>
        </div>
      ) : null}
    </>
  );
}
const MORE: readonly Text[] = ['perMin', 'parkedPerMin', 'idlePerMin', 'idleAfterMin', 'overstayFee', 'overstayAfterMin', 'freeMin', 'minimum', 'taxOnTop'];
