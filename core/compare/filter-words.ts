import { faultLabel } from '../faults/fault-list';
import { GROUPINGS, type Group } from '../figures/groupings';
import { POPULATIONS } from '../figures/populations';
import { meansLabel } from '../records/means-kind';
import { printCalendarDate } from '../units/zoned';
import { type LedgerFilter, ONLY_LABELS } from './ledger-filter';

const NAMED = { network: 'of', site: 'at', car: 'with', driver: 'driven by' } as const;
type Named = keyof typeof NAMED;

/** What a filter names by an id: to be looked up before it is said. */
export const groupsNamed = (f: LedgerFilter): Group[] => [
  ...(Object.keys(NAMED) as Named[]).flatMap((by): Group[] => (f[by] ? [{ by, key: f[by] }] : [])),
  ...(f.groups ?? []),
];

function days({ since, until }: LedgerFilter): string | null {
  if (since && since === until) return `on ${printCalendarDate(since)}`;
  if (since && until) return `from ${printCalendarDate(since)} to ${printCalendarDate(until)}`;
  if (since) return `since ${printCalendarDate(since)}`;
  return until ? `until ${printCalendarDate(until)}` : null;
}

/**
 * Which visits a filter leaves, to be said after "visits": `of Ferrywell, since 1 Oct 2025, with faults`. `''`: all of them.
 * @param nameOf what the groups of [groupsNamed] are called
 */
export function filterWords(f: LedgerFilter, nameOf: (g: Group) => string): string {
  const named = (by: Named) => (f[by] ? `${NAMED[by]} ${nameOf({ by, key: f[by] })}` : null);
  return [
    named('network'),
    named('site'),
    days(f),
    named('car'),
    named('driver'),
    f.means ? `means: ${meansLabel(f.means)}` : null,
    f.faults === 'any' ? 'with faults' : f.faults ? `fault: ${faultLabel(f.faults)}` : null,
    f.only ? ONLY_LABELS[f.only].replace(/^./, (letter) => letter.toLowerCase()) : null,
    f.text ? `with the words “${f.text}”` : null,
    f.counted ? `${POPULATIONS[f.counted].label}${f.without ? `, without the ${f.without}’s` : ''}` : null,
    ...(f.groups ?? []).map((g) => `${GROUPINGS[g.by].one}: ${nameOf(g)}`),
  ]
    .filter(Boolean)
    .join(', ');
}

/** The column by which figures that are taken along say of which visits they are, where it is not of all. @param chosen as [filterWords] says it */
export const onlyVisits = (chosen: string): [head: string, value: string][] => (chosen === '' ? [] : [['Only visits', chosen]]);
