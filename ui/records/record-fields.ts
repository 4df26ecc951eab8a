import type { RecordType } from '@/core/records/record-types';
import { TYPES } from '@/core/records/types/registry';

/** The label of a record's field, for messages and differences. */
export function fieldLabel(type: RecordType, path: string): string {
  if (path === 'fromFile') return 'What its file says';
  const fields = TYPES[type].form.flatMap((g) => g.fields);
  return fields.find((f) => f.path === path || f.path.startsWith(`${path}.`))?.label ?? path;
}
