import fc from 'fast-check';
import { v7 } from 'uuid';
import type { StoredEvent } from '@/core/visit/event';
import { anyAccepted } from '@/core/visit/fixtures/any-accepted';
import { HOUSEHOLD, PERSON, SITE } from '@/core/visit/fixtures/story';
import { isKind } from '@/core/visit/kinds/registry';
import type { Member } from './household';

const isCorrectable = (target: StoredEvent | undefined): boolean =>
  target === undefined || (isKind(target.kind) && target.kind !== 'correction' && target.kind !== 'withdrawal');

/** Sets of accepted events, each a visit of its own in this household, every id but the site's its own. The same seed gives the same sets. */
export function anyVisits(who: Member, siteId: string, seed: number, count: number): StoredEvent[][] {
  return fc.sample(anyAccepted(), { seed, numRuns: count }).map((events) => {
    const ids = new Map([
      [HOUSEHOLD, who.householdId],
      [PERSON, who.personId],
      [SITE, siteId],
    ]);
    const text = JSON.stringify(events).replace(/01900000-0000-7000-8000-[0-9a-f]{12}/g, (id) => {
      const own = ids.get(id) ?? v7();
      ids.set(id, own);
      return own;
    });
    const own = JSON.parse(text) as StoredEvent[];
    // A change of what cannot be changed is refused, and rightly.
    return own.filter((e) => e.kind !== 'correction' || isCorrectable(own.find((o) => o.id === e.payload.target)));
  });
}
