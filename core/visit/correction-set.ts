import { type DistanceUnit, fromKm, toKm } from '../units/distance';
import { correctableFields } from './kinds/registry';
import type { Kind } from './payloads';
import { type FieldValue, fieldAt } from './set-fields';

/** What stands in the fields of an event, as text for a form: empty is not read. @param unit of distances */
export const correctableText = (kind: Kind, payload: Readonly<Record<string, unknown>>, unit: DistanceUnit = 'km'): Record<string, string> =>
  Object.fromEntries(
    correctableFields(kind, payload).map((f) => {
      const value = fieldAt(payload, f.field) ?? '';
      return [f.field, Array.isArray(value) ? value.join(' ') : String(f.is === 'distance' && typeof value === 'number' ? fromKm(value, unit) : value)];
    }),
  );

/**
 * What a form with these texts changes.
 * @returns the fields to set, `null` for those emptied, and what is wrong by field; the record's own bounds are checked where it is kept
 */
export function correctionSet(
  kind: Kind,
  payload: Readonly<Record<string, unknown>>,
  typed: Readonly<Record<string, string>>,
  unit: DistanceUnit = 'km',
): { set: Record<string, FieldValue>; problems: Record<string, string> } {
  const before = correctableText(kind, payload, unit);
  const set: Record<string, FieldValue> = {};
  const problems: Record<string, string> = {};
  for (const f of correctableFields(kind, payload)) {
    const text = (typed[f.field] ?? '').trim();
    if (text === before[f.field]) continue;
    const figure = text.replace(',', '.');
    if (f.is === 'attempts') set[f.field] = text.split(' ').filter(Boolean);
    else if (text === '') set[f.field] = null;
    else if ((f.is === 'number' || f.is === 'distance' || f.is === 'decimal') && !/^-?\d+(\.\d+)?$/.test(figure)) problems[f.field] = 'Not a number';
    else if (f.is === 'distance') set[f.field] = toKm(Number(figure), unit);
    else set[f.field] = f.is === 'number' ? Number(figure) : f.is === 'decimal' ? figure : f.is === 'yes_no' ? text === 'true' : text;
  }
  return { set, problems };
}
