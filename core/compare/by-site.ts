import type { Counted } from '../evidence/share-evidence';

/** What was counted at each site. */
export type BySite = Map<string, Counted>;

/** Counts one more at a site. */
export function countAt(sites: BySite, site: string, yes: boolean): void {
  const counted = sites.get(site);
  if (!counted) {
    sites.set(site, { yes: yes ? 1 : 0, n: 1 });
    return;
  }
  counted.n += 1;
  if (yes) counted.yes += 1;
}
