import type { Field } from '@/core/records/form-field';
import { type ConsumptionUnit, consumptionFrom, consumptionIn } from '@/core/units/consumption';

/** The value at a path. */
export function at(value: unknown, path: string): unknown {
  return path.split('.').reduce<unknown>((v, key) => (v !== null && typeof v === 'object' ? (v as Record<string, unknown>)[key] : undefined), value);
}
/** Sets the value at a path, making what is missing on the way. */
export function put(target: Record<string, unknown>, path: string, value: unknown): void {
  const keys = path.split('.');
  let t = target;
  for (const key of keys.slice(0, -1)) {
    t[key] ??= {};
    t = t[key] as Record<string, unknown>;
  }
  t[keys.at(-1) as string] = value;
}

export type Names = Partial<Record<string, { id: string; name: string }[]>>;

/** What stands in the form's control for a value of the record. @param unit in which consumption is read */
export function toControl(field: Field, value: unknown, names: Names, unit: ConsumptionUnit): unknown {
  switch (field.kind) {
    case 'consumption':
      return typeof value === 'number' && value > 0 ? String(Number(consumptionIn(value, unit).toFixed(2))) : '';
    case 'yesno':
      return value === true ? 'yes' : value === false ? 'no' : '';
    case 'many':
    case 'photos':
      return value ?? [];
    case 'ref':
      return names[field.type]?.find((n) => n.id === value)?.name ?? '';
    case 'curve':
      return ((value as [number, number][] | undefined) ?? []).map(([pct, kW]) => `${pct} ${kW}`).join('\n');
    case 'words':
      return ((value as string[] | undefined) ?? []).join(', ');
    case 'list':
      return ((value as unknown[] | undefined) ?? []).map((row) => rowToControls(field.row, row, names, unit));
    default:
      return value === null || value === undefined ? '' : String(value);
  }
}
export function rowToControls(fields: readonly Field[], row: unknown, names: Names, unit: ConsumptionUnit): Record<string, unknown> {
  const out: Record<string, unknown> = {};
  for (const f of fields) put(out, f.path, toControl(f, at(row, f.path), names, unit));
  return out;
}

/** A number as typed, with comma or point; `undefined` when it is none, so that the schema says so. */
export const typedNumber = (text: string): number | null | undefined => {
  const t = text.trim().replace(',', '.').replace('−', '-');
  if (t === '') return null;
  return /^-?\d*\.?\d+$/.test(t) ? Number(t) : undefined;
};

/** The record's value for what stands in a control. A name that is no record yet is given as `{ make: name }`. @param unit in which consumption is typed */
export function fromControl(field: Field, typed: unknown, names: Names, unit: ConsumptionUnit): unknown {
  const text = typeof typed === 'string' ? typed : '';
  switch (field.kind) {
    case 'consumption': {
      const said = typedNumber(text) ?? (text.trim() === '' ? null : Number.NaN);
      // Nothing a mile is nothing a kWh goes: the schema says what can be.
      return said === null || said <= 0 || Number.isNaN(said) ? said : Number(consumptionFrom(said, unit).toFixed(3));
    }
    case 'number':
      return typedNumber(text) ?? (text.trim() === '' ? null : Number.NaN);
    case 'money':
      return text.trim() === '' ? null : text.trim().replace(',', '.');
    case 'yesno':
      return text === '' ? null : text === 'yes';
    case 'choice':
      return text === '' ? null : field.numeric ? Number(text) : text;
    case 'many':
      return Array.isArray(typed) && (typed.length > 0 || field.required) ? typed : null;
    case 'photos':
      return typed ?? [];
    case 'date':
    case 'month':
    case 'phone':
      return text.trim() === '' ? null : text.trim();
    case 'ref': {
      const name = text.trim();
      if (name === '') return null;
      const known = names[field.type]?.find((n) => n.name.toLowerCase() === name.toLowerCase());
      return known ? known.id : { make: name };
    }
    case 'curve':
      return text
        .split('\n')
        .map((line) => line.trim())
        .filter((line) => line !== '')
        .map((line) => line.split(/[\s;]+/).map((n) => typedNumber(n) ?? Number.NaN));
    case 'words':
      return text
        .split(',')
        .map((w) => w.trim())
        .filter((w) => w !== '');
    case 'list':
      return ((typed as unknown[] | undefined) ?? []).map((row) => rowFromControls(field.row, row, names, unit));
    default:
      return text;
  }
}
export function rowFromControls(fields: readonly Field[], row: unknown, names: Names, unit: ConsumptionUnit): Record<string, unknown> {
  const out: Record<string, unknown> = {};
  for (const f of fields) put(out, f.path, fromControl(f, at(row, f.path), names, unit));
  return out;
}
