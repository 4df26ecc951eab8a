import type { Metadata } from 'next';
import { whoAsks } from '@/server/http/session-cookie';
import { ComeIn } from './come-in';

export const metadata: Metadata = { title: 'An invitation', referrer: 'no-referrer' };

/** Where an invitation's link leads: into the household, with the account one has or with a new one. */
export default async function JoinPage() {
  const who = await whoAsks();
  return <ComeIn me={who?.name ?? null} />;
}
