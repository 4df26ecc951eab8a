import { findEverything } from '@/server/find/find-everything';
import { answering } from '@/server/http/answer';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';

export const dynamic = 'force-dynamic';

/** The best answers to `q` in the household: sites, stalls, networks, garage, visits. */
export const GET = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const typed = (new URL(request.url).searchParams.get('q') ?? '').slice(0, 100);
  return Response.json({ found: await findEverything(who, typed) }, { headers: { 'cache-control': 'no-store' } });
});
