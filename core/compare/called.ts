import type { Counted } from '../evidence/share-evidence';
import { printCount } from '../units/print';

/** What is compared, and what groups and sites are called. `place`: a group is a place itself, and has no sites to name. */
export type CalledBy = { one: string; many: string; group: (key: string) => string; site: (id: string) => string; place?: boolean };

const listed = (names: readonly string[]): string => (names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`);
/** Up to so many sites are named. */
const NAMED = 3;

/** The group, or its sites where there are too few to speak of it. */
export function called(side: { group: string; bySites: boolean; sites: readonly string[] }, names: CalledBy): string {
  const group = names.group(side.group);
  if (names.place || !side.bySites || side.sites.length === 0) return group;
  const sites = side.sites.map(names.site);
  const shown = sites.length > NAMED ? [...sites.slice(0, NAMED - 1), `${sites.length - NAMED + 1} more sites`] : sites;
  return `${listed(shown)} (${group})`;
}

/** Said where sites are named. */
export const sitesOnly = (one: string): string =>
  `This is said of the sites named: of a ${one} only with three or more, none of which has over half of the visits.`;

/** So many of so many visits. */
export const countedText = ({ yes, n }: Counted): string => `${yes} of ${printCount(n, 'visit')}`;

/** How many times as likely, in a figure that a reader holds. @param log natural logarithm of it */
export function timesText(log: number): string {
  const factor = Math.exp(log);
  return factor > 10_000 ? 'over 10,000' : factor < 10 ? factor.toFixed(1) : String(Math.round(factor));
}
