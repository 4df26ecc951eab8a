import * as z from '@/core/units/schema';
import { CONSUMPTIONS } from '../units/consumption';
import { NO_WISHES, type Wishes } from './wishes';

/** One schema for the page and the server. */
export const wishesForm = z.object({
  distance: z.enum(['km', 'mi']),
  consumption: z.enum(CONSUMPTIONS),
  emergencyNumber: z.nullable(z.string().check(z.trim(), z.regex(/^\+?[0-9][0-9 ]{1,18}$/, 'A telephone number, such as 112'))),
  photoPosition: z.boolean(),
  usualStop: z.nullable(z.string().check(z.maxLength(400, 'Too long to be kept'))),
}) satisfies z.ZodMiniType<Wishes>;

/** Some of them: what is not named stays as it is. */
export const someWishes = z.partial(wishesForm);

/** Wishes as they were kept; what is missing or odd is as usual. @param kept an object, its JSON, or nothing */
export function readWishes(kept: unknown): Wishes {
  let found: unknown = kept;
  if (typeof kept === 'string')
    try {
      found = JSON.parse(kept);
    } catch {
      found = null;
    }
  if (typeof found !== 'object' || found === null) return NO_WISHES;
  const wishes: Record<string, unknown> = { ...NO_WISHES };
  for (const key of Object.keys(NO_WISHES) as (keyof Wishes)[]) {
    const one = wishesForm.shape[key].safeParse((found as Record<string, unknown>)[key]);
    if (one.success) wishes[key] = one.data;
  }
  return wishes as Wishes;
}
