import { randomBytes } from 'node:crypto';
import { isAway } from '../db/away';

/** What is answered to one is never kept for another. */
export const noStore = { 'cache-control': 'no-store' } as const;

/** Seconds after which a phone may ask again while the database is away. */
const AGAIN_S = 5;

/**
 * Makes a route handler of the application's API: whatever goes wrong inside is answered, never thrown.
 * The database away, or too many pictures at once: 503 with Retry-After and `code: "later"`, which a phone takes for "kept here, sent by itself".
 * Anything else: 500 with a reference that stands in the log beside what happened.
 */
export function answering<A extends unknown[]>(
  handle: (request: Request, ...rest: A) => Promise<Response>,
): (request: Request, ...rest: A) => Promise<Response> {
  return async (request, ...rest) => {
    try {
      return await handle(request, ...rest);
    } catch (error) {
      if (isAway(error)) {
        console.error(`told to come later: ${(error as Error).message}`);
        return Response.json(
          { error: 'The server cannot do this just now. What was recorded is kept on this device and sent by itself.', code: 'later' },
          { status: 503, headers: { 'retry-after': String(AGAIN_S), 'cache-control': 'no-store' } },
        );
      }
      const reference = randomBytes(5).toString('hex');
      console.error(`reference ${reference}: ${request.method} ${new URL(request.url).pathname} failed`, error);
      return Response.json({ error: `The server failed at this. Reference ${reference}.`, reference }, { status: 500, headers: noStore });
    }
  };
}
