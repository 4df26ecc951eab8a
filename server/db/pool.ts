import mysql, { type Pool, type PoolConnection } from 'mysql2/promise';

const kept = globalThis as unknown as { milePool?: Pool };

/** The pool. UTC both ways; DECIMAL arrives as strings. @throws when DATABASE_URL is missing */
export function pool(): Pool {
  if (kept.milePool) return kept.milePool;
  const uri = process.env.DATABASE_URL;
  if (!uri) throw new Error('DATABASE_URL is not set: start the application with bin/demo');
  kept.milePool = mysql.createPool({
    uri,
    connectionLimit: 10,
    timezone: 'Z',
    charset: 'utf8mb4_unicode_ci',
    supportBigNumbers: true,
    multipleStatements: false,
    namedPlaceholders: false,
  });
  return kept.milePool;
}

/** Deadlock, lock wait timeout, and a cluster node that lost its place: safe to try again. */
const PASSING = new Set([1213, 1205, 1047]);

/**
 * Runs `work` in a transaction: all of it or nothing. Tried again up to five times where the database says the
 * failure will pass, so `work` must have no effect besides its SQL.
 */
export async function inTransaction<T>(work: (c: PoolConnection) => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    const c = await pool().getConnection();
    try {
      await c.beginTransaction();
      const result = await work(c);
      await c.commit();
      return result;
    } catch (error) {
      await c.rollback().catch(() => {});
      const code = (error as { errno?: number }).errno;
      if (attempt >= 5 || code === undefined || !PASSING.has(code)) throw error;
    } finally {
      c.release();
    }
  }
}
