import { parse } from 'uuid';

/** UUID text to the 16 bytes kept in SQL, unswapped. */
export const toBin = (id: string): Buffer => Buffer.from(parse(id));
export const toBinOrNull = (id: string | null | undefined): Buffer | null => (id ? toBin(id) : null);
/** 16 bytes to UUID text in lower case with hyphens; damaged ones too, so that what is damaged can be named. */
export const fromBin = (bytes: Buffer): string => bytes.toString('hex').replace(/^(.{8})(.{4})(.{4})(.{4})(.*)$/, '$1-$2-$3-$4-$5');
export const fromBinOrNull = (bytes: Buffer | null): string | null => (bytes ? fromBin(bytes) : null);
