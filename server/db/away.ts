/** The database did not answer in time: what was asked may or may not have been done. */
export class TookTooLong extends Error {
  readonly code = 'MILE_TOOK_TOO_LONG';
}

/** Codes of the driver and of the server that say "not now", not "not so". */
const AWAY = new Set([
  'MILE_TOOK_TOO_LONG',
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'ENOENT',
  'PROTOCOL_CONNECTION_LOST',
  'PROTOCOL_SEQUENCE_TIMEOUT',
  'ER_CON_COUNT_ERROR',
  'ER_SERVER_SHUTDOWN',
  'ER_NORMAL_SHUTDOWN',
  'ER_CONNECTION_KILLED',
  'ER_STATEMENT_TIMEOUT',
  'ER_QUERY_INTERRUPTED',
  'ER_LOCK_WAIT_TIMEOUT',
  'ER_LOCK_DEADLOCK',
  'ER_DISK_FULL',
  'ER_RECORD_FILE_FULL',
  'ER_ERROR_ON_WRITE',
  'ER_OUT_OF_RESOURCES',
  'ER_OPTION_PREVENTS_STATEMENT',
  'ER_UNKNOWN_COM_ERROR',
]);

/** True when the same request may well succeed later: the database is away, slow, full or shutting down. */
export function isAway(error: unknown): boolean {
  const { code, message } = (error ?? {}) as { code?: unknown; message?: unknown };
  if (typeof code === 'string' && AWAY.has(code)) return true;
  // The driver says these without a code.
  return typeof message === 'string' && /closed state|Connection lost|Pool is closed/.test(message);
}

/** True when the database refused a value: too long, out of range, no valid JSON, a rule broken. Asking again changes nothing. */
export function isDataError(error: unknown): boolean {
  const state = (error as { sqlState?: unknown } | null)?.sqlState;
  return typeof state === 'string' && (state.startsWith('22') || state.startsWith('23'));
}

/** True when what was to be written has the key of something that is there. */
export const isTaken = (error: unknown): boolean => (error as { code?: unknown } | null)?.code === 'ER_DUP_ENTRY';
