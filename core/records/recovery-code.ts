/** No letter or figure that looks like another on paper. */
export const RECOVERY_SIGNS = '23456789ABCDEFGHJKMNPQRSTVWXYZ';
/** Twelve of thirty signs: 58.9 bits, log2(30) × 12. */
export const RECOVERY_LENGTH = 12;

/**
 * A recovery code from random bytes, each sign as likely as any other: bytes from 240 on are left out, as 240 is the
 * greatest multiple of 30 in a byte.
 * @returns the code, or `null` when there were too few bytes that count
 */
export function recoveryCode(bytes: Uint8Array): string | null {
  const signs = [...bytes].filter((b) => b < 240).map((b) => RECOVERY_SIGNS[b % RECOVERY_SIGNS.length] as string);
  return signs.length < RECOVERY_LENGTH ? null : signs.slice(0, RECOVERY_LENGTH).join('');
}

/** In groups of four, as it is printed. */
export const printRecoveryCode = (code: string): string => code.replace(/(.{4})(?=.)/g, '$1-');
/** As it is kept: however it was typed. */
export const readRecoveryCode = (typed: string): string => typed.toUpperCase().replace(/[^A-Z0-9]/g, '');
