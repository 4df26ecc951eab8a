import type * as z from '@/core/units/schema';
import type { RecordType } from './record-types';
import { TYPES } from './types/registry';

/** What a household keeps about places, garage and prices: the schema of each type. */
export const RECORDS = Object.fromEntries(Object.entries(TYPES).map(([type, file]) => [type, file.schema])) as {
  readonly [T in RecordType]: (typeof TYPES)[T]['schema'];
};
export type RecordFields<T extends RecordType> = z.infer<(typeof TYPES)[T]['schema']>;

/** A record as it travels: `rev` is the household's rev when it was last written. */
export type MileRecord<T extends RecordType = RecordType> = { [K in T]: { type: K; id: string; rev: number; archived: boolean; fields: RecordFields<K> } }[T];

/** A record as typed on a device: `baseRev` is the rev it was changed from, 0 for a new one. */
export type RecordItem<T extends RecordType = RecordType> = {
  [K in T]: { type: K; id: string; baseRev: number; archived?: boolean; fields: RecordFields<K> };
}[T];
/** The fields of a type that have a value when nothing was said: what an older row or an empty form starts from. */
export function blankFields<T extends RecordType>(type: T): Partial<RecordFields<T>> {
  const said = Object.entries(RECORDS[type].shape as Record<string, z.ZodMiniType>).flatMap(([field, schema]) => {
    const nothing = schema.safeParse(undefined);
    return nothing.success ? [[field, nothing.data]] : [];
  });
  return Object.fromEntries(said) as Partial<RecordFields<T>>;
}

/** A record made of what is said, everything else blank. @throws ZodError when it is not allowed */
export const recordItem = <T extends RecordType>(type: T, id: string, said: z.input<(typeof TYPES)[T]['schema']>, baseRev = 0): RecordItem<T> =>
  ({ type, id, baseRev, archived: false, fields: RECORDS[type].parse(said) }) as RecordItem<T>;
