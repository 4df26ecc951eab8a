import type { RowDataPacket } from 'mysql2/promise';
import type { Member } from '../accounts/who';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { seen, seenBy } from '../visits/seen-by';

/** An import of a spreadsheet or of a network's CDRs, by what it wrote. `from`, `to`: of what it tells, UTC ms; `standing`: visits of it that are not withdrawn; `bills`: those that stand. */
export type ImportMade = {
  id: string;
  kind: 'sheet' | 'cdrs';
  at: number;
  by: string;
  visits: number;
  standing: number;
  bills: number;
  from: number;
  to: number;
};

const takesBack = (w: string, e: string): string =>
  `${w}.household_id = ${e}.household_id AND ${w}.visit_id = ${e}.visit_id AND ${w}.kind = 'withdrawal' AND REPLACE(JSON_VALUE(${w}.payload, '$.target'), '-', '') = LOWER(HEX(${e}.id))`;
/** Condition on an event: it was taken back, and that was not taken back itself. */
const TAKEN_BACK = `EXISTS (SELECT 1 FROM event w FORCE INDEX (event_visit) WHERE ${takesBack('w', 'e')} AND NOT EXISTS (SELECT 1 FROM event u FORCE INDEX (event_visit) WHERE ${takesBack('u', 'w')}))`;

/** More nobody looks through; the newest stand. */
const MOST = 100;

/**
 * What was brought in, newest first, as far as this person sees it: found by the record alone, whatever became of the file. An import writes as a device of its own, and a copy in
 * a recording that another was joined into is no work of it. `more`: older ones are not among them.
 */
export async function importsMade(who: Member): Promise<{ imports: ImportMade[]; more: boolean }> {
  const [rows] = await (await figuresOf(who.householdId)).execute<RowDataPacket[]>(
    `SELECT e.device_id, MIN(e.received_at) AS came, MIN(p.name) AS name, SUM(e.kind = 'pulled_in') AS visits,
            SUM(e.kind = 'pulled_in' AND v.withdrawn = FALSE) AS standing, SUM(e.kind = 'bill' AND NOT ${TAKEN_BACK}) AS bills, MIN(e.at) AS first_at, MAX(e.at) AS last_at,
            SUM(JSON_VALUE(e.payload, '$.cdr.start') IS NOT NULL) AS cdrs
       FROM event e JOIN visit v ON v.household_id = e.household_id AND v.id = e.visit_id JOIN person p ON p.id = e.person_id
      WHERE e.household_id = ? AND e.origin = 'imported' AND ${seen()} AND JSON_VALUE(e.payload, '$.joinedFrom') IS NULL
        AND ((e.kind = 'pulled_in' AND JSON_VALUE(e.payload, '$.sheet.import') IS NOT NULL) OR (e.kind = 'bill' AND JSON_VALUE(e.payload, '$.import') IS NOT NULL))
      GROUP BY e.device_id ORDER BY came DESC, e.device_id LIMIT ${MOST + 1}`,
    [toBin(who.householdId), seenBy(who.personId)],
  );
  const imports = rows.slice(0, MOST).map(
    (r): ImportMade => ({
      id: fromBin(r.device_id),
      kind: Number(r.cdrs) > 0 ? 'cdrs' : 'sheet',
      at: (r.came as Date).getTime(),
      by: r.name as string,
      visits: Number(r.visits),
      standing: Number(r.standing),
      bills: Number(r.bills),
      from: (r.first_at as Date).getTime(),
      to: (r.last_at as Date).getTime(),
    }),
  );
  return { imports, more: rows.length > MOST };
}
