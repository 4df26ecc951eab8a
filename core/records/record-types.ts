import type * as all from './types/all';

/** The name of a type of record; what each is stands in types/. */
export type RecordType = keyof typeof all;
