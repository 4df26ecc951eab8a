import { sameValue } from '../records/change-of';
import { APART_KM, kmBetween, type Position } from '../records/place-questions';
import type { RecordType } from '../records/record-types';
import { isReference } from '../records/reference-order';
import { grouped } from '../units/grouped';
import { onceOf } from '../units/once-of';
import { fold } from './match-sessions';

type Fields = Readonly<Record<string, unknown>>;
type Here = { type: RecordType; id: string; archived: boolean; fields: object };

const named = (f: Fields): string => fold(typeof f.name === 'string' ? f.name : '');
const positionOf = (f: Fields): Position | null =>
  typeof f.latitude === 'number' && typeof f.longitude === 'number' ? { latitude: f.latitude, longitude: f.longitude } : null;
const near = (a: Fields, b: Fields): boolean => {
  const [p, q] = [positionOf(a), positionOf(b)];
  return !p || !q || kmBetween(p, q) <= APART_KM;
};
const ids = (f: Fields): string[] => (Array.isArray(f.evseUids) ? f.evseUids.map((uid) => fold(String(uid))) : []);
const samePost = (a: Fields, b: Fields): boolean => named(a) === named(b) || ids(a).some((uid) => ids(b).includes(uid));
const sayTheSame = (a: Fields, b: Fields): boolean => [...new Set([...Object.keys(a), ...Object.keys(b)])].every((name) => sameValue(a[name], b[name]));

/** By what a record of a type is looked for among those that are here, and which of these it is. */
const TWINS: Partial<Record<RecordType, { key: (f: Fields) => string; is: (file: Fields, here: Fields) => boolean }>> = {
  network: { key: named, is: () => true },
  provider: { key: named, is: () => true },
  plan: { key: (f) => `${f.networkId} ${f.providerId} ${named(f)}`, is: () => true },
  site: { key: (f) => `${f.networkId} ${named(f)}`, is: near },
  stall: { key: (f) => String(f.siteId), is: samePost },
  tariff: { key: (f) => String(f.networkId), is: sayTheSame },
};
/** Types that other records name. */
export const NAMED_BY_OTHERS: readonly RecordType[] = ['network', 'provider', 'plan', 'site'];

/** All records of one type by their keys, made once for a list. */
const indexOf = onceOf((here: readonly Here[]) => grouped(here, (h) => TWINS[h.type]?.key(h.fields as Fields) ?? ''));

/**
 * The record that is here under another id and tells of the same: a network, provider or plan of one name, a site of one name in the same network and place, a stall of the same
 * site, a price that says the same; one in use before those that were put away. `null` where there is none, or several.
 * @param fields with the ids that are here @param here all records of the type; the index of one list is made once @param claimed ids that another record of the file is
 */
export function twinOf<H extends Here>(type: RecordType, fields: Fields, here: readonly H[], claimed: ReadonlySet<string>): H | null {
  const twin = TWINS[type];
  if (!twin) return null;
  const found = (indexOf(here).get(twin.key(fields)) ?? []).filter((h) => !claimed.has(h.id) && twin.is(fields, h.fields as Fields));
  const inUse = found.filter((h) => !h.archived);
  const [one, ...others] = inUse.length > 0 ? inUse : found;
  return one && others.length === 0 ? (one as H) : null;
}

/** What a record says, with the ids that are here where it refers to records of its file. */
export const withIds = (fields: Fields, same: ReadonlyMap<string, string>): Fields => {
  const here = (id: unknown) => (typeof id === 'string' ? (same.get(id) ?? id) : id);
  return Object.fromEntries(Object.entries(fields).map(([name, v]) => [name, isReference(name) ? (Array.isArray(v) ? v.map(here) : here(v)) : v]));
};

/** Whom to call in danger is never taken unseen. */
const ALWAYS_ASKED = 'emergencyNumber';
const blank = (v: unknown): boolean => v === null || v === undefined || (Array.isArray(v) && v.length === 0);
/** A record of a file set against its twin: `adds`, what the twin lacks, and the fields in which both say something else. What is blank in the file takes nothing away, and a name is as it is spelled here. */
export function addedTo(here: Fields, file: Fields): { adds: Record<string, unknown>; differs: string[] } {
  const spelled = named(here) === named(file);
  const said = Object.entries(file).filter(([name, value]) => !blank(value) && !sameValue(value, here[name]) && !(name === 'name' && spelled));
  const lacks = (name: string) => blank(here[name]) && name !== ALWAYS_ASKED;
  return { adds: Object.fromEntries(said.filter(([name]) => lacks(name))), differs: said.flatMap(([name]) => (lacks(name) ? [] : [name])) };
}
