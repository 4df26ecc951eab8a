import type { SheetColumn } from '@/core/formats/sheet-columns';
import type { SheetAnswer, SheetAsk } from '@/core/formats/sheet-import';
import { ASK, OPTION } from './sheet-words';

/** Questions of one kind that are shown each by itself; an address holds no more answers than some hundred. */
const SHOWN = 20;

const linesOf = (lines: readonly number[]) => `${lines.slice(0, 6).join(', ')}${lines.length > 6 ? ` and ${lines.length - 6} more` : ''}`;

/** What the file does not settle: nothing is chosen beforehand, and only the rows that hang on it wait. */
export function SheetAsks(p: {
  asks: readonly SheetAsk[];
  columns: readonly SheetColumn[];
  answers: readonly SheetAnswer[];
  onAnswer: (a: SheetAnswer) => void;
}) {
  // What was answered is gone from the questions; a duplicate is asked on, so that it can be said otherwise.
  const twice = p.asks.filter((a) => a.code === 'duplicate');
  const open = p.asks.filter((a) => a.code !== 'columns' && (a.code !== 'duplicate' || twice.indexOf(a) < SHOWN));
  const forAll = p.answers.find((a) => a.code === 'duplicate' && !a.lines)?.answer;
  return (
    <>
      {p.asks.some((a) => a.code === 'columns') ? <p className="mb-3 text-[15px] font-semibold">{ASK.columns}.</p> : null}
      {open.length > 0 ? (
        <section aria-label="Questions" className="mb-4">
          <h2 className="mb-1 text-[16px]">Questions</h2>
          {twice.length > 1 ? (
            <label className="mb-2 block max-w-[560px] text-[14px]">
              <b className="font-semibold">{twice.length} times rows look like the same visit twice. For all of them</b>
              <select
                className="field !min-h-[44px] w-full"
                value={String(forAll ?? '')}
                aria-label="All rows that look like the same visit twice"
                onChange={(e) => e.target.value && p.onAnswer({ code: 'duplicate', column: null, answer: e.target.value })}
              >
                <option value="">not said</option>
                <option value="same">{OPTION.same}</option>
                <option value="different">{OPTION.different}</option>
              </select>
              {twice.length > SHOWN ? <span className="block text-[12.5px] text-ink-2">The first {SHOWN} of them can be said one by one.</span> : null}
            </label>
          ) : null}
          {open.map((a) => {
            const own = a.code === 'duplicate' || a.code === 'time_twice' ? a.lines : undefined;
            const of = [a.column === null ? null : p.columns[a.column - 1]?.heading || `column ${a.column}`, own ? `lines ${linesOf(own)}` : null];
            const said = p.answers.find((x) => x.code === a.code && x.column === a.column && JSON.stringify(x.lines) === JSON.stringify(own))?.answer;
            return (
              <label key={`${a.code} ${a.column} ${a.options.join()} ${own?.join()}`} className="mb-2 block max-w-[560px] text-[14px]">
                <b className="font-semibold">{ASK[a.code] ?? a.code}</b>
                <span className="block text-[12.5px] text-ink-2">
                  {a.column === null ? '' : `${p.columns[a.column - 1]?.heading || `column ${a.column}`}, `}
                  {a.lines.length > 1 ? 'lines' : 'line'} {linesOf(a.lines)}
                </span>
                <select
                  className="field !min-h-[44px] w-full"
                  aria-label={[ASK[a.code] ?? a.code, ...of.filter(Boolean)].join(', ')}
                  value={String(said ?? '')}
                  onChange={(e) => {
                    const answer = a.options.find((o) => String(o) === e.target.value);
                    if (answer !== undefined) p.onAnswer({ code: a.code, column: a.column, ...(own ? { lines: own } : {}), answer });
                  }}
                >
                  <option value="">not said</option>
                  {a.options.map((o) => (
                    <option key={o} value={String(o)}>
                      {a.code === 'column_twice' ? p.columns[Number(o) - 1]?.heading || `column ${o}` : (OPTION[String(o)] ?? String(o))}
                    </option>
                  ))}
                </select>
              </label>
            );
          })}
        </section>
      ) : null}
    </>
  );
}
