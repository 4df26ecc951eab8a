'use client';
import { Delete } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';

export type DigitField = { key: string; label: string; unit: string; max: number; decimals: number; last?: string };

/** Adds a digit or point to what stands there; unchanged when it could not become a figure within bounds. */
export function pressDigit(text: string, digit: string, field: DigitField): string {
  const next = digit === '.' && text === '' ? '0.' : text === '0' && digit !== '.' ? digit : text + digit;
  const pattern = field.decimals > 0 ? new RegExp(`^\\d+(\\.\\d{0,${field.decimals}})?$`) : /^\d+$/;
  return pattern.test(next) && Number(next) <= field.max ? next : text;
}

/** Why a digit or point was not taken, said at once: no touch goes by unseen. `null` when it was. */
export function notTaken(text: string, digit: string, field: DigitField): string | null {
  if (pressDigit(text, digit, field) !== text || (text === '0' && digit === '0')) return null;
  if (digit === '.') return field.decimals === 0 ? `${field.label} is in whole ${field.unit}.` : 'There is a point already.';
  if ((text.split('.')[1]?.length ?? 0) >= field.decimals && text.includes('.')) return `${field.label} takes ${field.decimals} after the point.`;
  return `${field.label} is at most ${field.max} ${field.unit}: Next for another figure.`;
}

const isTyping = (target: EventTarget | null) => target instanceof HTMLElement && target.closest('input, textarea, select, [contenteditable]') !== null;

/**
 * Big digits for one figure after the other: it goes to another figure only when told to. Values are decimal strings;
 * empty is "not read". A figure that stood there when the pad came is marked, and the first digit takes its place. Digits,
 * point, Backspace, up, down and Enter of a keyboard work wherever in the sheet the focus is.
 */
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
  const [refused, setRefused] = useState<string | null>(null);
  const [stood] = useState(values);
  const [typed, setTyped] = useState<readonly string[]>([]);
  // Fields can go while the pad is open.
  const at = Math.min(picked, fields.length - 1);
  const field = fields[at] as DigitField;
  const text = values[field.key] ?? '';
  const stands = text !== '' && text === stood[field.key] && !typed.includes(field.key);
  const write = (next: string) => {
    setRefused(null);
    if (!typed.includes(field.key)) setTyped([...typed, field.key]);
    onChange({ ...values, [field.key]: next });
  };
  const press = (digit: string) => {
    const before = stands ? '' : text;
    const why = notTaken(before, digit, field);
    if (why) return setRefused(why);
    write(pressDigit(before, digit, field));
  };
  const go = (to: number) => {
    setRefused(null);
    setAt(to);
  };
  const onKey = (e: KeyboardEvent) => {
    if (e.defaultPrevented || e.ctrlKey || e.metaKey || e.altKey || isTyping(e.target)) return;
    if (/^[0-9.,]$/.test(e.key)) press(e.key === ',' ? '.' : e.key);
    else if (e.key === 'Backspace') write(text.slice(0, -1));
    else if (e.key === 'ArrowDown' || e.key === 'ArrowUp') go((at + (e.key === 'ArrowDown' ? 1 : fields.length - 1)) % fields.length);
    // On a button Enter is that button's.
    else if (e.key === 'Enter' && !(e.target instanceof HTMLElement && e.target.closest('button, a'))) onSave(e.timeStamp);
    else return;
    e.preventDefault();
  };
  const latest = useRef(onKey);
  latest.current = onKey;
  useEffect(() => {
    const listen = (e: KeyboardEvent) => latest.current(e);
    document.addEventListener('keydown', listen);
    return () => document.removeEventListener('keydown', listen);
  }, []);
  const key = 'num min-h-[52px] short:min-h-[44px] rounded-lg border-2 border-ink bg-card text-[22px] font-semibold [touch-action:manipulation]';
  return (
    // A press of the pointer leaves the focus here, so that a keyboard's Enter saves and does not repeat a digit.
    <div
      role="group"
      aria-label="Figures"
      tabIndex={-1}
      data-takes-keys
      className="outline-none flat:grid flat:grid-cols-2 flat:gap-x-4"
      onMouseDown={(e) => e.preventDefault()}
    >
      <div className="grid grid-cols-2 content-start gap-2 short:grid-cols-3 short:gap-1.5">
        {fields.map((f, i) => (
          <button
            key={f.key}
            type="button"
            aria-pressed={i === at}
            onClick={() => go(i)}
            className={`min-h-[44px] min-w-0 rounded-lg border-2 px-3 py-1.5 text-left short:px-1.5 short:py-0.5 ${i === at ? 'border-ink bg-picked' : 'border-rule bg-card'}`}
          >
            <span className="block truncate text-[12.5px] font-semibold text-ink-2">
              {f.label}
              {f.last ? `, last ${f.last}` : ''}
            </span>
            {/* Where there is no room for both, the unit is cut and never the figure. */}
            <span className="num flex items-baseline gap-x-2 overflow-hidden text-[24px] font-semibold leading-tight short:gap-x-1.5 short:text-[18px]">
              <span className="shrink-0">{i === at && stands ? <mark className="rounded-sm bg-ink px-1 text-card">{text}</mark> : values[f.key] || '–'}</span>{' '}
              <span className="min-w-0 truncate text-[15px] text-ink-2">{f.unit}</span>
            </span>
          </button>
        ))}
      </div>
      <div className="mt-3 grid grid-cols-3 gap-2 short:mt-2 short:gap-1.5 flat:col-start-2 flat:row-span-3 flat:row-start-1 flat:mt-0">
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
        <button type="button" className={`${key} grid place-items-center`} aria-label="Take the last digit away" onClick={() => write(text.slice(0, -1))}>
          <Delete size={22} aria-hidden="true" />
        </button>
      </div>
      {(refused ?? problem) ? (
        <p role="alert" className="mt-2 border-l-4 border-fault bg-fault-card px-3 py-1.5 text-sm">
          {refused ?? problem}
        </p>
      ) : null}
      <div className="mt-3 grid grid-cols-[1fr_2fr] gap-2 self-end short:mt-2">
        <button type="button" className="plate !min-h-[56px] text-[16px] short:!min-h-[48px]" onClick={() => go((at + 1) % fields.length)}>
          Next
        </button>
        <button type="button" className="plate plate-next !min-h-[56px] text-[18px] short:!min-h-[48px]" onClick={(e) => onSave(e.timeStamp)}>
          {saveLabel}
        </button>
      </div>
    </div>
  );
}
