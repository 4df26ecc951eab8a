import { APART_KM, isApart, kmApart } from '../records/place-questions';
import type { RecordFields } from '../records/record-schema';
import { firstBy, grouped } from '../units/grouped';
import { onceOf } from '../units/once-of';
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

/** Sites by their ids, by the folded ids of their posts, and by their folded names: a file may have as many places as the household. What is in use comes before what was put away. */
const indexOf = onceOf((all: readonly KnownSite[]) => {
  const known = [...all.filter((k) => !k.archived), ...all.filter((k) => k.archived)];
  const posts = known.flatMap((k, n) => [...folded(k.stalls.flatMap((s) => s.fields.evseUids))].map((uid) => ({ uid, n })));
  return { known, byId: firstBy(known, (k) => k.id), byPost: firstBy(posts, (p) => p.uid), byName: grouped(known, (k) => fold(k.fields.name)) };
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

/**
 * The site here that one of a file is: the one of which it was written, else by an id of its posts, else by its name, of several of one name the nearest of the same network. One that
 * stands apart is another where the file has both, or another network is written; else it may have been moved, which is asked.
 */
export function sameSite(p: SiteTold, all: readonly KnownSite[]): KnownSite | null {
  const { known, byId, byPost, byName } = indexOf(all);
  const own = p.id === null ? undefined : byId.get(p.id);
  if (own) return own;
  const posts = [...folded(p.stalls.flatMap((s) => s.evseUids))].flatMap((uid) => byPost.get(uid)?.n ?? []);
  if (posts.length > 0) return known[posts.reduce((least, n) => Math.min(least, n))] ?? null;
  const named = byName.get(fold(p.name)) ?? [];
  const ofNetwork = named.filter((k) => p.network !== null && k.network !== null && fold(k.network) === fold(p.network));
  const elsewhere = p.twins || (p.network !== null && ofNetwork.length === 0);
  const some = (ofNetwork.length > 0 ? ofNetwork : named).filter((k) => !isAnother(p, k) && !(elsewhere && isApart(p, k.fields)));
  // In use comes before put away, however near.
  const open = some.filter((k) => !k.archived);
  return (open.length > 0 ? open : some).reduce<KnownSite | null>((best, k) => (best && distance(p, best) <= distance(p, k) ? best : k), null);
}

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
