import type { Payload } from './payloads';

type Bay = Payload<'survey'>['stalls'][number];
/** Bays by what was seen; what was not looked at is in none of them. */
export type BayCount = { free: number; taken: number; outOfOrder: number; looked: number };

const TAKEN = new Set<Bay['state']>(['charging', 'idle_car', 'blocked']);
const OUT = new Set<Bay['state']>(['dark', 'closed']);

/** How many bays were free, taken and out of order when they were looked at. A derated bay is free. */
export function countBays(bays: readonly Pick<Bay, 'state'>[]): BayCount {
  const looked = bays.filter((b) => b.state !== 'not_looked');
  return {
    free: looked.filter((b) => b.state === 'free' || b.state === 'derated').length,
    taken: looked.filter((b) => TAKEN.has(b.state)).length,
    outOfOrder: looked.filter((b) => OUT.has(b.state)).length,
    looked: looked.length,
  };
}
