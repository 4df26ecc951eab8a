/** The first instant that a record may name, UTC ms: no public charging network is older. */
export const FIRST_INSTANT = Date.UTC(1990, 0, 1);
/** The last one: every calendar and column used here holds it. */
export const LAST_INSTANT = Date.UTC(2100, 0, 1);

/** True for UTC ms that a record may name. */
export const isInstant = (ms: unknown): ms is number => Number.isSafeInteger(ms) && (ms as number) >= FIRST_INSTANT && (ms as number) <= LAST_INSTANT;
