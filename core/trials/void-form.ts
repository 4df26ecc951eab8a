import * as z from '@/core/units/schema';
import { ID_PATTERN, NOT_AN_ID } from '../units/id';

const id = () => z.string().check(z.regex(ID_PATTERN, NOT_AN_ID));
/** A round that is not to count, and why: one schema for page and server. */
export const voidForm = z.object({
  visitId: id(),
  trialId: id(),
  /** The word of the round in the visit. */
  run: id(),
  reason: z.string().check(z.trim(), z.minLength(1, 'Say why it does not count'), z.maxLength(200, 'At most 200 characters')),
});
export type VoidForm = z.infer<typeof voidForm>;
