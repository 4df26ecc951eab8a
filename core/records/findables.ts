import type { Findable } from './find-text';

export type FoundKind = 'site' | 'stall' | 'network' | 'provider' | 'car' | 'adapter' | 'means' | 'visit';
/** Something that can be found: what it is called, one line about it, and where it opens. */
export type Found = Findable & { kind: FoundKind; id: string; label: string; line: string; href: string };

type Named = { id: string; name: string };
export type FindableRecords = {
  network: Named[];
  provider: Named[];
  car: Named[];
  adapter: Named[];
  means: Named[];
  site: (Named & { networkId: string })[];
  stall: (Named & { otherName: string | null; siteId: string })[];
};

/** Every record as a findable: stalls by the name on the post and by what the app calls them. Sites weigh more than their stalls. */
export function findables(r: FindableRecords): Found[] {
  const network = new Map(r.network.map((n) => [n.id, n.name]));
  const site = new Map(r.site.map((s) => [s.id, s.name]));
  const garage = (kind: Exclude<FoundKind, 'site' | 'stall' | 'visit'>, line: string, all: readonly Named[]): Found[] =>
    all.map((x) => ({ kind, id: x.id, label: x.name, line, href: `/garage/${kind}/${x.id}`, text: x.name }));
  return [
    ...r.site.map((s): Found => {
      const line = network.get(s.networkId) ?? '';
      return { kind: 'site', id: s.id, label: s.name, line: `Site, ${line}`, href: `/places/${s.id}`, text: `${s.name} ${line}`, weight: 3 };
    }),
    ...r.stall.map((s): Found => {
      const at = site.get(s.siteId) ?? '';
      return {
        kind: 'stall',
        id: s.id,
        label: `${at}, stall ${s.name}`,
        line: s.otherName ? `“${s.otherName}” in the app` : 'Stall',
        href: `/places/${s.siteId}/stalls/${s.id}`,
        text: `${s.name} ${at} stall ${s.otherName ?? ''}`,
      };
    }),
    ...garage('network', 'Network', r.network),
    ...garage('provider', 'Provider', r.provider),
    ...garage('car', 'Car', r.car),
    ...garage('adapter', 'Adapter', r.adapter),
    ...garage('means', 'Way to pay', r.means),
  ];
}
