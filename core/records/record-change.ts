import * as z from '@/core/units/schema';
import { unkeepable } from '../units/keepable-json';
import { firstProblem, ownWords } from '../units/own-words';
import { type RecordChange, sameValue } from './change-of';
import { uuid } from './field-schema';
import { fromOlderShape } from './older-shape';
import { priceObjectProblem } from './price-objects';
import { RECORDS } from './record-schema';
import type { RecordType } from './record-types';
import { RECORD_TYPES } from './types/registry';

export type ChangeCheck = { ok: true; change: RecordChange } | { ok: false; path: string; reason: string };

/** The most that the fields of one record hold, as text. */
const MOST_CHARACTERS = 65_536;

const item = z.object({
  type: z.enum(RECORD_TYPES),
  id: uuid,
  baseRev: z.int().check(z.minimum(0)),
  archived: z.optional(z.boolean()),
  fields: z.record(z.string(), z.unknown()),
});

const shapeOf = (type: RecordType) => RECORDS[type].shape as Record<string, z.ZodMiniType>;

/** Checks one record from outside, each field by itself; a new one as a whole too. Never throws. */
export function checkChange(raw: unknown): ChangeCheck {
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) return { ok: false, path: 'record', reason: 'must hold named fields' };
  const odd = unkeepable(raw, '');
  if (odd) return { ok: false, ...odd };
  const envelope = item.safeParse(raw, { error: ownWords });
  if (!envelope.success) return { ok: false, ...firstProblem(envelope.error, '') };
  const { type, id, baseRev, archived } = envelope.data;
  const fields = fromOlderShape(type, envelope.data.fields);
  if (JSON.stringify(fields).length > MOST_CHARACTERS) return { ok: false, path: 'fields', reason: 'hold too much' };
  const object = type === 'tariff' ? priceObjectProblem(fields) : null;
  if (object) return { ok: false, ...object };
  const change = { type, id, baseRev, ...(archived === undefined ? {} : { archived }), fields };
  if (baseRev === 0) {
    const whole = wholeFields(type, fields);
    return whole.ok ? { ok: true, change: { ...change, fields: whole.fields } } : whole;
  }
  const out: Record<string, unknown> = {};
  for (const [name, value] of Object.entries(fields)) {
    const known = shapeOf(type)[name];
    const parsed = known?.safeParse(value, { error: ownWords });
    if (parsed && !parsed.success) return { ok: false, ...firstProblem(parsed.error, `fields.${name}`) };
    out[name] = parsed ? parsed.data : value;
  }
  return { ok: true, change: { ...change, fields: out } };
}

/** All fields of a record, those that are missing blank and those that are not known here as they are; or what is wrong with them. */
export function wholeFields(
  type: RecordType,
  fields: Readonly<Record<string, unknown>>,
): { ok: true; fields: Record<string, unknown> } | { ok: false; path: string; reason: string } {
  const parsed = RECORDS[type].safeParse(fields, { error: ownWords });
  if (!parsed.success) return { ok: false, ...firstProblem(parsed.error, 'fields') };
  const shape = shapeOf(type);
  return { ok: true, fields: { ...Object.fromEntries(Object.entries(fields).filter(([name]) => !Object.hasOwn(shape, name))), ...parsed.data } };
}

/** A record as it stands where changes are taken, with the rev in which each field was last changed; `*` for those not named. */
export type Standing = { archived: boolean; fields: Readonly<Record<string, unknown>>; fieldRevs: Readonly<Record<string, number>> };

/** The name under which putting away and bringing back counts as a field. */
export const ARCHIVED = '(archived)';

/**
 * What a change makes of a record.
 * @returns `same` when nothing would change; `elsewhere` with the fields that somebody else changed since its base to something else
 */
export function applyChange(
  there: Standing,
  change: RecordChange,
): { is: 'same' } | { is: 'elsewhere'; fields: string[] } | { is: 'changed'; archived: boolean; fields: Record<string, unknown>; changed: string[] } {
  const changed = Object.keys(change.fields).filter((name) => !sameValue(change.fields[name], there.fields[name]));
  if (change.archived !== undefined && change.archived !== there.archived) changed.push(ARCHIVED);
  if (changed.length === 0) return { is: 'same' };
  const elsewhere = changed.filter((name) => (there.fieldRevs[name] ?? there.fieldRevs['*'] ?? 0) > change.baseRev);
  if (elsewhere.length > 0) return { is: 'elsewhere', fields: elsewhere };
  return { is: 'changed', archived: change.archived ?? there.archived, fields: { ...there.fields, ...change.fields }, changed };
}
