import { isZone } from '../units/zoned';
import { OCPI_ENUMS, OCPI_OBJECTS } from './ocpi-objects';
import { type Json, JsonNumber, type JsonObject, pointerPart } from './strict-json';

export type BreachCode =
  | 'missing'
  | 'type'
  | 'value'
  | 'format'
  | 'bounds'
  | 'empty'
  | 'zone'
  | 'order'
  | 'duplicate'
  | 'restriction'
  | 'too_long'
  | 'decimals'
  | 'offset'
  | 'dimension'
  | 'sum'
  | 'outside'
  | 'unsorted'
  | 'credit_sign';
export type Breach = { pointer: string; code: BreachCode; refuses: boolean };
/** Said, and nothing is refused for it. */
const SAID: ReadonlySet<BreachCode> = new Set(['too_long', 'decimals', 'offset', 'dimension', 'sum', 'outside', 'unsorted', 'credit_sign']);

/** So many of them are told: a file of nothing else has a million, and each says the same. */
export const BREACHES_LISTED = 1_000;

/** What checking a document finds. `kept`: members that the standard does not have. */
export type Findings = { breaches: Breach[]; kept: string[] };
export const breach = (into: Findings, pointer: string, code: BreachCode): void => {
  into.breaches.push({ pointer, code, refuses: !SAID.has(code) });
};

/** The member, `undefined` where it is absent or null. */
export const member = (o: JsonObject, name: string): Json | undefined => o.get(name) ?? undefined;
export const isObject = (v: Json | undefined): v is JsonObject => v instanceof Map;

const DATE_TIME = /^(\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2})(?:\.(\d+))?(Z|[+-]\d{2}:\d{2})?$/;
/** An instant of the standard, UTC ms: without an offset it is UTC. `null`: it is none. */
export function ocpiInstant(text: string): number | null {
  const found = DATE_TIME.exec(text);
  if (!found) return null;
  const [, clock = '', fraction = '', offset = 'Z'] = found;
  const ms = Date.parse(`${clock}.${`${fraction}000`.slice(0, 3)}${offset}`);
  // Date takes 30 February for 2 March.
  const day = new Date(Date.parse(`${clock}Z`));
  return Number.isNaN(ms) || Number.isNaN(day.getTime()) || day.toISOString().slice(0, 19) !== clock ? null : ms;
}
const HHMM = /^([01]\d|2[0-3]):[0-5]\d$/;
/** True for a time of the day as the standard writes it. */
export const isHhmm = (text: string | null): text is string => text !== null && HHMM.test(text);
const isDate = (text: string) => /^\d{4}-\d{2}-\d{2}$/.test(text) && ocpiInstant(`${text}T00:00:00Z`) !== null;

/** Members whose number must be above nothing, and those that must not be below it. */
const ABOVE: ReadonlySet<string> = new Set(['max_voltage', 'max_amperage', 'max_electric_power']);
const NOT_BELOW: ReadonlySet<string> = new Set([
  'price',
  'vat',
  'excl_vat',
  'incl_vat',
  'step_size',
  'min_kwh',
  'max_kwh',
  'min_current',
  'max_current',
  'min_power',
  'max_power',
  'min_duration',
  'max_duration',
  'total_energy',
  'total_time',
  'total_parking_time',
]);
/** Costs of a CDR: those of a credit are negative. */
const SIGNED_PRICES: ReadonlySet<string> = new Set([
  'total_cost',
  'total_fixed_cost',
  'total_energy_cost',
  'total_time_cost',
  'total_parking_cost',
  'total_reservation_cost',
]);
/** Dimensions whose volume cannot be below nothing; power and current may. */
const COUNTED: ReadonlySet<string> = new Set(['ENERGY', 'ENERGY_IMPORT', 'ENERGY_EXPORT', 'TIME', 'PARKING_TIME', 'RESERVATION_TIME']);

/** Holds an object to the standard, every breach of it. @param type name of the object @param signed prices within may be negative */
export function checkObject(value: Json, type: string, pointer: string, into: Findings, signed = false): void {
  if (!isObject(value)) {
    breach(into, pointer, 'type');
    return;
  }
  const fields = OCPI_OBJECTS[type] ?? {};
  for (const [name, rule] of Object.entries(fields)) {
    const required = rule.endsWith('!');
    const given = member(value, name);
    const at = pointer + pointerPart(name);
    if (given === undefined) {
      if (required) breach(into, at, 'missing');
      continue;
    }
    checkValue(given, required ? rule.slice(0, -1) : rule, name, at, into, signed || SIGNED_PRICES.has(name));
  }
  for (const [name, given] of value) {
    if (name in fields || given === null) continue;
    if (type === 'TariffRestrictions') breach(into, pointer + pointerPart(name), 'restriction');
    else into.kept.push(pointer + pointerPart(name));
  }
  if (type === 'CdrDimension') {
    const [kind, volume] = [member(value, 'type'), member(value, 'volume')];
    if (typeof kind === 'string' && COUNTED.has(kind) && volume instanceof JsonNumber && volume.value < 0) breach(into, `${pointer}/volume`, 'bounds');
  }
}

function checkValue(value: Json, rule: string, name: string, at: string, into: Findings, signed: boolean): void {
  const [kind = '', ...rest] = rule.split(':');
  const of = rest.join(':');
  if (kind === 'any') return;
  if (kind === 'obj') {
    checkObject(value, of, at, into, signed);
    return;
  }
  if ((kind === 'list' || kind === 'list+') && Array.isArray(value)) {
    if (kind === 'list+' && value.length === 0) breach(into, at, 'empty');
    for (const [i, v] of value.entries()) {
      if (of.includes(':')) checkValue(v, of, name, at + pointerPart(i), into, signed);
      else checkObject(v, of, at + pointerPart(i), into, signed);
    }
    return;
  }
  const code = wrongWith(value, kind, of, name, signed);
  if (code) breach(into, at, code);
}

const NUMBERS: ReadonlySet<string> = new Set(['num', 'int', 'step', 'weekday']);
function wrongWith(value: Json, kind: string, of: string, name: string, signed: boolean): BreachCode | null {
  if (NUMBERS.has(kind)) return value instanceof JsonNumber ? wrongNumber(value.value, kind, name, signed) : 'type';
  if (kind === 'bool') return typeof value === 'boolean' ? null : 'type';
  return typeof value === 'string' ? wrongText(value, kind, of) : 'type';
}

function wrongNumber(n: number, kind: string, name: string, signed: boolean): BreachCode | null {
  if (kind !== 'num' && !Number.isInteger(n)) return 'type';
  if (kind === 'weekday') return n < 1 || n > 7 ? 'bounds' : null;
  if (ABOVE.has(name)) return n <= 0 ? 'bounds' : null;
  const price = name === 'excl_vat' || name === 'incl_vat';
  return NOT_BELOW.has(name) && n < 0 && !(price && signed) ? 'bounds' : null;
}

function wrongText(value: string, kind: string, of: string): BreachCode | null {
  switch (kind) {
    case 'str':
      return [...value].length > Number(of) ? 'too_long' : null;
    case 'enum':
      return OCPI_ENUMS[of]?.includes(value) ? null : 'value';
    case 'said':
      return OCPI_ENUMS[of]?.includes(value) ? null : 'dimension';
    case 'dt':
      return ocpiInstant(value) === null ? 'format' : /[+-]\d{2}:\d{2}$/.test(value) ? 'offset' : null;
    case 'country':
    case 'currency':
      return /^[A-Z]{3}$/.test(value) ? null : 'format';
    case 'zone':
      return isZone(value) ? null : 'zone';
    case 'hhmm':
      return isHhmm(value) ? null : 'format';
    case 'date':
      return isDate(value) ? null : 'format';
    case 'lat':
    case 'lon':
      return wrongDegrees(value, kind === 'lat' ? 90 : 180);
    default:
      // A list that is none.
      return 'type';
  }
}

function wrongDegrees(value: string, most: number): BreachCode | null {
  if (!/^-?\d{1,3}(\.\d+)?$/.test(value)) return 'format';
  if (Math.abs(Number(value)) > most) return 'bounds';
  const decimals = value.split('.')[1]?.length ?? 0;
  return decimals < 5 || decimals > 7 ? 'decimals' : null;
}

/** The units of a document, with their pointers: an object, a list, or what a response holds as its data. */
export function unitsOf(document: Json): { pointer: string; value: Json }[] {
  const inside = isObject(document) && document.has('data') ? { pointer: '/data', value: document.get('data') ?? null } : { pointer: '', value: document };
  return Array.isArray(inside.value) ? inside.value.map((value, i) => ({ pointer: inside.pointer + pointerPart(i), value })) : [inside];
}

export const textOf = (o: JsonObject, name: string): string | null => {
  const v = member(o, name);
  return typeof v === 'string' ? v : null;
};
export const numberOf = (o: JsonObject, name: string): JsonNumber | null => {
  const v = member(o, name);
  return v instanceof JsonNumber ? v : null;
};
export const objectIn = (o: JsonObject, name: string): JsonObject | null => {
  const v = member(o, name);
  return isObject(v) ? v : null;
};
export const listIn = (o: JsonObject, name: string): Json[] => {
  const v = member(o, name);
  return Array.isArray(v) ? v : [];
};
export const objectsIn = (o: JsonObject, name: string): JsonObject[] => listIn(o, name).filter(isObject);
/** `SI*SMR*T-1`. */
export const partyId = (o: JsonObject): string => ['country_code', 'party_id', 'id'].map((n) => textOf(o, n) ?? '').join('*');

/** Whether a unit comes in: one that breaks the standard does not, nor one that says the id of an earlier one that came in, whatever else is said of it. */
export function comesIn(seen: Set<string>, o: JsonObject, pointer: string, own: Findings): boolean {
  const id = partyId(o);
  if (seen.has(id)) breach(own, `${pointer}/id`, 'duplicate');
  if (refuses(own)) return false;
  seen.add(id);
  return true;
}
const refuses = (f: Findings): boolean => f.breaches.some((b) => b.refuses);
