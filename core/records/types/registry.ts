import type { RecordType } from '../record-types';
import * as all from './all';

/** What each type of record is. */
export const TYPES: { readonly [T in RecordType]: (typeof all)[T] } = all;
export const RECORD_TYPES = Object.keys(TYPES) as readonly RecordType[];
