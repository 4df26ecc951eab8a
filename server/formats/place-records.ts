import tzLookup from 'tz-lookup';
import { fold } from '@/core/formats/match-sessions';
import { newsOf, type PlaceNews, type PlaceProposal, stallFields } from '@/core/formats/place-proposals';
import { isAnother, isOnePlace, type KnownSite } from '@/core/formats/same-place';
import { isApart, kmApart } from '@/core/records/place-questions';
import { blankFields, type MileRecord } from '@/core/records/record-schema';
import { localDay } from '@/core/units/zoned';
import type { SignedIn } from '../accounts/sessions';
import { now } from '../clock';
import { idOf } from './imported-events';
import { NetworksByName, type PlaceItem } from './networks-by-name';

/** What somebody wants of a row: nothing is taken of one that is not named. `siteId`: the site that it was said to be, `null`: one of its own, whatever else has its name. */
export type PlaceChoice = { pointer: string; network: string; position: 'file' | 'turned' | 'none'; siteId?: string | null };

/** Makes records of what a file says of places, for one request: what two of its places share is made once, and what they do not share never under one id. */
export class PlaceRecords {
  private readonly today: string;
  private readonly networks: NetworksByName;
  /** Ids that something has, here or of what is made: each is of one thing. */
  private readonly taken: Set<string>;
  /** Sites here to which something was added. */
  private readonly told = new Set<string>();
  private readonly made: { p: PlaceProposal; networkId: string; siteId: string }[] = [];

  constructor(
    private readonly who: SignedIn,
    private readonly known: readonly KnownSite[],
    networks: readonly MileRecord<'network'>[],
  ) {
    this.today = localDay(now(), who.zone);
    this.networks = new NetworksByName(who, networks);
    this.taken = new Set(known.flatMap((k) => [k.id, ...k.stalls.map((s) => s.id)]));
  }

  /** The records of one place as it was chosen; `null` where it is no longer what it was said to be. */
  of(p: PlaceProposal, choice: PlaceChoice, same: KnownSite | null): PlaceItem[] | null {
    if (typeof choice.siteId === 'string' && same?.id !== choice.siteId) return null;
    // Chosen as one of its own: what only has its name, and stands elsewhere, is not asked.
    if (same && !(choice.siteId === null && isApart(p, same.fields))) return this.added(p, choice, same, newsOf(p, same));
    return this.whole(p, choice);
  }

  private added(p: PlaceProposal, choice: PlaceChoice, same: KnownSite, { asks, position: lacking, fields, document, stalls, uids }: PlaceNews): PlaceItem[] {
    // One that the file has twice brings its posts.
    if (this.told.has(same.id)) return this.posts(same.id, stalls);
    this.told.add(same.id);
    const position = positionOf(p, choice);
    const moves = asks.length > 0 && choice.position !== 'none';
    const more = { ...(position && (lacking || moves) ? position : {}), ...fields, ...(document ? this.document(p) : {}) };
    const items: PlaceItem[] = same.archived ? this.networks.intoUse(same.fields.networkId) : [];
    if (Object.keys(more).length > 0 || same.archived)
      items.push({ type: 'site', id: same.id, baseRev: same.rev, fields: more, ...(same.archived ? { archived: false } : {}) });
    items.push(...this.posts(same.id, stalls));
    for (const { id, rev, evseUids } of uids) items.push({ type: 'stall', id, baseRev: rev, fields: { evseUids } });
    return items;
  }

  private whole(p: PlaceProposal, choice: PlaceChoice): PlaceItem[] {
    const { id: networkId, items } = this.networks.of(choice.network.trim());
    const there = this.made.find((m) => m.networkId === networkId && isOnePlace(m.p, p));
    if (there) return [...items, ...this.posts(there.siteId, p.stalls)];
    const position = positionOf(p, choice);
    const name = `site ${networkId} ${fold(p.name)}`;
    const ids = [name, `${name} ${p.latitude} ${p.longitude}`, `${name} ${p.location ?? p.id ?? p.pointer}`].map((one) => idOf(this.who.householdId, one));
    const siteId = this.free(ids);
    this.made.push({ p, networkId, siteId });
    // Asked once more, as where the answer was lost: it is made already.
    const before = this.known.find((k) => ids.includes(k.id) && !isAnother(p, k) && position !== null && kmApart(position, k.fields) === 0);
    if (before) return [...items, ...this.added(p, { ...choice, position: 'none' }, before, newsOf(p, before))];
    const fields = {
      ...blankFields('site'),
      networkId,
      name: p.name,
      zone: p.zone ?? (position ? tzLookup(position.latitude, position.longitude) : this.who.zone),
      ...position,
      ...p.fields,
      ...this.document(p),
    };
    return [...items, { type: 'site', id: siteId, baseRev: 0, archived: false, fields }, ...this.posts(siteId, p.stalls)];
  }

  private posts(siteId: string, stalls: PlaceProposal['stalls']): PlaceItem[] {
    return stalls.map((s): PlaceItem => {
      // On two posts of a site the same may stand.
      const name = `stall ${siteId} ${fold(s.name)}`;
      const id = this.free([name, `${name} ${s.evseUids[0] ?? ''}`].map((one) => idOf(this.who.householdId, one)));
      return { type: 'stall', id, baseRev: 0, archived: false, fields: { ...blankFields('stall'), ...stallFields(s, siteId, this.today) } };
    });
  }

  /** The first of these ids that nothing has yet. The same file makes the same ids, whoever takes it in. */
  private free(ids: readonly string[]): string {
    const id = ids.find((one) => !this.taken.has(one)) ?? (ids.at(-1) as string);
    this.taken.add(id);
    return id;
  }

  private document({ document }: PlaceProposal): object {
    return document?.text ? { fromFile: { format: document.format, day: this.today, document: document.text } } : {};
  }
}

function positionOf(p: PlaceProposal, choice: PlaceChoice): { latitude: number; longitude: number } | null {
  if (choice.position === 'turned' && p.better) return { longitude: p.better[0], latitude: p.better[1] };
  return choice.position === 'file' && p.latitude !== null && p.longitude !== null ? { latitude: p.latitude, longitude: p.longitude } : null;
}
