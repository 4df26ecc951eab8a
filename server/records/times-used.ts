import type { RowDataPacket } from 'mysql2/promise';
import type { RecordType } from '@/core/records/record-types';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';

const BY_VISIT = (column: string) =>
  `SELECT v.${column} AS id, COUNT(*) AS n FROM visit v WHERE v.household_id = ? AND v.withdrawn = FALSE AND v.${column} IS NOT NULL GROUP BY v.${column}`;
const BY_ATTEMPT = (column: string) =>
  `SELECT a.${column} AS id, COUNT(DISTINCT a.visit_id) AS n FROM visit v JOIN attempt_figures a ON a.household_id = v.household_id AND a.visit_id = v.id
    WHERE v.household_id = ? AND v.withdrawn = FALSE AND a.${column} IS NOT NULL GROUP BY a.${column}`;

/** In how many visits a thing was used, for each type that visits can use. */
const USED: Partial<Record<RecordType, string>> = {
  network: BY_VISIT('network_id'),
  site: BY_VISIT('site_id'),
  car: BY_VISIT('car_id'),
  stall: BY_ATTEMPT('stall_id'),
  adapter: BY_ATTEMPT('adapter_id'),
  means: BY_ATTEMPT('means_id'),
  provider: `SELECT m.provider_id AS id, COUNT(DISTINCT a.visit_id) AS n FROM means m JOIN attempt_figures a ON a.household_id = m.household_id AND a.means_id = m.id
      JOIN visit v ON v.household_id = a.household_id AND v.id = a.visit_id
    WHERE m.household_id = ? AND v.withdrawn = FALSE AND m.provider_id IS NOT NULL GROUP BY m.provider_id`,
  enrolment: `SELECT e.id, COUNT(DISTINCT a.visit_id) AS n FROM enrolment e
      JOIN visit v ON v.household_id = e.household_id AND v.network_id = e.network_id AND v.car_id = e.car_id
      JOIN attempt_figures a ON a.household_id = v.household_id AND a.visit_id = v.id AND a.means_kind = e.kind
    WHERE e.household_id = ? AND v.withdrawn = FALSE GROUP BY e.id`,
  plan: `SELECT p.id, COUNT(*) AS n FROM plan p JOIN visit v ON v.household_id = p.household_id AND v.network_id = p.network_id
      AND v.local_month >= LEFT(JSON_VALUE(p.fields, '$.from'), 7) AND v.local_month <= LEFT(COALESCE(JSON_VALUE(p.fields, '$.until'), '9999-12'), 7)
    WHERE p.household_id = ? AND v.withdrawn = FALSE GROUP BY p.id`,
};

/** Visits that used each record of a type, by its id; one that no visit used is missing. */
export async function timesUsed(householdId: string, type: RecordType): Promise<Map<string, number>> {
  const sql = USED[type];
  if (!sql) return new Map();
  const [rows] = await (await figuresOf(householdId)).execute<RowDataPacket[]>(sql, [toBin(householdId)]);
  return new Map(rows.map((r) => [fromBin(r.id), Number(r.n)]));
}
