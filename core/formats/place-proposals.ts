import { siteSchema } from '../records/place-schema';
import type { RecordFields } from '../records/record-schema';
import { firstBy, grouped } from '../units/grouped';
import { onceOf } from '../units/once-of';
import type { GeoQuestion, GeoSite } from './geojson';
import { keptText, type SiteAccess } from './location-access';
import { fold } from './match-sessions';
import { textOf } from './ocpi-check';
import type { SiteIn, StallIn } from './ocpi-locations';
import { locationsOut } from './ocpi-out';
import { hoursText } from './opening-hours';
import { type PlaceDocument, placeDocument, saysTheSame } from './place-document';
import type { JsonObject } from './strict-json';

/** A site of a file as it may come in. */
export type PlaceProposal = {
  pointer: string;
  /** By what its file calls it: in one that went out of here the site's own id. */
  id: string | null;
  name: string;
  network: string | null;
  zone: string | null;
  latitude: number | null;
  longitude: number | null;
  asks: GeoQuestion[];
  /** Longitude and latitude as they may have been meant. */
  better: [number, number] | null;
  /** What else the file says that a field of a site has. */
  fields: SiteWords;
  /** What it says beyond that; `null`: nothing. */
  document: PlaceDocument | null;
  stalls: StallIn[];
};
/** Fields of a site that a file may fill. */
export type SiteWords = Partial<Omit<RecordFields<'site'>, (typeof OF_ITS_OWN)[number]>>;
export type KnownSite = {
  id: string;
  fields: RecordFields<'site'>;
  network: string | null;
  stalls: readonly { id: string; rev: number; archived: boolean; fields: RecordFields<'stall'> }[];
};

const whereabouts = ({ pointer, name, network, zone, latitude, longitude }: GeoSite | SiteIn) => ({
  pointer,
  name: name.trim(),
  network,
  zone,
  latitude,
  longitude,
});

/** A feature's site. Properties that are called as the fields of a site fill them, where they say what such a field can hold. */
export function proposalOfGeo(s: GeoSite, feature: JsonObject): PlaceProposal {
  const fields: Record<string, unknown> = {};
  const beyond = Object.entries(s.rest).filter(([name, value]) => {
    const schema = isWord(name) ? siteSchema.shape[name] : null;
    const read = schema?.safeParse(name === 'note' && typeof value === 'string' ? keptText(value, 1000) : value);
    if (read?.success && read.data !== null) fields[name] = read.data;
    return !read?.success && value !== null;
  });
  const geometry = feature.get('geometry');
  const more = [...feature.keys(), ...(geometry instanceof Map ? geometry.keys() : [])].some((name) => !FEATURE.has(name));
  return {
    ...whereabouts(s),
    id: textOf(feature, 'id'),
    asks: s.asks,
    better: s.better,
    fields: fields as SiteWords,
    document: beyond.length > 0 || more || s.altitude !== null ? placeDocument('GeoJSON', feature) : null,
    stalls: [],
  };
}
export const proposalOfLocation = (s: SiteIn, access: SiteAccess, location: JsonObject): PlaceProposal => ({
  ...whereabouts(s),
  id: textOf(location, 'id'),
  asks: [],
  better: null,
  fields: said({ ...access, openingHours: hoursText(s.hours) }),
  document: placeDocument('OCPI', location),
  stalls: s.stalls,
});

/** What is told of a site otherwise, and whom to call in danger, which nobody takes from a file unseen. */
const OF_ITS_OWN = ['networkId', 'name', 'zone', 'latitude', 'longitude', 'photos', 'fromFile', 'emergencyNumber'] as const;
const isWord = (name: string): name is keyof SiteWords => Object.hasOwn(siteSchema.shape, name) && !(OF_ITS_OWN as readonly string[]).includes(name);
/** Members of a feature and of its geometry (RFC 7946). */
const FEATURE: ReadonlySet<string> = new Set(['type', 'id', 'geometry', 'properties', 'bbox', 'coordinates']);
const said = (fields: SiteWords): SiteWords => Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== null));

const folded = (names: readonly (string | null)[]): Set<string> => new Set(names.flatMap((n) => (n ? [fold(n)] : [])));
/** Two posts are one where an id that the network gave is the same, or ours in a file that went out of here, else where their names are. */
const isSame = (theirs: StallIn, { id, fields }: KnownSite['stalls'][number]): boolean => {
  const ids = folded([id, ...fields.evseUids]);
  if (theirs.evseUids.some((uid) => ids.has(fold(uid)))) return true;
  return folded([fields.name, fields.otherName]).has(fold(theirs.name));
};

/** Sites by the folded ids of their posts, the first of several, and by their folded names: a file may have as many places as the household. */
const indexOf = onceOf((known: readonly KnownSite[]) => {
  const posts = known.flatMap((k, n) => [...folded(k.stalls.flatMap((s) => s.fields.evseUids))].map((uid) => ({ uid, n })));
  return { byId: firstBy(known, (k) => k.id), byPost: firstBy(posts, (p) => p.uid), byName: grouped(known, (k) => fold(k.fields.name)) };
});

/** The site here that one of a file is: the one of which it was written, else by an id of its posts, else by its name, of several of one name that of the same network. */
export function sameSite(p: PlaceProposal, known: readonly KnownSite[]): KnownSite | null {
  const { byId, byPost, byName } = indexOf(known);
  const own = p.id === null ? undefined : byId.get(p.id);
  if (own) return own;
  const posts = [...folded(p.stalls.flatMap((s) => s.evseUids))].flatMap((uid) => byPost.get(uid)?.n ?? []);
  if (posts.length > 0) return known[posts.reduce((least, n) => Math.min(least, n))] ?? null;
  const named = byName.get(fold(p.name)) ?? [];
  return named.find((k) => p.network !== null && k.network !== null && fold(k.network) === fold(p.network)) ?? named[0] ?? null;
}

/** What of a file's site is new: all of it, or what the one that is here lacks. `moves`: it is known elsewhere, and stays there unless that is said. */
export type PlaceNews = {
  same: KnownSite | null;
  position: boolean;
  moves: boolean;
  fields: SiteWords;
  document: boolean;
  stalls: StallIn[];
  uids: { id: string; rev: number; evseUids: string[] }[];
};
export function placeNews(p: PlaceProposal, known: readonly KnownSite[]): PlaceNews {
  const same = sameSite(p, known);
  const placed = p.latitude !== null && p.longitude !== null;
  if (!same) return { same, position: placed, moves: false, fields: p.fields, document: p.document?.text != null, stalls: p.stalls, uids: [] };
  const uids = same.stalls.flatMap((ours) => {
    const theirs = p.stalls.find((s) => isSame(s, ours));
    const more = theirs?.evseUids.filter((uid) => uid !== ours.id && !ours.fields.evseUids.includes(uid)) ?? [];
    const all = [...ours.fields.evseUids, ...more];
    return more.length > 0 && all.length <= 8 ? [{ id: ours.id, rev: ours.rev, evseUids: all }] : [];
  });
  return {
    same,
    position: placed && same.fields.latitude === null,
    moves: p.asks.includes('moved'),
    fields: Object.fromEntries(Object.entries(p.fields).filter(([name]) => same.fields[name as keyof SiteWords] === null)),
    document: p.document?.text != null && !saidHere(p.document.text, same, p.id === same.id),
    stalls: p.stalls.filter((s) => !same.stalls.some((ours) => isSame(s, ours))),
    uids,
  };
}
/** What a file says of a site is no news where it was kept of a file before, or is what goes out of here of that site, as nobody added to it since. */
function saidHere(text: string, same: KnownSite, wentOut: boolean): boolean {
  if (same.fields.fromFile && saysTheSame(text, same.fields.fromFile.document)) return true;
  const [ours] = wentOut ? locationsOut([same], 0).data : [];
  return ours !== undefined && saysTheSame(text, JSON.stringify(ours));
}
export const isNews = (n: PlaceNews): boolean =>
  !n.same || n.position || n.moves || n.document || Object.keys(n.fields).length > 0 || n.stalls.length > 0 || n.uids.length > 0;

/** The fields of a post as a record has them. A network's rating is no plate that somebody read; phases that a record cannot say are left open. @param day the day it was written down */
export function stallFields(s: StallIn, siteId: string, day: string): Partial<RecordFields<'stall'>> {
  return {
    siteId,
    name: [...s.name].slice(0, 40).join(''),
    otherName: s.otherName ? [...s.otherName].slice(0, 40).join('') : null,
    evseUids: s.evseUids.slice(0, 8),
    outlets: s.outlets.slice(0, 4).map((o) => ({
      connector: o.connector as RecordFields<'stall'>['outlets'][number]['connector'],
      ratedKW: Math.min(4000, Math.max(1, Math.round(o.ratedKW * 10) / 10)),
      appKW: null,
      maxA: o.maxA >= 5 && o.maxA <= 4000 ? o.maxA : null,
      minV: null,
      maxV: o.maxV >= 50 && o.maxV <= 1500 ? o.maxV : null,
      phases: o.phases === 1 || o.phases === 3 ? o.phases : null,
      cable: o.cable,
    })),
    ...(s.state ? { state: { is: s.state, kW: null, seenOn: day, by: 'the network' } } : {}),
  };
}
