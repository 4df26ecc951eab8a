import { createHash } from 'node:crypto';
import type { RowDataPacket } from 'mysql2/promise';
import { type LedgerFilter, writeLedgerFilter } from '@/core/compare/ledger-filter';
import type { AttemptRow, VisitRow } from '@/core/compare/visit-row';
import { ATTEMPT_FIGURES, type AttemptFigure } from '@/core/figures/attempt-figures';
import type { Figure } from '@/core/figures/figure';
import { VISIT_KEYS, type VisitKey } from '@/core/figures/groupings';
import { VISIT_FIGURES, type VisitFigure } from '@/core/figures/visit-figures';
import type { Who } from '../accounts/who';
import { fromHex, toBin } from '../db/binary-id';
import type { Database } from '../db/pool';
import { figuresOf, figuresSettled } from '../figures/refresh';
import { householdRev } from '../outbox/household-rev';
import { keepRows, keptRows } from './kept-rows';
import { visitWhere } from './visit-where';

/** A row as the database answers it: ids as hex, yes and no as 1 and 0. */
type Raw = Record<string, string | number | boolean | null>;

/** A column as it is fetched: ids as 32 digits, which the driver reads with less ado than bytes. */
const asked = ({ column, is }: Pick<Figure<never>, 'column' | 'is'>, table: string) => (is === 'id' ? `HEX(${table}.${column})` : `${table}.${column}`);

/** Makes what a figure is of what the database answers for it, in place: the driver has made objects of one shape, and ten thousand stay what they are. */
function mender(names: readonly string[], figures: Readonly<Record<string, Pick<Figure<never>, 'is'>>>, text: (hex: string) => string) {
  const ids = names.filter((name) => figures[name]?.is === 'id');
  const yesNo = names.filter((name) => figures[name]?.is === 'yes_no');
  return (row: Raw) => {
    for (const name of yesNo) row[name] = row[name] === 1;
    for (const name of ids) {
      const id = row[name];
      if (id) row[name] = text(id as string);
    }
  };
}

const KEYS = Object.keys(VISIT_KEYS) as VisitKey[];

/** What a comparison fetches: the figures that its measures and groupings read. */
export type Fetched = { visit: readonly VisitFigure[]; attempt: readonly AttemptFigure[] };

/** What is asked of the database for a comparison. */
type Question = { visits: string; attempts: string; values: (string | number | Buffer)[]; ofAttempts: (string | number | Buffer)[] };

function questionOf(who: Who, currency: string, filter: LedgerFilter, { visit, attempt }: Fetched): Question {
  const where = visitWhere(who, filter, currency);
  // How starts are timed narrows nothing.
  const whole = writeLedgerFilter({ ...filter, time: 'handshake', mark: 'kW' }) === '';
  const householdId = toBin(who.householdId);
  return {
    visits: `SELECT HEX(v.id) AS arose, NULL AS stallId, NULL AS workedAt, NULL AS attempts, CAST(TIMESTAMPDIFF(MICROSECOND, '1970-01-01', v.sort_at) / 1000 AS DOUBLE) AS at
              ${KEYS.map((n) => `, ${asked(VISIT_KEYS[n], 'v')} AS ${n}`).join('')}${visit.map((n) => `, ${asked(VISIT_FIGURES[n], 'f')} AS ${n}`).join('')}
         FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id WHERE ${where.sql} AND v.network_id IS NOT NULL`,
    values: where.values,
    // All attempts in the order they lie in: those of visits that are not counted find no visit.
    attempts: `SELECT HEX(x.visit_id) AS visitId, HEX(x.stall_id) AS stallId${ofAttempts(attempt)
      .map((n) => `, ${asked(ATTEMPT_FIGURES[n], 'x')} AS ${n}`)
      .join('')} FROM attempt_figures x
        WHERE x.household_id = ?${whole ? '' : ` AND x.visit_id IN (SELECT v.id FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id WHERE ${where.sql})`}
        ORDER BY x.visit_id, x.n`,
    ofAttempts: whole ? [householdId] : [householdId, ...where.values],
  };
}
/** The stall is fetched for every question. */
const ofAttempts = (attempt: Fetched['attempt']) => attempt.filter((n) => n !== 'stallId');

/**
 * Every counted visit of a household under a filter, with its attempts and the figures that are asked for. Visits at an unknown network are not
 * compared. The same rows are given until something is written, and nobody may change them.
 */
export async function compareRows(who: Who, currency: string, filter: LedgerFilter, fetched: Fetched): Promise<readonly VisitRow[]> {
  const { householdId } = who;
  const figures = await figuresOf(householdId);
  const question = questionOf(who, currency, filter, fetched);
  const mark = createHash('sha256').update(JSON.stringify(question)).digest('base64');
  const [standing, settled] = await Promise.all([householdRev(householdId), figuresSettled(householdId)]);
  const kept = settled ? keptRows(householdId, mark, standing) : null;
  if (kept) return kept;
  const rows = await readRows(figures, question, fetched);
  return settled ? keepRows(householdId, mark, standing, rows) : rows;
}

async function readRows(on: Database, question: Question, fetched: Fetched): Promise<VisitRow[]> {
  const [[visits], [attempts]] = await Promise.all([
    on.execute<(RowDataPacket & { arose: string })[]>(question.visits, question.values),
    on.execute<(RowDataPacket & { visitId: string; stallId: string | null })[]>(question.attempts, question.ofAttempts),
  ]);
  // A household has few networks, sites and stalls: each id is written out once.
  const texts = new Map<string, string>();
  const text = (hex: string): string => {
    const known = texts.get(hex);
    if (known !== undefined) return known;
    const written = fromHex(hex);
    texts.set(hex, written);
    return written;
  };
  const mendAttempt = mender(ofAttempts(fetched.attempt), ATTEMPT_FIGURES, text);
  const none: AttemptRow[] = [];
  const nowhere: string[] = [];
  const byVisit = new Map<string, { attempts: AttemptRow[]; workedAt: string[] }>();
  for (const raw of attempts) {
    const key = raw.visitId;
    mendAttempt(raw as Raw);
    const row = raw as unknown as AttemptRow;
    row.stallId = raw.stallId && text(raw.stallId);
    const found = byVisit.get(key);
    if (found) found.attempts.push(row);
    else byVisit.set(key, { attempts: [row], workedAt: nowhere });
    if (row.outcome !== 'power' || !row.stallId) continue;
    const here = found ?? (byVisit.get(key) as { workedAt: string[] });
    here.workedAt = [...here.workedAt, row.stallId];
  }
  const mendVisit = mender([...KEYS, ...fetched.visit], { ...VISIT_FIGURES, ...VISIT_KEYS }, text);
  for (const raw of visits) {
    mendVisit(raw as Raw);
    const row = raw as unknown as VisitRow;
    const own = byVisit.get(raw.arose);
    row.attempts = own?.attempts ?? none;
    row.workedAt = own?.workedAt ?? nowhere;
    row.stallId = row.attempts[0]?.stallId ?? null;
  }
  return visits as unknown as VisitRow[];
}
