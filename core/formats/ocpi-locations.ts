import { addAll } from '../units/add-all';
import { finish, type Steps } from '../units/steps';
import { accessOf, type SiteAccess } from './location-access';
import {
  breach,
  checkObject,
  comesIn,
  type Findings,
  isHhmm,
  isObject,
  listIn,
  numberOf,
  objectIn,
  objectsIn,
  ocpiInstant,
  partyId,
  textOf,
  unitsOf,
} from './ocpi-check';
import { OCPI_CONNECTORS } from './ocpi-objects';
import { type Json, type JsonObject, pointerPart } from './strict-json';

export type OutletIn = {
  connector: string;
  ratedKW: number;
  maxA: number;
  maxV: number;
  phases: number | null;
  cable: 'tethered' | 'own cable';
};
export type StallIn = { name: string; otherName: string | null; evseUids: string[]; state: 'not yet open' | null; outlets: OutletIn[] };
export type SiteIn = {
  pointer: string;
  id: string;
  name: string;
  network: string;
  zone: string;
  latitude: number;
  longitude: number;
  stalls: StallIn[];
  /** What is no stall or outlet here, and why. */
  leftOut: { pointer: string; code: 'removed' | 'connector_unknown' | 'no_connector' }[];
  hours: JsonObject | null;
};
/** Of each site by its pointer: `access`, how one gets there and what is around; `documents`, the Location as it stands in the file. */
export type LocationsIn = Findings & { sites: SiteIn[]; access: Map<string, SiteAccess>; documents: Map<string, JsonObject> };

/** Locations of OCPI 2.2.1 as sites. One that breaks the standard is refused, with each breach; the others come in. */
export const locationsIn = (document: Json): LocationsIn => finish(readingLocations(document));

/** The same in steps. */
export function* readingLocations(document: Json): Steps<LocationsIn> {
  const all: LocationsIn = { breaches: [], kept: [], sites: [], access: new Map(), documents: new Map() };
  const seen = new Set<string>();
  for (const { pointer, value } of unitsOf(document)) {
    yield;
    const own: Findings = { breaches: [], kept: [] };
    checkObject(value, 'Location', pointer, own);
    if (isObject(value)) {
      checkHours(value, pointer, own);
      checkTwice(value, pointer, own);
    }
    const taken = isObject(value) && comesIn(seen, value, pointer, own);
    addAll(all.breaches, own.breaches);
    if (!taken) continue;
    addAll(all.kept, own.kept);
    all.sites.push(siteIn(value, pointer));
    all.access.set(pointer, accessOf(value));
    all.documents.set(pointer, value);
  }
  return all;
}

/** Hours end after they begin, or at the day's end. */
function checkHours(o: JsonObject, pointer: string, into: Findings): void {
  const hours = objectIn(o, 'opening_times');
  if (!hours) return;
  const at = `${pointer}/opening_times`;
  for (const [i, h] of listIn(hours, 'regular_hours').entries()) {
    if (!isObject(h)) continue;
    const [begin, end] = [textOf(h, 'period_begin'), textOf(h, 'period_end')];
    if (isHhmm(begin) && isHhmm(end) && end !== '00:00' && end <= begin) breach(into, `${at}/regular_hours/${i}/period_end`, 'order');
  }
  for (const name of ['exceptional_openings', 'exceptional_closings'])
    for (const [i, p] of listIn(hours, name).entries()) {
      if (!isObject(p)) continue;
      const [from, to] = [ocpiInstant(textOf(p, 'period_begin') ?? ''), ocpiInstant(textOf(p, 'period_end') ?? '')];
      if (from !== null && to !== null && to <= from) breach(into, `${at}/${name}/${i}/period_end`, 'order');
    }
}

/** A uid once in a location, a connector's id once in an EVSE. */
function checkTwice(o: JsonObject, pointer: string, into: Findings): void {
  const uids = new Set<string>();
  for (const [i, evse] of listIn(o, 'evses').entries()) {
    if (!isObject(evse)) continue;
    const uid = textOf(evse, 'uid');
    if (uid !== null && uids.has(uid)) breach(into, `${pointer}/evses/${i}/uid`, 'duplicate');
    if (uid !== null) uids.add(uid);
    const ids = new Set<string>();
    for (const [k, c] of listIn(evse, 'connectors').entries()) {
      const id = isObject(c) ? textOf(c, 'id') : null;
      if (id !== null && ids.has(id)) breach(into, `${pointer}/evses/${i}/connectors/${k}/id`, 'duplicate');
      if (id !== null) ids.add(id);
    }
  }
}

/** A text in which something stands. */
const wordsOf = (o: JsonObject, name: string): string | null => (textOf(o, name)?.trim() ? textOf(o, name) : null);

function siteIn(o: JsonObject, pointer: string): SiteIn {
  const leftOut: SiteIn['leftOut'] = [];
  const place = objectIn(o, 'coordinates') as JsonObject;
  const operator = objectIn(o, 'operator');
  return {
    pointer,
    id: partyId(o),
    name: wordsOf(o, 'name') ?? wordsOf(o, 'address') ?? '',
    network: (operator && wordsOf(operator, 'name')) ?? `${textOf(o, 'country_code')}*${textOf(o, 'party_id')}`,
    zone: textOf(o, 'time_zone') ?? 'UTC',
    latitude: Number(textOf(place, 'latitude')),
    longitude: Number(textOf(place, 'longitude')),
    stalls: listIn(o, 'evses').flatMap((evse, i) => (isObject(evse) ? stallIn(evse, `${pointer}/evses${pointerPart(i)}`, leftOut) : [])),
    leftOut,
    hours: objectIn(o, 'opening_times'),
  };
}

function stallIn(evse: JsonObject, pointer: string, leftOut: SiteIn['leftOut']): StallIn[] {
  if (textOf(evse, 'status') === 'REMOVED') {
    leftOut.push({ pointer, code: 'removed' });
    return [];
  }
  const outlets = objectsIn(evse, 'connectors').flatMap((c, i) => {
    const outlet = outletIn(c);
    if (!outlet) leftOut.push({ pointer: `${pointer}/connectors/${i}`, code: 'connector_unknown' });
    return outlet ?? [];
  });
  if (outlets.length === 0) {
    leftOut.push({ pointer, code: 'no_connector' });
    return [];
  }
  const [uid, evseId] = [textOf(evse, 'uid') ?? '', textOf(evse, 'evse_id')];
  const name = textOf(evse, 'physical_reference')?.trim() || evseId || uid;
  return [
    {
      name,
      otherName: evseId !== name ? evseId : null,
      evseUids: [...new Set([uid, ...(evseId ? [evseId] : [])])],
      state: textOf(evse, 'status') === 'PLANNED' ? 'not yet open' : null,
      outlets,
    },
  ];
}

const PHASES: Readonly<Record<string, number>> = { AC_1_PHASE: 1, AC_2_PHASE: 2, AC_2_PHASE_SPLIT: 2, AC_3_PHASE: 3 };
function outletIn(c: JsonObject): OutletIn | null {
  const connector = OCPI_CONNECTORS[(textOf(c, 'standard') ?? '') as keyof typeof OCPI_CONNECTORS] as string | undefined;
  if (!connector) return null;
  const [V, A, W] = ['max_voltage', 'max_amperage', 'max_electric_power'].map((n) => numberOf(c, n)?.value);
  const phases = PHASES[textOf(c, 'power_type') ?? ''] ?? null;
  return {
    connector,
    ratedKW: (W ?? (V as number) * (A as number) * (phases ?? 1)) / 1000,
    maxA: A as number,
    maxV: V as number,
    phases,
    cable: textOf(c, 'format') === 'SOCKET' ? 'own cable' : 'tethered',
  };
}
