import * as z from '@/core/units/schema';
import { ID_PATTERN, NOT_AN_ID } from '../units/id';
import { readCompareAsk, writeCompareAsk } from './compare-address';

/** A comparison by name: what it is asked lives in its address. */
export type SavedView = { id: string; name: string; address: string };
/** More nobody finds again. */
export const MOST_VIEWS = 40;

/** What the page sends: an address that says other than a comparison can be asked is brought to what it can. */
export const viewForm = z.object({
  id: z.string().check(z.regex(ID_PATTERN, NOT_AN_ID)),
  name: z.string().check(z.trim(), z.minLength(1, 'A name by which it is found again'), z.maxLength(60, 'At most 60 characters')),
  address: z.string().check(z.maxLength(1000, 'Too long to be kept')),
});

/** An address as it is kept: only what a comparison understands. */
export function viewAddress(address: string): string {
  const q = new URLSearchParams(address.replace(/^\?/, ''));
  return writeCompareAsk(readCompareAsk((name) => q.get(name)));
}
