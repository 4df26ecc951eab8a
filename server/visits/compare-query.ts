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
type Cells = readonly [Buffer, ...(Cell | Buffer | Date)[]];

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

/** What stands beside the figures of a row. */
const BESIDE = ['networkId', 'siteId', 'stallId', 'workedAt', 'driverId', 'at', 'month', 'attempts'] as const satisfies (keyof VisitRow)[];

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
        sql: `SELECT v.id, v.network_id, v.site_id, v.driver_id, v.local_month, v.sort_at, ${COMPARED_FIGURES.map((n) => `f.${VISIT_FIGURES[n].column}`).join(', ')}
       FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id WHERE ${where.sql} AND v.network_id IS NOT NULL`,
        rowsAsArray: true,
      },
      where.values,
    ),
    // All attempts in the order they lie in: those of visits that are not counted find no visit below.
    figures.execute<RowDataPacket[][]>(
      {
        sql: `SELECT visit_id, stall_id, ${COMPARED_ATTEMPT_FIGURES.map((n) => ATTEMPT_FIGURES[n].column).join(', ')} FROM attempt_figures
      WHERE household_id = ?${siteId ? ' AND visit_id IN (SELECT id FROM visit WHERE household_id = ? AND site_id = ?)' : ''} ORDER BY visit_id, n`,
        rowsAsArray: true,
      },
      siteId ? [toBin(householdId), toBin(householdId), toBin(siteId)] : [toBin(householdId)],
    ),
  ]);
  // A household has few networks, sites and stalls: each id is written out once.
  const texts = new Map<string, string>();
  const text = (id: Buffer): string => {
    const key = id.toString('latin1');
    const known = texts.get(key) ?? fromBin(id);
    texts.set(key, known);
    return known;
  };
  const attemptOf = rowMaker(COMPARED_ATTEMPT_FIGURES, ATTEMPT_FIGURES, 2);
  const byVisit = new Map<string, AttemptRow[]>();
  const stallOf = new Map<string, Buffer | null>();
  const workedAt = new Map<string, string[]>();
  for (const cells of attempts as unknown as Cells[]) {
    const row = attemptOf(cells) as unknown as AttemptRow;
    const key = cells[0].toString('latin1');
    if (row.outcome === 'power' && cells[1]) workedAt.set(key, [...(workedAt.get(key) ?? []), text(cells[1] as Buffer)]);
    const list = byVisit.get(key);
    if (list) list.push(row);
    else {
      byVisit.set(key, [row]);
      stallOf.set(key, cells[1] as Buffer | null);
    }
  }
  const visitOf = rowMaker([...COMPARED_FIGURES, ...BESIDE], VISIT_FIGURES, 6);
  const none: AttemptRow[] = [];
  const nowhere: string[] = [];
  return (visits as unknown as [Buffer, Buffer, Buffer, Buffer | null, string, Date, ...Cell[]][]).map((cells) => {
    const row = visitOf(cells) as unknown as VisitRow;
    row.networkId = text(cells[1]);
    row.siteId = text(cells[2]);
    row.driverId = cells[3] && text(cells[3]);
    row.month = cells[4];
    row.at = cells[5].getTime();
    const key = cells[0].toString('latin1');
    const stall = stallOf.get(key);
    row.stallId = stall ? text(stall) : null;
    row.workedAt = workedAt.get(key) ?? nowhere;
    row.attempts = byVisit.get(key) ?? none;
    return row;
  });
}
