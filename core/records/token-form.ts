import * as z from '@/core/units/schema';
import { ID_PATTERN, NOT_AN_ID } from '../units/id';

/** More nobody keeps apart. */
export const MOST_TOKENS = 20;
const id = () => z.string().check(z.regex(ID_PATTERN, NOT_AN_ID));

/** What a person says of a token that is made: its name, whether it writes, and in which of their households it opens. */
export const tokenForm = z.object({
  name: z.string().check(z.trim(), z.minLength(1, 'A name by which you know it again'), z.maxLength(60, 'At most 60 characters')),
  write: z.boolean(),
  households: z.array(id()).check(z.minLength(1, 'At least one household'), z.maxLength(50)),
});
export const endTokenForm = z.object({ id: id() });
