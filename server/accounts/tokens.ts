import { createHash, randomBytes } from 'node:crypto';
import type { RowDataPacket } from 'mysql2/promise';
import { v7 } from 'uuid';
import type { MemberRole } from '@/core/records/roles';
import { MOST_TOKENS, type tokenForm } from '@/core/records/token-form';
import type * as z from '@/core/units/schema';
import { now } from '../clock';
import { fromBin, toBin } from '../db/binary-id';
import { inTransaction, pool } from '../db/pool';
import { householdsOf } from './members';
import { logSecurity } from './security-log';

/** A token begins so: who finds one knows what it is. */
const BEGINS = 'mile_';
/** How often a token's last use is written down. */
const USED_EVERY_MS = 60_000;
const hashOf = (token: string) => createHash('sha256').update(token).digest();

/** A token as its person sees it. */
export type TokenRow = { id: string; name: string; write: boolean; madeAt: number; lastUsedAt: number | null; households: string[] };
/** A household that a token opens, and what its person may do there today. */
export type OpenHousehold = { householdId: string; role: MemberRole; name: string; currency: string; zone: string };
export type TokenOf = { tokenId: string; personId: string; name: string; write: boolean; households: OpenHousehold[] };

/** Makes a token. @returns it, for the only time it is told, or why not */
export async function makeToken(personId: string, form: z.infer<typeof tokenForm>): Promise<{ token: string } | { reason: string }> {
  const mine = new Set((await householdsOf(personId)).map((h) => h.householdId));
  const households = [...new Set(form.households)];
  if (households.some((h) => !mine.has(h))) return { reason: 'There is no such household of yours.' };
  const token = BEGINS + randomBytes(32).toString('base64url');
  const id = v7();
  const full = await inTransaction(async (c) => {
    // Who makes two at once waits for the other.
    await c.execute('SELECT id FROM person WHERE id = ? FOR UPDATE', [toBin(personId)]);
    const [rows] = await c.execute<RowDataPacket[]>('SELECT COUNT(*) AS n FROM api_token WHERE person_id = ? AND ended_at IS NULL', [toBin(personId)]);
    if (Number(rows[0]?.n) >= MOST_TOKENS) return true;
    await c.execute('INSERT INTO api_token (id, person_id, name, token_hash, may_write, made_at) VALUES (?, ?, ?, ?, ?, ?)', [
      toBin(id),
      toBin(personId),
      form.name,
      hashOf(token),
      form.write,
      new Date(now()),
    ]);
    for (const h of households) await c.execute('INSERT INTO api_token_household (token_id, household_id) VALUES (?, ?)', [toBin(id), toBin(h)]);
    return false;
  });
  if (full) return { reason: `You have ${MOST_TOKENS} tokens: end one first.` };
  for (const householdId of households) await logSecurity({ kind: 'token_made', householdId, personId });
  return { token };
}

/** A person's tokens that open something still, the newest first. */
export async function tokensOf(personId: string): Promise<TokenRow[]> {
  const [rows] = await pool().execute<RowDataPacket[]>(
    `SELECT t.id, t.name, t.may_write, t.made_at, t.last_used_at, h.name AS household
       FROM api_token t LEFT JOIN api_token_household th ON th.token_id = t.id LEFT JOIN household h ON h.id = th.household_id
      WHERE t.person_id = ? AND t.ended_at IS NULL ORDER BY t.made_at DESC, t.id, h.name`,
    [toBin(personId)],
  );
  const out = new Map<string, TokenRow>();
  for (const r of rows) {
    const id = fromBin(r.id);
    const row: TokenRow = out.get(id) ?? {
      id,
      name: r.name,
      write: r.may_write === 1,
      madeAt: (r.made_at as Date).getTime(),
      lastUsedAt: r.last_used_at ? (r.last_used_at as Date).getTime() : null,
      households: [],
    };
    if (r.household) row.households.push(r.household);
    out.set(id, row);
  }
  return [...out.values()];
}

/** Ends a token of this person's: from now on it opens nothing. One that is over, or somebody else's, stays as it is. */
export async function endToken(personId: string, tokenId: string): Promise<void> {
  const [rows] = await pool().execute<RowDataPacket[]>('SELECT household_id FROM api_token_household WHERE token_id = ?', [toBin(tokenId)]);
  const [done] = await pool().execute('UPDATE api_token SET ended_at = ? WHERE id = ? AND person_id = ? AND ended_at IS NULL', [
    new Date(now()),
    toBin(tokenId),
    toBin(personId),
  ]);
  if ((done as { affectedRows: number }).affectedRows === 0) return;
  for (const r of rows) await logSecurity({ kind: 'token_ended', householdId: fromBin(r.household_id), personId });
}

/** Ends every token of a person. */
export const endTokens = (personId: string) =>
  pool().execute('UPDATE api_token SET ended_at = ? WHERE person_id = ? AND ended_at IS NULL', [new Date(now()), toBin(personId)]);

/** Whose a token is and what it opens today: its person's households as far as they still belong to them. `null` for one that is unknown or ended. */
export async function tokenOf(token: string): Promise<TokenOf | null> {
  if (!token.startsWith(BEGINS) || token.length > 100) return null;
  const [rows] = await pool().execute<RowDataPacket[]>(
    `SELECT t.id, t.person_id, t.name, t.may_write, t.last_used_at, h.id AS household_id, h.name AS household, h.currency, h.zone, m.role
       FROM api_token t
       LEFT JOIN api_token_household th ON th.token_id = t.id
       LEFT JOIN member m ON m.household_id = th.household_id AND m.person_id = t.person_id AND m.left_at IS NULL
       LEFT JOIN household h ON h.id = m.household_id
      WHERE t.token_hash = ? AND t.ended_at IS NULL ORDER BY h.name, h.id`,
    [hashOf(token)],
  );
  const first = rows[0];
  if (!first) return null;
  if (now() - ((first.last_used_at as Date | null)?.getTime() ?? 0) > USED_EVERY_MS)
    await pool().execute('UPDATE api_token SET last_used_at = ? WHERE id = ?', [new Date(now()), first.id]);
  return {
    tokenId: fromBin(first.id),
    personId: fromBin(first.person_id),
    name: first.name,
    write: first.may_write === 1,
    households: rows
      .filter((r) => r.household_id)
      .map((r) => ({ householdId: fromBin(r.household_id), role: r.role, name: r.household, currency: r.currency, zone: r.zone })),
  };
}
