/**
 * A figure that may be unknown. Unknown always says why and is never zero:
 * `null` with no reason has no place in a derived figure.
 */
export type Known<T> = { known: true; value: T };
export type Unknown = { known: false; why: string };
export type Maybe<T> = Known<T> | Unknown;

export const known = <T>(value: T): Known<T> => ({ known: true, value });
export const unknown = (why: string): Unknown => ({ known: false, why });

/** The value, or `null` when unknown: for storage columns and sorting only, never for a screen. */
export const valueOrNull = <T>(m: Maybe<T>): T | null => (m.known ? m.value : null);
