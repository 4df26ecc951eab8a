import type { RowDataPacket } from 'mysql2/promise';
import { v7 } from 'uuid';
import type { SecurityKind } from '@/core/records/security-kinds';
import { now } from '../clock';
import { fromBin, fromBinOrNull, toBin, toBinOrNull } from '../db/binary-id';
import { pool } from '../db/pool';

/** Ids alone: no address, name or e-mail. */
export type SecurityEntry = { kind: SecurityKind; householdId: string | null; personId: string | null; sessionId?: string | null; reference?: string };

/** Adds a line to the security log. A log that cannot be written is told to the operator and hinders nobody at the door. */
export async function logSecurity(e: SecurityEntry): Promise<void> {
  await pool()
    .execute('INSERT INTO security_log (id, household_id, person_id, session_id, at, kind, reference) VALUES (?, ?, ?, ?, ?, ?, ?)', [
      toBin(v7()),
      toBinOrNull(e.householdId),
      toBinOrNull(e.personId),
      toBinOrNull(e.sessionId),
      new Date(now()),
      e.kind,
      e.reference ?? null,
    ])
    .catch((error) => console.error('the security log could not be written', e.kind, error));
}

export type SecurityLine = {
  id: string;
  at: number;
  kind: SecurityKind;
  personId: string | null;
  person: string | null;
  sessionId: string | null;
  reference: string | null;
};

/** The newest lines of a household's log. */
export async function securityLog(householdId: string, most = 200): Promise<SecurityLine[]> {
  const [rows] = await pool().execute<RowDataPacket[]>(
    `SELECT l.id, l.at, l.kind, l.person_id, l.session_id, l.reference, p.name FROM security_log l
       LEFT JOIN person p ON p.id = l.person_id WHERE l.household_id = ? ORDER BY l.at DESC, l.id DESC LIMIT ${most}`,
    [toBin(householdId)],
  );
  return rows.map((r) => ({
    id: fromBin(r.id),
    at: (r.at as Date).getTime(),
    kind: r.kind,
    personId: fromBinOrNull(r.person_id),
    person: r.name,
    sessionId: fromBinOrNull(r.session_id),
    reference: r.reference,
  }));
}
