import { printRecoveryCode, recoveryCode } from './recovery-code';

/** Days for which an invitation opens the door, once. */
export const INVITATION_DAYS = 7;

/** The code of an invitation from random bytes, and as it is read out; signs and length are those of a recovery code. */
export const invitationCode = recoveryCode;
export const printInvitationCode = printRecoveryCode;

/** The page that an invitation's link leads to. @param code as it is read out. What follows # never leaves the browser by itself: no log of a server holds it. */
export const invitationLink = (origin: string, code: string): string => `${origin}/join#${code}`;
