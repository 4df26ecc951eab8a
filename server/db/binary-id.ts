import { parse, stringify } from 'uuid';

/** UUID text to the 16 bytes kept in SQL, unswapped. */
export const toBin = (id: string): Buffer => Buffer.from(parse(id));
export const toBinOrNull = (id: string | null | undefined): Buffer | null => (id ? toBin(id) : null);
/** 16 bytes to UUID text in lower case with hyphens. */
export const fromBin = (bytes: Buffer): string => stringify(bytes);
export const fromBinOrNull = (bytes: Buffer | null): string | null => (bytes ? stringify(bytes) : null);
