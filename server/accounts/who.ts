import type { MemberRole } from '@/core/records/roles';

/** Somebody in the household in which they are: every query is bound to it. */
export type Who = { householdId: string; personId: string };
/** The same, and what they may do there. */
export type Member = Who & { role: MemberRole };
