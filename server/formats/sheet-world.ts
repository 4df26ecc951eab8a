import { fold } from '@/core/formats/match-sessions';
import type { SheetWorld } from '@/core/formats/sheet-place';
import type { SheetRow } from '@/core/formats/sheet-row';
import { grouped } from '@/core/units/grouped';
import type { Member } from '../accounts/who';
import { recordsOf } from '../records/record-tables';

/** What is in use, and what was put away of which nothing in use has the name: rows of years ago are of places and cars of then. */
function knownBy<T extends { archived: boolean; fields: { name: string } }>(all: readonly T[], name: (r: T) => string = (r) => fold(r.fields.name)): T[] {
  const open = all.filter((r) => !r.archived);
  const taken = new Set(open.map(name));
  return [...open, ...all.filter((r) => r.archived && !taken.has(name(r)))];
}

export type KnownHere = Awaited<ReturnType<typeof worldOf>>;
/** What the household knows: names as a sheet may write them, and the ids behind them. */
export async function worldOf(who: Member) {
  const [sites, networks, stalls, cars] = await Promise.all([
    recordsOf(who.householdId, 'site'),
    recordsOf(who.householdId, 'network'),
    recordsOf(who.householdId, 'stall'),
    recordsOf(who.householdId, 'car'),
  ]);
  const known = knownBy(sites, (s) => `${fold(s.fields.name)}\n${s.fields.networkId}`);
  const networkName = new Map(networks.map((n) => [n.id, n.fields.name]));
  const bySite = grouped(
    knownBy(stalls, (s) => `${fold(s.fields.name)}\n${s.fields.siteId}`),
    (s) => s.fields.siteId,
  );
  const ofNames = knownBy(cars);
  const stallsAt = (siteId: string) => bySite.get(siteId) ?? [];
  const world: SheetWorld = {
    sites: known.map((s) => ({
      name: s.fields.name,
      network: networkName.get(s.fields.networkId) ?? '',
      zone: s.fields.zone,
      stalls: stallsAt(s.id).map((x) => x.fields.name),
    })),
    networks: knownBy(networks).map((n) => n.fields.name),
  };
  const named = new Map<string, { id: string; archived: boolean; zone: string; network: string; networkId: string }[]>();
  for (const { id, archived, fields } of known) {
    const { zone, networkId } = fields;
    const name = fold(fields.name);
    named.set(name, [...(named.get(name) ?? []), { id, archived, zone, network: networkName.get(networkId) ?? '', networkId }]);
  }
  const sitesOf = (name: string) => named.get(fold(name)) ?? [];
  /** By its name; of several of one name that of the network, else the first. */
  const siteOf = (name: string, network: string | null) => {
    const all = sitesOf(name);
    return all.find((s) => network !== null && fold(s.network) === fold(network)) ?? all[0] ?? null;
  };
  return {
    world,
    sitesOf,
    siteIds: new Set(sites.map((s) => s.id)),
    siteOf,
    /** The networks that rows are of, as far as they are known: by their sites, and as they are written. */
    networksOf: (rows: readonly SheetRow[]): Set<string> => {
      const byName = new Map(networks.map((n) => [fold(n.fields.name), n.id]));
      const named = [...new Set(rows.flatMap((r) => r.network ?? []))].flatMap((name) => byName.get(fold(name)) ?? []);
      // A row at one of several sites of one name is of the one whose network it names.
      const at = [...new Map(rows.map((r) => [`${r.site}\n${r.network}`, r])).values()].flatMap((r) => siteOf(r.site, r.network)?.networkId ?? []);
      return new Set([...named, ...at]);
    },
    /** On two posts of a site the same may stand: then nobody knows which. */
    stallOf: (siteId: string, name: string | null) => {
      const all = name === null ? [] : stallsAt(siteId).filter((s) => fold(s.fields.name) === fold(name));
      return all.length === 1 ? (all[0]?.id ?? null) : null;
    },
    carOf: (name: string | null) => (name === null ? null : (ofNames.find((c) => fold(c.fields.name) === fold(name))?.id ?? null)),
  };
}
