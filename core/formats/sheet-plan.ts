import type { SheetAnswer, SheetAsk } from './sheet-import';
import type { SheetRow } from './sheet-row';
import { rowBills, rowKeepable, rowTells } from './sheet-visit';

/**
 * What becomes of a row that can be read. `new`: a visit of its own. `there`: it came in before. `near`: a visit recorded here may be it,
 * `twice`: another row of the file may be it; both wait for a word. `same`: somebody said that it is the row before. `place`: its site is
 * not known here. `merge`: somebody said that it is a visit recorded here: its figures come to stand beside it as a bill. `refund`, `nothing`: no visit by itself. `too_long`: more stands in it than one visit can keep.
 */
export type RowPlan = 'new' | 'there' | 'near' | 'merge' | 'twice' | 'same' | 'place' | 'refund' | 'nothing' | 'too_long';

/** The plan of each accepted row, by line. @param near lines of rows that a recorded visit may be @param there lines of rows that came in before */
export function planRows(
  rows: readonly SheetRow[],
  asks: readonly SheetAsk[],
  answers: readonly SheetAnswer[],
  known: { site: (name: string) => boolean; there: ReadonlySet<number>; near: ReadonlySet<number> },
): Map<number, RowPlan> {
  const answered = (code: string, line: number) => answers.findLast((a) => a.code === code && (!a.lines || a.lines.includes(line)))?.answer;
  const twice = new Map<number, 'twice' | 'same'>();
  for (const ask of asks) {
    if (ask.code !== 'duplicate') continue;
    const [first, ...others] = ask.lines;
    const said = first === undefined ? undefined : answered('duplicate', first);
    if (said === 'same') for (const line of others) twice.set(line, 'same');
    else if (said !== 'different') for (const line of ask.lines) twice.set(line, 'twice');
  }
  return new Map(
    rows.map((row): [number, RowPlan] => {
      const tells = rowTells(row);
      if (known.there.has(row.line)) return [row.line, 'there'];
      if (tells === 'refund' || tells === 'nothing') return [row.line, tells];
      if (!rowKeepable(row)) return [row.line, 'too_long'];
      if (!known.site(row.site)) return [row.line, 'place'];
      const again = twice.get(row.line);
      if (again) return [row.line, again];
      const said = known.near.has(row.line) ? answered('near', row.line) : 'new';
      return [row.line, said === 'new' ? 'new' : said === 'merge' && rowBills(row) ? 'merge' : 'near'];
    }),
  );
}
