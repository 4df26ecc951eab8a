import { firstBy } from '../units/grouped';
import { onceOf } from '../units/once-of';
import { fold } from './match-sessions';
import words from './sheet-words.json';

export type SheetWorld = { sites: readonly { name: string; network: string; zone: string; stalls: readonly string[] }[]; networks: readonly string[] };
/** Where a row was. `zone`: of a site that is known. `differs`: another network is written than the site is known to be of. */
export type RowPlace = { site: string; stall: string | null; network: string | null; zone: string | null; differs: boolean };

const STALL_WORDS = new Set(words.stall_words.map((w) => w.toLowerCase()));

/** Sites and networks by their folded names, the first of several of one name, and zones by the site's name as it is written here. */
const indexOf = onceOf((world: SheetWorld) => ({
  sites: firstBy(world.sites, (s) => fold(s.name)),
  networks: firstBy(world.networks, fold),
  zones: firstBy(world.sites, (s) => s.name),
}));

/** The zone of a site that is known by this very name. */
export const zoneAt = (world: SheetWorld, site: string): string | undefined => indexOf(world).zones.get(site)?.zone;
/** Whether a network is known, however it is written. */
export const knowsNetwork = (world: SheetWorld, name: string): boolean => indexOf(world).networks.has(fold(name));

/** Site, stall and network of a row by what is written of them: known ones in their own spelling, a stall that stands behind its site parted off. */
export function placeOf(written: { site: string; stall: string | null; network: string | null }, world: SheetWorld): RowPlace {
  const { sites, networks } = indexOf(world);
  const known = (name: string) => sites.get(fold(name));
  let site = written.site.replace(/\s+/g, ' ');
  let stall = written.stall;
  if (!known(site) && stall === null) {
    const parted = partOff(site, (name) => known(name) !== undefined);
    if (parted) [site, stall] = parted;
  }
  const here = known(site);
  if (stall !== null) {
    const plain = withoutStallWords(stall);
    stall = here?.stalls.find((s) => fold(s) === fold(plain)) ?? plain;
  }
  const said = written.network;
  const network = said === null ? (here?.network ?? null) : (networks.get(fold(said)) ?? said.replace(/\s+/g, ' '));
  return {
    site: here?.name ?? site,
    stall,
    network,
    zone: here?.zone ?? null,
    differs: here !== undefined && said !== null && fold(said) !== fold(here.network),
  };
}

const MOST_NAME = 200;
/** Words before a stall's name: "Stall 4" is 4. */
function withoutStallWords(stall: string): string {
  let text = stall.trim();
  // What is longer than any name is refused for it, and not looked through word by word.
  while (text.length <= MOST_NAME) {
    const found = /^(\S+?)\.?[\s:]+(.+)$/s.exec(text);
    if (text.startsWith('#') && text.length > 1) text = text.slice(1).trim();
    else if (found && STALL_WORDS.has((found[1] ?? '').toLowerCase())) text = (found[2] ?? '').trim();
    else break;
  }
  return text;
}

/** A site and its stall written in one cell. */
function partOff(text: string, known: (name: string) => boolean): [site: string, stall: string] | null {
  for (const separator of [' / ', ' – ', ' - ', ', ', ' #', ' | ']) {
    const at = text.lastIndexOf(separator);
    if (at > 0 && known(text.slice(0, at))) return [text.slice(0, at).trim(), text.slice(at + separator.length).trim()];
  }
  const found = /^(.*)(?: \/ | #)([\p{L}\p{N}]{1,4})$/u.exec(text);
  return found ? [(found[1] as string).trim(), found[2] as string] : null;
}
