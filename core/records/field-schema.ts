import * as z from 'zod';
import { ID_PATTERN, NOT_AN_ID } from '../units/id';
import { DECIMAL } from '../units/money';
import { accountNumber, privateNumber } from './private-number';

/** Building stones of the record schemas: each has its bounds and one sentence per bound, for form and server alike. */
export const uuid = z.string().regex(ID_PATTERN, NOT_AN_ID);

const refuses = (why: (s: string) => string | null) => (s: string, ctx: z.core.$RefinementCtx<string>) => {
  const message = why(s);
  if (message) ctx.addIssue({ code: 'custom', message });
};
const line = (max: number) => z.string().trim().max(max, `At most ${max} characters`);

/** A name that a driver types: trimmed, bounded, and never a card or hardware number. */
export const name = (max: number, missing: string) => line(max).min(1, missing).superRefine(refuses(privateNumber));
/** A name of something that pays: no long number at all. */
export const payName = (max: number, missing: string) => line(max).min(1, missing).superRefine(refuses(accountNumber));

/** Free text that may be missing; empty is missing. */
export const text = (max: number) =>
  line(max)
    .superRefine(refuses(privateNumber))
    .transform((s) => (s === '' ? null : s))
    .nullable()
    .default(null);
export const payText = (max: number) =>
  line(max)
    .superRefine(refuses(accountNumber))
    .transform((s) => (s === '' ? null : s))
    .nullable()
    .default(null);

/** A number with its unit. @param doubt what to think of when it is far too large */
export const amount = (unit: string, least: number, most: number, doubt = '') =>
  z
    .number(`A number of ${unit}`)
    .min(least, `At least ${least} ${unit}`)
    .max(most, `At most ${most} ${unit}${doubt ? `: ${doubt}` : ''}`);
export const maybeAmount = (unit: string, least: number, most: number, doubt = '') => amount(unit, least, most, doubt).nullable().default(null);
export const maybeWhole = (unit: string, least: number, most: number) =>
  amount(unit, least, most).refine(Number.isInteger, `A whole number of ${unit}`).nullable().default(null);

export const yesNo = z.boolean().nullable().default(null);
/** A calendar day within the years that a record may name: earlier ones come back from a column of dates as others. */
export const day = z.iso.date('A date such as 2025-10-14').refine((d) => d >= '1990-01-01' && d <= '2100-01-01', 'Between 1990 and 2100');
export const maybeDay = day.nullable().default(null);
export const choice = <const T extends readonly [string, ...string[]]>(of: T) => z.enum(of).nullable().default(null);

export const currency = z.string().regex(/^[A-Z]{3}$/, 'Three letters, such as EUR');
/** Decimal string of money. */
export const price = (most: number) =>
  z
    .string()
    .trim()
    .regex(DECIMAL, 'A decimal number such as 0.55')
    .refine((s) => Number(s) >= 0 && Number(s) <= most, `Between 0 and ${most}`);
