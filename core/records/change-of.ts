import { canonicalJson } from './canonical-json';
import type { RecordItem } from './record-schema';
import type { RecordType } from './record-types';

/**
 * A record on its way: made, or changed in some fields. A change carries the fields it changes and no others, so that two people
 * who change different fields of one record both succeed. Fields that this version does not know are kept as they come.
 */
export type RecordChange = {
  type: RecordType;
  id: string;
  /** The rev it was changed from, 0 for a new one. */
  baseRev: number;
  /** Only when that changes. */
  archived?: boolean;
  fields: Record<string, unknown>;
};
/** True for two values of a field that say the same. */
export const sameValue = (a: unknown, b: unknown): boolean => canonicalJson(a ?? null) === canonicalJson(b ?? null);

/**
 * A record as typed here, as the change it is.
 * @param base what it said before, and whether it was put away; without it all of the record travels
 */
export function changeOf(record: RecordItem, base?: { fields: Readonly<Record<string, unknown>>; archived?: boolean }): RecordChange {
  const { type, id, baseRev } = record;
  const archived = record.archived ?? false;
  const fields = record.fields as Record<string, unknown>;
  if (!base || baseRev === 0) return { type, id, baseRev, archived, fields };
  return {
    type,
    id,
    baseRev,
    ...((base.archived ?? false) === archived ? {} : { archived }),
    fields: Object.fromEntries(Object.entries(fields).filter(([name, value]) => !sameValue(value, base.fields[name]))),
  };
}
