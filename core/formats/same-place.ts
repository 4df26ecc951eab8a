import { APART_KM, isApart, kmApart } from '../records/place-questions';
import type { RecordFields } from '../records/record-schema';
import { firstBy, grouped } from '../units/grouped';
import { onceOf } from '../units/once-of';
import { finish, ROWS_A_STEP, type Steps } from '../units/steps';
import { fold } from './match-sessions';
import type { StallIn } from './ocpi-locations';
import { documentMembers } from './place-document';

export type KnownSite = {
  id: string;
  archived: boolean;
  rev: number;
  fields: RecordFields<'site'>;
  network: string | null;
  stalls: readonly { id: string; rev: number; archived: boolean; fields: RecordFields<'stall'> }[];
};
/** What tells which site one of a file is. */
export type SiteTold = {
  /** By what its file calls it: in one that went out of here the site's own id. */
  id: string | null;
  name: string;
  network: string | null;
  latitude: number | null;
  longitude: number | null;
  /** What a Location is known by to its network, `country*party*id`; `null` of what is none. */
  location: string | null;
  /** Another place of the file, elsewhere, has its name and network. */
  twins: boolean;
  stalls: readonly StallIn[];
};

const folded = (names: readonly (string | null)[]): Set<string> => new Set(names.flatMap((n) => (n ? [fold(n)] : [])));

/** A hundredth of a degree of latitude is over a kilometre: what does not stand apart lies in the same belt or the next. */
const beltOf = (latitude: number): number => Math.floor(latitude * 100);
/** Those of one name, and by belts of latitude, since some networks give all their sites one name; `null`: of which the place is not known. */
type Named = { all: readonly KnownSite[]; belts: ReadonlyMap<number | null, readonly KnownSite[]> };
const namedOf = (all: readonly KnownSite[]): Named => ({
  all,
  belts: grouped(all, ({ fields }) => (fields.latitude === null ? null : beltOf(fields.latitude))),
});
const around = ({ belts }: Named, latitude: number): KnownSite[] =>
  [null, beltOf(latitude) - 1, beltOf(latitude), beltOf(latitude) + 1].flatMap((belt) => belts.get(belt) ?? []);

/** Sites by their ids, by the folded ids of their posts, and by their folded names: a file may have as many places as the household. What is in use comes before what was put away. */
const indexOf = onceOf((all: readonly KnownSite[]) => {
  const known = [...all.filter((k) => !k.archived), ...all.filter((k) => k.archived)];
  const posts = known.flatMap((k, n) => [...folded(k.stalls.flatMap((s) => s.fields.evseUids))].map((uid) => ({ uid, n })));
  return {
    known,
    byId: firstBy(known, (k) => k.id),
    byPost: grouped(posts, (p) => p.uid),
    byName: new Map([...grouped(known, (k) => fold(k.fields.name))].map(([name, all]) => [name, namedOf(all)])),
  };
});

/** What the Location that a site was taken in from is known by. */
export const locationOf = (o: { readonly country_code?: unknown; readonly party_id?: unknown; readonly id?: unknown }): string | null =>
  [o.country_code, o.party_id, o.id].every((part) => typeof part === 'string') ? [o.country_code, o.party_id, o.id].join('*').toLowerCase() : null;
const keptFrom = onceOf((k: KnownSite) => ({ location: locationOf(documentMembers(k.fields.fromFile, 'OCPI')) }));
/** True of a site that was taken in from another Location than that which a file's is. */
export const isAnother = (p: SiteTold, k: KnownSite): boolean => {
  const own = p.location === null ? null : keptFrom(k).location;
  return own !== null && own !== p.location;
};
/** How far a site of that name is from where the file has it; one of which the place is not known may be that as well as any that is not apart. */
const distance = (p: SiteTold, k: KnownSite): number => kmApart(p, k.fields) ?? APART_KM;

const isCalled = (a: string, b: string): boolean => a === b || fold(a) === fold(b);
const mayBeOne = (a: string | null, b: string | null): boolean => a === null || b === null || isCalled(a, b);
/** Of a file two places of one name are one where they stand together, unless they are of two networks or each is a Location of its own. */
export const isOnePlace = (a: SiteTold, b: SiteTold): boolean =>
  isCalled(a.name, b.name) &&
  !isApart(a, b) &&
  // One without a place may be either of two that stand apart.
  !((a.twins || b.twins) && (a.latitude === null) !== (b.latitude === null)) &&
  mayBeOne(a.network, b.network) &&
  mayBeOne(a.location, b.location);

/**
 * The sites here that places of a file are: the one of which a place was written, else by an id of its posts, else by its name, of several of one name the nearest of the same network, each
 * of one place alone. One that stands apart is another where the file has both, or another network is written; else it may have been moved, which is asked.
 * @returns in the order of the places
 */
export const sameSites = (places: readonly SiteTold[], all: readonly KnownSite[]): (KnownSite | null)[] => finish(matchingSites(places, all));

/** The same in steps. */
export function* matchingSites(places: readonly SiteTold[], all: readonly KnownSite[]): Steps<(KnownSite | null)[]> {
  const { known, byId, byPost, byName } = indexOf(all);
  const out: (KnownSite | null)[] = [];
  const claims = new Map<KnownSite, SiteTold[]>();
  const claim = (i: number, p: SiteTold, k: KnownSite) => {
    out[i] = k;
    claims.set(k, [...(claims.get(k) ?? []), p]);
  };
  const unknown: { i: number; p: SiteTold; named: KnownSite[]; km: number }[] = [];
  for (const [i, p] of places.entries()) {
    if (i % ROWS_A_STEP === 0) yield;
    out[i] = null;
    const posts = [...folded(p.stalls.flatMap((s) => s.evseUids))].flatMap((uid) => byPost.get(uid) ?? []).sort((a, b) => a.n - b.n);
    // An id of a network's own may be another's elsewhere.
    const ofPosts = posts.map(({ n }) => known[n] as KnownSite).find((k) => !isApart(p, k.fields) || mayBeOne(p.network, k.network));
    const told = (p.id === null ? undefined : byId.get(p.id)) ?? ofPosts;
    if (told) claim(i, p, told);
    else {
      const called = byName.get(fold(p.name));
      const named = called ? ofName(p, p.twins && p.latitude !== null ? around(called, p.latitude) : called.all) : [];
      if (named[0]) unknown.push({ i, p, named, km: distance(p, named[0]) });
    }
  }
  for (const [n, { i, p, named }] of unknown.sort((a, b) => a.km - b.km).entries()) {
    if (n % ROWS_A_STEP === 0) yield;
    const free = named.find((k) => (claims.get(k) ?? []).every((q) => isOnePlace(p, q)));
    if (free) claim(i, p, free);
  }
  return out;
}

/** Those of a place's name that it may be: what is in use before what was put away, of its network before those of others, the nearest first. */
function ofName(p: SiteTold, named: readonly KnownSite[]): KnownSite[] {
  return named
    .map((k) => ({ k, km: distance(p, k), its: mayBeOne(p.network, k.network) }))
    .filter(({ k, km, its }) => !isAnother(p, k) && !(km > APART_KM && (p.twins || !its)))
    .sort((a, b) => Number(a.k.archived) - Number(b.k.archived) || Number(b.its) - Number(a.its) || a.km - b.km)
    .map(({ k }) => k);
}

/** The same of one place by itself. */
export const sameSite = (p: SiteTold, all: readonly KnownSite[]): KnownSite | null => sameSites([p], all)[0] ?? null;

type Post = KnownSite['stalls'][number];
/**
 * Which post here each of a file's site is, each of one alone: by an id that the network gave, or ours in a file that went out of here, else by its name.
 * @returns by its place in `theirs`
 */
export function samePosts(theirs: readonly StallIn[], ours: readonly Post[]): Map<number, Post> {
  const out = new Map<number, Post>();
  const free = new Set(ours);
  const pair = (is: (t: StallIn, o: Post) => boolean) => {
    for (const [i, t] of theirs.entries()) {
      const found = out.has(i) ? undefined : [...free].find((o) => is(t, o));
      if (!found) continue;
      out.set(i, found);
      free.delete(found);
    }
  };
  pair((t, { id, fields }) => {
    const ids = folded([id, ...fields.evseUids]);
    return t.evseUids.some((uid) => ids.has(fold(uid)));
  });
  pair((t, { fields }) => folded([fields.name, fields.otherName]).has(fold(t.name)));
  return out;
}
