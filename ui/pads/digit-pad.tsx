'use client';
import { Delete } from 'lucide-react';
import { useState } from 'react';

export type DigitField = { key: string; label: string; unit: string; max: number; decimals: number; last?: string };

/** Adds a digit or point to what stands there; unchanged when it could not become a figure within bounds. */
export function pressDigit(text: string, digit: string, field: DigitField): string {
  const next = digit === '.' && text === '' ? '0.' : text === '0' && digit !== '.' ? digit : text + digit;
  const pattern = field.decimals > 0 ? new RegExp(`^\\d+(\\.\\d{0,${field.decimals}})?$`) : /^\d+$/;
  return pattern.test(next) && Number(next) <= field.max ? next : text;
}

/** True when no further digit could fit: then, and only then, the pad moves on by itself. */
export const isFull = (text: string, field: DigitField): boolean => text !== '' && !'0123456789.'.split('').some((d) => pressDigit(text, d, field) !== text);

/** Big digits for one figure after the other. Values are decimal strings; empty is "not read". */
export function DigitPad({
  fields,
  values,
  onChange,
  onSave,
  saveLabel,
  problem,
}: {
  fields: DigitField[];
  values: Record<string, string>;
  onChange: (values: Record<string, string>) => void;
  onSave: (timeStamp: number) => void;
  saveLabel: string;
  problem?: string | null;
}) {
  const [picked, setAt] = useState(0);
  // Fields can go while the pad is open.
  const at = Math.min(picked, fields.length - 1);
  const field = fields[at] as DigitField;
  const text = values[field.key] ?? '';
  const press = (digit: string) => {
    const next = pressDigit(text, digit, field);
    onChange({ ...values, [field.key]: next });
    if (isFull(next, field) && at < fields.length - 1) setAt(at + 1);
  };
  const key = 'num min-h-[52px] rounded-lg border-2 border-ink bg-card text-[22px] font-semibold [touch-action:manipulation]';
  return (
    <div
      // Digits of a keyboard work as well as those under the thumb.
      onKeyDown={(e) => {
        if (/^[0-9.]$/.test(e.key)) press(e.key);
        else if (e.key === 'Backspace') onChange({ ...values, [field.key]: text.slice(0, -1) });
      }}
      role="group"
      aria-label="Figures"
    >
      <div className="grid grid-cols-2 gap-2">
        {fields.map((f, i) => (
          <button
            key={f.key}
            type="button"
            aria-pressed={i === at}
            onClick={() => setAt(i)}
            className={`rounded-lg border-2 px-3 py-1.5 text-left ${i === at ? 'border-ink bg-picked' : 'border-rule bg-card'}`}
          >
            <span className="block text-[12.5px] font-semibold text-ink-2">
              {f.label}
              {f.last ? `, last ${f.last}` : ''}
            </span>
            <span className="num block text-[24px] font-semibold leading-tight">
              {values[f.key] || '–'}
              <span className="text-[15px] text-ink-2"> {f.unit}</span>
            </span>
          </button>
        ))}
      </div>
      <div className="mt-3 grid grid-cols-3 gap-2">
        {['1', '2', '3', '4', '5', '6', '7', '8', '9'].map((d) => (
          <button key={d} type="button" className={key} onClick={() => press(d)}>
            {d}
          </button>
        ))}
        <button type="button" className={key} aria-label="Point" disabled={field.decimals === 0} onClick={() => press('.')}>
          {field.decimals === 0 ? '' : '.'}
        </button>
        <button type="button" className={key} onClick={() => press('0')}>
          0
        </button>
        <button
          type="button"
          className={`${key} grid place-items-center`}
          aria-label="Take the last digit away"
          onClick={() => onChange({ ...values, [field.key]: text.slice(0, -1) })}
        >
          <Delete size={22} aria-hidden="true" />
        </button>
      </div>
      {problem ? (
        <p role="alert" className="mt-2 border-l-4 border-fault bg-fault-card px-3 py-1.5 text-sm">
          {problem}
        </p>
      ) : null}
      <div className="mt-3 grid grid-cols-[1fr_2fr] gap-2">
        <button type="button" className="plate !min-h-[56px] text-[16px]" onClick={() => setAt((at + 1) % fields.length)}>
          Next
        </button>
        <button type="button" className="plate plate-next !min-h-[56px] text-[18px]" onClick={(e) => onSave(e.timeStamp)}>
          {saveLabel}
        </button>
      </div>
    </div>
  );
}
