import { FAULTS, SIDES, type Side } from '../faults/fault-list';
import { GROUPING_NAMES, GROUPINGS, type Group } from '../figures/groupings';
import { POPULATION_NAMES, POWER_TIMES, type Population, type PowerTime } from '../figures/populations';
import { MEANS_KIND_NAMES, type MeansKind } from '../records/means-kind';
import { isDay } from '../records/moment';
import { isId } from '../units/id';
import type { EndMark } from '../visit/attempts/attempt';

/**
 * Which visits a list shows. Lives in the address, so that every number in a comparison can open exactly the
 * visits it was counted from. `counted` names the population of such a number, `without` the side whose faults it leaves out.
 */
export type LedgerFilter = {
  network?: string;
  site?: string;
  car?: string;
  /** The person who drove. */
  driver?: string;
  faults?: 'any' | string;
  /** Days of arrival, `2025-10-14`, both within. */
  since?: string;
  until?: string;
  /** A kind of means that some attempt ran on. */
  means?: MeansKind;
  /** Without a bill though it charged; still open; marked. */
  only?: LedgerOnly;
  /** Words of the site, the network or a note. */
  text?: string;
  counted?: Population;
  /** Within these groups of a comparison, two at most. */
  groups?: readonly Group[];
  without?: Side;
  time: PowerTime;
  mark: EndMark;
};

export const LEDGER_ONLY = ['no_bill', 'open', 'flagged', 'business', 'private', 'left_out'] as const;
export type LedgerOnly = (typeof LEDGER_ONLY)[number];
export const ONLY_LABELS: Readonly<Record<LedgerOnly, string>> = {
  no_bill: 'Without a bill',
  open: 'Still open',
  flagged: 'Worth a second look',
  business: 'Business',
  private: 'Private',
  left_out: 'Left out of comparisons',
};
/** Longer words are cut. */
export const TEXT_MAX = 60;

export const END_MARKS = ['kW', 'kWh', 'A'] as const satisfies readonly EndMark[];

const oneOf = <T extends string>(list: readonly T[], value: string | null | undefined): T | undefined => list.find((x) => x === value);
const codes = FAULTS.map((f) => f.code);

/** Longer keys are none: the longest is a stall's model. */
const KEY_MAX = 80;
/** `means:app,hour:13`; what is not understood is left out. */
function readGroups(text: string | null | undefined): Group[] {
  return (text ?? '')
    .split(',')
    .slice(0, 2)
    .flatMap((part): Group[] => {
      const at = part.indexOf(':');
      const by = oneOf(GROUPING_NAMES, part.slice(0, at));
      try {
        const key = decodeURIComponent(part.slice(at + 1));
        const fits = key !== '' && key.length <= KEY_MAX && (by === 'hour' ? /^([01]?\d|2[0-3])$/.test(key) : isIdGrouping(by) ? isId(key) : true);
        return by && fits ? [{ by, key }] : [];
      } catch {
        return [];
      }
    });
}
const isIdGrouping = (by: Group['by'] | undefined): boolean => by !== undefined && typeof GROUPINGS[by].named === 'string';
const writeGroups = (groups: readonly Group[]): string => groups.map(({ by, key }) => `${by}:${encodeURIComponent(key)}`).join(',');

const among =
  <T extends string>(list: readonly T[]) =>
  (text: string): T | undefined =>
    oneOf(list, text);
const readId = (text: string) => (isId(text) ? text : undefined);
const readDay = (text: string) => (isDay(text) ? text : undefined);

/** How each part of an address is read: `undefined` where it is not understood. */
const PARTS = {
  network: readId,
  site: readId,
  car: readId,
  driver: readId,
  faults: (text: string) => (text === 'any' || codes.includes(text) ? text : undefined),
  since: readDay,
  until: readDay,
  means: among(MEANS_KIND_NAMES),
  only: among(LEDGER_ONLY),
  text: (text: string) => text.trim().slice(0, TEXT_MAX) || undefined,
  counted: among(POPULATION_NAMES),
  without: among(SIDES),
  time: among(POWER_TIMES),
  mark: among(END_MARKS),
} as const;
type Part = keyof typeof PARTS;
/** What stands in an address by one name each. */
export const PART_NAMES = Object.keys(PARTS) as Part[];

/** Reads a filter from an address. What is not understood is left out, never an error: addresses get mistyped. */
export function readLedgerFilter(get: (name: string) => string | null | undefined): LedgerFilter {
  const found = PART_NAMES.flatMap((name) => {
    const value = PARTS[name](get(name) ?? '');
    return value === undefined ? [] : [[name, value] as const];
  });
  const groups = readGroups(get('group'));
  return { time: 'handshake', mark: 'kW', ...(Object.fromEntries(found) as Partial<LedgerFilter>), ...(groups.length > 0 ? { groups } : {}) };
}

/** The parts of an address that say something, but nothing that is understood: a program is told so, where a page leaves them out. */
export function mistyped(get: (name: string) => string | null | undefined): string[] {
  const said = (name: string) => get(name)?.trim() ?? '';
  return PART_NAMES.filter((name) => said(name) !== '' && PARTS[name](said(name)) === undefined);
}

/** The address of a filter, `''` when it holds everything; defaults are not written. */
export function writeLedgerFilter(f: Partial<LedgerFilter>): string {
  const q = new URLSearchParams();
  for (const name of ['network', 'site', 'car', 'driver', 'faults', 'since', 'until', 'means', 'only', 'text', 'counted', 'without'] as const)
    if (f[name]) q.set(name, f[name]);
  if (f.groups && f.groups.length > 0) q.set('group', writeGroups(f.groups));
  if (f.time && f.time !== 'handshake') q.set('time', f.time);
  if (f.mark && f.mark !== 'kW') q.set('mark', f.mark);
  const text = q.toString();
  return text === '' ? '' : `?${text}`;
}
