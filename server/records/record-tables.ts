import { hash } from 'node:crypto';
import type { PoolConnection, RowDataPacket } from 'mysql2/promise';
import { canonicalJson } from '@/core/records/canonical-json';
import { findWords } from '@/core/records/find-text';
import type { Standing } from '@/core/records/record-change';
import { blankFields, type MileRecord, type RecordItem } from '@/core/records/record-schema';
import type { RecordType } from '@/core/records/record-types';
import { plateKW } from '@/core/records/stall-plate';
import type { ColumnKind } from '@/core/records/types/record-type';
import { RECORD_TYPES, TYPES } from '@/core/records/types/registry';
import { now } from '../clock';
import { fromBin, toBin, toBinOrNull } from '../db/binary-id';
import { pool, type Reader } from '../db/pool';
import type { Writing } from '../outbox/writing';
import { keepRecords, keptRecords } from './kept-records';

const BLANK = Object.fromEntries(RECORD_TYPES.map((type) => [type, blankFields(type)]));
const columnsOf = (type: RecordType) => Object.entries(TYPES[type].columns) as [string, ColumnKind][];
/** `networkId` is kept beside its record as `network_id`. */
const columnName = (field: string): string => field.replace(/[A-Z]/g, (c) => `_${c.toLowerCase()}`);
const jsonOf = (value: unknown): Record<string, unknown> => (typeof value === 'string' ? JSON.parse(value) : (value ?? {})) as Record<string, unknown>;

/** Fields that this version knows and the record was written without are blank. */
const fromRow = (type: RecordType, row: RowDataPacket): MileRecord =>
  ({
    type,
    id: fromBin(row.id),
    rev: Number(row.rev),
    archived: row.archived_at !== null,
    fields: { ...BLANK[type], ...jsonOf(row.fields) },
  }) as MileRecord;

const READ = 'id, rev, archived_at, fields';

/** Records of a household of some types written after `since`. */
export async function recordsSince(
  householdId: string,
  since: number,
  types: readonly RecordType[] = RECORD_TYPES,
  on: Reader = pool(),
): Promise<MileRecord[]> {
  const lists = await Promise.all(
    types.map(async (type) => {
      const [rows] = await on.execute<RowDataPacket[]>(`SELECT ${READ} FROM ${type} WHERE household_id = ? AND rev > ? ORDER BY rev, id`, [
        toBin(householdId),
        since,
      ]);
      return rows.map((r) => fromRow(type, r));
    }),
  );
  return lists.flat();
}

/** What a type's table has of a household after a rev, and in which epoch its ledger is; `null`: there is no such household. */
async function readSince(householdId: string, type: RecordType, since: number): Promise<{ epoch: string; fresh: MileRecord[] } | null> {
  const columns = READ.split(', ').map((name) => `r.${name}`);
  const [rows] = await pool().execute<RowDataPacket[]>(
    `SELECT h.epoch, ${columns.join(', ')} FROM household h LEFT JOIN ${type} r ON r.household_id = h.id AND r.rev > ? WHERE h.id = ? ORDER BY r.rev, r.id`,
    [since, toBin(householdId)],
  );
  const [first] = rows;
  return first ? { epoch: first.epoch ? fromBin(first.epoch) : 'first', fresh: rows.filter((r) => r.id !== null).map((r) => fromRow(type, r)) } : null;
}

/** All records of one type, archived ones too. They are kept in memory, and what was written since is read; nobody may change them, or their list. */
export async function recordsOf<T extends RecordType>(householdId: string, type: T): Promise<readonly MileRecord<T>[]> {
  const read = async (since: number) => {
    const found = await readSince(householdId, type, since);
    return found ? keepRecords(householdId, type, found.epoch, since, found.fresh) : [];
  };
  return ((await read(keptRecords(householdId, type)?.rev ?? -1)) ?? (await read(-1)) ?? []) as readonly MileRecord<T>[];
}

/** The same within a transaction, which sees what it wrote itself. */
export const recordsIn = async <T extends RecordType>(on: Reader, householdId: string, type: T): Promise<MileRecord<T>[]> =>
  (await recordsSince(householdId, -1, [type], on)) as MileRecord<T>[];

/** Records of one type whose column says one of these: stalls of a site, tariffs of a network, or by `id` themselves. */
export async function recordsWhere<T extends RecordType>(
  householdId: string,
  type: T,
  field: 'id' | 'siteId' | 'networkId',
  ids: readonly string[],
  on: Reader = pool(),
): Promise<MileRecord<T>[]> {
  if (ids.length === 0) return [];
  const [rows] = await on.execute<RowDataPacket[]>(
    `SELECT ${READ} FROM ${type} WHERE household_id = ? AND ${columnName(field)} IN (${ids.map(() => '?').join(', ')}) ORDER BY rev, id`,
    [toBin(householdId), ...ids.map(toBin)],
  );
  return rows.map((r) => fromRow(type, r) as MileRecord<T>);
}

/** One record; `null` for an id that is unknown in this household. */
export const readRecord = async <T extends RecordType>(householdId: string, type: T, recordId: string): Promise<MileRecord<T> | null> =>
  (await recordsWhere(householdId, type, 'id', [recordId]))[0] ?? null;

/** A record inside a transaction, held until its end, with the rev in which each of its fields was last changed. */
export async function recordForUpdate(
  c: PoolConnection,
  householdId: string,
  type: RecordType,
  recordId: string,
): Promise<{ record: MileRecord; standing: Standing } | null> {
  const [rows] = await c.execute<RowDataPacket[]>(`SELECT ${READ}, field_revs FROM ${type} WHERE household_id = ? AND id = ? FOR UPDATE`, [
    toBin(householdId),
    toBin(recordId),
  ]);
  const row = rows[0];
  if (!row) return null;
  const record = fromRow(type, row);
  return { record, standing: { archived: record.archived, fields: record.fields, fieldRevs: jsonOf(row.field_revs) as Record<string, number> } };
}

/** As many as the columns of words hold; names are shorter. */
const MOST_FIND_CHARACTERS = 120;
/** The words by which a record is found: of its name, and of what the app calls it. */
export function findable(r: Pick<RecordItem, 'type' | 'fields'>): { name: string; other: string } {
  const { name } = TYPES[r.type] as { name: (fields: never) => string };
  const words = (text: string) => findWords(text).slice(0, MOST_FIND_CHARACTERS);
  return { name: words(name(r.fields as never)), other: words((r.fields as { otherName?: string | null }).otherName ?? '') };
}

/** Gives records written before there were words theirs. */
export async function fillFindWords(): Promise<void> {
  for (const type of RECORD_TYPES) {
    const [rows] = await pool().query<RowDataPacket[]>(`SELECT household_id, ${READ} FROM ${type} WHERE find_words IS NULL`);
    for (const row of rows) {
      const words = findable(fromRow(type, row));
      const own = type === 'stall' ? ', other_words = ?' : '';
      await pool().execute(`UPDATE ${type} SET find_words = ?${own} WHERE household_id = ? AND id = ?`, [
        words.name,
        ...(type === 'stall' ? [words.other] : []),
        row.household_id,
        row.id,
      ]);
    }
  }
}

/** Ids of a household's records beside whose fields stand other values than they give. */
export async function strayColumns(householdId: string): Promise<{ type: RecordType; id: string }[]> {
  const out: { type: RecordType; id: string }[] = [];
  for (const type of RECORD_TYPES) {
    const columns = columnsOf(type);
    const names = columns.map(([field]) => columnName(field));
    const [rows] = await pool().execute<RowDataPacket[]>(`SELECT ${[READ, ...names].join(', ')} FROM ${type} WHERE household_id = ?`, [toBin(householdId)]);
    for (const row of rows) {
      const { id, fields } = fromRow(type, row) as { id: string; fields: Record<string, unknown> };
      const read = (field: string, kind: ColumnKind): unknown => {
        const cell = row[columnName(field)];
        return cell === null ? null : kind === 'id' ? fromBin(cell) : kind === 'number' ? Number(cell) : cell;
      };
      const rounded = (value: unknown) => (typeof value === 'number' ? Number(value.toFixed(5)) : (value ?? null));
      if (columns.some(([field, kind]) => read(field, kind) !== rounded(fields[field]))) out.push({ type, id });
    }
  }
  return out;
}

/** What each record of a household said when it was written, in 32 bytes, by `type id`: with the fields that its version knew, and with those of today. */
export async function writtenHashes(householdId: string): Promise<Map<string, string[]>> {
  const out = new Map<string, string[]>();
  for (const type of RECORD_TYPES) {
    const [rows] = await pool().execute<RowDataPacket[]>(`SELECT ${READ} FROM ${type} WHERE household_id = ?`, [toBin(householdId)]);
    for (const row of rows) {
      const today = fromRow(type, row);
      const then = { ...today, fields: jsonOf(row.fields) } as MileRecord;
      out.set(`${type} ${today.id}`, [then, today].map(recordHash));
    }
  }
  return out;
}

/** What a record says, as SHA-256 in hex. */
export const recordHash = (r: MileRecord): string => hash('sha256', canonicalJson({ type: r.type, id: r.id, archived: r.archived, fields: r.fields }), 'hex');

/**
 * Writes one record in a writing transaction: its fields in one text, and beside it what SQL joins and sorts by.
 * @param changed names of the fields that changed; `null` for a new record
 * @throws the database's error when it refers to something unknown (1452)
 */
export async function writeRecord(w: Writing, r: RecordItem, before: Standing | null, changed: readonly string[] | null): Promise<void> {
  const { c, rev } = w;
  const { householdId } = w.who;
  const fields = r.fields as Record<string, unknown>;
  const columns = columnsOf(r.type);
  const fieldRevs = before && changed ? { ...before.fieldRevs, ...Object.fromEntries(changed.map((name) => [name, rev])) } : { '*': rev };
  const words = findable(r);
  const names = [
    ...columns.map(([field]) => columnName(field)),
    'fields',
    'field_revs',
    'archived_at',
    'find_words',
    ...(r.type === 'stall' ? ['most_kw', 'other_words'] : []),
  ];
  const values = [
    ...columns.map(([field, kind]) =>
      kind === 'id' ? toBinOrNull(fields[field] as string | null) : ((fields[field] as string | number | null | undefined) ?? null),
    ),
    canonicalJson(fields),
    canonicalJson(fieldRevs),
    r.archived ? new Date(now()) : null,
    words.name,
    ...(r.type === 'stall' ? [plateKW(r.fields), words.other] : []),
  ];
  await c.execute(
    `INSERT INTO ${r.type} (household_id, id, rev, ${names.join(', ')}) VALUES (?, ?, ?${', ?'.repeat(names.length)})
     ON DUPLICATE KEY UPDATE rev = VALUES(rev), ${names.map((n) => `${n} = VALUES(${n})`).join(', ')}`,
    [toBin(householdId), toBin(r.id), rev, ...values],
  );
  w.written.push({
    type: r.type,
    id: r.id,
    hash: recordHash({ ...r, rev, archived: r.archived ?? false, fields: { ...BLANK[r.type], ...fields } } as MileRecord),
  });
}
