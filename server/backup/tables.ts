import type { Connection, RowDataPacket } from 'mysql2/promise';

/** A table as a backup holds it: its columns in order, which of them hold bytes, and by what its rows are ordered. */
export type Table = { name: string; columns: string[]; bytes: string[]; key: string[] };

/** Not worth keeping, or made by the one who restores. */
const LEFT_OUT = new Set(['schema_migration', 'restore_progress', 'door_try']);
const BYTES = new Set(['binary', 'varbinary', 'tinyblob', 'blob', 'mediumblob', 'longblob']);

/** Every table of the database that a backup holds, by name. */
export async function tablesOf(db: Connection): Promise<Table[]> {
  const [columns] = await db.query<RowDataPacket[]>(
    `SELECT TABLE_NAME AS t, COLUMN_NAME AS c, DATA_TYPE AS type, COLUMN_KEY AS k FROM information_schema.columns
      WHERE TABLE_SCHEMA = DATABASE() ORDER BY TABLE_NAME, ORDINAL_POSITION`,
  );
  const tables = new Map<string, Table>();
  for (const { t, c, type, k } of columns) {
    if (LEFT_OUT.has(t)) continue;
    const table: Table = tables.get(t) ?? { name: t, columns: [], bytes: [], key: [] };
    table.columns.push(c);
    if (BYTES.has(type)) table.bytes.push(c);
    if (k === 'PRI') table.key.push(c);
    tables.set(t, table);
  }
  return [...tables.values()];
}

/** A row as text: bytes in base64, everything else as the database writes it, so that no figure is rounded on the way. */
export type Row = (string | null)[];

/** Reads a table row by row in the order of its key, on a connection made by `openPlain`. */
export async function* rowsOf(db: Connection, table: Table): AsyncGenerator<Row> {
  const columns = table.columns.map((c) => (table.bytes.includes(c) ? `TO_BASE64(\`${c}\`)` : `\`${c}\``));
  const order = table.key.map((c) => `\`${c}\``).join(', ');
  const inner = (db as unknown as { connection: { query: (o: object) => { stream: (o: object) => AsyncIterable<Row> } } }).connection;
  const rows = inner.query({ sql: `SELECT ${columns.join(', ')} FROM \`${table.name}\`${order ? ` ORDER BY ${order}` : ''}`, rowsAsArray: true });
  for await (const row of rows.stream({ highWaterMark: 50 }))
    yield row.map((v, i) => (v !== null && table.bytes.includes(table.columns[i] as string) ? v.replaceAll('\n', '') : v));
}

/** Values of a row for an INSERT, bytes as bytes. */
export const valuesOf = (table: Table, row: Row): (string | Buffer | null)[] =>
  row.map((v, i) => (v !== null && table.bytes.includes(table.columns[i] as string) ? Buffer.from(v, 'base64') : v));
