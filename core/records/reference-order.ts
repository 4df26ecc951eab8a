import { grouped } from '../units/grouped';

/** A field that names other records, by its own name: `siteId`, `moreSiteIds`. Ids elsewhere, in a note or in what a file of a network says, are words. */
export const isReference = (field: string): boolean => /Ids?$/.test(field);

const namedBy = (fields: object): Set<string> =>
  new Set(
    Object.entries(fields)
      .flatMap(([field, value]: [string, unknown]) => (isReference(field) ? [value].flat() : []))
      .flatMap((id) => (typeof id === 'string' ? [id.toLowerCase()] : [])),
  );

/**
 * Records in an order in which each comes after those of them that it refers to, otherwise as they were: a stall after its
 * site, wherever the two stood. What refers to each other in a ring stays as it stood.
 */
export function inReferenceOrder<T>(all: readonly T[], recordOf: (t: T) => { id: string; fields: object }): T[] {
  const standing = grouped(all, (t) => recordOf(t).id);
  const placed = new Set<T>();
  const out: T[] = [];
  // Not by recursion: what comes from outside may be a long chain.
  const waiting: { t: T; asked: boolean }[] = all.map((t) => ({ t, asked: false })).reverse();
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { t, asked } = next;
    if (asked) out.push(t);
    else if (!placed.has(t)) {
      placed.add(t);
      waiting.push({ t, asked: true });
      // Each id once and what is placed no more: a batch that names itself a million times waits for itself once.
      for (const id of [...namedBy(recordOf(t).fields)].reverse())
        for (const other of (standing.get(id) ?? []).toReversed()) if (!placed.has(other)) waiting.push({ t: other, asked: false });
    }
  }
  return out;
}
