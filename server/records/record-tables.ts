import type { PoolConnection, RowDataPacket } from 'mysql2/promise';
import type { MileRecord, RecordFields, RecordItem, RecordType } from '@/core/records/record-schema';
import { fromBin, toBin } from '../db/binary-id';
import { pool } from '../db/pool';

type Column = { column: string; write: (value: never) => unknown; read: (value: never) => unknown };
const plain = (column: string): Column => ({ column, write: (v) => v, read: (v) => v });
const id = (column: string): Column => ({ column, write: (v: string) => toBin(v), read: (v: Buffer) => fromBin(v) });
const numeric = (column: string): Column => ({ column, write: (v) => v, read: (v: string | null) => (v === null ? null : Number(v)) });
/** Decimal string without the zeros that the column's scale adds. */
const money = (column: string): Column => ({ column, write: (v) => v, read: (v: string) => v.replace(/(\.\d*?)0+$/, '$1').replace(/\.$/, '') });
const day = (column: string): Column => ({ column, write: (v) => v, read: (v: Date | string) => (typeof v === 'string' ? v : v.toISOString().slice(0, 10)) });

/** Which column holds which field. */
const COLUMNS: { [T in RecordType]: Record<keyof RecordFields<T>, Column> } = {
  network: { name: plain('name') },
  site: { networkId: id('network_id'), name: plain('name'), zone: plain('zone'), latitude: numeric('latitude'), longitude: numeric('longitude') },
  stall: { siteId: id('site_id'), name: plain('name'), connector: plain('connector'), ratedKW: numeric('rated_kw') },
  car: { name: plain('name'), usableKWh: numeric('usable_kwh'), connector: plain('connector') },
  means: { kind: plain('kind'), label: plain('label') },
  tariff: { networkId: id('network_id'), currency: plain('currency'), perKWh: money('per_kwh'), startFee: money('start_fee'), validFrom: day('valid_from') },
};
const columnsOf = (type: RecordType) => Object.entries(COLUMNS[type]) as [string, Column][];

function fromRow(type: RecordType, row: RowDataPacket): MileRecord {
  const fields = Object.fromEntries(columnsOf(type).map(([field, c]) => [field, c.read(row[c.column] as never)]));
  return { type, id: fromBin(row.id), rev: Number(row.rev), archived: row.archived_at !== null, fields } as MileRecord;
}

/** Records of a household written after `since`, of every type, in the order in which one may refer to another. */
export async function recordsSince(householdId: string, since: number): Promise<MileRecord[]> {
  const lists = await Promise.all(
    (Object.keys(COLUMNS) as RecordType[]).map(async (type) => {
      const [rows] = await pool().execute<RowDataPacket[]>(`SELECT * FROM ${type} WHERE household_id = ? AND rev > ? ORDER BY rev, id`, [
        toBin(householdId),
        since,
      ]);
      return rows.map((r) => fromRow(type, r));
    }),
  );
  return lists.flat();
}

export async function recordById(c: PoolConnection, householdId: string, type: RecordType, recordId: string): Promise<MileRecord | null> {
  const [rows] = await c.execute<RowDataPacket[]>(`SELECT * FROM ${type} WHERE household_id = ? AND id = ? FOR UPDATE`, [toBin(householdId), toBin(recordId)]);
  return rows[0] ? fromRow(type, rows[0]) : null;
}

/** Writes one record under the household's new rev. @throws the database's error when it refers to something unknown (1452) */
export async function writeRecord(c: PoolConnection, householdId: string, rev: number, r: RecordItem): Promise<void> {
  const columns = columnsOf(r.type);
  const values = columns.map(([field, col]) => col.write((r.fields as Record<string, unknown>)[field] as never) ?? null);
  const names = columns.map(([, col]) => col.column);
  await c.execute(
    `INSERT INTO ${r.type} (household_id, id, rev, ${names.join(', ')}) VALUES (?, ?, ?${', ?'.repeat(names.length)})
     ON DUPLICATE KEY UPDATE rev = VALUES(rev), ${names.map((n) => `${n} = VALUES(${n})`).join(', ')}`,
    [toBin(householdId), toBin(r.id), rev, ...(values as (string | number | Buffer | null)[])],
  );
}
