import { toBin } from '../db/binary-id';

/** Condition on `visit`: all but those that are private to somebody else. It takes one value, `seenBy(personId)`. @param v the table's name in the query */
export const seen = (v = 'v'): string => `(${v}.private_to IS NULL OR ${v}.private_to = ?)`;
export const seenBy = (personId: string): Buffer => toBin(personId);
