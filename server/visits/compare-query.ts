import type { RowDataPacket } from 'mysql2/promise';
import { type LedgerFilter, writeLedgerFilter } from '@/core/compare/ledger-filter';
import type { AttemptRow, VisitRow } from '@/core/compare/visit-row';
import { ATTEMPT_FIGURES, type AttemptFigure } from '@/core/figures/attempt-figures';
import type { Figure } from '@/core/figures/figure';
import { VISIT_FIGURES, type VisitFigure } from '@/core/figures/visit-figures';
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
const BESIDE = ['arose', 'networkId', 'siteId', 'stallId', 'workedAt', 'driverId', 'carId', 'at', 'month', 'attempts'] as const satisfies (keyof VisitRow)[];

/** What a comparison fetches: the figures that its measures and groupings read. */
export type Fetched = { visit: readonly VisitFigure[]; attempt: readonly AttemptFigure[] };

/**
 * Every counted visit of a household under a filter, with its attempts and the figures that are asked for. Visits at an unknown network are not
 * compared.
 */
export async function compareRows(who: Who, currency: string, filter: LedgerFilter, fetched: Fetched): Promise<VisitRow[]> {
  const { householdId } = who;
  const figures = await figuresOf(householdId);
  const where = visitWhere(who, filter, currency);
  // How starts are timed narrows nothing.
  const whole = writeLedgerFilter({ ...filter, time: 'handshake', mark: 'kW' }) === '';
  const ofVisit = fetched.visit;
  const ofAttempt = fetched.attempt.filter((n) => n !== 'stallId');
  const [[visits], [attempts]] = await Promise.all([
    figures.execute<RowDataPacket[][]>(
      {
        sql: `SELECT v.id, v.network_id, v.site_id, v.driver_id, v.car_id, v.local_month, v.sort_at${ofVisit.map((n) => `, f.${VISIT_FIGURES[n].column}`).join('')}
       FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id WHERE ${where.sql} AND v.network_id IS NOT NULL`,
        rowsAsArray: true,
      },
      where.values,
    ),
    // All attempts in the order they lie in: those of visits that are not counted find no visit below.
    figures.execute<RowDataPacket[][]>(
      {
        sql: `SELECT x.visit_id, x.stall_id${ofAttempt.map((n) => `, x.${ATTEMPT_FIGURES[n].column}`).join('')} FROM attempt_figures x
      WHERE x.household_id = ?${whole ? '' : ` AND x.visit_id IN (SELECT v.id FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id WHERE ${where.sql})`}
      ORDER BY x.visit_id, x.n`,
        rowsAsArray: true,
      },
      whole ? [toBin(householdId)] : [toBin(householdId), ...where.values],
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
  const attemptOf = rowMaker([...ofAttempt, 'stallId'], ATTEMPT_FIGURES, 2);
  // Ids among the figures of an attempt, such as its adapter's, are written out.
  const ids = ofAttempt.flatMap((n, i) => (ATTEMPT_FIGURES[n].is === 'id' ? [[n, i + 2] as const] : []));
  const byVisit = new Map<string, AttemptRow[]>();
  const stallOf = new Map<string, string | null>();
  const workedAt = new Map<string, string[]>();
  for (const cells of attempts as unknown as Cells[]) {
    const row = attemptOf(cells) as unknown as AttemptRow;
    row.stallId = cells[1] ? text(cells[1] as Buffer) : null;
    for (const [name, at] of ids) (row as unknown as Record<string, string | null>)[name] = cells[at] ? text(cells[at] as Buffer) : null;
    const key = cells[0].toString('latin1');
    if (row.outcome === 'power' && row.stallId) workedAt.set(key, [...(workedAt.get(key) ?? []), row.stallId]);
    const list = byVisit.get(key);
    if (list) list.push(row);
    else {
      byVisit.set(key, [row]);
      stallOf.set(key, row.stallId);
    }
  }
  const visitOf = rowMaker([...ofVisit, ...BESIDE], VISIT_FIGURES, 7);
  const none: AttemptRow[] = [];
  const nowhere: string[] = [];
  return (visits as unknown as [Buffer, Buffer, Buffer, Buffer | null, Buffer | null, string, Date, ...Cell[]][]).map((cells) => {
    const row = visitOf(cells) as unknown as VisitRow;
    row.networkId = text(cells[1]);
    row.siteId = text(cells[2]);
    row.driverId = cells[3] && text(cells[3]);
    row.carId = cells[4] && text(cells[4]);
    row.month = cells[5];
    row.at = cells[6].getTime();
    const key = cells[0].toString('latin1');
    row.stallId = stallOf.get(key) ?? null;
    row.workedAt = workedAt.get(key) ?? nowhere;
    row.attempts = byVisit.get(key) ?? none;
    row.arose = key;
    return row;
  });
}
