import mysql, { type Pool, type PoolConnection } from 'mysql2/promise';
import { isAway, TookTooLong } from './away';

/** How long anything may take, milliseconds. Commands that work on a whole database set `query_ms` before their first query. */
export const limits = { query_ms: 10_000, acquire_ms: 5_000 };

/** What of a pool is used: every query through it has a time limit. */
export type Database = Pick<Pool, 'execute' | 'query' | 'end'> & { getConnection: (within_ms?: number) => Promise<PoolConnection> };
/** What is read with: a pool, or the connection of a transaction, whose own writes are seen too. */
export type Reader = Pick<PoolConnection, 'execute'>;
const kept = globalThis as unknown as { milePool?: Database };

/** The pool. UTC both ways; DECIMAL arrives as strings. @throws when DATABASE_URL is missing */
export function pool(): Database {
  kept.milePool ??= openDatabase(process.env.DATABASE_URL);
  return kept.milePool;
}

function openDatabase(uri: string | undefined): Database {
  if (!uri) throw new Error('DATABASE_URL is not set: start the application with bin/demo');
  const inner = mysql.createPool({
    uri,
    connectionLimit: 10,
    connectTimeout: limits.acquire_ms,
    timezone: 'Z',
    charset: 'utf8mb4_unicode_ci',
    supportBigNumbers: true,
    multipleStatements: false,
    namedPlaceholders: false,
  });
  // The server gives up a little before the client does, so that nothing goes on behind a closed connection.
  inner.pool.on('connection', (c) => {
    const s = Math.max(1, limits.query_ms / 1000 - 2);
    c.query(`SET SESSION max_statement_time = ${s}, innodb_lock_wait_timeout = ${Math.max(1, Math.floor(s / 2))}`, (error) => {
      if (error) console.error('a connection has no time limit at the server', error.message);
    });
    // Each statement reads what is committed. Households are written to under a lock of their own; with repeatable reads two of them would also lock the gap into which both
    // add rows, and wait for each other.
    c.query('SET SESSION TRANSACTION ISOLATION LEVEL READ COMMITTED', (error) => {
      if (error) console.error('a connection reads what was committed as it began', error.message);
    });
  });
  const getConnection = async (within_ms = limits.acquire_ms): Promise<PoolConnection> => {
    const asked = inner.getConnection();
    try {
      return limited(await within(asked, within_ms));
    } catch (error) {
      // One that comes after all goes back.
      asked.then(
        (c) => c.release(),
        () => {},
      );
      throw error;
    }
  };
  const once = (method: 'execute' | 'query') =>
    (async (...args: Parameters<Pool['query']>) => {
      const c = await getConnection();
      try {
        return await (c[method] as Pool['query'])(...args);
      } finally {
        c.release();
      }
    }) as Pool['query'];
  return { execute: once('execute') as Pool['execute'], query: once('query'), getConnection, end: () => inner.end() };
}

async function within<T>(work: Promise<T>, ms: number): Promise<T> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<never>((_, fail) => {
    timer = setTimeout(() => fail(new TookTooLong(`the database took longer than ${ms} ms`)), ms);
  });
  try {
    return await Promise.race([work, late]);
  } finally {
    clearTimeout(timer);
  }
}

/** A connection whose every statement has a time limit; one that overran it is closed, since its next answer would be another's. */
function limited(c: PoolConnection): PoolConnection {
  for (const method of ['execute', 'query', 'beginTransaction', 'commit', 'rollback'] as const) {
    const asIs = c[method].bind(c) as (...args: unknown[]) => Promise<unknown>;
    Object.assign(c, {
      [method]: async (...args: unknown[]) => {
        try {
          // What has no values is not looked through for where they go: the rows of two thousand events are a megabyte.
          return await within(method === 'query' && args.length === 1 ? asIs(args[0], null) : asIs(...args), limits.query_ms);
        } catch (error) {
          if (error instanceof TookTooLong) c.destroy();
          throw error;
        }
      },
    });
  }
  return c;
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
      // A connection whose rollback is not heard of is not used again.
      await c.rollback().catch(() => c.destroy());
      const code = (error as { errno?: number }).errno;
      if (attempt >= 5 || code === undefined || !PASSING.has(code)) throw error;
    } finally {
      c.release();
    }
  }
}

/** True when the database answers within `ms`. */
export async function databaseAnswers(ms: number): Promise<boolean> {
  const until = Date.now() + ms;
  try {
    const c = await pool().getConnection(ms);
    try {
      await within(c.query('SELECT 1'), Math.max(1, until - Date.now()));
      c.release();
      return true;
    } catch (error) {
      c.destroy();
      throw error;
    }
  } catch (error) {
    if (!isAway(error)) console.error('the database does not answer', error);
    return false;
  }
}
