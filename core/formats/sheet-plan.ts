import { ROWS_A_STEP, type Steps } from '../units/steps';
import type { SheetAnswer, SheetAsk } from './sheet-import';
import type { SheetRow } from './sheet-row';
import { rowBills, rowKeepable, rowTells } from './sheet-visit';

/**
 * What becomes of a row that can be read. `new`: a visit of its own. `there`: it came in before. `near`: a visit recorded here may be it,
 * `twice`: another row of the file may be it; both wait for a word. `same`: somebody said that it is the row before. `place`: its site is
 * not known here. `which`: several sites here have the name of its site, and it does not tell which. `merge`: somebody said that it is a visit recorded here: its figures come to stand beside it as a bill. `refund`, `nothing`: no visit by itself. `too_long`: more stands in it than one visit can keep.
 */
export type RowPlan = 'new' | 'there' | 'near' | 'merge' | 'twice' | 'same' | 'place' | 'which' | 'refund' | 'nothing' | 'too_long';

/** What was said last of a line: of it by its number, or of all. */
function saidOfLines(answers: readonly SheetAnswer[], code: string): (line: number) => unknown {
  const own = new Map<number, { answer: unknown; nth: number }>();
  let all: { answer: unknown; nth: number } | undefined;
  for (const [nth, { code: of, lines, answer }] of answers.entries()) {
    if (of !== code) continue;
    if (lines) for (const line of lines) own.set(line, { answer, nth });
    else all = { answer, nth };
  }
  return (line) => {
    const said = own.get(line);
    return said && (!all || said.nth > all.nth) ? said.answer : all?.answer;
  };
}

/** The plan of each accepted row, by line, in steps. @param near lines of rows that a recorded visit may be @param there lines of rows that came in before */
export function* planRows(
  rows: readonly SheetRow[],
  asks: readonly SheetAsk[],
  answers: readonly SheetAnswer[],
  known: { site: (row: SheetRow) => 'here' | 'several' | null; there: ReadonlySet<number>; near: ReadonlySet<number> },
): Steps<Map<number, RowPlan>> {
  const [ofTwice, ofNear] = [saidOfLines(answers, 'duplicate'), saidOfLines(answers, 'near')];
  const twice = new Map<number, 'twice' | 'same'>();
  for (const ask of asks) {
    if (ask.code !== 'duplicate') continue;
    const [first, ...others] = ask.lines;
    const said = first === undefined ? undefined : ofTwice(first);
    if (said === 'same') for (const line of others) twice.set(line, 'same');
    else if (said !== 'different') for (const line of ask.lines) twice.set(line, 'twice');
  }
  const planOf = (row: SheetRow): RowPlan => {
    const tells = rowTells(row);
    if (known.there.has(row.line)) return 'there';
    if (tells === 'refund' || tells === 'nothing') return tells;
    if (!rowKeepable(row)) return 'too_long';
    const site = known.site(row);
    if (site === null) return 'place';
    const again = twice.get(row.line);
    if (again) return again;
    const said = known.near.has(row.line) ? ofNear(row.line) : 'new';
    if (said === 'new') return site === 'several' ? 'which' : 'new';
    return said === 'merge' && rowBills(row) ? 'merge' : 'near';
  };
  const out = new Map<number, RowPlan>();
  for (const [i, row] of rows.entries()) {
    if (i % ROWS_A_STEP === 0) yield;
    out.set(row.line, planOf(row));
  }
  return out;
}
