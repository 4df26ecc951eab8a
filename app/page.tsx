import { redirect } from 'next/navigation';
import { whoAsks } from '@/server/http/session-cookie';
import { hasRunningVisit } from '@/server/visits/running-visit';

export const dynamic = 'force-dynamic';

/** Where the application opens: the visit that runs, else the ledger. Without a network the Stall stands here (client/service-worker.ts). */
export default async function Home() {
  const who = await whoAsks();
  redirect(who && (await hasRunningVisit(who)) ? '/stall' : '/ledger');
}
