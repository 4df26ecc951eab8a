import { createHash } from 'node:crypto';
import type { PoolConnection, RowDataPacket } from 'mysql2/promise';
import { canonicalJson } from '@/core/records/canonical-json';
import { blankFields, type MileRecord, RECORD_TYPES, type RecordFields, type RecordItem, type RecordType } from '@/core/records/record-schema';
import { plateKW } from '@/core/records/stall-plate';
import { now } from '../clock';
import { fromBin, toBin } from '../db/binary-id';
import { pool } from '../db/pool';
import type { Writing } from '../outbox/writing';

type Column = { column: string; write: (value: never) => unknown; read: (value: never) => unknown };
const plain = (column: string): Column => ({ column, write: (v) => v, read: (v) => v });
const id = (column: string): Column => ({
  column,
  write: (v: string | null) => (v === null ? null : toBin(v)),
  read: (v: Buffer | null) => (v === null ? null : fromBin(v)),
});
const numeric = (column: string): Column => ({ column, write: (v) => v, read: (v: string | null) => (v === null ? null : Number(v)) });
/** Decimal string without the zeros that the column's scale adds. */
const money = (column: string): Column => ({ column, write: (v) => v, read: (v: string) => v.replace(/(\.\d*?)0+$/, '$1').replace(/\.$/, '') });
const day = (column: string): Column => ({ column, write: (v) => v, read: (v: Date | string) => (typeof v === 'string' ? v : v.toISOString().slice(0, 10)) });

/** Which fields have a column of their own: what SQL joins, sorts and refers to. All others are in `details`. */
const COLUMNS: { [T in RecordType]: Partial<Record<keyof RecordFields<T>, Column>> } = {
  network: { name: plain('name') },
  provider: { name: plain('name') },
  site: { networkId: id('network_id'), name: plain('name'), zone: plain('zone'), latitude: numeric('latitude'), longitude: numeric('longitude') },
  stall: { siteId: id('site_id'), name: plain('name') },
  car: { name: plain('name') },
  adapter: { name: plain('name') },
  means: { kind: plain('kind'), label: plain('label'), providerId: id('provider_id'), networkId: id('network_id') },
  plan: { name: plain('name'), providerId: id('provider_id'), networkId: id('network_id') },
  enrolment: { kind: plain('kind'), carId: id('car_id'), networkId: id('network_id'), providerId: id('provider_id') },
  tariff: { networkId: id('network_id'), currency: plain('currency'), perKWh: money('per_kwh'), startFee: money('start_fee'), validFrom: day('valid_from') },
};
/** Types all of whose fields are columns. */
const WITHOUT_DETAILS = new Set<RecordType>(['tariff']);
const columnsOf = (type: RecordType) => Object.entries(COLUMNS[type]) as [string, Column][];
const BLANK = Object.fromEntries(RECORD_TYPES.map((type) => [type, blankFields(type)]));

function fromRow(type: RecordType, row: RowDataPacket): MileRecord {
  const details = typeof row.details === 'string' ? JSON.parse(row.details) : (row.details ?? {});
  const columns = Object.fromEntries(columnsOf(type).map(([field, c]) => [field, c.read(row[c.column] as never)]));
  return {
    type,
    id: fromBin(row.id),
    rev: Number(row.rev),
    archived: row.archived_at !== null,
    fields: { ...BLANK[type], ...details, ...columns },
  } as MileRecord;
}

/** Records of a household of some types written after `since`, in the order in which one may refer to another. */
export async function recordsSince(householdId: string, since: number, types: readonly RecordType[] = RECORD_TYPES): Promise<MileRecord[]> {
  const lists = await Promise.all(
    types.map(async (type) => {
      const [rows] = await pool().execute<RowDataPacket[]>(`SELECT * FROM ${type} WHERE household_id = ? AND rev > ? ORDER BY rev, id`, [
        toBin(householdId),
        since,
      ]);
      return rows.map((r) => fromRow(type, r));
    }),
  );
  return lists.flat();
}

/** All records of one type, archived ones too. */
export const recordsOf = async <T extends RecordType>(householdId: string, type: T): Promise<MileRecord<T>[]> =>
  (await recordsSince(householdId, -1, [type])) as MileRecord<T>[];

/** The stalls of one site, archived ones too. */
export async function stallsOfSite(householdId: string, siteId: string): Promise<MileRecord<'stall'>[]> {
  const [rows] = await pool().execute<RowDataPacket[]>('SELECT * FROM stall WHERE household_id = ? AND site_id = ?', [toBin(householdId), toBin(siteId)]);
  return rows.map((r) => fromRow('stall', r) as MileRecord<'stall'>);
}

/** One record; `null` for an id that is unknown in this household. */
export async function readRecord<T extends RecordType>(householdId: string, type: T, recordId: string): Promise<MileRecord<T> | null> {
  const [rows] = await pool().execute<RowDataPacket[]>(`SELECT * FROM ${type} WHERE household_id = ? AND id = ?`, [toBin(householdId), toBin(recordId)]);
  return rows[0] ? (fromRow(type, rows[0]) as MileRecord<T>) : null;
}

/** The same inside a transaction, held until its end. */
export async function recordForUpdate(c: PoolConnection, householdId: string, type: RecordType, recordId: string): Promise<MileRecord | null> {
  const [rows] = await c.execute<RowDataPacket[]>(`SELECT * FROM ${type} WHERE household_id = ? AND id = ? FOR UPDATE`, [toBin(householdId), toBin(recordId)]);
  return rows[0] ? fromRow(type, rows[0]) : null;
}

/** What a record says, as it stands in its row, in 32 bytes. */
export const recordHash = (r: MileRecord): Buffer =>
  createHash('sha256')
    .update(canonicalJson({ type: r.type, id: r.id, archived: r.archived, fields: r.fields }))
    .digest();

/** Writes one record in a writing transaction. @throws the database's error when it refers to something unknown (1452) */
export async function writeRecord(w: Writing, r: RecordItem): Promise<void> {
  const { c, rev } = w;
  const { householdId } = w.who;
  const columns = columnsOf(r.type);
  const names = columns.map(([, col]) => col.column);
  const values = columns.map(([field, col]) => col.write((r.fields as Record<string, unknown>)[field] as never) ?? null);
  if (!WITHOUT_DETAILS.has(r.type)) {
    const own = new Set(columns.map(([field]) => field));
    names.push('details');
    values.push(JSON.stringify(Object.fromEntries(Object.entries(r.fields).filter(([field]) => !own.has(field)))));
  }
  if (r.type === 'stall') {
    names.push('most_kw');
    values.push(plateKW(r.fields));
  }
  names.push('archived_at');
  values.push(r.archived ? new Date(now()) : null);
  await c.execute(
    `INSERT INTO ${r.type} (household_id, id, rev, ${names.join(', ')}) VALUES (?, ?, ?${', ?'.repeat(names.length)})
     ON DUPLICATE KEY UPDATE rev = VALUES(rev), ${names.map((n) => `${n} = VALUES(${n})`).join(', ')}`,
    [toBin(householdId), toBin(r.id), rev, ...(values as (string | number | Buffer | Date | null)[])],
  );
  const stands = await recordForUpdate(c, householdId, r.type, r.id);
  if (stands) w.written.push({ type: r.type, id: r.id, hash: recordHash(stands) });
}
