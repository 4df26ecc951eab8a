/** What somebody is in a household, and how it is said. One of them is the owner. */
export const ROLES = {
  owner: { label: 'Owner', may: 'records, changes everything, invites and removes people' },
  driver: { label: 'Driver', may: 'records visits, changes places and garage' },
  observer: { label: 'Observer', may: 'adds what they see to a visit that is open, nothing else' },
  reader: { label: 'Reader', may: 'reads everything, changes nothing' },
} as const satisfies Record<string, { label: string; may: string }>;
export type MemberRole = keyof typeof ROLES;
/** Those that can be given: the owner hands over. */
export const GIVEN_ROLES = ['driver', 'observer', 'reader'] as const satisfies readonly MemberRole[];

/** Records visits of their own, changes places and garage, joins recordings. */
export const mayRecord = (role: MemberRole): boolean => role === 'owner' || role === 'driver';
/** Adds to a visit that is open. */
export const mayLookOn = (role: MemberRole): boolean => role !== 'reader';

/** What is refused, said to the one who is refused. */
export const NOT_FOR_ROLE: Readonly<Record<'reader' | 'observer', string>> = {
  reader: 'You read this ledger: what is recorded here is for its drivers to change',
  observer: 'You look on in this household: you can add to a visit that is open, nothing else',
};
/** Why somebody may not change this, or null. */
export const refusedTo = (role: MemberRole): string | null => (role === 'reader' || role === 'observer' ? NOT_FOR_ROLE[role] : null);

/** Who deleted their account, as they are named beside what they recorded. */
export const FORMER_DRIVER = 'a former driver';
