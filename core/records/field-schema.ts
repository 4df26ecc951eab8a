import * as z from '@/core/units/schema';
import { ID_PATTERN, NOT_AN_ID } from '../units/id';
import { DECIMAL, MOST_PRICE } from '../units/money';
import { accountNumber, privateNumber } from './private-number';

/** Building stones of the record schemas: each has its bounds and one sentence per bound, for form and server alike. */
export const uuid = z.string().check(z.regex(ID_PATTERN, NOT_AN_ID));

/** What may be missing: blank is `null`. */
export const maybe = <S extends z.ZodMiniType>(schema: S) => z._default(z.nullable(schema), null);
/** A list that may be missing: blank is empty. */
export const listOf = <S extends z.ZodMiniType>(schema: S, most: number, tooMany: string) => z._default(z.array(schema).check(z.maxLength(most, tooMany)), []);

const refuses = (why: (s: string) => string | null) =>
  z.superRefine<string>((s, ctx) => {
    const message = why(s);
    if (message) ctx.addIssue({ code: 'custom', message });
  });
export const line = (max: number) => z.string().check(z.trim(), z.maxLength(max, `At most ${max} characters`));
/** Empty is missing. */
export const orMissing = (schema: z.ZodMiniString) =>
  maybe(
    z.pipe(
      schema,
      z.transform((s: string) => (s === '' ? null : s)),
    ),
  );

/** A name that a driver types: trimmed, bounded, and never a card or hardware number. */
export const name = (max: number, missing: string) => line(max).check(z.minLength(1, missing), refuses(privateNumber));
/** A name of something that pays: no long number at all. */
export const payName = (max: number, missing: string) => line(max).check(z.minLength(1, missing), refuses(accountNumber));

/** Free text that may be missing; empty is missing. */
export const text = (max: number) => orMissing(line(max).check(refuses(privateNumber)));
export const payText = (max: number) => orMissing(line(max).check(refuses(accountNumber)));

/** As deep as any file may be. */
const DEEPEST = 64;
const isShallow = (v: unknown, left = DEEPEST): boolean =>
  typeof v !== 'object' || v === null || (left > 0 && Object.values(v).every((x) => isShallow(x, left - 1)));
function isJsonObject(text: string): boolean {
  try {
    const value: unknown = JSON.parse(text);
    return typeof value === 'object' && value !== null && !Array.isArray(value) && isShallow(value);
  } catch {
    return false;
  }
}
/** An object of JSON as it came with a file. */
export const jsonObject = (max: number) =>
  z.string().check(z.maxLength(max, `At most ${max} characters`), z.refine(isJsonObject, 'An object of JSON'), refuses(privateNumber));

/** A number with its unit. @param doubt what to think of when it is far too large */
export const amount = (unit: string, least: number, most: number, doubt = '') =>
  z.number(`A number of ${unit}`).check(z.minimum(least, `At least ${least} ${unit}`), z.maximum(most, `At most ${most} ${unit}${doubt ? `: ${doubt}` : ''}`));
export const maybeAmount = (unit: string, least: number, most: number, doubt = '') => maybe(amount(unit, least, most, doubt));
export const maybeWhole = (unit: string, least: number, most: number) =>
  maybe(amount(unit, least, most).check(z.refine(Number.isInteger, `A whole number of ${unit}`)));

export const yesNo = maybe(z.boolean());
/** A calendar day within the years that a record may name: earlier ones come back from a column of dates as others. */
export const day = z.iso.date('A date such as 2025-10-14').check(z.refine((d) => d >= '1990-01-01' && d <= '2100-01-01', 'Between 1990 and 2100'));
export const maybeDay = maybe(day);
export const choice = <const T extends readonly [string, ...string[]]>(of: T) => maybe(z.enum(of));

export const currency = z.string().check(z.regex(/^[A-Z]{3}$/, 'Three letters, such as EUR'));
/** Decimal string of money. @param most `MOST_PRICE` for what a unit costs */
export const price = (most: number = MOST_PRICE) =>
  z.string().check(
    z.trim(),
    z.regex(DECIMAL, 'A decimal number such as 0.55'),
    z.refine((s) => Number(s) >= 0 && Number(s) <= most, `Between 0 and ${most}`),
  );
