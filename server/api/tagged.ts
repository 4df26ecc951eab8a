import { createHash } from 'node:crypto';
import { DEFINITION_VERSION } from '@/core/visit/definitions-version';
import { membersOf } from '../accounts/members';
import { householdRev } from '../outbox/household-rev';
import type { Caller } from './caller';

/**
 * An answer with its ETag: it is another one whenever something was written in the household, it counts in another currency, somebody came or was named otherwise, what is asked
 * differs, or figures are defined anew. Asked again with it (`If-None-Match`) nothing is computed: 304.
 */
export async function tagged(caller: Caller, request: Request, answer: () => Promise<object>): Promise<Response> {
  const { rev, epoch } = await householdRev(caller.householdId);
  const people = await membersOf(caller.householdId);
  // What a household is called and counts in is none of its record: a change of it is no writing.
  const { source: _, ...who } = caller;
  const of = JSON.stringify([who, rev, epoch, DEFINITION_VERSION, people, new URL(request.url).search, new URL(request.url).pathname]);
  const etag = `W/"${createHash('sha256').update(of).digest('base64url').slice(0, 22)}"`;
  const headers = { etag, 'cache-control': 'private, no-cache', vary: 'authorization, cookie' };
  const known = (request.headers.get('if-none-match') ?? '').split(',').map((t) => t.trim());
  if (known.includes(etag) || known.includes('*')) return new Response(null, { status: 304, headers });
  return Response.json(await answer(), { headers });
}
