import { grouped } from '../units/grouped';

const ID = /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/gi;

/**
 * Records in an order in which each comes after those of them that its fields name, otherwise as they were: a stall after its
 * site, wherever the two stood. What names each other in a ring stays as it stood.
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
      const named = new Set(JSON.stringify(recordOf(t).fields).toLowerCase().match(ID));
      for (const id of [...named].reverse())
        for (const other of (standing.get(id) ?? []).toReversed()) if (!placed.has(other)) waiting.push({ t: other, asked: false });
    }
  }
  return out;
}
