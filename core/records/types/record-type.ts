import type * as z from '@/core/units/schema';
import type { FieldGroup } from '../form-field';
import type { Wishes } from '../wishes';

/** Columns that SQL joins, sorts or refers to, in the words of the database: `networkId` is `network_id`. */
export type ColumnKind = 'text' | 'number' | 'id';

/** Everything about one type of record. */
export type RecordTypeFile<Schema extends z.ZodMiniObject> = {
  one: string;
  many: string;
  /** What is allowed: one schema for form, phone and server. */
  schema: Schema;
  /** What it is called; empty where it is named by what it refers to. */
  name: (fields: z.infer<Schema>) => string;
  columns: Partial<Record<keyof z.infer<Schema>, ColumnKind>>;
  /** Its form, in the words of the sign and of the trade; empty where it has none. */
  form: readonly FieldGroup[];
};
export const recordType = <Schema extends z.ZodMiniObject>(file: RecordTypeFile<Schema>): RecordTypeFile<Schema> => file;

/** What a row of a list says besides the name: one line, what is empty left out, and what needs attention. */
export type RowWords = { name?: string; line: (string | null | false)[]; heed?: string | null };
/** `nameOf`: name of a record that this one refers to; `today`: local day; `consumption`: how its reader speaks of it. */
export type RowContext = { nameOf: (id: string | null) => string; today: string; consumption: Wishes['consumption'] };
/** Of a type that the garage lists: its place among them, and its row. */
export type InGarage<Schema extends z.ZodMiniObject> = {
  place: number;
  row: (fields: z.infer<Schema>, of: RowContext) => RowWords;
};
export const garageType = <Schema extends z.ZodMiniObject>(file: RecordTypeFile<Schema> & { garage: InGarage<Schema> }) => file;
