import { type MemberRole, refusedTo } from '@/core/records/roles';
import { noStore } from './answer';

/** What is answered to somebody whose role does not let them do this; null where it does. */
export function notForRole(role: MemberRole): Response | null {
  const why = refusedTo(role);
  return why ? Response.json({ error: `${why}.` }, { status: 403, headers: noStore }) : null;
}
