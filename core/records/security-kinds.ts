/** What the security log tells of, and how it is said to the person who reads it. */
export const SECURITY_KINDS = {
  signed_in: 'Signed in',
  sign_in_failed: 'A sign-in failed',
  refused: 'Refused: too many tries, or of another household',
  signed_out: 'Signed out',
  session_ended: 'A signed-in device was ended',
  account_made: 'Account made',
  password_changed: 'Password changed',
  recovery_made: 'Recovery code made',
  recovery_used: 'Recovery code used, password set anew',
  role_changed: 'Role changed',
  household_made: 'Another household made',
  invited: 'Invitation made',
  joined: 'Came by an invitation',
  left: 'Left the household',
  removed: 'Removed from the household',
  handed_over: 'Household handed over',
  exported: 'Backup or copy written',
  token_made: 'Token for a program made',
  token_ended: 'Token of a program ended',
  restored: 'Restored from a backup',
} as const;
export type SecurityKind = keyof typeof SECURITY_KINDS;
