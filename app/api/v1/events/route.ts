import { bodyOf, calling } from '@/server/api/caller';
import { takeEventsIn } from '@/server/api/events-in';
import { listing } from '@/server/api/lists';

export const dynamic = 'force-dynamic';

export const GET = listing('events');
/** Events in, as a program sends them. */
export const POST = calling('write', [], async (caller, request) => {
  const body = await bodyOf(request);
  return body instanceof Response ? body : takeEventsIn(caller, body.json);
});
