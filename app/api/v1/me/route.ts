import { clockOffsetMs } from '@/server/clock';
import { answering } from '@/server/http/answer';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';

export const dynamic = 'force-dynamic';

/** Who is signed in, and by how much this server's clock is set off from the world's (the demo's day). */
export const GET = answering(async (): Promise<Response> => {
  const who = await whoAsks();
  return who ? Response.json({ ...who, clockOffsetMs }, { headers: { 'cache-control': 'no-store' } }) : notSignedIn();
});
