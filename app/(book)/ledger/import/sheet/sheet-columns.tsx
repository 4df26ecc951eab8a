import { SHEET_FIELDS } from '@/core/formats/sheet-columns';
import type { SheetAnswer } from '@/core/formats/sheet-import';
import type { SheetPreview } from '@/server/formats/import-sheet';
import { FIELD } from './sheet-words';

/** What each column is read as, with its first cell to know it by; any of them can be said otherwise. */
export function SheetColumns(p: { seen: SheetPreview; answers: readonly SheetAnswer[]; onAnswer: (a: SheetAnswer) => void }) {
  const said = (p.answers.find((a) => a.code === 'columns')?.answer ?? {}) as Record<string, { field: string | null }>;
  const unknown = p.seen.dialect.headingLine === null;
  return (
    <details className="mb-4 text-[14px]" open={unknown || undefined}>
      <summary className="min-h-6 cursor-pointer text-[15px] font-semibold">Columns, as they are read</summary>
      <ul className="mt-1 grid gap-x-4 gap-y-2 sm:grid-cols-2 lg:grid-cols-3">
        {p.seen.columns.map((c) => (
          <li key={c.n}>
            <label className="block">
              <b className="block break-words font-semibold">{c.heading || `Column ${c.n}`}</b>
              <span className="block truncate text-[12.5px] text-ink-2">
                {[p.seen.first[c.n - 1] || 'empty in the first row', c.unit, c.currency].filter(Boolean).join(', ')}
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
          </li>
        ))}
      </ul>
    </details>
  );
}
