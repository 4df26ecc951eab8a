import { isApart } from '../records/place-questions';
import { siteSchema } from '../records/place-schema';
import type { RecordFields } from '../records/record-schema';
import { firstLetters } from '../units/first-letters';
import { grouped } from '../units/grouped';
import type { GeoQuestion, GeoSite } from './geojson';
import { keptText, type SiteAccess } from './location-access';
import { fold } from './match-sessions';
import { textOf } from './ocpi-check';
import type { SiteIn, StallIn } from './ocpi-locations';
import { locationsOut } from './ocpi-out';
import { hoursText } from './opening-hours';
import { type PlaceDocument, placeDocument, saysTheSame } from './place-document';
import { type KnownSite, locationOf, type SiteTold, samePosts, sameSite } from './same-place';
import type { JsonObject } from './strict-json';

/** A site of a file as it may come in. */
export type PlaceProposal = SiteTold & {
  pointer: string;
  zone: string | null;
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

/** Letters of a name that a record keeps; OCPI lets an operator have a hundred. */
const MOST_NAME = 80;
const shortened = (name: string): string => firstLetters(name.trim(), MOST_NAME).trimEnd();

const whereabouts = ({ pointer, name, network, zone, latitude, longitude }: GeoSite | SiteIn) => ({
  pointer,
  name: shortened(name),
  network: network === null ? null : shortened(network),
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
    location: null,
    twins: false,
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
  location: locationOf(Object.fromEntries(['country_code', 'party_id', 'id'].map((name) => [name, textOf(location, name)]))),
  twins: false,
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

/** The same proposals, each told whether those of its name and network stand apart. */
export function withTwins(all: readonly PlaceProposal[]): PlaceProposal[] {
  const name = (p: PlaceProposal) => `${fold(p.name)}\n${fold(p.network ?? '')}`;
  const apart = new Map([...grouped(all, name)].map(([of, some]) => [of, some.some((p) => isApart(p, some.find((q) => q.latitude !== null) ?? p))]));
  return all.map((p) => ({ ...p, twins: apart.get(name(p)) ?? false }));
}

/** What of a file's site is new: all of it, or what the one that is here lacks. `asks`: of one that is known elsewhere as well, which stays there unless that is said. */
export type PlaceNews = {
  same: KnownSite | null;
  position: boolean;
  asks: GeoQuestion[];
  fields: SiteWords;
  document: boolean;
  stalls: StallIn[];
  uids: { id: string; rev: number; evseUids: string[] }[];
};
export const placeNews = (p: PlaceProposal, known: readonly KnownSite[]): PlaceNews => newsOf(p, sameSite(p, known));

/** The same where it is known which site it is. */
export function newsOf(p: PlaceProposal, same: KnownSite | null): PlaceNews {
  const placed = p.latitude !== null && p.longitude !== null;
  const slips = p.asks.filter((a) => a !== 'moved');
  if (!same) return { same, position: placed, asks: slips, fields: p.fields, document: p.document?.text != null, stalls: p.stalls, uids: [] };
  const posts = samePosts(p.stalls, same.stalls);
  const uids = [...posts].flatMap(([i, ours]) => {
    const more = p.stalls[i]?.evseUids.filter((uid) => uid !== ours.id && !ours.fields.evseUids.includes(uid)) ?? [];
    const all = [...ours.fields.evseUids, ...more];
    return more.length > 0 && all.length <= 8 ? [{ id: ours.id, rev: ours.rev, evseUids: all }] : [];
  });
  return {
    same,
    position: placed && same.fields.latitude === null,
    asks: slips.length === 0 && isApart(p, same.fields) ? ['moved'] : slips,
    fields: Object.fromEntries(Object.entries(p.fields).filter(([name]) => same.fields[name as keyof SiteWords] === null)),
    document: p.document?.text != null && !saidHere(p.document.text, same, p.id === same.id),
    stalls: p.stalls.filter((_, i) => !posts.has(i)),
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
  !n.same ||
  n.same.archived ||
  n.position ||
  n.asks.includes('moved') ||
  n.document ||
  Object.keys(n.fields).length > 0 ||
  n.stalls.length > 0 ||
  n.uids.length > 0;

/** The fields of a post as a record has them. A network's rating is no plate that somebody read; phases that a record cannot say are left open. @param day the day it was written down */
export function stallFields(s: StallIn, siteId: string, day: string): Partial<RecordFields<'stall'>> {
  return {
    siteId,
    name: firstLetters(s.name, 40),
    otherName: s.otherName ? firstLetters(s.otherName, 40) : null,
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
