import Big from 'big.js';
import { farFrom, isApart, type Position, turned } from '../records/place-questions';
import { addAll } from '../units/add-all';
import { firstBy } from '../units/grouped';
import { finish, type Steps } from '../units/steps';
import { isZone } from '../units/zoned';
import { fold } from './match-sessions';
import { plainJson } from './plain-json';
import { type Json, JsonNumber, type JsonObject, pointerPart } from './strict-json';

/** What a breach costs: the whole file, or its feature. */
export type GeoCode = 'not_geojson' | 'crs' | 'feature' | 'geometry' | 'coordinates' | 'bounds' | 'no_name' | 'zone';
export type GeoQuestion = 'swapped' | 'at_sea' | 'far' | 'moved';
/** A site of a file. Positions are kept as they were written; `null` where the file does not know the place. */
export type GeoSite = {
  pointer: string;
  name: string;
  latitude: number | null;
  longitude: number | null;
  altitude: number | null;
  network: string | null;
  zone: string | null;
  ref: string | number | null;
  /** The name of the site known here that this is. */
  same: string | null;
  /** One question at most; nothing is decided by it. */
  asks: GeoQuestion[];
  /** Longitude and latitude as they may have been meant. */
  better: [number, number] | null;
  rest: Record<string, unknown>;
};
/** `documents`: of each site by its pointer, its feature as it stands in the file. */
export type GeoRead = { sites: GeoSite[]; breaches: { pointer: string; code: GeoCode }[]; kept: string[]; documents: Map<string, JsonObject> };
/** What the household knows of its sites. */
export type KnownPlace = { name: string; latitude: number | null; longitude: number | null };
/** True for a position that lies well off every coast. */
export type AtSea = (latitude: number, longitude: number) => boolean;

const isObject = (value: Json | undefined): value is JsonObject => value instanceof Map;
/** Members that RFC 7946 has, and those that it had once. */
const OWN = {
  collection: new Set(['type', 'features', 'bbox', 'crs', 'id']),
  feature: new Set(['type', 'geometry', 'properties', 'bbox', 'crs', 'id']),
  geometry: new Set(['type', 'coordinates', 'bbox', 'crs']),
};
const foreign = (of: JsonObject, own: ReadonlySet<string>, at: string) => [...of.keys()].filter((k) => !own.has(k)).map((k) => at + pointerPart(k));

/**
 * Reads sites of a GeoJSON document (RFC 7946, from memory): a FeatureCollection or a Feature, points with a name or sites of which the place is not known. A feature that
 * breaks the standard costs itself; what is likely a slip is asked and never decided.
 */
export const geojsonIn = (document: Json, known: readonly KnownPlace[], isAtSea: AtSea): GeoRead => finish(readingGeojson(document, known, isAtSea));

/** The same in steps. */
export function* readingGeojson(document: Json, known: readonly KnownPlace[], isAtSea: AtSea): Steps<GeoRead> {
  const type = isObject(document) ? document.get('type') : undefined;
  const none = (pointer: string, code: GeoCode): GeoRead => ({ sites: [], breaches: [{ pointer, code }], kept: [], documents: new Map() });
  if (!isObject(document)) return none('', 'not_geojson');
  if (type !== 'FeatureCollection' && type !== 'Feature') return none('/type', 'not_geojson');
  const crs = document.get('crs');
  if (crs !== undefined && crs !== null && !crsName(crs)?.endsWith('CRS84')) return none('/crs', 'crs');
  const read: GeoRead = { sites: [], breaches: [], kept: [], documents: new Map() };
  const here = knownHere(known);
  if (type === 'Feature') feature(document, '', read, here, isAtSea);
  else {
    const features = document.get('features');
    if (!Array.isArray(features)) return none('/features', 'not_geojson');
    addAll(read.kept, foreign(document, OWN.collection, ''));
    for (const [i, f] of features.entries()) {
      yield;
      feature(f, `/features/${i}`, read, here, isAtSea);
    }
  }
  return read;
}

function crsName(crs: Json): string | null {
  const properties = isObject(crs) ? crs.get('properties') : undefined;
  const name = isObject(properties) ? properties.get('name') : undefined;
  return typeof name === 'string' ? name : null;
}

/** Known sites by their folded names, the first of several, and whether a position is far from every one that has a place. */
type KnownHere = { byName: ReadonlyMap<string, KnownPlace>; isFar: (p: Position) => boolean };
const knownHere = (known: readonly KnownPlace[]): KnownHere => ({
  byName: firstBy(known, (k) => fold(k.name)),
  isFar: farFrom(known.flatMap(({ latitude, longitude }) => (latitude === null || longitude === null ? [] : [{ latitude, longitude }]))),
});

function feature(f: Json, at: string, read: GeoRead, known: KnownHere, isAtSea: AtSea): void {
  const breaches: GeoRead['breaches'] = [];
  if (!isObject(f) || f.get('type') !== 'Feature') return void read.breaches.push({ pointer: isObject(f) ? `${at}/type` : at, code: 'feature' });
  const geometry = f.get('geometry') ?? null;
  const place = placeOf(geometry, `${at}/geometry`, breaches);
  const properties = f.get('properties');
  const said = isObject(properties) ? properties : (new Map() as JsonObject);
  const name = said.get('name');
  if (typeof name !== 'string' || name.trim() === '') breaches.push({ pointer: `${at}/properties/name`, code: 'no_name' });
  const zone = said.get('zone') ?? null;
  if (zone !== null && !(typeof zone === 'string' && isZone(zone))) breaches.push({ pointer: `${at}/properties/zone`, code: 'zone' });
  if (breaches.length > 0) {
    addAll(read.breaches, breaches);
    return;
  }
  const network = said.get('network');
  const id = f.get('id');
  const same = known.byName.get(fold(name as string)) ?? null;
  const { asks, better } = place ? questions(place, same, known.isFar, isAtSea) : { asks: [], better: null };
  const taken = new Set(['name', 'zone', ...(typeof network === 'string' ? ['network'] : [])]);
  read.sites.push({
    pointer: at,
    name: name as string,
    latitude: place?.latitude ?? null,
    longitude: place?.longitude ?? null,
    altitude: place?.altitude ?? null,
    network: typeof network === 'string' && network.trim() !== '' ? network : null,
    zone: zone as string | null,
    ref: typeof id === 'string' ? id : id instanceof JsonNumber ? id.value : null,
    same: same?.name ?? null,
    asks,
    better,
    rest: Object.fromEntries([...said].filter(([key]) => !taken.has(key)).map(([key, value]) => [key, plainJson(value)])),
  });
  read.documents.set(at, f);
  addAll(read.kept, foreign(f, OWN.feature, at));
  if (isObject(geometry)) addAll(read.kept, foreign(geometry, OWN.geometry, `${at}/geometry`));
}

function placeOf(geometry: Json, at: string, breaches: GeoRead['breaches']): (Position & { altitude: number | null }) | null {
  if (geometry === null) return null;
  if (!isObject(geometry) || geometry.get('type') !== 'Point') {
    breaches.push({ pointer: isObject(geometry) ? `${at}/type` : at, code: 'geometry' });
    return null;
  }
  const list = geometry.get('coordinates');
  const numbers = Array.isArray(list) ? list.map((n) => (n instanceof JsonNumber ? n.value : null)) : [];
  const [longitude, latitude, altitude = null] = numbers;
  if (typeof longitude !== 'number' || typeof latitude !== 'number' || numbers.includes(null)) {
    breaches.push({ pointer: `${at}/coordinates`, code: 'coordinates' });
    return null;
  }
  if (Math.abs(longitude) > 180) breaches.push({ pointer: `${at}/coordinates/0`, code: 'bounds' });
  if (Math.abs(latitude) > 90) breaches.push({ pointer: `${at}/coordinates/1`, code: 'bounds' });
  return { latitude, longitude, altitude };
}

function questions(here: Position, same: KnownPlace | null, far: KnownHere['isFar'], isAtSea: AtSea): Pick<GeoSite, 'asks' | 'better'> {
  const atSea = (p: Position) => isAtSea(p.latitude, p.longitude);
  const wrong = (p: Position) => atSea(p) || far(p);
  const other = turned(here);
  if (wrong(here) && other && !wrong(other)) return { asks: ['swapped'], better: [other.longitude, other.latitude] };
  if (atSea(here)) return { asks: ['at_sea'], better: null };
  if (far(here)) return { asks: ['far'], better: null };
  return { asks: same && isApart(same, here) ? ['moved'] : [], better: null };
}

/** A site as it goes out: its other members become properties. */
export type GeoOut = { id: string; latitude: number | null; longitude: number | null } & Readonly<Record<string, unknown>>;
/** What the features said from which sites came, by their ids. */
export type GeoBeyond = ReadonlyMap<string, Readonly<Record<string, unknown>>>;

/** Six decimals are a tenth of a metre; half goes up. */
const degrees = (n: number): number => Number(new Big(n).round(6, Big.roundHalfUp).toString());

/** Sites as a FeatureCollection: longitude first, a site of which the place is not known with no geometry, what is not noted left out. Members of the feature that one came from, which no site has here, go out with it. */
export function geojsonOut(sites: readonly GeoOut[], beyond: GeoBeyond = new Map()): object {
  return {
    type: 'FeatureCollection',
    features: sites.map(({ id, latitude, longitude, ...more }) => {
      const { bbox: _, crs: __, properties, ...foreign } = beyond.get(id) ?? {};
      return {
        ...foreign,
        type: 'Feature',
        id,
        geometry: latitude === null || longitude === null ? null : { type: 'Point', coordinates: [degrees(longitude), degrees(latitude)] },
        properties: { ...(properties ?? {}), ...Object.fromEntries(Object.entries(more).filter(([, value]) => value !== null && value !== undefined)) },
      };
    }),
  };
}
