import { createHash } from 'node:crypto';
import type { PoolConnection, RowDataPacket } from 'mysql2/promise';
import type { RecordType } from '@/core/records/record-types';
import { RECORD_TYPES } from '@/core/records/types/registry';
import { fromBin, toBin } from '../db/binary-id';
import { pool } from '../db/pool';
import { deriveVisits, writeFigures } from '../figures/write-figures';
import { EPOCH_STEP } from '../outbox/household-rev';
import { chainedHash, type Written } from '../outbox/writing';
import { strayColumns, writtenHashes } from '../records/record-tables';
import { contentHash, eventsOfVisits } from '../visits/event-rows';

/** What was looked at, and what differs: nothing is mended. */
export type Checked = { counts: Record<string, number>; differences: string[] };

/** Visits read at a time. */
const PORTION = 200;

/** Holds one household against itself. */
export async function checkHousehold(householdId: string): Promise<Checked> {
  const out: Checked = { counts: {}, differences: [] };
  // What is so damaged that it cannot be read hides nothing of the rest.
  const attempt = (what: string, work: () => Promise<void>) =>
    work().catch((error) => {
      out.differences.push(`${what} cannot be read: ${(error as Error).message}`);
    });
  const listed = new Map<string, string>();
  await attempt('the chain of batches', () => checkChain(householdId, listed, out));
  await attempt('events', () => checkEvents(householdId, listed, out));
  await attempt('records', () => checkRecords(householdId, listed, out));
  await attempt('figures', () => checkFigures(householdId, out));
  await attempt('photos', () => checkPhotos(householdId, out));
  return out;
}

/** Fills in the hash of each item as its last batch wrote it, by type and id. */
async function checkChain(householdId: string, listed: Map<string, string>, out: Checked): Promise<void> {
  const [batches] = await pool().execute<RowDataPacket[]>('SELECT rev, person_id, at, items, hash FROM household_batch WHERE household_id = ? ORDER BY rev', [
    toBin(householdId),
  ]);
  let before: Buffer = Buffer.alloc(0);
  for (const b of batches) {
    const items = String(b.items);
    const hash = chainedHash(before, { rev: Number(b.rev), personId: fromBin(b.person_id), at: (b.at as Date).getTime(), items });
    if (!hash.equals(b.hash)) out.differences.push(`batch ${b.rev}: its hash is not that of its content and of the batches before it`);
    before = b.hash as Buffer;
    for (const [type, id, itemHash] of JSON.parse(items) as [Written['type'], string, string][]) {
      const key = `${type} ${id}`;
      if (type === 'event' && listed.has(key)) out.differences.push(`event ${id}: written by two batches`);
      listed.set(key, itemHash);
    }
  }
  out.counts.batches = batches.length;
  const [rows] = await pool().execute<RowDataPacket[]>('SELECT rev, epoch_rev FROM household WHERE id = ?', [toBin(householdId)]);
  const last = Number(batches.at(-1)?.rev ?? rows[0]?.rev ?? 0);
  const rev = Number(rows[0]?.rev ?? 0);
  const epochRev = Number(rows[0]?.epoch_rev ?? 0);
  if (rev !== last && !(last === epochRev && rev === epochRev + EPOCH_STEP)) out.differences.push(`the household stands at ${rev}, its last batch at ${last}`);
}

async function visitIds(householdId: string): Promise<string[]> {
  const [rows] = await pool().execute<RowDataPacket[]>('SELECT id FROM visit WHERE household_id = ? ORDER BY id', [toBin(householdId)]);
  return rows.map((r) => fromBin(r.id));
}

async function checkEvents(householdId: string, listed: ReadonlyMap<string, string>, out: Checked): Promise<void> {
  const [rows] = await pool().execute<RowDataPacket[]>('SELECT DISTINCT visit_id FROM event WHERE household_id = ? ORDER BY visit_id', [toBin(householdId)]);
  const seen = new Set<string>();
  let unlisted = 0;
  for (let i = 0; i < rows.length; i += PORTION) {
    const ids = rows.slice(i, i + PORTION).map((r) => fromBin(r.visit_id));
    const kept = await storedHashes(householdId, ids);
    for (const events of (await eventsOfVisits(householdId, ids)).values())
      for (const e of events) {
        const hash = contentHash(e);
        const said = listed.get(`event ${e.id}`);
        seen.add(e.id);
        if (hash !== kept.get(e.id)) out.differences.push(`event ${e.id} of visit ${e.visitId}: its content is not what was taken`);
        else if (said === undefined) unlisted += 1;
        else if (said !== hash) out.differences.push(`event ${e.id} of visit ${e.visitId}: its batch wrote something else`);
      }
  }
  for (const key of listed.keys()) if (key.startsWith('event ') && !seen.has(key.slice(6))) out.differences.push(`${key}: written by a batch, and not here`);
  out.counts.events = seen.size;
  if (unlisted > 0) out.counts['events from before the chain'] = unlisted;
}

async function storedHashes(householdId: string, ids: readonly string[]): Promise<Map<string, string>> {
  const [rows] = await pool().execute<RowDataPacket[]>(
    `SELECT id, content_hash FROM event WHERE household_id = ? AND visit_id IN (${ids.map(() => '?').join(', ')})`,
    [toBin(householdId), ...ids.map(toBin)],
  );
  return new Map(rows.map((r) => [fromBin(r.id), (r.content_hash as Buffer).toString('hex')]));
}

async function checkRecords(householdId: string, listed: ReadonlyMap<string, string>, out: Checked): Promise<void> {
  const records = await writtenHashes(householdId);
  for (const [key, hashes] of records) {
    const said = listed.get(key);
    if (said !== undefined && !hashes.includes(said)) out.differences.push(`${key}: does not say what its last batch wrote`);
  }
  for (const key of listed.keys())
    if (RECORD_TYPES.includes(key.split(' ')[0] as RecordType) && !records.has(key)) out.differences.push(`${key}: written by a batch, and not here`);
  for (const { type, id } of await strayColumns(householdId)) out.differences.push(`${type} ${id}: what stands beside its fields is not what they say`);
  out.counts.records = records.size;
}

async function checkFigures(householdId: string, out: Checked): Promise<void> {
  const ids = await visitIds(householdId);
  const c = await pool().getConnection();
  let stale = 0;
  try {
    for (let i = 0; i < ids.length; i += PORTION) {
      // Derived anew inside a transaction that is never kept, and sees nothing of what is written meanwhile.
      await c.query('SET TRANSACTION ISOLATION LEVEL REPEATABLE READ');
      await c.beginTransaction();
      const portion = ids.slice(i, i + PORTION);
      const before = await figureRows(c, householdId, portion);
      for (const id of portion) if (before.get(id)?.stale) stale += 1;
      await writeFigures(c, householdId, await deriveVisits(householdId, portion, c));
      const after = await figureRows(c, householdId, portion);
      await c.rollback();
      for (const id of portion) {
        const [was, is] = [before.get(id), after.get(id)];
        if (!was?.stale && was?.text !== is?.text) out.differences.push(`visit ${id}: its figures are not those that its events give`);
      }
    }
  } finally {
    c.destroy();
  }
  out.counts.visits = ids.length;
  if (stale > 0) out.counts['visits whose figures are out of date'] = stale;
}

async function figureRows(c: PoolConnection, householdId: string, ids: readonly string[]): Promise<Map<string, { stale: boolean; text: string }>> {
  const marks = ids.map(() => '?').join(', ');
  const values = [toBin(householdId), ...ids.map(toBin)];
  const [visits] = await c.query<RowDataPacket[]>(`SELECT * FROM visit WHERE household_id = ? AND id IN (${marks})`, values);
  const [figures] = await c.query<RowDataPacket[]>(`SELECT * FROM visit_figures WHERE household_id = ? AND visit_id IN (${marks})`, values);
  const [attempts] = await c.query<RowDataPacket[]>(
    `SELECT * FROM attempt_figures WHERE household_id = ? AND visit_id IN (${marks}) ORDER BY visit_id, n`,
    values,
  );
  const [tapes] = await c.query<RowDataPacket[]>(`SELECT * FROM visit_tape WHERE household_id = ? AND visit_id IN (${marks})`, values);
  const [power] = await c.query<RowDataPacket[]>(`SELECT * FROM session_power WHERE household_id = ? AND visit_id IN (${marks}) ORDER BY visit_id, n`, values);
  const out = new Map<string, { stale: boolean; text: string }>();
  for (const v of visits) {
    const of = (rows: RowDataPacket[]) => rows.filter((r) => (r.visit_id as Buffer).equals(v.id));
    out.set(fromBin(v.id), { stale: v.stale === 1, text: JSON.stringify([v, of(figures), of(attempts), of(tapes), of(power)]) });
  }
  return out;
}

async function checkPhotos(householdId: string, out: Checked): Promise<void> {
  const [photos] = await pool().execute<RowDataPacket[]>('SELECT sha256, bytes, stored_sha256 FROM photo WHERE household_id = ? ORDER BY sha256', [
    toBin(householdId),
  ]);
  for (const p of photos) {
    const [chunks] = await pool().execute<RowDataPacket[]>('SELECT bytes FROM photo_chunk WHERE household_id = ? AND sha256 = ? ORDER BY n', [
      toBin(householdId),
      p.sha256,
    ]);
    const bytes = Buffer.concat(chunks.map((x) => x.bytes as Buffer));
    const name = (p.sha256 as Buffer).toString('hex');
    if (bytes.length !== Number(p.bytes)) out.differences.push(`photo ${name}: ${bytes.length} bytes of ${p.bytes}`);
    else if (p.stored_sha256 && !createHash('sha256').update(bytes).digest().equals(p.stored_sha256))
      out.differences.push(`photo ${name}: its bytes are not those that were kept`);
  }
  out.counts.photos = photos.length;
}

/** Rows of the whole database that refer to something that is not there, by the database's own rules and by those of the record. */
export async function checkReferences(): Promise<string[]> {
  const [uses] = await pool().query<RowDataPacket[]>(
    `SELECT CONSTRAINT_NAME AS name, TABLE_NAME AS t, COLUMN_NAME AS c, REFERENCED_TABLE_NAME AS rt, REFERENCED_COLUMN_NAME AS rc
       FROM information_schema.KEY_COLUMN_USAGE WHERE TABLE_SCHEMA = DATABASE() AND REFERENCED_TABLE_NAME IS NOT NULL ORDER BY name, ORDINAL_POSITION`,
  );
  type Rule = { table: string; to: string; pairs: [string, string][] };
  const rules = new Map<string, Rule>();
  for (const u of uses) {
    const rule: Rule = rules.get(u.name) ?? { table: u.t, to: u.rt, pairs: [] };
    rule.pairs.push([u.c, u.rc]);
    rules.set(u.name, rule);
  }
  const of = (table: string, to: string, pairs: [string, string][]) => ({ table, to, pairs });
  const all = [
    ...rules.values(),
    of('event', 'visit', [
      ['household_id', 'household_id'],
      ['visit_id', 'id'],
    ]),
    of('visit', 'event', [
      ['household_id', 'household_id'],
      ['id', 'visit_id'],
    ]),
    of('visit_figures', 'visit', [
      ['household_id', 'household_id'],
      ['visit_id', 'id'],
    ]),
    of('attempt_figures', 'visit', [
      ['household_id', 'household_id'],
      ['visit_id', 'id'],
    ]),
    of('session_power', 'visit', [
      ['household_id', 'household_id'],
      ['visit_id', 'id'],
    ]),
    of('stall_danger', 'visit', [
      ['household_id', 'household_id'],
      ['visit_id', 'id'],
    ]),
    of('visit_tape', 'visit', [
      ['household_id', 'household_id'],
      ['visit_id', 'id'],
    ]),
    of('visit', 'household', [['household_id', 'id']]),
  ];
  const out: string[] = [];
  for (const { table, to, pairs } of all) {
    const [rows] = await pool().query<RowDataPacket[]>(
      `SELECT COUNT(*) AS n FROM \`${table}\` a WHERE ${pairs.map(([c]) => `a.\`${c}\` IS NOT NULL`).join(' AND ')}
         AND NOT EXISTS (SELECT 1 FROM \`${to}\` b WHERE ${pairs.map(([c, rc]) => `b.\`${rc}\` = a.\`${c}\``).join(' AND ')})`,
    );
    if (Number(rows[0]?.n) > 0) out.push(`${rows[0]?.n} rows of ${table} refer to a ${to} that is not there`);
  }
  return out;
}
