import { SHEET_FIELDS, type SheetColumn, type SheetField } from '@/core/formats/sheet-columns';
import type { SheetAnswer } from '@/core/formats/sheet-import';
import words from '@/core/formats/sheet-words.json';
import type { SheetPreview } from '@/server/formats/import-sheet';
import { FIELD, UNIT, WHOLE } from './sheet-words';

type Said = { field: SheetField | null; unit?: string; currency?: string };
const TIMED: ReadonlySet<string | null> = new Set(['date', 'start', 'end']);
const MONEY: ReadonlySet<string | null> = new Set(['amount', 'perKWh']);

/** What each column is read as and in what, with its first cell to know it by, how dates and figures are read: any of it can be said otherwise. */
export function SheetColumns(p: { seen: SheetPreview; answers: readonly SheetAnswer[]; onAnswer: (a: SheetAnswer) => void }) {
  const said = (p.answers.find((a) => a.code === 'columns')?.answer ?? {}) as Record<string, Said>;
  const { columns, dialect, first } = p.seen;
  const whole = (code: keyof typeof WHOLE, proved: string | null) => {
    const { label, of, can } = WHOLE[code];
    const own = String(p.answers.find((a) => a.code === code)?.answer ?? '');
    return (
      <li>
        <label className="block">
          <b className="block font-semibold">{label}</b>
          <span className="block text-[12.5px] text-ink-2">{of}</span>
          <select
            className="field !min-h-[44px] w-full"
            aria-label={label}
            value={own}
            onChange={(e) => p.onAnswer({ code, column: null, answer: e.target.value || null })}
          >
            <option value="">{`as they prove${own === '' && proved ? `: ${(can as Record<string, string>)[proved] ?? 'both'}` : ''}`}</option>
            {Object.entries(can).map(([is, text]) => (
              <option key={is} value={is}>
                {text}
              </option>
            ))}
          </select>
        </label>
      </li>
    );
  };
  return (
    <details className="mb-4 text-[14px]" open={dialect.headingLine === null || undefined}>
      <summary className="min-h-6 cursor-pointer text-[15px] font-semibold">Columns, as they are read</summary>
      <ul className="mt-1 grid gap-x-4 gap-y-2 sm:grid-cols-2 lg:grid-cols-3">
        {columns.map((c) => (
          <li key={c.n}>
            <label className="block">
              <b className="block break-words font-semibold">{c.heading || `Column ${c.n}`}</b>
              <span className="block truncate text-[12.5px] text-ink-2">
                {[first[c.n - 1] || 'empty in the first row', c.unit, c.currency].filter(Boolean).join(', ')}
              </span>
              <select
                className="field !min-h-[44px] w-full"
                aria-label={`What ${c.heading || `column ${c.n}`} is`}
                value={c.field ?? ''}
                onChange={(e) => p.onAnswer({ code: 'columns', answer: { ...said, [c.n]: { field: e.target.value || null } } })}
              >
                <option value="">kept as it is</option>
                {c.field === 'price?' ? <option value="price?">{FIELD['price?']}</option> : null}
                {SHEET_FIELDS.map((f) => (
                  <option key={f} value={f}>
                    {FIELD[f]}
                  </option>
                ))}
              </select>
            </label>
            <InWhat column={c} said={said[c.n]} onSay={(of) => p.onAnswer({ code: 'columns', answer: { ...said, [c.n]: of } })} />
          </li>
        ))}
        {columns.some((c) => TIMED.has(c.field)) ? whole('dates', dialect.dateOrder) : null}
        {columns.some((c) => UNIT[c.field ?? ''] || MONEY.has(c.field)) ? whole('decimal', dialect.decimal) : null}
      </ul>
    </details>
  );
}

/** In which unit or currency the figures of a column are that do not say it themselves. */
function InWhat({ column: c, said, onSay }: { column: SheetColumn; said: Said | undefined; onSay: (of: Said) => void }) {
  const money = MONEY.has(c.field);
  const units = UNIT[c.field ?? ''];
  if (c.field === null || c.field === 'price?' || (!money && !units)) return null;
  const field = c.field;
  const options = money ? words.currencies.map((code) => [code, code]) : Object.entries(units ?? {});
  return (
    <select
      className="field mt-1 !min-h-[44px] w-full"
      aria-label={`In what ${c.heading || `column ${c.n}`} is`}
      value={(money ? said?.currency : said?.unit) ?? ''}
      onChange={(e) => onSay({ field, ...(e.target.value ? { [money ? 'currency' : 'unit']: e.target.value } : {}) })}
    >
      <option value="">{money ? 'currency as it says' : 'unit as it says'}</option>
      {options.map(([is, text]) => (
        <option key={is} value={is}>
          {text}
        </option>
      ))}
    </select>
  );
}
