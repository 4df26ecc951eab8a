import { parse } from 'uuid';

/** UUID text to the 16 bytes kept in SQL, unswapped. */
export const toBin = (id: string): Buffer => Buffer.from(parse(id));
export const toBinOrNull = (id: string | null | undefined): Buffer | null => (id ? toBin(id) : null);
/** 16 bytes to UUID text in lower case with hyphens; damaged ones as their hex, so that what is damaged can be named. */
export function fromBin(bytes: Buffer): string {
  const hex = bytes.toString('hex');
  if (hex.length !== 32) return hex;
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`;
}
export const fromBinOrNull = (bytes: Buffer | null): string | null => (bytes ? fromBin(bytes) : null);
