import { createHash } from 'node:crypto';
import { atSea } from '@/core/formats/at-sea';
import { type GeoCode, readingGeojson } from '@/core/formats/geojson';
import { NO_ACCESS } from '@/core/formats/location-access';
import { BREACHES_LISTED } from '@/core/formats/ocpi-check';
import { readingLocations } from '@/core/formats/ocpi-locations';
import { isNews, newsOf, type PlaceProposal, proposalOfGeo, proposalOfLocation, withTwins } from '@/core/formats/place-proposals';
import { type KnownSite, matchingSites } from '@/core/formats/same-place';
import { type Json, type JsonObject, type JsonRefused, readingJson } from '@/core/formats/strict-json';
import { byId } from '@/core/units/by-id';
import { grouped } from '@/core/units/grouped';
import type { Steps } from '@/core/units/steps';
import type { SignedIn } from '../accounts/sessions';
import { MAX_ITEMS, takeBatch } from '../outbox/take-batch';
import { recordsOf } from '../records/record-tables';
import { unhurried } from '../unhurried';
import { HeldReads } from './held-reads';
import { type PlaceChoice, PlaceRecords } from './place-records';

/** One site of the file, and what would come of it. */
export type PlaceRow = Pick<PlaceProposal, 'pointer' | 'name' | 'network' | 'latitude' | 'longitude' | 'asks' | 'better'> & {
  /** The site here that it is; `null`: it would be made. */
  siteId: string | null;
  is: 'new' | 'adds' | 'here' | /** It is here, and not in use. */ 'away';
  stalls: number;
  /** Fields that it fills. */
  fills: string[];
};
/** `breaches`: the first of them; `unlisted`: how many there are besides. */
export type PlacesPreview = {
  format: 'geojson' | 'ocpi';
  rows: PlaceRow[];
  breaches: { pointer: string; code: string }[];
  unlisted: number;
  networks: string[];
};

export type PlacesAnswer =
  | {
      ok: true;
      preview: PlacesPreview;
      taken?: number;
      /** Sites of which something was not taken, and why. */
      notTaken?: { pointer: string; name: string; reason: string }[];
    }
  | { ok: false; refused: JsonRefused | { code: 'no_places' | GeoCode; where: { pointer: string } } };

type Read = { format: 'geojson' | 'ocpi'; proposals: PlaceProposal[]; breaches: { pointer: string; code: string }[] };

async function knownSites(householdId: string): Promise<KnownSite[]> {
  const [sites, networks, stalls] = await Promise.all([recordsOf(householdId, 'site'), recordsOf(householdId, 'network'), recordsOf(householdId, 'stall')]);
  const called = new Map(networks.map((n) => [n.id, n.fields.name]));
  // In the order in which they go out.
  const ofSite = grouped(byId(stalls), (s) => s.fields.siteId);
  return sites.map(({ id, rev, archived, fields }) => ({
    id,
    rev,
    archived,
    fields,
    network: called.get(fields.networkId) ?? null,
    stalls: ofSite.get(id) ?? [],
  }));
}

type Unread = { code: 'no_places' | GeoCode; where: { pointer: string } };
const typeOf = (document: Json): Json | undefined => (document instanceof Map ? document.get('type') : undefined);
/** Tells GeoJSON and OCPI Locations apart by what they hold. */
const readingPlaces = (document: Json, known: readonly KnownSite[]): Steps<Read | Unread> =>
  typeof typeOf(document) === 'string' ? readingFeatures(document, known) : readingNetworks(document);

function* readingFeatures(document: Json, known: readonly KnownSite[]): Steps<Read | Unread> {
  const { sites, breaches, documents } = yield* readingGeojson(
    document,
    known.map((k) => k.fields),
    atSea,
  );
  const whole = breaches.find((b) => b.code === 'not_geojson' || b.code === 'crs');
  if (whole) return { code: whole.code, where: { pointer: whole.pointer } };
  const proposals = yield* eachOf(sites, (s) => proposalOfGeo(s, documents.get(s.pointer) as JsonObject));
  return withDocuments('geojson', proposals, breaches);
}

function* readingNetworks(document: Json): Steps<Read | Unread> {
  const { sites, breaches, access, documents } = yield* readingLocations(document);
  if (sites.length === 0 && !looksLikeLocations(document)) return { code: 'no_places', where: { pointer: '' } };
  const refusing = breaches.filter((b) => b.refuses).map(({ pointer, code }) => ({ pointer, code }));
  const proposals = yield* eachOf(sites, (s) => proposalOfLocation(s, access.get(s.pointer) ?? NO_ACCESS, documents.get(s.pointer) as JsonObject));
  return withDocuments('ocpi', proposals, [...refusing, ...sites.flatMap((s) => s.leftOut)]);
}

function* eachOf<S, T>(all: readonly S[], of: (one: S) => T): Steps<T[]> {
  const out: T[] = [];
  for (const one of all) {
    yield;
    out.push(of(one));
  }
  return out;
}
/** Says as well of which sites not all can be kept that the file says. */
const withDocuments = (format: Read['format'], proposals: PlaceProposal[], breaches: Read['breaches']): Read => ({
  format,
  proposals: withTwins(proposals),
  breaches: [
    ...breaches,
    ...proposals.flatMap(({ pointer, document }) => (document && document.lacks !== 'nothing' ? [{ pointer, code: `lacks_${document.lacks}` }] : [])),
  ],
});
const looksLikeLocations = (document: Json): boolean => {
  const inside = document instanceof Map ? (document.get('data') ?? document) : document;
  const [first] = Array.isArray(inside) ? inside : [inside];
  return first instanceof Map && (first.has('evses') || first.has('coordinates'));
};

/** What was read of a file, while its sites are taken in some at a time. Locations are read the same whatever is here. */
const held = new HeldReads<{ document: Json; locations: Read | Unread | null }>();

async function load(who: SignedIn, bytes: Uint8Array) {
  const key = createHash('sha256').update(bytes).digest('hex');
  let file = held.of(who.personId, key);
  if (!file) {
    const read = await unhurried(readingJson(bytes));
    if (!read.ok) return { refused: { code: read.code, where: read.where } };
    file = { document: read.value, locations: null };
    held.keep(who.personId, [key], file);
  }
  const known = await knownSites(who.householdId);
  const found = file.locations ?? (await unhurried(readingPlaces(file.document, known)));
  if (typeof typeOf(file.document) !== 'string') Object.assign(file, { document: null, locations: found });
  if ('code' in found) return { refused: found };
  return { ...found, known };
}

async function previewOf(who: SignedIn, { format, proposals, breaches }: Read, known: readonly KnownSite[]): Promise<PlacesPreview> {
  const networks = (await recordsOf(who.householdId, 'network')).filter((n) => !n.archived).map((n) => n.fields.name);
  const same = await unhurried(matchingSites(proposals, known));
  const row = ([i, p]: [number, PlaceProposal]): PlaceRow => {
    const news = newsOf(p, same[i] ?? null);
    const { pointer, name, network, latitude, longitude, better } = p;
    return {
      pointer,
      name,
      network: network ?? news.same?.network ?? null,
      latitude,
      longitude,
      asks: news.asks,
      better,
      siteId: news.same?.id ?? null,
      is: !news.same ? 'new' : news.same.archived ? 'away' : isNews(news) ? 'adds' : 'here',
      stalls: news.stalls.length,
      fills: [...Object.keys(news.fields), ...(news.document ? ['fromFile'] : [])],
    };
  };
  return {
    format,
    rows: await unhurried(eachOf([...proposals.entries()], row)),
    breaches: breaches.slice(0, BREACHES_LISTED),
    unlisted: Math.max(0, breaches.length - BREACHES_LISTED),
    networks,
  };
}

export async function previewPlaces(who: SignedIn, bytes: Uint8Array): Promise<PlacesAnswer> {
  const found = await load(who, bytes);
  return 'refused' in found ? { ok: false, refused: found.refused as never } : { ok: true, preview: await previewOf(who, found, found.known) };
}

/**
 * Makes the sites that were chosen with their posts and networks, adds to those that are here what they lack, and brings those into use again that were put away. What is noted here is
 * changed by nothing but a position that was asked for.
 */
export async function takePlaces(who: SignedIn, bytes: Uint8Array, choices: readonly PlaceChoice[]): Promise<PlacesAnswer> {
  const found = await load(who, bytes);
  if ('refused' in found) return { ok: false, refused: found.refused as never };
  const chosen = new Map(choices.map((c) => [c.pointer, c]));
  const making = new PlaceRecords(who, found.known, await recordsOf(who.householdId, 'network'));
  const units: object[][] = [];
  const of = new Map<string, PlaceProposal>();
  const notTaken = new Map<string, { pointer: string; name: string; reason: string }>();
  const not = ({ pointer, name }: PlaceProposal, reason: string) => {
    // What else of its site is refused with it says less.
    if (!notTaken.has(pointer)) notTaken.set(pointer, { pointer, name, reason });
  };
  const same = await unhurried(matchingSites(found.proposals, found.known));
  for (const [i, p] of found.proposals.entries()) {
    const choice = chosen.get(p.pointer);
    if (!choice) continue;
    const records = making.of(p, choice, same[i] ?? null);
    if (!records) {
      not(p, 'what is here was changed meanwhile: look again');
      continue;
    }
    units.push(records.map((record) => ({ type: 'record', record })));
    for (const { id } of records) of.set(id, p);
  }
  let taken = 0;
  for (const batch of batches(units)) {
    const answer = await takeBatch(who, { items: batch });
    if (!answer.ok) throw new Error(answer.reason);
    taken += answer.results.filter((r) => r.status === 'taken').length;
    for (const r of answer.results) {
      const p = of.get(r.id);
      if ((r.status === 'refused' || r.status === 'conflict') && p) not(p, r.reason ?? 'is not understood');
    }
  }
  return { ok: true, preview: await previewOf(who, found, await knownSites(who.householdId)), taken, notTaken: [...notTaken.values()] };
}

/** What belongs together stays together, as far as one batch takes it. */
function batches(units: readonly (readonly object[])[]): object[][] {
  const out: object[][] = [];
  for (const unit of units)
    for (let at = 0; at < unit.length; at += MAX_ITEMS) {
      const some = unit.slice(at, at + MAX_ITEMS);
      const last = out.at(-1);
      if (last && last.length + some.length <= MAX_ITEMS) last.push(...some);
      else out.push([...some]);
    }
  return out;
}
