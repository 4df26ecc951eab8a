import { APART_KM, isApart, kmApart, type MaybePlaced } from '../records/place-questions';
import type { RecordFields } from '../records/record-schema';
import { grouped } from '../units/grouped';
import { fold } from './match-sessions';
import type { BillIn } from './ocpi-cdrs';
import { textOf } from './ocpi-check';
import type { JsonObject } from './strict-json';

/** So near a position names a site, where no other is anywhere near, km. A choice. */
const AT_IT_KM = 0.3;
type Site = { id: string; fields: Pick<RecordFields<'site'>, 'name' | 'latitude' | 'longitude'> };
type Stall = { fields: Pick<RecordFields<'stall'>, 'siteId' | 'name' | 'evseUids'> };
const one = <T>(all: readonly T[]): T | null => (new Set(all).size === 1 ? (all[0] as T) : null);

/**
 * Where a CDR was, by the names that places have here: as it is written, where a site is called so; else the site of the post whose id it gives, else the only one where it says that it was.
 * The post by its id.
 */
export function billPlaces(
  sites: readonly Site[],
  stalls: readonly Stall[],
): (b: Pick<BillIn, 'site' | 'evse'>, record: JsonObject | undefined) => { site: string; stall: string | null } {
  const byId = new Map(sites.map((s) => [s.id, s.fields]));
  const called = new Set(sites.map((s) => fold(s.fields.name)));
  const byUid = grouped(
    stalls.flatMap((s) => s.fields.evseUids.map((uid) => ({ uid: fold(uid), ...s.fields }))),
    (s) => s.uid,
  );
  return (b, record) => {
    const place = record?.get('cdr_location');
    const members = place instanceof Map ? place : new Map();
    const at = positionOf(members.get('coordinates'));
    // An id of a network's own is no other's: what stands elsewhere is not meant.
    const posts = [b.evse, textOf(members, 'evse_uid') ?? '']
      .flatMap((uid) => byUid.get(fold(uid)) ?? [])
      .filter((p) => !isApart(at, byId.get(p.siteId) ?? NOWHERE));
    const stall = one(posts.map((p) => p.name));
    if (called.has(fold(b.site))) return { site: b.site, stall };
    const ofPost = one(posts.map((p) => p.siteId));
    return { site: (ofPost === null ? siteAt(at, sites) : byId.get(ofPost)?.name) ?? b.site, stall };
  };
}

const NOWHERE = { latitude: null, longitude: null };
function positionOf(coordinates: unknown): MaybePlaced {
  if (!(coordinates instanceof Map)) return NOWHERE;
  const [latitude, longitude] = ['latitude', 'longitude'].map((name) => Number(textOf(coordinates, name) ?? Number.NaN)) as [number, number];
  return Number.isFinite(latitude) && Number.isFinite(longitude) ? { latitude, longitude } : NOWHERE;
}

function siteAt(at: MaybePlaced, sites: readonly Site[]): string | null {
  const around = sites.flatMap((s) => {
    const km = kmApart(at, s.fields);
    return km !== null && km <= APART_KM ? [{ km, name: s.fields.name }] : [];
  });
  return around.length === 1 && around[0] && around[0].km <= AT_IT_KM ? around[0].name : null;
}
