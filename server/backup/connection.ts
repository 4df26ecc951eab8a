import mysql, { type Connection } from 'mysql2/promise';

/** A connection on which every value comes and goes as the text that the database writes, for whole tables and without a time limit. */
export async function openPlain(uri: string): Promise<Connection> {
  const db = await mysql.createConnection({
    uri,
    timezone: 'Z',
    charset: 'utf8mb4_bin',
    supportBigNumbers: true,
    typeCast: (field) => field.string(),
  });
  await db.query("SET SESSION time_zone = '+00:00', max_statement_time = 0, wait_timeout = 28800, net_write_timeout = 3600");
  return db;
}
