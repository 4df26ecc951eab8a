/** Grows whenever a derived figure would come out otherwise: rows written under an older one are rebuilt when read. */
export const DEFINITION_VERSION = 18;
/** Without an event for this long and without pulling out, a visit was left open. */
export const LEFT_OPEN_MS = 12 * 3600 * 1000;
