import { canonicalJson } from '../records/canonical-json';
import { ATTEMPT_FIGURES } from './attempt-figures';
import type { Input } from './figure';
import { VISIT_FIGURES } from './visit-figures';

/** The network of a visit is the site's: kept with the visit itself, for lists and comparisons. */
const OF_THE_VISIT: readonly Input[] = ['site.networkId'];
const ALL: readonly { inputs?: readonly Input[] | undefined; column: string }[] = [...Object.values(VISIT_FIGURES), ...Object.values(ATTEMPT_FIGURES)];

/** What figures use of records: nothing else of a record makes a visit stale. */
export const USED_INPUTS: ReadonlySet<Input> = new Set([...OF_THE_VISIT, ...ALL.flatMap((f) => f.inputs ?? [])]);

/** What of a record is an input: of its outlets, their connectors or what they are rated at; of a price and a plan, all but what somebody noted beside it. */
function read(field: string, fields: Readonly<Record<string, unknown>>): unknown {
  if (field === 'outlets' && Array.isArray(fields.outlets)) return fields.outlets.map((o: { connector?: unknown }) => o.connector);
  if (field === 'plate' && Array.isArray(fields.outlets)) return fields.outlets.map((o: { ratedKW?: unknown }) => o.ratedKW);
  if (field === 'says') return { ...fields, note: null };
  if (field === 'holds') return [fields.networkId, fields.providerId, fields.from, fields.until];
  return fields[field];
}

/**
 * The inputs in which a record as it is now differs from what it said before. A record that comes after its visits counts as a
 * change, for they were without it.
 * @param before its fields, `null` when it was not here
 */
export const changedInputs = (type: string, before: Readonly<Record<string, unknown>> | null, now: Readonly<Record<string, unknown>>): Input[] =>
  [...USED_INPUTS].filter((input) => {
    const [of, field = ''] = input.split('.');
    return of === type && (before === null || canonicalJson(read(field, before) ?? null) !== canonicalJson(read(field, now) ?? null));
  });
