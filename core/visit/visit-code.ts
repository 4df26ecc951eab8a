/** The random end of a visit's id, as other recordings name it: `7C2F09AB`. */
export const codeDigits = (visitId: string): string => visitId.replaceAll('-', '').slice(-8).toUpperCase();
export const printCode = (digits: string): string => `${digits.slice(0, 4)}-${digits.slice(4)}`;
/** A visit's code, short enough to be read off a film: `7C2F-09AB`. */
export const visitCode = (visitId: string): string => printCode(codeDigits(visitId));

/** A code as somebody types it, whole or its first half on: digits of its beginning, or null for any other text. */
export function codeTyped(typed: string): string | null {
  const digits = typed.replace(/[\s–-]/g, '').toUpperCase();
  return /^[0-9A-F]{4,8}$/.test(digits) ? digits : null;
}

/** A code typed whole, or null. */
export const wholeCode = (typed: string): string | null => {
  const digits = codeTyped(typed);
  return digits?.length === 8 ? digits : null;
};
