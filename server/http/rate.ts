import { noStore } from './answer';

/** What somebody has left of a minute's allowance. */
type Left = { of: number; until: number };
const MINUTE_MS = 60_000;
/** People remembered: beyond, those whose minute is over are forgotten. */
const MOST_REMEMBERED = 10_000;

/**
 * So many requests a minute for each person; what is more is answered with when to come again.
 * Kept in this process: a restart forgives. @param now UTC ms
 * @returns `take`: null, or the answer of a request that came too soon
 */
export function perMinute(most: number, now: () => number = Date.now): (personId: string) => Response | null {
  const people = new Map<string, Left>();
  return (personId) => {
    const at = now();
    if (people.size > MOST_REMEMBERED) for (const [id, left] of people) if (left.until <= at) people.delete(id);
    const found = people.get(personId);
    const left = found && found.until > at ? found : { of: most, until: at + MINUTE_MS };
    people.set(personId, left);
    if (left.of > 0) {
      left.of -= 1;
      return null;
    }
    const wait_s = Math.max(1, Math.ceil((left.until - at) / 1000));
    return Response.json(
      { error: `More than ${most} requests in a minute. Wait ${wait_s} s and try again.` },
      { status: 429, headers: { ...noStore, 'retry-after': String(wait_s) } },
    );
  };
}
