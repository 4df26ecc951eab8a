import { canonicalJson } from './canonical-json';

export type FieldDifference = {
  field: string;
  mine: unknown;
  theirs: unknown;
  /** What is proposed: mine where this person changed the field, else theirs. */
  take: 'mine' | 'theirs';
};

/**
 * Fields in which two versions of a record differ.
 * @param base what both started from, when it is still known: tells who changed what
 */
export function recordDifference(mine: Record<string, unknown>, theirs: Record<string, unknown>, base?: Record<string, unknown>): FieldDifference[] {
  const same = (a: unknown, b: unknown) => canonicalJson(a ?? null) === canonicalJson(b ?? null);
  return [...new Set([...Object.keys(mine), ...Object.keys(theirs)])]
    .filter((field) => !same(mine[field], theirs[field]))
    .map((field) => ({ field, mine: mine[field] ?? null, theirs: theirs[field] ?? null, take: base && same(mine[field], base[field]) ? 'theirs' : 'mine' }));
}

/** The fields after choosing, starting from what stands there now. */
export function settleDifference(theirs: Record<string, unknown>, differences: readonly FieldDifference[]): Record<string, unknown> {
  const out = { ...theirs };
  for (const d of differences) if (d.take === 'mine') out[d.field] = d.mine;
  return out;
}
