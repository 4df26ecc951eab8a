/** UUID text to the 16 bytes kept in SQL, unswapped. @throws TypeError for what is none */
export function toBin(id: string): Buffer {
  // Reading hex ends where something else stands: what is no UUID comes out short.
  const bytes = Buffer.from(id.replaceAll('-', ''), 'hex');
  if (id.length !== 36 || bytes.length !== 16) throw new TypeError('is no UUID');
  return bytes;
}
/** The same as SQL: of a hundred thousand ids the bytes and their way back to digits are a good part of the work. @throws TypeError for what is none */
export function binLiteral(id: string): string {
  const digits = id.slice(0, 8) + id.slice(9, 13) + id.slice(14, 18) + id.slice(19, 23) + id.slice(24);
  if (id.length !== 36 || !/^[0-9a-fA-F]{32}$/.test(digits)) throw new TypeError('is no UUID');
  return `x'${digits}'`;
}
/** Ids as a list of SQL, for `IN`: a placeholder for each of thousands takes longer than what is asked. @throws TypeError for what is none */
export const binLiterals = (ids: Iterable<string>): string => [...ids].map(binLiteral).join(',');
export const toBinOrNull = (id: string | null | undefined): Buffer | null => (id ? toBin(id) : null);
/** 16 bytes to UUID text in lower case with hyphens; damaged ones as their hex, so that what is damaged can be named. */
export const fromBin = (bytes: Buffer): string => fromHex(bytes.toString('hex'));
/** The same of bytes that were asked for as hex digits, in either case. */
export function fromHex(digits: string): string {
  const hex = digits.toLowerCase();
  if (hex.length !== 32) return hex;
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`;
}
export const fromBinOrNull = (bytes: Buffer | null): string | null => (bytes ? fromBin(bytes) : null);
