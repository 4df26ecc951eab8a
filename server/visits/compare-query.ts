import type { RowDataPacket } from 'mysql2/promise';
import { readLedgerFilter } from '@/core/compare/ledger-filter';
import { type AttemptRow, COMPARED_ATTEMPT_FIGURES, COMPARED_FIGURES, type VisitRow } from '@/core/compare/visit-row';
import { ATTEMPT_FIGURES } from '@/core/figures/attempt-figures';
import type { Figure } from '@/core/figures/figure';
import { VISIT_FIGURES } from '@/core/figures/visit-figures';
import type { Who } from '../accounts/who';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { visitWhere } from './visit-where';

type Cell = string | number | null;
type Cells = readonly [Buffer, ...(Cell | Buffer)[]];

/**
 * Makes rows of the cells that a query answers in this order, each cell under the name of its figure: ten thousand visits are
 * read as arrays and become objects of one shape.
 */
function rowMaker(names: readonly string[], figures: Readonly<Record<string, Pick<Figure<never>, 'is'>>>, from: number) {
  const blank = Object.fromEntries(names.map((name) => [name, null])) as Record<string, Cell | boolean>;
  const yesNo = names.map((name) => figures[name]?.is === 'yes_no');
  return (cells: Cells): Record<string, Cell | boolean> => {
    const row = { ...blank };
    for (let i = 0; i < names.length; i++) row[names[i] as string] = yesNo[i] ? cells[from + i] === 1 : (cells[from + i] as Cell);
    return row;
  };
}

/** Every counted visit of a household, or of one of its sites, with its attempts. Visits at an unknown network are not compared. */
export async function compareRows(who: Who, currency: string, siteId?: string): Promise<VisitRow[]> {
  const { householdId } = who;
  const figures = await figuresOf(householdId);
  const where = visitWhere(
    who,
    readLedgerFilter((name) => (name === 'site' && siteId ? siteId : null)),
    currency,
  );
  const [[visits], [attempts]] = await Promise.all([
    figures.execute<RowDataPacket[][]>(
      {
        sql: `SELECT v.id, v.network_id, v.site_id, ${COMPARED_FIGURES.map((n) => `f.${VISIT_FIGURES[n].column}`).join(', ')}
       FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id WHERE ${where.sql} AND v.network_id IS NOT NULL`,
        rowsAsArray: true,
      },
      where.values,
    ),
    // All attempts in the order they lie in: those of visits that are not counted find no visit below.
    figures.execute<RowDataPacket[][]>(
      {
        sql: `SELECT visit_id, ${COMPARED_ATTEMPT_FIGURES.map((n) => ATTEMPT_FIGURES[n].column).join(', ')} FROM attempt_figures
      WHERE household_id = ?${siteId ? ' AND visit_id IN (SELECT id FROM visit WHERE household_id = ? AND site_id = ?)' : ''} ORDER BY visit_id, n`,
        rowsAsArray: true,
      },
      siteId ? [toBin(householdId), toBin(householdId), toBin(siteId)] : [toBin(householdId)],
    ),
  ]);
  const attemptOf = rowMaker(COMPARED_ATTEMPT_FIGURES, ATTEMPT_FIGURES, 1);
  const byVisit = new Map<string, AttemptRow[]>();
  for (const cells of attempts as unknown as Cells[]) {
    const row = attemptOf(cells) as unknown as AttemptRow;
    const key = cells[0].toString('latin1');
    const list = byVisit.get(key);
    if (list) list.push(row);
    else byVisit.set(key, [row]);
  }
  // A household has few networks and sites: each id is written out once.
  const texts = new Map<string, string>();
  const text = (id: Buffer): string => {
    const key = id.toString('latin1');
    const known = texts.get(key) ?? fromBin(id);
    texts.set(key, known);
    return known;
  };
  const visitOf = rowMaker([...COMPARED_FIGURES, 'networkId', 'siteId', 'attempts'], VISIT_FIGURES, 3);
  const none: AttemptRow[] = [];
  return (visits as unknown as [Buffer, Buffer, Buffer, ...Cell[]][]).map((cells) => {
    const row = visitOf(cells) as unknown as VisitRow;
    row.networkId = text(cells[1]);
    row.siteId = text(cells[2]);
    row.attempts = byVisit.get(cells[0].toString('latin1')) ?? none;
    return row;
  });
}
